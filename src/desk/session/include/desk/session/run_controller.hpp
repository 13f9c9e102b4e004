#pragma once

#include "desk/session/document.hpp"
#include "desk/session/worker.hpp"
#include "run/rehearsal.hpp"
#include "run/session.hpp"

#include <QDateTime>
#include <QDir>
#include <QElapsedTimer>
#include <QStringList>
#include <QTimer>

#include <atomic>
#include <memory>
#include <optional>
#include <variant>
#include <vector>

namespace poquito::desk {

/// What the next run rehearses: a mishap that is chosen, or one that nobody knows.
struct Rehearsed {
    std::optional<devices::MishapKind> kind;  // empty: one that can happen is drawn
    std::vector<devices::Mishap> exactly;     // those, over the kind
    bool silent = false;                      // of those, only what no device tells
    bool watched = true;                      // else it is looked through afterwards, and nothing is said of it
};

/// What the bench is made of, and how fast its clock goes.
struct BenchSettings {
    double speed = 1;                    // of the simulated bench
    QString railLine;                    // a serial line with a motion controller; empty: the simulated rail
    QString dialectFile;                 // what that understands; empty: the usual codes
    std::optional<Rehearsed> rehearsed;  // what is to go wrong in the next run
    int pictureWidth = 960;

    static BenchSettings stored();
    void store() const;
};

/// A run that broke off.
struct BrokenRun {
    QString journal;
    std::string shot;  // id
    QString name;
    std::size_t done = 0;
    std::size_t planned = 0;
};

/// Runs shots on the bench, away from the interface thread, one after the other with a pause for changing gear, and
/// enters what was exposed in the shoot's log.
class RunController : public QObject {
    Q_OBJECT
  public:
    explicit RunController(Document& document, QObject* parent = nullptr);
    ~RunController() override;

    static QDir defaultFolder();
    void setFolder(const QDir& folder);
    QDir folder() const { return folder_; }
    const BenchSettings& settings() const { return settings_; }
    void setSettings(const BenchSettings& settings);

    /// The shots by their ids, in that order; `tests`: first, middle and last frame of each alone.
    void start(std::vector<std::string> shots, bool tests);
    /// One shot, so many times over; see run::tries_plan.
    void startTries(const std::string& shot, std::size_t tries);
    /// Those planes of a shot alone, mm behind its nearest point; none: its one frame.
    void retake(const std::string& shot, const std::vector<double>& planes);
    void goOn(const QString& journal);
    void enterInLog(const QString& journal);  // without going on: it counts as broken off

    void pause();
    void resume();  // also on to the next shot when it waits for other gear
    void stop();
    void skip();
    void redoFrom(std::size_t frame);

    /// Stops what runs, without waiting for the camera's buffer, and enters it in the log: before the document goes.
    /// Waits for what runs beside, which then has next to nothing left to do. `stop` and `ended` leave the
    /// interface alive while the buffer still reaches the card.
    void shutDown();

    bool isRunning() const { return session_ != nullptr; }
    bool waitsForGear() const { return !session_ && !queue_.empty(); }
    QString gearToChange() const { return change_; }
    QString nextShot() const;

    /// Of the run that is on or was last; empty before the first.
    std::optional<run::RunStatus> status() const;
    const run::RunPlan& plan() const { return plan_; }
    const std::string& shot() const { return plan_.shot; }
    bool isTest() const { return tests_; }

    /// Of a rehearsal: someone says that something is wrong, and what they take it for.
    void notice(std::optional<devices::MishapKind> taken_for);
    bool isRehearsal() const { return mishap_ && watched_; }
    const std::optional<devices::Mishap>& mishap() const { return mishap_; }
    /// What came of the last rehearsal; empty: it is still on, or none was.
    const std::optional<run::RehearsalReport>& rehearsal() const { return rehearsal_; }
    void drawMishapsBy(std::uint64_t seed) { seed_ = seed; }

    /// Runs of this shoot's shots that broke off, newest first.
    std::vector<BrokenRun> brokenRuns() const;

  Q_SIGNALS:
    void changed();
    void begun();
    void ended();                                                         // a run; what was exposed is in the log
    void rehearsed(const QString& shot, bool well, const QString& said);  // its name, how it went, what was said of it
    void problemFound(const QString& problem) const;
    /// Before that shot one thing was changed, "light" or "lens", and took so many seconds.
    void gearChanged(const std::string& what, const QString& shot, double seconds);
    // By what runs beside; for this class alone.
    void told();
    void ranThrough(int run);

  private:
    void startNext();
    void beginAlone();
    devices::DeviceSettings devices() const;
    std::vector<devices::Mishap> mishapsOf(const plan::Plan& planned);
    void reactedTo();
    void launch(run::Session::Made made);
    void finished();
    void log(const run::RunState& state);
    const shoot::Shot* find(const std::string& id) const;
    const plan::Plan* planOf(const std::string& id) const;

    Document& document_;
    QDir folder_;
    BenchSettings settings_;
    std::vector<std::string> queue_;
    QString change_;
    std::string changed_;    // what alone has to be changed before the next shot; empty: nothing or several things
    QElapsedTimer waiting_;  // since the run before it ended
    bool tests_ = false;
    std::optional<std::uint64_t> seed_;  // that hidden mishaps are drawn by; empty: by chance
    std::optional<devices::Mishap> mishap_;
    bool watched_ = true;
    std::vector<run::Noticed> notices_;
    std::optional<run::RehearsalReport> rehearsal_;
    int run_ = 0;  // counts them: what a run tells after it was shut down is not about the next
    run::RunPlan plan_;
    std::unique_ptr<run::Session> session_;
    std::optional<run::RunStatus> last_;
    mutable std::vector<BrokenRun> broken_;  // of any shoot, as the folder was last read
    mutable QStringList unread_;             // what was told of journals that cannot be read
    mutable QDateTime brokenRead_;           // when the folder had last changed then; invalid: read it again
    std::atomic<bool> told_ = false;         // a change is on its way to the interface thread
    QTimer tick_;                            // time passes while nothing else changes
    Worker bench_{1, Worker::Rank::beside};  // last: its job uses the rest
};

}  // namespace poquito::desk
