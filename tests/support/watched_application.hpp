#pragma once

#include <QApplication>
#include <QThread>

#include <ctime>
#include <string>
#include <vector>

namespace poquito::test {

/// The application, which notes how much of the processor's time each event took, with all that it set off, until the
/// next one could be taken up: for so long the window does not answer. The processor's and not the clock's, so that a
/// busy machine changes nothing. What a question asks meanwhile is its own event.
class WatchedApplication : public QApplication {
  public:
    using QApplication::QApplication;

    struct Held {
        double seconds = 0;
        std::string by;  // what took the event
    };
    /// The longest since it was asked last.
    Held takeLongest() { return std::exchange(longest_, {}); }

    bool notify(QObject* receiver, QEvent* event) override {
        const int level = thread()->loopLevel();
        const bool within = !under_way_.empty() && under_way_.back().level == level;
        if (within || QThread::currentThread() != thread()) return QApplication::notify(receiver, event);
        if (!under_way_.empty()) under_way_.back().spent += now() - under_way_.back().since;
        const std::string by = receiver->metaObject()->className() + (" " + receiver->objectName()).toStdString() +
                               ", event " + std::to_string(event->type());
        under_way_.push_back({.level = level, .spent = 0, .since = now()});
        const bool done = QApplication::notify(receiver, event);
        const double seconds = under_way_.back().spent + now() - under_way_.back().since;
        under_way_.pop_back();
        if (!under_way_.empty()) under_way_.back().since = now();
        if (seconds > longest_.seconds) longest_ = {.seconds = seconds, .by = by};
        return done;
    }

  private:
    struct UnderWay {
        int level;
        double spent, since;
    };
    static double now() {
        timespec time{};
        clock_gettime(CLOCK_THREAD_CPUTIME_ID, &time);
        return static_cast<double>(time.tv_sec) + static_cast<double>(time.tv_nsec) * 1e-9;
    }

    std::vector<UnderWay> under_way_;
    Held longest_;
};

}  // namespace poquito::test
