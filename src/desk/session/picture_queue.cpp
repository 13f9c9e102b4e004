#include "desk/session/picture_queue.hpp"

#include <sys/resource.h>

#include <utility>

namespace poquito::desk {

PictureQueue::PictureQueue(QObject* parent) : QObject(parent) {
    constexpr int breath = 80;  // ms
    pause_.setSingleShot(true);
    pause_.setInterval(breath);
    connect(&pause_, &QTimer::timeout, this, [this] { begin(std::exchange(fine_, Work()), true); });
    connect(this, &PictureQueue::done, this, &PictureQueue::finished, Qt::QueuedConnection);
}

PictureQueue::~PictureQueue() { stop_ = true; }

void PictureQueue::render(Work draft, Work fine) {
    if (running_) {
        next_ = Pair{std::move(draft), std::move(fine)};
        stop_ = true;  // heeded by what gives way
        return;
    }
    pause_.stop();
    fine_ = std::move(fine);
    begin(draft, false);
}

void PictureQueue::begin(const Work& work, bool givesWay) {
    running_ = true;
    stop_ = false;
    worker_.add([work, givesWay, this] {
        // On Linux this is the calling thread's alone: fields and drawings come first where cores are few.
        constexpr int yielding = 10;
        setpriority(PRIO_PROCESS, 0, yielding);
        auto show = work([this, givesWay] { return !givesWay || !stop_; });
        {
            const std::lock_guard lock(mutex_);
            show_ = std::move(show);
        }
        Q_EMIT done();
    });
}

void PictureQueue::finished() {
    running_ = false;
    Show show;
    {
        const std::lock_guard lock(mutex_);
        show.swap(show_);
    }
    if (auto next = std::exchange(next_, std::nullopt)) {
        fine_ = std::move(next->fine);
        begin(next->draft, false);
    } else if (fine_) {
        pause_.start();
    }
    if (show) show();
    if (isIdle()) Q_EMIT idle();
}

}  // namespace poquito::desk

#include "desk/session/moc_picture_queue.moc"
