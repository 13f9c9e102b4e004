#pragma once

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/still_list.hpp"

#include <QString>

namespace poquito::shoot {
struct Shot;
}

namespace poquito::desk {

class Document;
class ProofController;
struct ProofLook;

/// What became of a shot's frames: what those that lie there show, else the last verdict on it.
struct ShotOutcome {
    QString words;
    Status status = Status::open;
    bool bad = false;  // some have to be taken again
};
ShotOutcome outcomeOf(const shoot::Shot& shot, const ProofLook* look);

/// The shots as cards: the frame to scale, size, magnification, frames and how the plan stands, or at Proof what became
/// of its frames.
class ShotCards : public StillList {
    Q_OBJECT
  public:
    explicit ShotCards(Document& document, QWidget* parent = nullptr);

    /// Null: how the plan stands.
    void showProof(const ProofController* proof);

  protected:
    void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;

  private:
    void followSelection();

    Document& document_;
    int shown_ = -1;
    class Delegate;
    Delegate* delegate_;
};

}  // namespace poquito::desk
