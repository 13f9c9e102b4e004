#pragma once

#include "desk/base/still_list.hpp"

namespace poquito::desk {

class Document;

/// The shots as cards: the frame to scale, size, magnification, frames and how the plan stands.
class ShotCards : public StillList {
    Q_OBJECT
  public:
    explicit ShotCards(Document& document, QWidget* parent = nullptr);

  protected:
    void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;

  private:
    void followSelection();

    Document& document_;
    int shown_ = -1;
};

}  // namespace poquito::desk
