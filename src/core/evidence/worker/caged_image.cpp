#include "core/evidence/worker/caged_image.h"

#include "core/base/inner_path.h"
#include "core/base/scratch_file.h"
#include "core/base/text.h"
#include "core/evidence/worker/image_bytes.h"

#include <numeric>

namespace sober {

Result<std::unique_ptr<InsideReader>> CagedImage::open(const BytePath& path) {
    RunControl control;
    auto image = openMeasured(path, control);
    RETURN_IF_FAILED(image);
    EvidenceWorker worker;
    auto systems = worker.fileSystems(*image, path, control);
    RETURN_IF_FAILED(systems);
    if (systems->empty()) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " is named like the image of a drive, and no file system is in it."};
    }
    auto opened = std::unique_ptr<CagedImage>(new CagedImage(path, std::move(*image)));
    for (std::size_t number = 0; number < systems->size(); ++number) {
        opened->wasCut_ |= (*systems)[number].wasCut;
        for (auto& entry : (*systems)[number].entries) {
            if (entry.deleted || entry.size == 0) {
                continue;
            }
            while (entry.path.starts_with('/')) {
                entry.path.erase(0, 1);
            }
            if (systems->size() > 1) {
                entry.path = joinPath(std::to_string(number + 1), entry.path);
            }
            opened->entries_.push_back(std::move(entry));
        }
    }
    return std::unique_ptr<InsideReader>(std::move(opened));
}

Result<std::optional<ArchivedFile>> CagedImage::next() {
    if (at_ == entries_.size()) {
        return wasCut_ ? Result<std::optional<ArchivedFile>>(
                             Error{Cause::damaged, path_,
                                   displayPath(path_) + " holds more files than were looked at."})
                       : std::optional<ArchivedFile>();
    }
    const auto& entry = entries_[at_++];
    return std::optional(ArchivedFile{entry.path, entry.size, entry.changed,
                                      image_.size / std::max<std::size_t>(entries_.size(), 1) * at_});
}

Result<FileHandle> CagedImage::unpack(RunControl& control) {
    const auto& entry = entries_[at_ - 1];
    const auto path = innerPath(path_, entry.path);
    const auto known =
        std::accumulate(entry.extents.begin(), entry.extents.end(), std::uint64_t{0},
                        [](auto sum, const auto& range) { return sum + range.second - range.first; });
    if (known < entry.size) {
        return Error{Cause::damaged, path, displayPath(path) + " cannot be read whole out of its image."};
    }
    auto scratch = openScratchFile(entry.size);
    if (!scratch) {
        return scratch;
    }
    const auto bytes = bytesOf(image_, path_);
    ExtentSource source(*bytes, entry.extents);
    std::vector<std::uint8_t> piece(std::min<std::uint64_t>(1U << 20, entry.size));
    for (std::uint64_t at = 0; at < entry.size;) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped while " + displayPath(path) + " was read."};
        }
        const auto length = static_cast<std::size_t>(std::min<std::uint64_t>(piece.size(), entry.size - at));
        const auto got = source.readAt(at, std::span(piece).first(length));
        if (got <= 0) {
            return Error{Cause::damaged, path, displayPath(path) + " cannot be read whole out of its image."};
        }
        const auto some = std::span(piece).first(static_cast<std::size_t>(got));
        RETURN_IF_FAILED(writeScratch(*scratch, at, some));
        at += some.size();
    }
    stampScratch(*scratch, image_.files.front(), entry.changed);
    return scratch;
}

} // namespace sober
