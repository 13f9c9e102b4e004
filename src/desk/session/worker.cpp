#include "desk/session/worker.hpp"

#include <sys/resource.h>
#include <unistd.h>

#include <algorithm>
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
    for (auto& thread : threads_) thread.join();
}

void Worker::add(std::function<void()> job, int urgency) {
    const std::lock_guard lock(mutex_);
    const auto behind = std::ranges::find_if(jobs_, [&](const Job& other) { return other.urgency < urgency; });
    jobs_.insert(behind, {std::move(job), urgency});
    if (threads_.size() < hands_ && jobs_.size() + busy_ > threads_.size()) threads_.emplace_back([this] { work(); });
    changed_.notify_all();
}

void Worker::wait() {
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [this] { return jobs_.empty() && busy_ == 0; });
}

void Worker::work() {
    if (rank_ == Rank::behind) give_way();
    std::unique_lock lock(mutex_);
    for (;;) {
        changed_.wait(lock, [this] { return over_ || !jobs_.empty(); });
        if (over_) return;
        auto job = std::move(jobs_.front().run);
        jobs_.pop_front();
        ++busy_;
        lock.unlock();
        job();
        job = {};  // what it holds goes before it counts as done
        lock.lock();
        --busy_;
        changed_.notify_all();
    }
}

}  // namespace poquito::desk
