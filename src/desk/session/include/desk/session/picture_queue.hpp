#pragma once

#include "desk/session/worker.hpp"

#include <QObject>
#include <QTimer>

#include <atomic>
#include <functional>
#include <mutex>
#include <optional>

namespace poquito::desk {

/// Renders pictures away from the interface thread, one at a time and the newest only: what was asked for meanwhile is
/// done next, what lies between is dropped. First a draft, which is always finished so that a drag keeps showing
/// something; then the fine picture, which gives way to anything newer.
class PictureQueue : public QObject {
    Q_OBJECT
  public:
    explicit PictureQueue(QObject* parent = nullptr);
    ~PictureQueue() override;

    /// What to do with the picture, back on the interface thread; empty: the work was given up.
    using Show = std::function<void()>;
    using Work = std::function<Show(const std::function<bool()>& go_on)>;
    void render(Work draft, Work fine = {});

    bool isIdle() const { return !running_ && !next_ && !fine_; }

  Q_SIGNALS:
    void idle();  // everything asked for is shown
    void done();  // by the worker; for this class alone

  private:
    struct Pair {
        Work draft, fine;
    };
    void begin(const Work& work, bool givesWay);
    void finished();

    std::optional<Pair> next_;
    Work fine_;
    QTimer pause_;  // before the fine picture, so that a run of edits has the machine to itself
    std::atomic<bool> stop_ = false;
    bool running_ = false;
    std::mutex mutex_;  // of show_, which the worker hands over
    Show show_;
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
