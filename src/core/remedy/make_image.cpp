#include "core/remedy/make_image.h"

#include "core/base/presence.h"
#include "core/base/room.h"
#include "core/base/text.h"
#include "core/remedy/changes/file_changes.h"

#include <sys/stat.h>

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::uint64_t largeStep = 1U << 20;
constexpr std::uint64_t farthestJump = 64 * largeStep;
constexpr std::uint64_t edgeStep = 32U << 10;
constexpr std::uint64_t oneSector = 512;
constexpr std::uint64_t unflushedMost = 64U << 20; // bytes between two notes in the map
constexpr std::chrono::seconds noteEach(2);

/// What a failing medium answers; anything else says that the source is not there any more.
bool isUnreadable(int failure) {
    return failure == EIO || failure == ENODATA || failure == EILSEQ || failure == EREMOTEIO;
}

class Imaging {
  public:
    Imaging(const ImagingRequest& request, RunControl& control, const ProgressSink& onProgress,
            const std::function<void(const ImageMap&)>& onMap)
        : request_(request),
          mapPath_(request.map.empty() ? mapBeside(request.image) : request.map),
          control_(control),
          onProgress_(onProgress),
          onMap_(onMap) {}

    Result<ImageMap> run() {
        for (const auto phase :
             {&Imaging::openSource, &Imaging::openMap, &Imaging::openTarget, &Imaging::readAll}) {
            if (const auto taken = (this->*phase)(); !taken) {
                const auto noted = image_ ? note() : done(); // what was read stays read
                return noted ? taken.error() : noted.error();
            }
        }
        const auto noted = note();
        return noted ? Result(std::move(map_)) : Result<ImageMap>(noted.error());
    }

  private:
    Outcome openSource() {
        auto source = openDrive(request_.source);
        RETURN_IF_FAILED(source);
        source_ = std::move(*source);
        posix_fadvise(source_.file.get(), 0, 0, POSIX_FADV_SEQUENTIAL);
        return source_.size > 0 ? done()
                                : Outcome(Error{Cause::invalid, request_.source,
                                                displayPath(request_.source) + " is empty."});
    }

    Outcome openMap() {
        const auto map = presenceOf(mapPath_);
        const auto image = presenceOf(request_.image);
        if (map == Presence::gone && image == Presence::gone) {
            map_ = ImageMap(source_.size);
        } else if (map == Presence::there) {
            constexpr std::uint64_t largestMap = 256U << 20;
            const auto text = wholeFile(mapPath_, largestMap);
            auto read = text ? ImageMap::parse(*text) : Result<ImageMap>(text.error());
            if (!read) {
                return Error{read.error().cause, mapPath_,
                             displayPath(mapPath_) + ": " + read.error().sentence};
            }
            if (read->bytes() != source_.size) {
                return refusedError(mapPath_, displayPath(mapPath_) + " is about a source of another size.");
            }
            map_ = std::move(*read);
            if (image == Presence::gone && map_.count(Reading::read) > 0) {
                return refusedError(request_.image,
                                    displayPath(request_.image) +
                                        " is not there any more; remove its map to begin anew.");
            }
            if (image == Presence::there && map_.count(Reading::read) == 0 && !isBegun()) {
                return refusedError(request_.image,
                                    displayPath(request_.image) +
                                        " stands there already, and is not what its map is of.");
            }
        } else {
            return refusedError(request_.image, displayPath(request_.image) +
                                                    " stands there already, and no map says what is in it.");
        }
        if (std::ranges::find(map_.sources, request_.source) == map_.sources.end()) {
            map_.sources.push_back(request_.source);
        }
        return done();
    }

    /// Of an image whose map says nothing yet: empty, or of its source's size.
    bool isBegun() const {
        struct stat image {};
        return stat(request_.image.c_str(), &image) == 0 &&
               (image.st_size == 0 || static_cast<std::uint64_t>(image.st_size) == source_.size);
    }

    Outcome openTarget() {
        struct stat source {};
        struct stat target {};
        const BytePath folder(parentOf(request_.image));
        if (fstat(source_.file.get(), &source) != 0 || stat(folder.c_str(), &target) != 0) {
            return systemError(errno, "look at", folder);
        }
        if (source_.isDevice && source.st_rdev == target.st_dev) {
            return refusedError(request_.image,
                                "The image would be written onto the drive that it is made of.");
        }
        const auto room = roomAt(folder);
        const auto wanted = source_.size - map_.count(Reading::read);
        if (room && room->free != unknownRoom && room->free < wanted) {
            return Error{Cause::full, request_.image,
                         displayPath(folder) + " has no room for the " + humanBytes(wanted) +
                             " that are left."};
        }
        if (presenceOf(request_.image) == Presence::gone) {
            // An image whose map says nothing of it would be taken for somebody's file: the map is first.
            RETURN_IF_FAILED(writeMap());
            Unflushed unflushed;
            if (const auto made = writeNewFile(request_.image, {}, unflushed); !made) {
                return made;
            }
            unflushed.flush();
        }
        auto image = openForChanging(request_.image);
        RETURN_IF_FAILED(image);
        image_ = std::move(*image);
        struct stat own {};
        if (fstat(image_.get(), &own) != 0 || (own.st_dev == source.st_dev && own.st_ino == source.st_ino)) {
            image_.reset();
            return refusedError(request_.image, "The image would be its own source.");
        }
        return ftruncate(image_.get(), static_cast<off_t>(source_.size)) == 0
                   ? note()
                   : Outcome(systemError(errno, "write", request_.image));
    }

    Outcome readAll() {
        began_ = std::chrono::steady_clock::now();
        before_ = map_.count(Reading::read);
        for (const auto pass :
             {&Imaging::readAround, &Imaging::readAhead, &Imaging::readEdges, &Imaging::readSectors}) {
            if (const auto taken = (this->*pass)(); !taken || control_.isCancelled()) {
                return taken;
            }
        }
        for (unsigned i = 0; i < request_.retries && !control_.isCancelled(); ++i) {
            if (const auto taken = readEach(Reading::bad, oneSector, Reading::bad); !taken) {
                return taken;
            }
        }
        return done();
    }

    /// In large steps; behind what cannot be read farther and farther on, so that what is sound is safe
    /// first.
    Outcome readAround() {
        std::uint64_t jump = largeStep;
        for (const auto& [first, past] : map_.ranges(Reading::ahead)) {
            for (auto at = first; at < past && control_.proceed();) {
                const auto end = std::min(past, at + largeStep);
                const auto whole = readInto({at, end}, Reading::step);
                RETURN_IF_FAILED(whole);
                jump = *whole ? largeStep : std::min(jump * 2, farthestJump);
                at = *whole ? end : at + jump;
            }
        }
        return done();
    }
    /// What was jumped over.
    Outcome readAhead() { return readEach(Reading::ahead, largeStep, Reading::step); }

    /// From both ends of what failed, as far as that goes.
    Outcome readEdges() {
        for (const auto& [first, past] : map_.ranges(Reading::step)) {
            auto from = first;
            auto to = past;
            for (bool good = true; good && from < to && control_.proceed();) {
                const auto end = std::min(to, from + edgeStep);
                const auto whole = readInto({from, end}, Reading::sector);
                RETURN_IF_FAILED(whole);
                good = *whole;
                from = end;
            }
            for (bool good = true; good && from < to && control_.proceed();) {
                const auto begin = to - std::min(to - from, edgeStep);
                const auto whole = readInto({begin, to}, Reading::sector);
                RETURN_IF_FAILED(whole);
                good = *whole;
                to = begin;
            }
            if (control_.isCancelled()) {
                return done();
            }
            map_.set({from, to}, Reading::sector);
        }
        return done();
    }

    Outcome readSectors() { return readEach(Reading::sector, oneSector, Reading::bad); }

    Outcome readEach(Reading which, std::uint64_t step, Reading otherwise) {
        for (const auto& [first, past] : map_.ranges(which)) {
            for (auto at = first; at < past && control_.proceed(); at += step) {
                const auto whole = readInto({at, std::min(past, at + step)}, otherwise);
                RETURN_IF_FAILED(whole);
            }
        }
        return done();
    }

    /// Reads a stretch into the image; what is not read of it is `otherwise` from then on. True where all
    /// was.
    Result<bool> readInto(ByteRange range, Reading otherwise) {
        buffer_.resize(static_cast<std::size_t>(range.second - range.first));
        std::size_t have = 0;
        while (have < buffer_.size()) {
            const auto got = pread(source_.file.get(), buffer_.data() + have, buffer_.size() - have,
                                   static_cast<off_t>(range.first + have));
            if (got < 0 && errno == EINTR) {
                continue;
            }
            if (got < 0 && !isUnreadable(errno)) {
                return systemError(errno, "read", request_.source);
            }
            if (got <= 0) {
                break;
            }
            have += static_cast<std::size_t>(got);
        }
        // A part of a sector is none.
        const auto kept = have == buffer_.size() ? have : have / oneSector * oneSector;
        RETURN_IF_FAILED(write(range.first, std::span(buffer_).first(kept)));
        if (range.first + kept < range.second) {
            waiting_.push_back({{range.first + kept, range.second}, otherwise});
        }
        const auto noted = noteNowAndThen();
        return noted ? Result(kept == buffer_.size()) : Result<bool>(noted.error());
    }

    Outcome write(std::uint64_t at, std::span<const std::uint8_t> bytes) {
        std::size_t have = 0;
        while (have < bytes.size()) {
            const auto put =
                pwrite(image_.get(), bytes.data() + have, bytes.size() - have, static_cast<off_t>(at + have));
            if (put < 0 && errno == EINTR) {
                continue;
            }
            if (put <= 0) {
                return systemError(put < 0 ? errno : ENOSPC, "write", request_.image);
            }
            have += static_cast<std::size_t>(put);
        }
        if (have > 0) {
            waiting_.push_back({{at, at + have}, Reading::read});
            unflushed_ += have;
        }
        return done();
    }

    Outcome noteNowAndThen() {
        // Later passes ask the map for what failed: it is always up to date in memory.
        for (const auto& [range, reading] : waiting_) {
            map_.set(range, reading);
        }
        waiting_.clear();
        const auto now = std::chrono::steady_clock::now();
        Progress progress;
        progress.totalBytes = source_.size - before_;
        progress.bytes = map_.count(Reading::read) - before_;
        progress.errors = map_.count(Reading::bad) / oneSector;
        progress.elapsed = std::chrono::duration<double>(now - began_).count();
        progress.at = displayPath(request_.source);
        if (now - told_ > std::chrono::milliseconds(100)) {
            told_ = now;
            onProgress_(progress);
        }
        return unflushed_ >= unflushedMost || now - noted_ > noteEach ? note() : done();
    }

    /// The map says of nothing that it is in the image before that was flushed.
    Outcome note() {
        if (fdatasync(image_.get()) != 0) {
            return systemError(errno, "flush", request_.image);
        }
        noted_ = std::chrono::steady_clock::now();
        unflushed_ = 0;
        return writeMap();
    }

    Outcome writeMap() {
        Unflushed unflushed;
        const auto made = mapPath_ + ".new";
        const auto removed = removeFile(made, unflushed);
        const auto written = removed ? writeNewFile(made, map_.text(), unflushed) : removed;
        const auto flushed = written ? flushFile(made) : written;
        const auto placed = flushed ? replaceEntry(made, mapPath_, unflushed) : flushed;
        unflushed.flush();
        onMap_(map_);
        return placed;
    }

    const ImagingRequest& request_;
    BytePath mapPath_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    const std::function<void(const ImageMap&)>& onMap_;
    OpenedDrive source_;
    FileHandle image_;
    ImageMap map_;
    std::vector<std::uint8_t> buffer_;
    std::vector<std::pair<ByteRange, Reading>> waiting_;
    std::uint64_t unflushed_ = 0;
    std::uint64_t before_ = 0;
    std::chrono::steady_clock::time_point began_;
    std::chrono::steady_clock::time_point noted_;
    std::chrono::steady_clock::time_point told_;
};

} // namespace

Result<ImageMap> makeImage(const ImagingRequest& request, RunControl& control, const ProgressSink& onProgress,
                           const std::function<void(const ImageMap&)>& onMap) {
    return Imaging(request, control, onProgress, onMap).run();
}

} // namespace sober
