#include "core/evidence/fixity_reading.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/worker/inside_reader.h"

#include <openssl/evp.h>
#include <tbb/parallel_pipeline.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <fcntl.h>
#include <memory>
#include <mutex>
#include <thread>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::size_t mostInFlight = 6;         // pieces
constexpr std::size_t pieceLength = 256U << 10; // stays in the second-level cache until its checksum is taken
using Buffer = std::unique_ptr<std::uint8_t[]>;

/// A file while it is read.
struct OpenedFile {
    std::size_t number = 0;
    FileHandle handle;
    FixityReading reading;
    std::optional<Error> error;
    bool finished = false;
};

/// Some bytes of one file on their way from the reader to the checksum.
struct Piece {
    std::shared_ptr<OpenedFile> file;
    Buffer bytes;
    std::size_t length = 0;
    std::uint64_t at = 0; ///< in the file
    bool last = false;
};

/// Keeps a rate on average over the run.
class Throttle {
  public:
    explicit Throttle(std::uint64_t mostPerSecond) : most_(mostPerSecond) {}
    void spent(std::size_t bytes) {
        bytes_ += bytes;
        if (most_ > 0) {
            const std::chrono::duration<double> due(static_cast<double>(bytes_) / static_cast<double>(most_));
            std::this_thread::sleep_until(began_ + std::chrono::duration_cast<std::chrono::nanoseconds>(due));
        }
    }

  private:
    std::uint64_t most_;
    std::uint64_t bytes_ = 0;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

class Reader {
  public:
    Reader(std::span<const BytePath> paths, const ReadingChoices& choices, RunControl& control,
           const std::function<void(std::uint64_t)>& onBytes,
           const std::function<void(std::size_t, Result<FixityReading>)>& take)
        : paths_(paths),
          choices_(choices),
          control_(control),
          onBytes_(onBytes),
          take_(take),
          throttle_(choices.mostPerSecond) {
        if (choices_.strong) {
            digest_.reset(EVP_MD_CTX_new());
        }
    }

    /// The checksums are taken beside the reading, on another processor.
    void run() {
        tbb::parallel_pipeline(
            mostInFlight,
            tbb::make_filter<void, Piece*>(tbb::filter_mode::serial_in_order,
                                           [this](tbb::flow_control& flow) -> Piece* {
                                               auto piece = next();
                                               if (!piece) {
                                                   flow.stop();
                                               }
                                               return piece.release();
                                           }) &
                tbb::make_filter<Piece*, void>(tbb::filter_mode::serial_in_order, [this](Piece* piece) {
                    finish(std::unique_ptr<Piece>(piece));
                }));
    }

  private:
    /// Blocks' bytes are used again: fresh ones would cost as much as the reading.
    Buffer takeBuffer() {
        {
            const std::lock_guard lock(mutex_);
            if (!free_.empty()) {
                auto buffer = std::move(free_.back());
                free_.pop_back();
                return buffer;
            }
        }
        return std::make_unique_for_overwrite<std::uint8_t[]>(pieceLength);
    }

    /// The next block of the files in turn; nothing at the end or once cancelled.
    std::unique_ptr<Piece> next() {
        while (!file_ || file_->finished) {
            if (number_ == paths_.size() || !control_.proceed()) {
                return nullptr;
            }
            open(number_++);
        }
        auto piece = std::make_unique<Piece>();
        piece->file = file_;
        if (file_->error || !control_.proceed()) {
            file_->finished = true;
            piece->last = true;
            if (!file_->error) {
                file_->error = Error{Cause::interrupted, paths_[file_->number], "Stopped."};
            }
            return piece;
        }
        const auto left = file_->reading.stamp.size - at_;
        piece->length = static_cast<std::size_t>(std::min<std::uint64_t>(pieceLength, left));
        piece->bytes = takeBuffer();
        piece->at = at_;
        fill(*piece);
        at_ += piece->length;
        if (at_ == file_->reading.stamp.size || file_->error) {
            close();
            piece->last = true;
        }
        throttle_.spent(piece->length);
        onBytes_(piece->length);
        return piece;
    }

    void open(std::size_t number) {
        file_ = std::make_shared<OpenedFile>();
        file_->number = number;
        at_ = 0;
        const auto inner = innerPathOf(paths_[number]);
        const auto archive =
            inner && choices_.fromMedium ? openForReading(inner->archive) : Result<FileHandle>(FileHandle());
        if (archive && *archive) {
            posix_fadvise(archive->get(), 0, 0, POSIX_FADV_DONTNEED);
        }
        auto handle = openContent(paths_[number]);
        if (!handle) {
            file_->error = handle.error();
            return;
        }
        const auto stamp = stampOf(*handle, paths_[number]);
        if (!stamp) {
            file_->error = stamp.error();
            return;
        }
        file_->reading.stamp = *stamp;
        file_->handle = std::move(*handle);
        if (choices_.fromMedium) {
            posix_fadvise(file_->handle.get(), 0, 0, POSIX_FADV_DONTNEED);
        }
        posix_fadvise(file_->handle.get(), 0, 0, POSIX_FADV_SEQUENTIAL);
    }

    void fill(Piece& piece) {
        const auto got = readPastFaults(file_->handle, paths_[file_->number], at_,
                                        {piece.bytes.get(), piece.length}, file_->reading.unreadable);
        if (!got) {
            file_->error = got.error();
        } else if (*got != piece.length) {
            changedMeanwhile();
        }
    }

    void close() {
        file_->finished = true;
        if (!file_->error) {
            const auto stamp = stampOf(file_->handle, paths_[file_->number]);
            if (!stamp || !stamp->sameContentAs(file_->reading.stamp)) {
                changedMeanwhile();
            }
        }
        if (choices_.fromMedium) {
            posix_fadvise(file_->handle.get(), 0, 0, POSIX_FADV_DONTNEED);
        }
        file_->handle.reset();
    }

    void changedMeanwhile() {
        const auto& path = paths_[file_->number];
        file_->error = Error{Cause::changed, path, displayPath(path) + " was written to while it was read."};
    }

    void finish(std::unique_ptr<Piece> piece) {
        auto& file = *piece->file;
        addToBlock(*piece);
        if (choices_.strong) {
            digestOf(*piece);
        }
        if (piece->bytes) {
            const std::lock_guard lock(mutex_);
            free_.push_back(std::move(piece->bytes));
        }
        if (piece->last) {
            take_(file.number, file.error ? Result<FixityReading>(*file.error)
                                          : Result<FixityReading>(std::move(file.reading)));
        }
    }

    void addToBlock(const Piece& piece) {
        if (piece.at % checksumBlock == 0) {
            block_.emplace();
        }
        block_->feed({piece.bytes.get(), piece.length});
        const auto end = piece.at + piece.length;
        if (piece.length > 0 && (end % checksumBlock == 0 || piece.last)) {
            piece.file->reading.blocks.push_back(block_->finish());
        }
    }

    void digestOf(const Piece& piece) {
        auto& reading = piece.file->reading;
        if (piece.at == 0) {
            EVP_DigestInit_ex(digest_.get(), EVP_sha256(), nullptr);
        }
        EVP_DigestUpdate(digest_.get(), piece.bytes.get(), piece.length);
        if (piece.last) {
            reading.sha256.emplace();
            EVP_DigestFinal_ex(digest_.get(), reading.sha256->data(), nullptr);
        }
    }

    struct FreeDigest {
        void operator()(EVP_MD_CTX* context) const { EVP_MD_CTX_free(context); }
    };

    std::span<const BytePath> paths_;
    const ReadingChoices& choices_;
    RunControl& control_;
    const std::function<void(std::uint64_t)>& onBytes_;
    const std::function<void(std::size_t, Result<FixityReading>)>& take_;
    Throttle throttle_;
    std::shared_ptr<OpenedFile> file_;
    std::uint64_t at_ = 0;
    std::size_t number_ = 0;
    std::unique_ptr<EVP_MD_CTX, FreeDigest> digest_;
    std::optional<RunningChecksum> block_; ///< of the block that goes by
    std::mutex mutex_;
    std::vector<Buffer> free_;
};

} // namespace

void readForFixity(std::span<const BytePath> paths, const ReadingChoices& choices, RunControl& control,
                   const std::function<void(std::uint64_t)>& onBytes,
                   const std::function<void(std::size_t, Result<FixityReading>)>& take) {
    Reader(paths, choices, control, onBytes, take).run();
}

} // namespace sober
