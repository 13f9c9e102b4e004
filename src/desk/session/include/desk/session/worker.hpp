#pragma once

#include <condition_variable>
#include <deque>
#include <functional>
#include <mutex>
#include <thread>

namespace poquito::desk {

/// A thread of one's own that does one job after the other, in the order they were given. Begins with the first job; at
/// the end it finishes the one it is at and drops the rest. Jobs throw nothing.
class Worker {
  public:
    Worker() = default;
    ~Worker();
    Worker(const Worker&) = delete;
    Worker& operator=(const Worker&) = delete;

    void add(std::function<void()> job);
    void wait();  // until all that was added is done

  private:
    void work();

    std::mutex mutex_;  // of all below
    std::condition_variable changed_;
    std::deque<std::function<void()>> jobs_;
    bool busy_ = false;
    bool over_ = false;
    std::thread thread_;
};

}  // namespace poquito::desk
