#pragma once

#include "desk/session/document.hpp"

#include <QWidget>

class QListWidget;

namespace poquito::desk {

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
