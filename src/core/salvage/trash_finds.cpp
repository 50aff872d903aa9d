#include "core/salvage/trash_finds.h"

#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/media/carve/piece.h"
#include "core/salvage/recogniser.h"
#include "core/salvage/trash_folders.h"

#include <algorithm>
#include <map>

namespace sober {
namespace {

/// All trash folders are one source, whose path is empty.
Result<SalvageSource> trashSource(const SalvageStore& store) {
    const auto known = store.sourceOf({});
    if (!known || *known) {
        return known ? Result(**known) : Result<SalvageSource>(known.error());
    }
    SalvageSource source;
    source.state = SalvageState::done;
    source.began = timeNow();
    const auto id = store.begin(source);
    RETURN_IF_FAILED(id);
    source.id = *id;
    return source;
}

Find findOf(const TrashedFile& trashed) {
    Find find;
    find.how = FoundHow::trash;
    find.extents = {{0, trashed.size}};
    find.bytes = trashed.size;
    find.from = trashed.from;
    find.file = trashed.file;
    find.name = BytePath(nameOf(trashed.from.empty() ? trashed.file : trashed.from));
    find.deleted = trashed.deleted;
    find.ends = true;
    return find;
}

/// Examined by as little as recognises it: what is known by its bytes is not decoded. Cause::notAudio where
/// it is none.
Outcome lookAt(const Catalogue& catalogue, EvidenceWorker& worker, Find& find, RunControl& control) {
    const auto passed = worker.passOver(find.file, control, [](std::uint64_t) {});
    RETURN_IF_FAILED(passed);
    const auto same = SalvageStore(catalogue).withBytes(passed->checksums.file);
    RETURN_IF_FAILED(same);
    const auto record = same->empty() ? worker.examine(find.file, control, [](std::uint64_t) {}) : passed;
    RETURN_IF_FAILED(record);
    const auto taken = takeDown(catalogue, find, *record);
    RETURN_IF_FAILED(taken);
    if (!same->empty()) {
        find.sound.reset(); // its bytes are known, and were not decoded here
    }
    return done();
}

bool isOf(const Find& find, const Volume& volume) {
    return isWithin(find.file, volume.root) || isWithin(find.from, volume.root);
}

} // namespace

BytePath noteOfTrashed(const BytePath& file) {
    const BytePath folder(parentOf(file));
    const auto note =
        nameOf(folder) == "files"
            ? joinPath(joinPath(parentOf(folder), "info"), BytePath(nameOf(file)) + ".trashinfo")
        : nameOf(file).starts_with("$R") ? joinPath(folder, "$I" + BytePath(nameOf(file).substr(2)))
                                         : BytePath();
    return !note.empty() && isTaken(note) ? note : BytePath();
}

Result<TrashListing> listTrash(const Catalogue& catalogue, VolumeId volume, RunControl& control,
                               const ProgressSink& onProgress) {
    const SalvageStore store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto source = volumes ? trashSource(store) : Result<SalvageSource>(volumes.error());
    const auto before = source ? store.finds(source->id) : Result<std::vector<Find>>(source.error());
    RETURN_IF_FAILED(before);
    std::map<BytePath, Find> known;
    for (const auto& find : *before) {
        known.emplace(find.file, find);
    }
    auto trashed = trashedFiles(*volumes);
    EvidenceWorker worker;
    TrashListing listing;
    listing.loneNotes = std::move(trashed.loneNotes);
    listing.unread = std::move(trashed.unread);
    std::vector<Find> fresh;
    Progress progress;
    progress.totalFiles = trashed.files.size();
    for (const auto& file : trashed.files) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, {}, "Stopped before all of the trash was looked at."};
        }
        ++progress.files;
        progress.at = displayPath(file.file);
        onProgress(progress);
        auto find = findOf(file);
        const auto same = known.find(file.file);
        if (same != known.end() && same->second.bytes == find.bytes && same->second.deleted == find.deleted) {
            known.erase(same);
            continue;
        }
        if (const auto looked = lookAt(catalogue, worker, find, control); looked) {
            fresh.push_back(std::move(find));
        } else if (!tellsOfTheFile(looked.error())) {
            return looked.error();
        } else if (looked.error().cause != Cause::notAudio) {
            listing.unread.push_back(looked.error());
        }
    }
    std::vector<FindId> gone;
    for (const auto& [file, find] : known) {
        gone.push_back(find.id);
    }
    const auto removed = store.remove(gone);
    const auto added = removed ? store.advance(*source, fresh) : removed;
    auto finds = added ? store.finds(source->id) : Result<std::vector<Find>>(added.error());
    RETURN_IF_FAILED(finds);
    // What the collection knows changes between two looks.
    for (auto& find : *finds) {
        if (find.checksum && find.recognised == RecognisedBy::nothing) {
            const auto holdings = store.withBytes(*find.checksum);
            if (holdings && !holdings->empty()) {
                find.recognised = RecognisedBy::bytes;
                find.holding = holdings->front();
            }
        }
    }
    const auto shared = shareOut(catalogue, *finds);
    // All fingerprints are held against them only where there is something that was not heard yet.
    const auto heard = shared && !fresh.empty() ? recogniseByEar(catalogue, *finds) : shared;
    const auto updated = heard ? store.update(*finds) : heard;
    RETURN_IF_FAILED(updated);
    const auto wanted = std::ranges::find(*volumes, volume, &Volume::id);
    if (wanted != volumes->end()) {
        std::erase_if(*finds, [&](const Find& find) { return !isOf(find, *wanted); });
    }
    std::ranges::stable_sort(*finds, std::ranges::greater{}, &Find::deleted);
    listing.finds = std::move(*finds);
    return listing;
}

} // namespace sober
