#include "core/evidence/fixity_reading.h"

#include "core/base/text.h"

#include <openssl/evp.h>
#include <tbb/parallel_pipeline.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <fcntl.h>
#include <memory>
#include <thread>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::size_t sector = 4096; // bytes that are given up together where a drive cannot read
constexpr std::size_t inFlight = 8;  // blocks
using Buffer = std::unique_ptr<std::uint8_t[]>;

/// A file while it is read.
struct OpenedFile {
    std::size_t number = 0;
    FileHandle handle;
    FixityReading reading;
    std::optional<Error> error;
    bool finished = false;
};

/// One block on its way from the reader to the checksum.
struct Block {
    std::shared_ptr<OpenedFile> file;
    Buffer bytes;
    std::size_t length = 0;
    Checksum128 checksum;
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

    void run() {
        tbb::parallel_pipeline(
            inFlight,
            tbb::make_filter<void, Block*>(tbb::filter_mode::serial_in_order,
                                           [this](tbb::flow_control& flow) -> Block* {
                                               auto block = next();
                                               if (!block) {
                                                   flow.stop();
                                               }
                                               return block.release();
                                           }) &
                tbb::make_filter<Block*, Block*>(
                    tbb::filter_mode::parallel,
                    [](Block* block) {
                        block->checksum = checksumOf({block->bytes.get(), block->length});
                        return block;
                    }) &
                tbb::make_filter<Block*, void>(tbb::filter_mode::serial_in_order, [this](Block* block) {
                    finish(std::unique_ptr<Block>(block));
                }));
    }

  private:
    /// The next block of the files in turn; nothing at the end or once cancelled.
    std::unique_ptr<Block> next() {
        while (!file_ || file_->finished) {
            if (number_ == paths_.size() || !control_.proceed()) {
                return nullptr;
            }
            open(number_++);
        }
        auto block = std::make_unique<Block>();
        block->file = file_;
        if (file_->error || !control_.proceed()) {
            file_->finished = true;
            block->last = true;
            if (!file_->error) {
                file_->error = Error{Cause::interrupted, paths_[file_->number], "Stopped."};
            }
            return block;
        }
        const auto left = file_->reading.stamp.size - at_;
        block->length = static_cast<std::size_t>(std::min<std::uint64_t>(checksumBlock, left));
        block->bytes =
            std::make_unique_for_overwrite<std::uint8_t[]>(std::max<std::size_t>(block->length, 1));
        fill(*block);
        at_ += block->length;
        if (at_ == file_->reading.stamp.size || file_->error) {
            close();
            block->last = true;
        }
        throttle_.spent(block->length);
        onBytes_(block->length);
        return block;
    }

    void open(std::size_t number) {
        file_ = std::make_shared<OpenedFile>();
        file_->number = number;
        at_ = 0;
        auto handle = openForReading(paths_[number]);
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

    void fill(Block& block) {
        std::size_t done = 0;
        while (done < block.length) {
            const auto got = pread(file_->handle.get(), block.bytes.get() + done, block.length - done,
                                   static_cast<off_t>(at_ + done));
            if (got > 0) {
                done += static_cast<std::size_t>(got);
            } else if (got == 0) {
                changedMeanwhile();
                return;
            } else if (errno == EIO) {
                done += giveUp(block, done);
            } else if (errno != EINTR) {
                file_->error = systemError(errno, "read", paths_[file_->number]);
                return;
            }
        }
    }

    /// Reads on sector by sector past what the drive cannot give; yields how far it has come.
    std::size_t giveUp(Block& block, std::size_t done) {
        const std::uint64_t place = at_ + done;
        const auto length =
            static_cast<std::size_t>(std::min<std::uint64_t>(sector - place % sector, block.length - done));
        auto* into = block.bytes.get() + done;
        const auto got = pread(file_->handle.get(), into, length, static_cast<off_t>(place));
        if (got > 0) {
            return static_cast<std::size_t>(got);
        }
        std::fill_n(into, length, std::uint8_t{0});
        auto& ranges = file_->reading.unreadable;
        if (!ranges.empty() && ranges.back().second == place) {
            ranges.back().second = place + length;
        } else {
            ranges.emplace_back(place, place + length);
        }
        return length;
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

    void finish(std::unique_ptr<Block> block) {
        auto& file = *block->file;
        if (block->length > 0) {
            file.reading.blocks.push_back(block->checksum);
        }
        if (choices_.strong) {
            digestOf(*block);
        }
        if (block->last) {
            take_(file.number, file.error ? Result<FixityReading>(*file.error)
                                          : Result<FixityReading>(std::move(file.reading)));
        }
    }

    void digestOf(const Block& block) {
        auto& reading = block.file->reading;
        if (reading.blocks.size() <= 1) {
            EVP_DigestInit_ex(digest_.get(), EVP_sha256(), nullptr);
        }
        EVP_DigestUpdate(digest_.get(), block.bytes.get(), block.length);
        if (block.last) {
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
};

} // namespace

void readForFixity(std::span<const BytePath> paths, const ReadingChoices& choices, RunControl& control,
                   const std::function<void(std::uint64_t)>& onBytes,
                   const std::function<void(std::size_t, Result<FixityReading>)>& take) {
    Reader(paths, choices, control, onBytes, take).run();
}

} // namespace sober
