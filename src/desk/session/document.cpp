#include "desk/session/document.hpp"

#include "desk/text/to_qt.hpp"
#include "plan/assess.hpp"

#include <algorithm>
#include <optional>
#include <utility>

namespace poquito::desk {

using ShootPointer = std::shared_ptr<const shoot::Shoot>;

/// What one step turns into what. Only that is kept: fifty shots for each keystroke would fill the memory of a long
/// day.
class ShootDifference {
  public:
    ShootDifference(const ShootPointer& before, const ShootPointer& after) {
        if (before->shots.size() != after->shots.size()) {
            whole_ = {before, after};
            return;
        }
        for (std::size_t i = 0; i < before->shots.size(); ++i)
            if (!before->shots.same(i, after->shots, i)) changed_.push_back(i);
        if (!changed_.empty()) shots_ = {before->shots, after->shots};
        auto one = without_shots(*before), other = without_shots(*after);
        if (!(one == other)) rest_ = {std::move(one), std::move(other)};
    }
    ShootPointer before(const ShootPointer& after) const {
        if (whole_.first) return whole_.first;
        return changed(*after, shots_.first, rest_ ? &rest_->first : nullptr);
    }
    ShootPointer after(const ShootPointer& before) const {
        if (whole_.second) return whole_.second;
        return changed(*before, shots_.second, rest_ ? &rest_->second : nullptr);
    }

  private:
    static shoot::Shoot without_shots(const shoot::Shoot& shoot) {
        auto rest = shoot;  // shots are shared, not copied
        rest.shots = {};
        return rest;
    }
    ShootPointer changed(const shoot::Shoot& from, const shoot::Shots& shots, const shoot::Shoot* rest) const {
        auto made = std::make_shared<shoot::Shoot>(rest ? *rest : from);
        made->shots = from.shots;
        for (const auto index : changed_) made->shots.share(index, shots, index);
        return made;
    }

    std::pair<ShootPointer, ShootPointer> whole_;                // where shots came or went
    std::vector<std::size_t> changed_;                           // shots
    std::pair<shoot::Shots, shoot::Shots> shots_;                // all of them, sharing those that did not change
    std::optional<std::pair<shoot::Shoot, shoot::Shoot>> rest_;  // without shots
};

/// One step of the history.
class ShootEdit : public QUndoCommand {
  public:
    struct State {
        ShootPointer shoot;
        int selection = -1;
    };

    ShootEdit(Document& document, const EditLabel& label, const State& before, const State& after, bool learns)
        : QUndoCommand(label.text),
          document_(document),
          mergeKey_(label.mergeKey),
          difference_(before.shoot, after.shoot),
          fresh_(after.shoot),
          selectionBefore_(before.selection),
          selectionAfter_(after.selection),
          learns_(learns) {}

    void undo() override { show(difference_.before(document_.shoot_), selectionBefore_); }
    void redo() override {
        const auto made = std::exchange(fresh_, nullptr);
        show(made ? made : difference_.after(document_.shoot_), selectionAfter_);
    }
    int id() const override { return mergeKey_.isEmpty() ? -1 : 1; }
    /// `other` was done last: what is shown is the shoot after it.
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const ShootEdit*>(other);
        if (next->mergeKey_ != mergeKey_) return false;
        const auto after = document_.shoot_;
        const auto before = difference_.before(next->difference_.before(after));
        difference_ = ShootDifference(before, after);
        selectionAfter_ = next->selectionAfter_;
        if (*after == *before) setObsolete(true);  // typed back to where it was
        return true;
    }

  private:
    void show(const ShootPointer& shoot, int selection) {
        const auto from = document_.shoot_;
        document_.show(shoot, selection);
        if (learns_) Q_EMIT document_.learned(from->kit, document_.kit());
    }

    Document& document_;
    QString mergeKey_;
    ShootDifference difference_;
    ShootPointer fresh_;  // as the edit made it, for the first time it is done
    int selectionBefore_;
    int selectionAfter_;
    bool learns_;
};

Document::Document(QObject* parent) : QObject(parent), shoot_(std::make_shared<const shoot::Shoot>()) {
    undo_.setUndoLimit(most_steps);
    connect(&undo_, &QUndoStack::cleanChanged, this, &Document::unsavedChanged);
}

Document::~Document() { undo_.disconnect(this); }

namespace {

const std::vector<advice::Note> no_notes;

}  // namespace

const std::vector<advice::Note>& Document::notes() const {
    if (current_ < 0) return no_notes;
    return isAnswered() ? notes_ : assessment()->advice.notes;
}

bool Document::isAnswered() const {
    return current_ < 0 || answered_ == assessments_[static_cast<std::size_t>(current_)];
}

void Document::open(shoot::Shoot shoot, const QString& path) {
    undo_.clear();
    open_ = true;
    path_ = path;
    recovered_ = false;
    assessments_.clear();
    current_ = -1;
    const bool empty = shoot.shots.empty();
    shoot_ = std::make_shared<const shoot::Shoot>();
    Q_EMIT opened();
    show(std::make_shared<const shoot::Shoot>(std::move(shoot)), empty ? -1 : 0);
    Q_EMIT unsavedChanged();
}

void Document::recover(shoot::Shoot shoot, const QString& path) {
    open(std::move(shoot), path);
    recovered_ = true;
    Q_EMIT unsavedChanged();
}

const shoot::Shot* Document::shot() const {
    return current_ < 0 ? nullptr : &shoot_->shots[static_cast<std::size_t>(current_)];
}

const advice::Assessment* Document::assessment() const { return current_ < 0 ? nullptr : &assessment(current_); }

const plan::Report* Document::report() const { return current_ < 0 ? nullptr : &report(current_); }

std::vector<advice::Assessment> Document::assessments() const {
    std::vector<advice::Assessment> all;
    for (const auto& one : assessments_) all.push_back(*one);
    return all;
}

plan::Report Document::reportTurned(const shoot::Attitude& attitude) const {
    return plan::assess(assessment()->plan, attitude);
}

void Document::select(int index) {
    if (index == current_ || index < 0 || index >= count()) return;
    current_ = index;
    answer();
    Q_EMIT selected(index);
}

void Document::edit(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change) {
    push(label, change, false);
}

void Document::learn(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change) {
    push(label, change, true);
}

void Document::push(const EditLabel& label, const std::function<void(shoot::Shoot&)>& change, bool learns) {
    auto changed = std::make_shared<shoot::Shoot>(*shoot_);
    change(*changed);
    if (*changed == *shoot_) return;
    const int last = static_cast<int>(changed->shots.size()) - 1;
    undo_.push(new ShootEdit(*this, label, {shoot_, current_}, {changed, std::min(current_, last)}, learns));
}

void Document::editShot(const EditLabel& label, const std::function<void(shoot::Shot&)>& change) {
    if (current_ < 0) return;
    const auto index = static_cast<std::size_t>(current_);
    EditLabel keyed = label;
    if (!keyed.mergeKey.isEmpty()) keyed.mergeKey += toQt("@" + shoot_->shots[index].id);
    edit(keyed, [&](shoot::Shoot& shoot) { change(shoot.shots[index]); });
}

shoot::Terms Document::terms() const { return terms_of(*shoot_, *shot()); }

const shoot::Limits& Document::limits() const { return shot()->limits ? *shot()->limits : shoot_->terms.limits; }

shoot::Wishes Document::wishes() const { return overlaid(shot()->wishes, terms().wishes); }

void Document::editLimits(const EditLabel& label, const std::function<void(shoot::Limits&)>& change) {
    if (shot()->limits)
        editShot(label, [&](shoot::Shot& shot) { change(*shot.limits); });
    else
        edit(label, [&](shoot::Shoot& shoot) { change(shoot.terms.limits); });
}

void Document::editWishes(const EditLabel& label, const std::function<void(shoot::Wishes&)>& change) {
    shoot::Wishes wanted = wishes();
    change(wanted);
    const auto index = static_cast<std::size_t>(current_);
    shoot::Wishes own = shot()->wishes, shoots = shoot_->terms.wishes;
    grant(wanted, own, shoots);
    edit(label, [&](shoot::Shoot& shoot) {
        shoot.terms.wishes = shoots;
        if (std::as_const(shoot.shots)[index].wishes != own) shoot.shots[index].wishes = own;
    });
}

void Document::setSaved(const QString& path) {
    path_ = path;
    recovered_ = false;
    undo_.setClean();
    Q_EMIT unsavedChanged();
}

void Document::show(std::shared_ptr<const shoot::Shoot> shoot, int selection) {
    const auto before = std::exchange(shoot_, std::move(shoot));
    assessChanged(before.get());
    const bool other = selection != current_;
    current_ = count() == 0 ? -1 : std::clamp(selection, 0, count() - 1);
    answer();
    Q_EMIT shootChanged();
    if (other) Q_EMIT selected(current_);
}

namespace {

/// An assessment with the shoot it refers to.
struct Kept {
    Kept(ShootPointer shoot, std::size_t index)
        : of(std::move(shoot)),
          assessment(advice::assessment_of(of->kit, of->shots[index], shoot::terms_of(*of, of->shots[index]),
                                           advice::Remedies::left_out)) {}
    ShootPointer of;
    advice::Assessment assessment;
};

std::shared_ptr<const advice::Assessment> assessed(const ShootPointer& shoot, std::size_t index) {
    const auto kept = std::make_shared<const Kept>(shoot, index);
    return {kept, &kept->assessment};
}

}  // namespace

/// An assessment depends on the kit and its own shot: what kept both keeps its assessment.
void Document::assessChanged(const shoot::Shoot* before) {
    const bool same_kit = before && before->kit == shoot_->kit && before->terms == shoot_->terms &&
                          before->outlets == shoot_->outlets && assessments_.size() == before->shots.size();
    std::vector<std::shared_ptr<const advice::Assessment>> assessments;
    assessments.reserve(shoot_->shots.size());
    for (std::size_t i = 0; i < shoot_->shots.size(); ++i) {
        const auto& shot = shoot_->shots[i];
        std::shared_ptr<const advice::Assessment> kept;
        if (same_kit) {
            // In place in most edits; elsewhere after a move.
            if (i < before->shots.size() && shoot_->shots.same(i, before->shots, i)) kept = assessments_[i];
            for (std::size_t j = 0; !kept && j < before->shots.size(); ++j)
                if (before->shots[j].id == shot.id && shoot_->shots.same(i, before->shots, j)) kept = assessments_[j];
        }
        if (!kept) kept = assessed(shoot_, i);
        assessments.push_back(std::move(kept));
    }
    assessments_ = std::move(assessments);
}

void Document::answer() {
    if (isAnswered()) return;
    remedies_.render([this, of = sharedAssessment(current_)](const auto&) {
        return [this, of, notes = advice::advise(of->plan, of->report).notes] {
            if (current_ < 0 || sharedAssessment(current_) != of) return;  // left meanwhile
            answered_ = of;
            notes_ = notes;
            Q_EMIT answered();
        };
    });
}

}  // namespace poquito::desk

#include "desk/session/moc_document.moc"
