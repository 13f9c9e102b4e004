#pragma once

#include "desk/toolkit/caption.hpp"

#include <QWidget>

class QHBoxLayout;
class QStackedWidget;
class QToolButton;

namespace poquito::desk {

/// The leaves of a sheet, one at a time, with a button to turn to each. Only the leaf that shows asks for room.
class Leaves : public QWidget {
    Q_OBJECT
  public:
    /// `parts`: each leaf is a part of the window (`stylePart`), which all of the leaves together are too large for.
    enum class Style { ofTheSheet, parts };
    explicit Leaves(QWidget* parent = nullptr, Style style = Style::ofTheSheet);

    void addLeaf(const Caption& tab, QWidget* leaf);
    int current() const;
    QWidget* currentLeaf() const;
    QString currentName() const;  // of its tab
    void turnTo(int index);

  Q_SIGNALS:
    void turned(int index);

  private:
    QHBoxLayout* tabs_;
    QStackedWidget* stack_;
    Style style_;
    QList<QToolButton*> buttons_;
};

}  // namespace poquito::desk
