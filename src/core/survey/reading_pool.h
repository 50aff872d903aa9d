#pragma once

#include "core/evidence/worker/evidence_worker.h"
#include "core/survey/survey.h"
#include "core/survey/walk.h"

#include <tbb/enumerable_thread_specific.h>

#include <atomic>
#include <chrono>
#include <condition_variable>
#include <deque>
#include <mutex>
#include <thread>

namespace sober {

/// One file to be read, and what was remembered at its path.
struct ReadingJob {
    WalkedFile file;
    const RememberedFile* before = nullptr;
    bool isArchive = false; ///< looked into
};

/// The same while it waits, where there may be a million.
struct WaitingFile {
    WalkedFile* file; ///< as it was walked
    const RememberedFile* before = nullptr;
    bool isArchive = false;
};

/// At which effort what is read.
struct Efforts {
    Effort usual = Effort::index;
    std::vector<BytePath> inFull; ///< relative folders
    bool keepExcerpts = false;    ///< of what is examined

    bool isFull(const BytePath& path) const {
        return usual == Effort::full ||
               std::ranges::any_of(inFull, [&](const BytePath& folder) { return isWithin(path, folder); });
    }
};

struct FileRead {
    ReadingJob job;
    Result<FileRecord> record;
    /// It is one of the files in an archive, or, after them, that archive: then `record` tells how that
    /// ended.
    bool isInside = false;
};

/// Reads jobs on all processors and hands the outcomes, in any order, to the one thread that writes. No more
/// than a few dozen files are held in memory at once, so that it does not grow with the collection.
class ReadingPool {
  public:
    ReadingPool(const Volume& volume, const Efforts& efforts, std::vector<WaitingFile> jobs,
                RunControl& control);

    std::uint64_t bytesRead() const { return bytes_; }

    /// The next outcome; nothing after `patience` without one, or once all are done (`finished`).
    std::optional<FileRead> next(std::chrono::milliseconds patience);
    bool finished();

  private:
    std::size_t tokens() const;
    void work();
    Result<FileRecord> read(const ReadingJob& job);
    BytePath placeOf(const ReadingJob& job) const;
    void readArchive(ReadingJob& job);
    void hand(FileRead read);

    const BytePath& root_;
    const Efforts& efforts_;
    const SurveyChoices& choices_;
    std::vector<WaitingFile> jobs_;
    RunControl& control_;
    std::size_t next_ = 0;
    std::atomic<std::uint64_t> bytes_ = 0;
    tbb::enumerable_thread_specific<EvidenceWorker> workers_;
    std::mutex mutex_;
    std::condition_variable arrived_;
    std::condition_variable taken_;
    std::deque<FileRead> outcomes_;
    bool done_ = false;
    std::jthread pipeline_;
};

} // namespace sober
