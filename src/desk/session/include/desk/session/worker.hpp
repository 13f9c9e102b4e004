#pragma once

#include <condition_variable>
#include <cstddef>
#include <deque>
#include <functional>
#include <mutex>
#include <thread>
#include <vector>

namespace poquito::desk {

/// What is done beside the interface, and the only way to: a thread of one's own, or a few, that do one job after the
/// other, the urgent ones first and those alike in the order they were given. Begins with the first job; at the end it
/// finishes what it is at and drops the rest. Jobs throw nothing.
class Worker {
  public:
    /// `behind`: gives way to the thread that answers the user; `beside`: as urgent as that, for what keeps a pace.
    enum class Rank { behind, beside };
    explicit Worker(std::size_t hands = 1, Rank rank = Rank::behind) : hands_(hands), rank_(rank) {}
    ~Worker();
    Worker(const Worker&) = delete;
    Worker& operator=(const Worker&) = delete;

    void add(std::function<void()> job, int urgency = 0);
    void wait();  // until all that was added is done

  private:
    void work();

    struct Job {
        std::function<void()> run;
        int urgency = 0;
    };

    const std::size_t hands_;
    const Rank rank_;
    std::mutex mutex_;  // of all below
    std::condition_variable changed_;
    std::deque<Job> jobs_;
    std::size_t busy_ = 0;
    bool over_ = false;
    std::vector<std::thread> threads_;
};

}  // namespace poquito::desk
