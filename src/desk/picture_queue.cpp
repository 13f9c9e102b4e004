#include "desk/picture_queue.hpp"

#include <QtConcurrentRun>

#include <utility>

namespace poquito::desk {

PictureQueue::PictureQueue(QObject* parent) : QObject(parent) {
    connect(&watcher_, &QFutureWatcher<Show>::finished, this, &PictureQueue::finished);
}

PictureQueue::~PictureQueue() {
    watcher_.disconnect(this);
    stop_ = true;
    watcher_.waitForFinished();
}

void PictureQueue::render(Work draft, Work fine) {
    if (running_) {
        next_ = Pair{std::move(draft), std::move(fine)};
        stop_ = true;  // heeded by what gives way
        return;
    }
    fine_ = std::move(fine);
    begin(draft, false);
}

void PictureQueue::begin(const Work& work, bool givesWay) {
    running_ = true;
    stop_ = false;
    watcher_.setFuture(
        QtConcurrent::run([work, givesWay, this] { return work([this, givesWay] { return !givesWay || !stop_; }); }));
}

void PictureQueue::finished() {
    running_ = false;
    const auto show = watcher_.result();
    if (auto next = std::exchange(next_, std::nullopt)) {
        fine_ = std::move(next->fine);
        begin(next->draft, false);
    } else if (auto fine = std::exchange(fine_, Work())) {
        begin(fine, true);
    }
    if (show) show();
    if (isIdle()) Q_EMIT idle();
}

}  // namespace poquito::desk
