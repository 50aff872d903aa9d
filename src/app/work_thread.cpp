#include "app/work_thread.h"

namespace sober::app {

WorkThread::WorkThread() : thread_([this] { run(); }) {}

WorkThread::~WorkThread() {
    {
        const std::lock_guard lock(mutex_);
        ending_ = true;
        waiting_.clear();
    }
    arrived_.notify_one();
    thread_.join();
}

void WorkThread::post(std::function<void()> work) {
    {
        const std::lock_guard lock(mutex_);
        if (ending_) {
            return;
        }
        waiting_.push_back(std::move(work));
    }
    arrived_.notify_one();
}

void WorkThread::run() {
    while (true) {
        std::unique_lock lock(mutex_);
        arrived_.wait(lock, [this] { return ending_ || !waiting_.empty(); });
        if (ending_) {
            return;
        }
        const auto work = std::move(waiting_.front());
        waiting_.pop_front();
        lock.unlock();
        work();
    }
}

} // namespace sober::app
