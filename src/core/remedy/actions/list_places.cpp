#include "core/remedy/actions/list_places.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"

#include <sys/stat.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <fcntl.h>
#include <map>
#include <thread>
#include <unistd.h>

namespace sober {

bool isOpenForWriting(const BytePath& list) {
    // A lease can only be had on a file that nobody else has open for writing (fcntl(2)).
    const FileHandle file(open(list.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
    // Who opens it while we have the lease is announced by a signal that is ignored by default.
    if (!file || fcntl(file.get(), F_SETSIG, SIGURG) != 0 || fcntl(file.get(), F_SETLEASE, F_RDLCK) == 0) {
        return false; // the lease goes with the descriptor
    }
    return errno == EAGAIN;
}

std::optional<std::string> whyNeverChange(const BytePath& list) {
    struct stat status {};
    if (lstat(list.c_str(), &status) != 0) {
        return displayPath(list) +
               (errno == ENOENT || errno == ENOTDIR ? " is not there now." : " cannot be looked at now.");
    }
    if (status.st_nlink > 1) {
        return displayPath(list) +
               " is one file with several names; written anew, the others would keep the old list.";
    }
    if ((status.st_mode & 0222) == 0 || access(list.c_str(), W_OK) != 0 ||
        access(BytePath(parentOf(list)).c_str(), W_OK) != 0) {
        return displayPath(list) + " is read-only; it is left as it is.";
    }
    return std::nullopt;
}

std::optional<std::string> whyNotChange(const BytePath& list) {
    if (auto never = whyNeverChange(list)) {
        return never;
    }
    // A player that has just written needs a moment to close its list.
    for (int attempt = 0; attempt < 5; ++attempt) {
        if (!isOpenForWriting(list)) {
            return std::nullopt;
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    }
    return displayPath(list) + " is open for writing in its player now; close that first.";
}

Result<PlayerShelf> PlayerShelf::of(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    auto players = PlayerStore(catalogue).all();
    auto lists = PlayerStore(catalogue).lists();
    const auto unfinished = LedgerStore(catalogue).unfinished();
    if (!volumes || !players || !lists || !unfinished) {
        return !volumes   ? volumes.error()
               : !players ? players.error()
               : !lists   ? lists.error()
                          : unfinished.error();
    }
    PlayerShelf shelf{std::move(*volumes), std::move(*players), std::move(*lists), {}};
    for (const auto& action : *unfinished) {
        if (action.kind == ActionKind::repoint) {
            shelf.unsettled.insert(action.place);
        }
    }
    return shelf;
}

const ListFile* PlayerShelf::list(ListFileId id) const {
    const auto found = std::ranges::find(lists, id, &ListFile::id);
    return found != lists.end() ? &*found : nullptr;
}

std::optional<std::string> PlayerShelf::whyNever(const ListFile& list) const {
    if (list.away) {
        return "The list " + displayPath(list.path) +
               " leads there and is away now; connect its volume first.";
    }
    if (unsettled.contains(list.path)) {
        return "An earlier change of the list " + displayPath(list.path) + " waits to be settled.";
    }
    return whyNeverChange(list.path);
}

Result<BytePath> placeForReferences(const PlayerShelf& shelf, const BytePath& place,
                                    std::span<const Reference> references,
                                    std::span<const BytePath> candidates) {
    std::string reason = "No copy that stays could take its references over.";
    for (const auto& reference : references) {
        const auto* list = shelf.list(reference.list);
        auto refusal = list != nullptr ? shelf.whyNever(*list)
                                       : std::optional(std::string("A list that leads there is not known any "
                                                                   "more; read the players again."));
        if (refusal) {
            return refusedError(place, std::move(*refusal));
        }
    }
    for (const auto& candidate : candidates) {
        const bool reached = std::ranges::all_of(references, [&](const Reference& reference) {
            const auto* list = shelf.list(reference.list);
            const auto location = locationLeadingTo(candidate, place, reference.location, *list,
                                                    contextOf(*list, shelf.players), shelf.volumes);
            reason = location ? reason : location.error().sentence;
            return location.ok();
        });
        if (reached) {
            return candidate;
        }
    }
    return refusedError(place, reason);
}

Result<std::vector<ConcernedList>> listsConcerned(const Catalogue& catalogue, const PlayerShelf& shelf,
                                                  const NewPlaces& newPlaces) {
    std::vector<BytePath> places;
    for (const auto& [from, to] : newPlaces) {
        places.push_back(from);
    }
    auto references = PlayerStore(catalogue).leadingTo(places);
    RETURN_IF_FAILED(references);
    std::map<ListFileId, std::vector<BytePath>> leading;
    for (auto& reference : *references) {
        leading[reference.list].push_back(std::move(reference.path));
    }
    std::vector<ConcernedList> lists;
    for (const auto& list : shelf.lists) {
        const auto now = list.away ? Result<FileStamp>(Error{Cause::notFound, {}, {}}) : stampAt(list.path);
        const bool changed = now && (now->mtime != list.stamp.mtime || now->size != list.stamp.size ||
                                     now->inode != list.stamp.inode);
        const auto leads = leading.find(list.id);
        if (leads != leading.end() || changed) {
            lists.push_back(
                {&list, leads != leading.end() ? std::move(leads->second) : std::vector<BytePath>()});
        }
    }
    return lists;
}

} // namespace sober
