#pragma once

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <cstdint>
#include <functional>
#include <mutex>

namespace sober {

/// The reins of one piece of long work: whoever started it may pause, go on or cancel from any
/// thread; the work calls `proceed()` at every point where it can stop without harm.
class RunControl {
  public:
    void pause() { paused_ = true; }
    void goOn() {
        {
            const std::lock_guard lock(mutex_);
            paused_ = false;
        }
        changed_.notify_all();
    }
    void cancel() {
        {
            const std::lock_guard lock(mutex_);
            cancelled_ = true;
        }
        changed_.notify_all();
    }
    bool isPaused() const { return paused_; }
    bool isCancelled() const { return cancelled_; }

    /// Waits while paused. False once cancelled: the work should then stop where it is.
    bool proceed() {
        if (paused_ && !cancelled_) {
            std::unique_lock lock(mutex_);
            changed_.wait(lock, [this] { return !paused_ || cancelled_; });
        }
        return !cancelled_;
    }

  private:
    std::atomic<bool> paused_ = false;
    std::atomic<bool> cancelled_ = false;
    std::mutex mutex_;
    std::condition_variable changed_;
};

/// How far long work has come. `totalBytes` 0 means that the total is not known yet.
struct Progress {
    std::uint64_t files = 0;
    std::uint64_t totalFiles = 0;
    std::uint64_t bytes = 0;
    std::uint64_t totalBytes = 0;
    std::uint64_t errors = 0;
    double elapsed = 0; ///< seconds of work, pauses left out
    std::string at;     ///< what is being worked on, for display

    double bytesPerSecond() const { return elapsed > 0 ? static_cast<double>(bytes) / elapsed : 0; }

    /// Seconds that remain at the rate so far; negative where nothing can be said yet.
    double remaining() const {
        const double rate = bytesPerSecond();
        return totalBytes == 0 || rate <= 0 || elapsed < 0.5
                   ? -1
                   : static_cast<double>(totalBytes - std::min(bytes, totalBytes)) / rate;
    }
};

/// Hears how far work has come: one call at a time, on whatever thread is at work. It should be short, for
/// the work waits, and must not call back into that.
using ProgressSink = std::function<void(const Progress&)>;

} // namespace sober
