#include "core/remedy/write_bag.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/exchange/bag.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"
#include "core/survey/walk.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

namespace sober {
namespace {

constexpr auto digest = ListedChecksum::sha256;

Outcome whyNotThere(const Catalogue& catalogue, const BytePath& to) {
    if (isTaken(to)) {
        return Error{Cause::alreadyThere, to,
                     displayPath(to) + " is there already; a bag is written to a new place."};
    }
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto within = std::ranges::find_if(
        *volumes, [&](const Volume& volume) { return volume.atHand && isWithin(to, volume.root); });
    return within == volumes->end()
               ? done()
               : Outcome(
                     Error{Cause::refused, to,
                           fmt::format("{} lies on the volume {}, on which only a docket changes anything.",
                                       displayPath(to), within->label)});
}

/// One copy, proven.
Result<std::string> copyProven(const BytePath& from, const BytePath& to, Unflushed& unflushed,
                               RunControl& control) {
    const auto before = checksumOfFile(from, digest, control);
    if (!before) {
        return before;
    }
    RETURN_IF_FAILED(copyToNew(from, to, unflushed));
    RETURN_IF_FAILED(flushFile(to));
    const auto after = checksumOfFile(to, digest, control);
    if (after && *after != *before) {
        return Error{Cause::damaged, to, displayPath(to) + " reads back otherwise than it was written."};
    }
    return after;
}

Outcome writeTagFile(const BytePath& path, const std::string& text, Unflushed& unflushed) {
    const auto written = writeNewFile(path, text, unflushed);
    return written ? flushFile(path) : written;
}

Outcome confirm(const BytePath& to, Unflushed& unflushed) {
    unflushed.flush();
    return unflushed.isEmpty()
               ? done()
               : Outcome(Error{Cause::unreadable, to,
                               displayPath(to) + ": its drive has not confirmed that the bag is "
                                                 "written; check it, or write it again."});
}

Outcome writeTagFiles(const BytePath& to, const WrittenBag& bag, std::span<const ListedFile> payload,
                      Unflushed& unflushed, RunControl& control) {
    const std::string info =
        fmt::format("Bag-Software-Agent: Sober Archivist\nBagging-Date: {}\nPayload-Oxum: {}.{}\n",
                    isoUtc(timeNow()).substr(0, 10), bag.bytes, bag.files);
    const std::vector<std::pair<BytePath, std::string>> tagFiles{
        {"manifest-sha256.txt", bagManifestText(payload)},
        {"bag-info.txt", info},
        {"bagit.txt", "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n"}};
    std::vector<ListedFile> listed;
    for (const auto& [name, text] : tagFiles) {
        // The declaration comes last; its checksum is that of the text that will be written.
        const auto path = joinPath(to, name + (name == "bagit.txt" ? ".making" : ""));
        if (const auto written = writeTagFile(path, text, unflushed); !written) {
            return written;
        }
        auto sum = checksumOfFile(path, digest, control);
        RETURN_IF_FAILED(sum);
        listed.push_back({name, std::move(*sum)});
    }
    if (const auto written =
            writeTagFile(joinPath(to, "tagmanifest-sha256.txt"), bagManifestText(listed), unflushed);
        !written) {
        return written;
    }
    if (const auto flushed = confirm(to, unflushed); !flushed) {
        return flushed;
    }
    const auto declared = moveEntry(joinPath(to, "bagit.txt.making"), joinPath(to, "bagit.txt"), unflushed);
    return declared ? confirm(to, unflushed) : declared;
}

} // namespace

Result<WrittenBag> writeBag(const Catalogue& catalogue, const BytePath& folder, const BytePath& to,
                            RunControl& control, const ProgressSink& onProgress) {
    const auto from = realPathOf(folder);
    const auto place = placeOf(to);
    if (!from || !place) {
        return Error{Cause::notFound, from ? to : folder, displayPath(from ? to : folder) + " is not there."};
    }
    RETURN_IF_FAILED(whyNotThere(catalogue, *place));
    auto walk = walkVolume(*from, {}, {}, control);
    if (!walk.errors.empty()) {
        return Error{Cause::unreadable, walk.errors.front().path, walk.errors.front().sentence};
    }
    std::ranges::sort(walk.files, {}, &WalkedFile::path);
    Progress progress;
    progress.totalFiles = walk.files.size();
    for (const auto& file : walk.files) {
        progress.totalBytes += file.stamp.size;
        if (!isUtf8(file.path)) {
            return Error{Cause::refused, file.path,
                         displayPath(file.path) + ": its name is not UTF-8, and a bag could not list it."};
        }
    }
    Unflushed unflushed;
    RETURN_IF_FAILED(makeFolder(joinPath(*place, "data"), 0777, unflushed));
    RETURN_IF_FAILED(hasRoomFor(joinPath(*place, "data"), progress.totalBytes));
    WrittenBag bag;
    std::vector<ListedFile> payload;
    for (const auto& file : walk.files) {
        progress.at = displayPath(file.path);
        onProgress(progress);
        const auto name = joinPath("data", file.path);
        const auto target = joinPath(*place, name);
        RETURN_IF_FAILED(makeFolder(BytePath(parentOf(target)), 0777, unflushed));
        auto sum = copyProven(joinPath(*from, file.path), target, unflushed, control);
        RETURN_IF_FAILED(sum);
        payload.push_back({name, std::move(*sum)});
        ++bag.files;
        bag.bytes += file.stamp.size;
        ++progress.files;
        progress.bytes = bag.bytes;
    }
    const auto written = writeTagFiles(*place, bag, payload, unflushed, control);
    return written ? Result<WrittenBag>(bag) : Result<WrittenBag>(written.error());
}

} // namespace sober
