#pragma once

#include "advice/advice.hpp"
#include "desk/session/picture_queue.hpp"
#include "shoot/form/attitude.hpp"

#include <QObject>
#include <QString>
#include <QUndoStack>

#include <functional>
#include <memory>
#include <vector>

/// The one place where a shoot changes. An edit makes a new shoot; undo, the unsaved mark, autosave and assessing anew
/// all hang on that. Views read the shoot and its assessments and ask for edits.
namespace poquito::desk {

/// What an edit is called in the Edit menu, and with which edit before it melts into one step: equal keys in a row do,
/// an empty key never does.
struct EditLabel {
    QString text;
    QString mergeKey = {};
};

class Document : public QObject {
    Q_OBJECT
  public:
    explicit Document(QObject* parent = nullptr);
    ~Document() override;

    /// A fresh start without history. `path` empty: never saved.
    void open(shoot::Shoot shoot, const QString& path);
    /// As open, but counts as unsaved: what came back from a crash.
    void recover(shoot::Shoot shoot, const QString& path);

    bool isOpen() const { return open_; }  // once a shoot was opened
    const shoot::Shoot& shoot() const { return *shoot_; }
    std::shared_ptr<const shoot::Shoot> snapshot() const { return shoot_; }
    const gear::Kit& kit() const { return shoot_->kit; }
    int count() const { return static_cast<int>(shoot_->shots.size()); }

    /// The selected shot; -1 and null where the shoot has none.
    int current() const { return current_; }
    const shoot::Shot* shot() const;
    const advice::Assessment* assessment() const;
    const advice::Assessment& assessment(int index) const { return *assessments_[static_cast<std::size_t>(index)]; }
    /// The same object as long as neither the shot nor the kit changed; it keeps both alive. Without remedies: notes().
    std::shared_ptr<const advice::Assessment> sharedAssessment(int index) const {
        return assessments_[static_cast<std::size_t>(index)];
    }
    std::vector<advice::Assessment> assessments() const;
    /// The notes of the selected shot. Remedies take longer than a frame may: they are looked for beside the interface,
    /// and notes are without them until answered().
    const std::vector<advice::Note>& notes() const;
    bool isAnswered() const;
    const plan::Report* report() const;
    const plan::Report& report(int index) const { return assessment(index).report; }
    /// What the selected shot would come to with its subject turned so; there is one.
    plan::Report reportTurned(const shoot::Attitude& attitude) const;

    void select(int index);
    void edit(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change);
    /// As edit, where gear was found out about: told by learned(), when it is undone and done again as well.
    void learn(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change);
    void editShot(const EditLabel& label, const std::function<void(shoot::Shot&)>& change);

    /// What the selected shot is judged by; there is one. Limits and the order of giving up are its own where it has
    /// some, else the shoot's, as a whole; wishes are the shoot's except where it says something else. Changes go where
    /// what is changed stands, a new wish to the shot.
    shoot::Terms terms() const;
    const shoot::Limits& limits() const;
    shoot::Wishes wishes() const;
    void editLimits(const EditLabel& label, const std::function<void(shoot::Limits&)>& change);
    void editWishes(const EditLabel& label, const std::function<void(shoot::Wishes&)>& change);

    /// The last `most_steps` steps; each holds what it changed, and shares everything else with the steps beside it.
    QUndoStack& undoStack() { return undo_; }
    static constexpr int most_steps = 1000;
    QString path() const { return path_; }
    bool isUnsaved() const { return recovered_ || !undo_.isClean(); }
    void setSaved(const QString& path);

  Q_SIGNALS:
    void shootChanged();       // shoot, assessments or both are new
    void answered();           // notes() has its remedies
    void selected(int index);  // another shot, or none
    void unsavedChanged();
    void opened();  // another shoot took the place of what was there; before it is shown

    void learned(const gear::Kit& before, const gear::Kit& after);

  private:
    friend class ShootEdit;
    void push(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change, bool learns);
    void show(std::shared_ptr<const shoot::Shoot> shoot, int selection);
    void assessChanged(const shoot::Shoot* before);
    void answer();

    std::shared_ptr<const shoot::Shoot> shoot_;
    std::vector<std::shared_ptr<const advice::Assessment>> assessments_;
    std::shared_ptr<const advice::Assessment> answered_;  // what notes_ are of
    std::vector<advice::Note> notes_;                     // with remedies
    QUndoStack undo_;
    QString path_;
    int current_ = -1;
    bool recovered_ = false;
    bool open_ = false;
    PictureQueue remedies_;  // last: its work is over before the rest goes
};

}  // namespace poquito::desk
