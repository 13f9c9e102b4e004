#pragma once

#include "desk/session/document.hpp"
#include "shoot/limits.hpp"

#include <QWidget>

#include <functional>

class QListWidget;

namespace poquito::desk {

/// Limits and order that the selected shot goes by: its own where it has some, else the shoot's. There is a shot.
const shoot::Limits& limitsOf(Document& document);
/// Changes those.
void editLimits(Document& document, const EditLabel& text, const std::function<void(shoot::Limits&)>& change);

/// What is given up first where not all can be had, from left to right: dragged, or moved by the buttons beside it.
class GiveUpStrip : public QWidget {
    Q_OBJECT
  public:
    explicit GiveUpStrip(Document& document, QWidget* parent = nullptr);

    void refresh();  // there is a shot

  private:
    void move(int by);
    void adopt();

    Document& document_;
    QListWidget* order_;
};

}  // namespace poquito::desk
