#include "desk/session/worker.hpp"

#include <sys/resource.h>
#include <unistd.h>

#include <utility>

namespace poquito::desk {

namespace {

/// This thread, and those that it starts for the rows of its pictures, gives way to the one that answers the user.
void give_way() {
    constexpr int behind = 10;  // of the scheduler's 20 steps
    setpriority(PRIO_PROCESS, static_cast<id_t>(gettid()), behind);
}

}  // namespace

Worker::~Worker() {
    {
        const std::lock_guard lock(mutex_);
        over_ = true;
        jobs_.clear();
    }
    changed_.notify_all();
    if (thread_.joinable()) thread_.join();
}

void Worker::add(std::function<void()> job) {
    const std::lock_guard lock(mutex_);
    jobs_.push_back(std::move(job));
    if (!thread_.joinable()) thread_ = std::thread([this] { work(); });
    changed_.notify_all();
}

void Worker::wait() {
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [this] { return jobs_.empty() && !busy_; });
}

void Worker::work() {
    give_way();
    std::unique_lock lock(mutex_);
    for (;;) {
        changed_.wait(lock, [this] { return over_ || !jobs_.empty(); });
        if (over_) return;
        const auto job = std::move(jobs_.front());
        jobs_.pop_front();
        busy_ = true;
        lock.unlock();
        job();
        lock.lock();
        busy_ = false;
        changed_.notify_all();
    }
}

}  // namespace poquito::desk
