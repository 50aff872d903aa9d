#pragma once

#include <condition_variable>
#include <deque>
#include <functional>
#include <mutex>
#include <thread>

namespace sober::app {

/// One thread that does what it is given, in order.
class WorkThread {
  public:
    WorkThread();
    /// Finishes what it is at and drops what waits.
    ~WorkThread();
    WorkThread(const WorkThread&) = delete;
    WorkThread& operator=(const WorkThread&) = delete;

    void post(std::function<void()> work);

  private:
    void run();

    std::mutex mutex_;
    std::condition_variable arrived_;
    std::deque<std::function<void()>> waiting_;
    bool ending_ = false;
    std::thread thread_;
};

} // namespace sober::app
