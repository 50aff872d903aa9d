#include "core/survey/reading_pool.h"

#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/survey/look_inside.h"

#include <tbb/parallel_pipeline.h>
#include <tbb/task_arena.h>

#include <algorithm>

namespace sober {
namespace {

constexpr std::uint64_t worthAProcess = 1U << 20; // bytes to examine: an eighth of a second of MP3
constexpr std::size_t inFlight = 64;              // outcomes that wait for the thread that writes

/// How an archive ended that was gone through to its end: no failure, and no record either.
Error wholeArchive(const BytePath& archive) {
    return {Cause::notAudio, archive, {}};
}

} // namespace

ReadingPool::ReadingPool(const Volume& volume, const Efforts& efforts, std::vector<WaitingFile> jobs,
                         RunControl& control)
    : root_(volume.root),
      efforts_(efforts),
      choices_(volume.choices),
      jobs_(std::move(jobs)),
      control_(control) {
    pipeline_ = std::jthread([this] { work(); });
}

std::optional<FileRead> ReadingPool::next(std::chrono::milliseconds patience) {
    std::unique_lock lock(mutex_);
    arrived_.wait_for(lock, patience, [this] { return !outcomes_.empty() || done_; });
    if (outcomes_.empty()) {
        return std::nullopt;
    }
    FileRead read = std::move(outcomes_.front());
    outcomes_.pop_front();
    lock.unlock();
    taken_.notify_one();
    return read;
}

bool ReadingPool::finished() {
    const std::lock_guard lock(mutex_);
    return done_ && outcomes_.empty();
}

/// Files in flight: many small readings hide the disk's waiting, an examination fills a processor. Each
/// has a process of its own, which to start takes as long as to read some files, or to examine one.
std::size_t ReadingPool::tokens() const {
    const std::size_t processors = std::clamp(std::thread::hardware_concurrency(), 1U, 32U);
    std::uint64_t bytesInFull = 0;
    for (const auto& job : jobs_) {
        bytesInFull += efforts_.isFull(job.file->path) ? job.file->stamp.size : 0;
    }
    const auto files = jobs_.size();
    const std::size_t forReadings = std::min(std::size_t{8}, 1 + files / 16);
    const std::size_t forExaminations = 1 + std::min<std::size_t>(files / 2, bytesInFull / worthAProcess);
    return std::min(processors, std::max(forReadings, forExaminations));
}

void ReadingPool::work() {
    tbb::task_arena arena(static_cast<int>(tokens()));
    arena.execute([this] {
        tbb::parallel_pipeline(
            tokens(),
            tbb::make_filter<void, WaitingFile*>(tbb::filter_mode::serial_in_order,
                                                 [this](tbb::flow_control& flow) -> WaitingFile* {
                                                     if (next_ == jobs_.size() || !control_.proceed()) {
                                                         flow.stop();
                                                         return nullptr;
                                                     }
                                                     return &jobs_[next_++];
                                                 }) &
                tbb::make_filter<WaitingFile*, void>(
                    tbb::filter_mode::parallel, [this](WaitingFile* waiting) {
                        ReadingJob job{std::move(*waiting->file), waiting->before, waiting->isArchive};
                        if (job.isArchive) {
                            readArchive(job);
                            return;
                        }
                        auto record = read(job);
                        hand({std::move(job), std::move(record)});
                    }));
    });
    const std::lock_guard lock(mutex_);
    done_ = true;
    arrived_.notify_one();
}

Result<FileRecord> ReadingPool::read(const ReadingJob& job) {
    const auto path = placeOf(job);
    const auto onBytes = [this](std::uint64_t bytes) { bytes_ += bytes; };
    auto record = efforts_.isFull(job.file.path)
                      ? workers_.local().examine(path, control_, onBytes, efforts_.keepExcerpts)
                      : workers_.local().passOver(path, control_, onBytes);
    // A holding whose beginning is destroyed is still the holding: it has drifted.
    const bool isHolding =
        job.before != nullptr && job.before->id != 0 && job.before->state == HoldingState::present;
    return !record && record.error().cause == Cause::notAudio && isHolding
               ? recordOfBytes(path, control_, onBytes)
               : record;
}

/// What is reached by a link is opened where it is.
BytePath ReadingPool::placeOf(const ReadingJob& job) const {
    auto path = joinPath(root_, job.file.path);
    return choices_.followLinks ? realPathOf(path).value_or(path) : path;
}

void ReadingPool::readArchive(ReadingJob& job) {
    const auto& relative = job.file.path;
    const LookInside asked{placeOf(job), relative, choices_,
                           efforts_.isFull(relative) ? Effort::full : Effort::index, efforts_.keepExcerpts};
    const auto looked = lookInside(
        asked, workers_.local(), control_, [this](std::uint64_t bytes) { bytes_ += bytes; },
        [&](const BytePath& path, Result<FileRecord> record) {
            WalkedFile file{path, job.file.stamp};
            file.stamp.size = record ? record->stamp.size : 0;
            hand({{std::move(file), nullptr, false}, std::move(record), true});
        });
    if (!looked && looked.error().cause == Cause::unreadable) {
        if (auto record = read(job); record) { // audio under a strange name
            job.isArchive = false;
            hand({std::move(job), std::move(record)});
            return;
        }
    }
    hand({std::move(job), looked ? wholeArchive(asked.archive) : looked.error(), true});
}

void ReadingPool::hand(FileRead read) {
    std::unique_lock lock(mutex_);
    taken_.wait(lock, [this] { return outcomes_.size() < inFlight; });
    outcomes_.push_back(std::move(read));
    lock.unlock();
    arrived_.notify_one();
}

} // namespace sober
