#pragma once

#include "desk/session/worker.hpp"

#include <QObject>

#include <atomic>
#include <functional>
#include <utility>

namespace poquito::desk {

/// Something that is looked for beside the interface for as long as it takes: one at a time, with how far it has come,
/// and stopped by what `go_on` says.
template <class Found>
class Search {
  public:
    /// Whether to go on, at that share of the work, 0 to 1.
    using GoOn = std::function<bool(double share)>;
    /// Runs on another thread and knows nothing but what it is given; stopped, it returns what it has.
    using Find = std::function<Found(const GoOn& go_on)>;

    /// Both are called on this thread.
    explicit Search(std::function<void(Found)> found, std::function<void(double share)> progressed = {})
        : found_(std::move(found)), progressed_(std::move(progressed)) {}
    ~Search() { stop_ = true; }
    Search(const Search&) = delete;
    Search& operator=(const Search&) = delete;

    /// None is running.
    void begin(Find find) {
        running_ = true;
        stop_ = false;
        told_ = 0;
        worker_.add([this, find = std::move(find)] {
            auto result = find([this](double share) { return tell(share); });
            QMetaObject::invokeMethod(
                &here_,
                [this, result = std::move(result)]() mutable {
                    running_ = false;
                    found_(std::move(result));
                },
                Qt::QueuedConnection);
        });
    }
    void stop() { stop_ = true; }
    /// Until what it found is told.
    bool isRunning() const { return running_; }
    /// Whether the last one was.
    bool wasStopped() const { return stop_; }

  private:
    /// Told by hundredths: the interface has no use for more.
    bool tell(double share) {
        constexpr int steps = 100;
        const int step = static_cast<int>(share * steps);
        if (progressed_ && step > told_) {
            told_ = step;
            QMetaObject::invokeMethod(
                &here_, [this, share] { progressed_(share); }, Qt::QueuedConnection);
        }
        return !stop_;
    }

    std::function<void(Found)> found_;
    std::function<void(double)> progressed_;
    std::atomic<bool> stop_ = false;
    bool running_ = false;
    int told_ = 0;   // by the thread that looks
    QObject here_;   // what is told after its end is told to nobody
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
