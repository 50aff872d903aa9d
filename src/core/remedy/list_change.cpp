#include "core/remedy/list_change.h"

#include "core/base/text.h"
#include "core/remedy/docket.h"
#include "core/remedy/file_changes.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <array>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <fcntl.h>
#include <thread>
#include <unistd.h>

namespace sober {
namespace {

Checksum128 checksumOfText(std::string_view text) {
    return checksumOf({reinterpret_cast<const std::uint8_t*>(text.data()), text.size()});
}

/// The checksum of what stands at a list's place; nothing where nothing can be read there.
std::optional<Checksum128> checksumAt(const BytePath& list) {
    const auto text = wholeFile(list, largestList);
    return text ? std::optional(checksumOfText(*text)) : std::nullopt;
}

/// A lease can only be had on a file that nobody else has open for writing (fcntl(2)); where the file system
/// knows no leases, nothing is known.
bool isOpenForWriting(const BytePath& path) {
    const FileHandle file(open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
    // Who opens it while we have the lease is announced by a signal that is ignored by default.
    if (!file || fcntl(file.get(), F_SETSIG, SIGURG) != 0 || fcntl(file.get(), F_SETLEASE, F_RDLCK) == 0) {
        return false; // the lease goes with the descriptor
    }
    return errno == EAGAIN;
}

Error writtenMeanwhile(const BytePath& list) {
    return {Cause::refused, list,
            displayPath(list) + " was written by its player meanwhile; it is left as it is."};
}

/// Writes `text` beside the list, reads it back from the medium and exchanges it with the list, which has to
/// be as `expected` then.
Outcome swapIn(const LedgerAction& action, std::string_view text, const Checksum128& checksum,
               const Checksum128& expected, const std::function<Outcome()>& mayReplace,
               const CarryOutHooks& hooks) {
    const auto give = [&](const Outcome& failure) {
        removeFile(action.made).ok();
        return failure;
    };
    if (const auto removed = removeFile(action.made); !removed) {
        return removed;
    }
    if (const auto copied = copyToNew(action.place, action.made, std::array{ByteRange{0, UINT64_MAX}});
        !copied) {
        return copied;
    }
    if (const auto written = appendTo(action.made, text); !written) {
        return give(written);
    }
    if (const auto flushed = flushFile(action.made); !flushed) {
        return give(flushed);
    }
    if (checksumAt(action.made) != checksum) {
        return give(Error{Cause::unreadable, action.made,
                          displayPath(action.place) + ": what was written is not what is read back."});
    }
    hooks.onInstant(Instant::made);
    if (const auto may = mayReplace(); !may) {
        return give(may);
    }
    // What lies beside the list is ours to remove only until the two have changed names.
    const auto takeBack = [&](const Error& error) {
        exchangeEntries(action.made, action.place).ok();
        return checksumAt(action.made) == checksum ? give(error) : Outcome(error);
    };
    const auto exchanged = exchangeEntries(action.made, action.place);
    if (!exchanged) {
        return checksumAt(action.made) == checksum ? give(exchanged.error()) : takeBack(exchanged.error());
    }
    if (!*exchanged) {
        const auto replaced = replaceEntry(action.made, action.place);
        hooks.onInstant(Instant::replaced);
        return replaced ? done() : give(replaced);
    }
    hooks.onInstant(Instant::replaced);
    // Whatever its player wrote between the look and the exchange has come out, and goes back.
    if (checksumAt(action.made) != expected) {
        return takeBack(writtenMeanwhile(action.place));
    }
    removeFile(action.made).ok(); // the list is changed, whatever becomes of that
    return done();
}

std::string saysOf(const LedgerAction& action, std::string_view words) {
    std::string sentence = displayPath(action.place);
    sentence += words;
    return sentence;
}

} // namespace

std::optional<std::string> whyNeverChange(const BytePath& list) {
    struct stat status {};
    if (lstat(list.c_str(), &status) != 0) {
        return displayPath(list) + " is not there now.";
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

Outcome changeList(const LedgerStore& ledger, EntryId entry, const BytePath& list, const ReadList& read,
                   std::string_view text, const CarryOutHooks& hooks) {
    if (auto refusal = whyNotChange(list)) {
        return Error{Cause::refused, list, std::move(*refusal)};
    }
    if (const auto checked = parsePlaylist(text, list);
        !checked || checked->entries.size() != read.playlist.entries.size()) {
        return Error{Cause::refused, list,
                     displayPath(list) +
                         " would not be read as the same list afterwards; it is left as it is."};
    }
    LedgerAction action;
    action.entry = entry;
    action.kind = repointKind;
    action.place = list;
    action.size = read.text.size();
    action.checksum = checksumOfText(read.text);
    action.madeChecksum = checksumOfText(text);
    action.made =
        joinPath(parentOf(list), fmt::format(".sober-{}-{}.new", entry, nameOf(list).substr(0, 200)));
    auto started = ledger.startWithList(std::move(action), read.text);
    if (!started) {
        return started.error();
    }
    hooks.onInstant(Instant::journalled);
    const auto unchanged = [&] {
        const auto now = stampAt(list);
        return now && now->sameContentAs(read.stamp) && !isOpenForWriting(list)
                   ? done()
                   : Outcome(writtenMeanwhile(list));
    };
    if (const auto swapped =
            swapIn(*started, text, started->madeChecksum, started->checksum, unchanged, hooks);
        !swapped) {
        ledger.mark(*started, ActionStep::takenBack, swapped.error().sentence).ok();
        return swapped;
    }
    const auto marked = ledger.mark(*started, ActionStep::carriedOut);
    hooks.onInstant(Instant::recorded);
    return marked;
}

Outcome undoListChange(const LedgerStore& ledger, const LedgerAction& action, const CarryOutHooks& hooks) {
    const auto before = ledger.listBefore(action);
    if (!before) {
        return before.error();
    }
    if (auto refusal = whyNotChange(action.place)) {
        return Error{Cause::refused, action.place, std::move(*refusal)};
    }
    if (checksumAt(action.place) == action.checksum) {
        return ledger.mark(action, ActionStep::undone); // it followed a file back already
    }
    const auto ours = ledger.listAfter(action);
    if (!ours) {
        return ours.error();
    }
    const auto unchanged = [&] {
        return checksumAt(action.place) == *ours
                   ? done()
                   : Outcome(Error{Cause::changed, action.place,
                                   displayPath(action.place) +
                                       " was changed by its player since; it stays as it is."});
    };
    if (const auto may = unchanged(); !may) {
        return may;
    }
    if (const auto journalled = ledger.mark(action, ActionStep::undoStarted); !journalled) {
        return journalled;
    }
    hooks.onInstant(Instant::journalled);
    if (const auto swapped = swapIn(action, *before, action.checksum, *ours, unchanged, hooks); !swapped) {
        ledger.mark(action, ActionStep::carriedOut).ok();
        return swapped;
    }
    const auto marked = ledger.mark(action, ActionStep::undone);
    hooks.onInstant(Instant::recorded);
    return marked;
}

Result<std::string> recoverListChange(const LedgerStore& ledger, const LedgerAction& action) {
    auto now = checksumAt(action.place);
    const bool forward = action.step == ActionStep::started;
    const auto& after = forward ? action.madeChecksum : action.checksum;
    if (!now) {
        return saysOf(action,
                      " is not there: its volume seems to be away. This is looked at again at the next "
                      "start.");
    }
    // What came out in the exchange and is not what was read is its player's: it goes back.
    const auto expected = forward ? Result<Checksum128>(action.checksum) : ledger.listAfter(action);
    if (!expected) {
        return expected.error();
    }
    const auto out = checksumAt(action.made);
    if (now == after && out && *out != *expected) {
        if (const auto back = exchangeEntries(action.made, action.place); !back) {
            return back.error();
        }
        now = out;
    }
    if (const auto removed = removeFile(action.made); !removed) {
        return removed.error();
    }
    const auto step = now == after ? forward ? ActionStep::carriedOut : ActionStep::undone
                      : forward    ? ActionStep::takenBack
                                   : ActionStep::carriedOut;
    if (const auto marked = ledger.mark(action, step); !marked) {
        return marked.error();
    }
    return saysOf(action, now != after ? " was not changed yet; it is as it was."
                          : forward    ? " had been changed as decided; the ledger now says so."
                                       : " had been put back as it was; the ledger now says so.");
}

} // namespace sober
