#pragma once

#include "desk/session/worker.hpp"
#include "proof/incoming.hpp"
#include "proof/notes.hpp"
#include "proof/sequences.hpp"

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <atomic>
#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace poquito::desk {

class Document;
class RunController;

/// The frames of a shot that are looked at.
struct ProofFrames {
    std::vector<std::filesystem::path> files;
    std::vector<double> planes;  // of each, mm behind the nearest point; empty: not known
    QString from;                // what they came from, as the page says it
    bool watched = false;        // that came into the watched folder
    bool ofRun = false;          // that the bench took
    bool unsure = false;         // whether they are of this shot: none was planned so, and none was asked for
};

/// What is known of them so far.
struct ProofLook {
    ProofFrames frames;
    std::vector<std::shared_ptr<const proof::FrameFacts>> facts;  // one a file; null: not looked at yet
    std::size_t done = 0;
    bool running = false;
    double seconds = 0;                                   // that it took, or has taken
    double secondsLeft = 0;                               // while it runs
    std::shared_ptr<const proof::Inspection> inspection;  // null: not yet
    std::vector<proof::Note> notes;                       // while it runs: of what was read so far
    int said = 0;                                         // another with other notes
    std::vector<proof::Offer> offers;
    proof::Summary summary;
};

/// Looks at frames away from the interface thread, one shot's at a time; what is dropped, what a run took, and what
/// comes into a watched folder. Keeps what it found for as long as the shoot is open.
class ProofController : public QObject {
    Q_OBJECT
  public:
    ProofController(Document& document, RunController& runs, QObject* parent = nullptr);
    ~ProofController() override;

    /// Null: no frames of it are known.
    const ProofLook* look(const std::string& shot) const;
    void lookAt(const std::string& shot, ProofFrames frames);  // in the place of those it had
    void add(const std::string& shot, const std::vector<std::filesystem::path>& files);
    void belong(const std::string& shot, const std::string& to);  // the answer; both the same: they are of it
    void lookAgain(const std::string& shot);
    void judgeAgain(const std::string& shot);  // what was seen, against the plan as it is now
    /// What its runs took; false: nothing is there.
    bool lookAtRuns(const std::string& shot);
    void cancel();
    bool isBusy() const { return taking_ || sorting_ || !busyWith_.empty(); }

    /// Frames from anywhere. All taken in one go: of the shot that was planned so, else of the selected one, and looked
    /// at. Many stacks and bursts: sorted, told by sortedChanged.
    void takeIn(std::vector<std::filesystem::path> files, const QString& from);
    enum class Decision { open, kept, redo, set_aside };
    struct SortedSequence {
        int id = 0;  // stays its own while others come in before it
        proof::Sorted sorted;
        std::string shot;  // id of the one they are of; empty: of none
        Decision decision = Decision::open;
        int asideGroup = 0;  // above 0: they were set aside, together
    };
    /// Where a shot stands now; empty: it is gone, or none was meant.
    std::optional<int> placeOf(const std::string& shot) const;
    /// The whole ones first.
    const std::vector<SortedSequence>& sorted() const { return sorted_; }
    QString sortedFrom() const { return sortedFrom_; }
    bool isSorting() const { return sorting_; }
    std::pair<std::size_t, std::size_t> sortProgress() const { return {sortDone_, sortAll_}; }
    /// By id; null: it is not there any more.
    const SortedSequence* sequence(int id) const;
    void assign(int sequence, std::string shot);  // id of the shot; empty: of none
    void open(int sequence);                      // at its shot, which is selected
    void decide(int sequence, Decision decision);
    bool setSequenceAside(int sequence);

    /// Moves that file into a folder "set aside" beside it, and out of the look. False: it could not be moved.
    bool setAside(const std::string& shot, std::size_t frame);
    bool bringBack();  // the last one set aside
    bool hasSetAside() const { return !aside_.empty(); }

    /// Frames that come into a folder are those of the shot that is selected then. Empty: no more.
    void watch(const QString& folder);
    QString watched() const { return watched_; }

    /// Files that may be frames, folders opened.
    static std::vector<std::filesystem::path> framesIn(const QStringList& paths);

  Q_SIGNALS:
    void changed(const QString& shot);
    void sortedChanged();
    void sortingBegun();
    /// All sequences were decided on; from when the first of them could be.
    void sortedThrough(std::size_t frames, double seconds);
    void problemFound(const QString& problem);

  private:
    void start(const std::string& shot);
    void countRun(const std::string& shot);
    void took(int job, std::size_t frame, std::shared_ptr<const proof::FrameFacts> facts);
    struct Judged {
        std::shared_ptr<const proof::Inspection> inspection;
        std::vector<proof::Offer> offers;
        std::vector<proof::Note> notes;
    };
    void judged(int job, Judged found);
    void saidSoFar(int job, std::vector<proof::Note> notes);
    void lookIntoFolder();
    void tellSortedThrough();

    struct Aside {
        std::string shot;
        std::filesystem::path from, to;
        std::size_t place = 0;
        std::optional<double> plane;
        int group = 0;  // above 0: all of a sorted row together
    };

    bool moveBack(const Aside& one);
    std::optional<std::filesystem::path> moveAside(const std::filesystem::path& from);
    SortedSequence* find(int sequence);
    void sorts(int job, proof::Sorted sorted, std::string shot);

    Document& document_;
    RunController& runs_;
    std::map<std::string, ProofLook> looks_;  // by shot
    std::string busyWith_;                    // shot; empty: nothing
    int job_ = 0;
    QElapsedTimer since_;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::vector<Aside> aside_;
    std::vector<SortedSequence> sorted_;
    int sequences_ = 0;  // that were ever sorted: the last one's id
    QString sortedFrom_;
    int groups_ = 0;
    int said_ = 0;
    bool taking_ = false, sorting_ = false;
    QElapsedTimer deciding_;  // invalid: all were, or there are none
    std::size_t sortDone_ = 0, sortAll_ = 0;
    QString watched_;
    QTimer watch_;
    std::optional<proof::Incoming> coming_;
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
