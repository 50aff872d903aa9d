#include "core/remedy/write_image.h"

#include "core/base/byte_ranges.h"
#include "core/base/superblock.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/image_bytes.h"
#include "core/remedy/changes/file_changes.h"
#include "core/salvage/image_map.h"

#include <fmt/format.h>
#include <linux/fs.h>
#include <sys/ioctl.h>
#include <sys/stat.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::size_t step = 4U << 20; // bytes

/// Whether a file is one that the catalogue knows.
Result<bool> isHolding(const Catalogue& catalogue, const BytePath& path) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    for (const auto& volume : *volumes) {
        const auto within = relativeTo(path, volume.root);
        const auto holding =
            within ? Holdings(catalogue).at(volume.id, *within) : Result(std::optional<Holding>());
        RETURN_IF_FAILED(holding);
        if (*holding) {
            return true;
        }
    }
    return false;
}

class Writing {
  public:
    Writing(const ImageWriting& request, RunControl& control, const ProgressSink& onProgress)
        : request_(request), control_(control), onProgress_(onProgress) {}

    Result<WrittenImage> run(const WriteTarget& target) {
        for (const auto phase : {&Writing::open, &Writing::write, &Writing::flush, &Writing::compare}) {
            RETURN_IF_FAILED((this->*phase)(target));
        }
        return WrittenImage{image_.size, unread_};
    }

  private:
    Outcome open(const WriteTarget& target) {
        auto image = openMeasured(request_.image, control_);
        const auto unread = image ? unreadOf(request_.image) : Result<std::vector<ByteRange>>(image.error());
        RETURN_IF_FAILED(unread);
        unread_ = lengthOf(*unread);
        image_ = std::move(*image);
        bytes_ = bytesOf(image_, request_.image);
        if (image_.size == 0 || image_.size > target.bytes) {
            return Error{Cause::invalid, request_.target,
                         image_.size == 0
                             ? displayPath(request_.image) + " is empty."
                             : fmt::format("{} has {}, and the image {}.", displayPath(target.path),
                                           humanBytes(target.bytes), humanBytes(image_.size))};
        }
        struct stat ours {};
        struct stat status {};
        if (stat(request_.target.c_str(), &ours) != 0) {
            return systemError(errno, "look at", request_.target);
        }
        for (const auto& file : image_.files) {
            if (fstat(file.get(), &status) != 0 ||
                (status.st_dev == ours.st_dev && status.st_ino == ours.st_ino) ||
                (S_ISBLK(ours.st_mode) && status.st_dev == ours.st_rdev)) {
                return Error{Cause::invalid, request_.target,
                             "The image lies on what it would be written over."};
            }
        }
        // Of a drive that is in use the kernel refuses this (open(2): O_EXCL without O_CREAT).
        const int exclusive = S_ISBLK(ours.st_mode) ? O_EXCL : 0;
        target_ = FileHandle(::open(request_.target.c_str(), O_RDWR | O_CLOEXEC | exclusive));
        return target_ ? done() : Outcome(systemError(errno, "write", request_.target));
    }

    Outcome write(const WriteTarget& target) {
        return eachStep(target, "writing",
                        [&](std::uint64_t at, std::span<const std::uint8_t> bytes) -> Outcome {
                            for (std::size_t have = 0; have < bytes.size();) {
                                const auto put = pwrite(target_.get(), bytes.data() + have,
                                                        bytes.size() - have, static_cast<off_t>(at + have));
                                if (put < 0 && errno == EINTR) {
                                    continue;
                                }
                                if (put <= 0) {
                                    return systemError(put < 0 ? errno : ENOSPC, "write", request_.target);
                                }
                                have += static_cast<std::size_t>(put);
                            }
                            return done();
                        });
    }

    Outcome flush(const WriteTarget& /*target*/) {
        if (fsync(target_.get()) != 0) {
            return systemError(errno, "flush", request_.target);
        }
        ioctl(target_.get(), BLKFLSBUF, 0); // a file has no such thing
        posix_fadvise(target_.get(), 0, 0, POSIX_FADV_DONTNEED);
        return done();
    }

    Outcome compare(const WriteTarget& target) {
        std::vector<std::uint8_t> there(step);
        return eachStep(
            target, "comparing", [&](std::uint64_t at, std::span<const std::uint8_t> bytes) -> Outcome {
                const auto part = std::span(there).first(bytes.size());
                const auto got = readAt(target_, request_.target, at, part);
                RETURN_IF_FAILED(got);
                return *got == bytes.size() && std::ranges::equal(part, bytes)
                           ? done()
                           : Outcome(Error{
                                 Cause::damaged, request_.target,
                                 fmt::format("{} reads back otherwise than it was written, near byte {}: it "
                                             "does not keep what it is given.",
                                             displayPath(target.path), humanCount(at))});
            });
    }

    template <typename OnBytes>
    Outcome eachStep(const WriteTarget& target, const char* what, OnBytes onBytes) {
        const auto began = std::chrono::steady_clock::now();
        std::vector<std::uint8_t> bytes(step);
        Progress progress;
        progress.totalBytes = image_.size;
        progress.at = fmt::format("{} {}", what, displayPath(target.path));
        for (std::uint64_t at = 0; at < image_.size; at += step) {
            if (!control_.proceed()) {
                return Error{Cause::interrupted, request_.target,
                             fmt::format("Stopped while {} {} of {}; what is on {} now is no whole image.",
                                         what, humanBytes(at), humanBytes(image_.size),
                                         displayPath(target.path))};
            }
            const auto part = std::span(bytes).first(
                static_cast<std::size_t>(std::min<std::uint64_t>(step, image_.size - at)));
            if (bytes_->readAt(at, part) != static_cast<std::int64_t>(part.size())) {
                return Error{Cause::unreadable, request_.image,
                             displayPath(request_.image) + " cannot be read."};
            }
            if (const auto taken = onBytes(at, part); !taken) {
                return taken;
            }
            progress.bytes = at + part.size();
            progress.elapsed =
                std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
            onProgress_(progress);
        }
        return done();
    }

    const ImageWriting& request_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    OpenedImage image_;
    std::unique_ptr<ByteSource> bytes_;
    FileHandle target_;
    std::uint64_t unread_ = 0;
};

} // namespace

Result<WriteTarget> lookAtTarget(const Catalogue& catalogue, const BytePath& path) {
    const auto drive = openDrive(path);
    const auto use = drive ? useOf(path) : Result<DriveUse>(drive.error());
    const auto known = use && !drive->isDevice ? isHolding(catalogue, path) : Result(false);
    if (!use || !known) {
        return use ? known.error() : use.error();
    }
    WriteTarget target;
    target.path = path;
    target.bytes = drive->size;
    target.use = *use;
    target.label = superblockValue(path, "LABEL");
    if (target.label.empty()) {
        target.label = nameOf(realPathOf(path).value_or(path));
    }
    target.whyNot = !use->isFree() ? displayPath(path) + " cannot be written over: " + wordsFor(*use) + "."
                    : *known       ? displayPath(path) + " is a recording of the collection."
                                   : "";
    return target;
}

Result<WrittenImage> writeImage(Catalogue& catalogue, const ImageWriting& request, RunControl& control,
                                const ProgressSink& onProgress) {
    const auto target = lookAtTarget(catalogue, request.target);
    RETURN_IF_FAILED(target);
    if (!target->whyNot.empty()) {
        return Error{Cause::busy, request.target, target->whyNot};
    }
    if (request.typedLabel != target->label || request.typedBytes != target->bytes) {
        return Error{
            Cause::invalid, request.target,
            fmt::format("All that is on {} would be lost. Its label is \"{}\" and its size {} bytes; type "
                        "both to say that it is the right one.",
                        displayPath(request.target), target->label, target->bytes)};
    }
    const LedgerStore ledger(catalogue);
    const auto what = displayPath(request.image) + " onto " + displayPath(request.target);
    const auto entry = ledger.open("image", "Writing " + what, std::nullopt);
    RETURN_IF_FAILED(entry);
    auto written = Writing(request, control, onProgress).run(*target);
    const auto closed =
        ledger.close(*entry, written ? "Wrote " + what + ", and compared it."
                                     : "Did not write all of " + what + ": " + written.error().sentence);
    return !written || closed ? written : Result<WrittenImage>(closed.error());
}

} // namespace sober
