#pragma once

#include "desk/toolkit/caption.hpp"

#include <QWidget>

class QHBoxLayout;
class QStackedWidget;
class QToolButton;

namespace poquito::desk {

/// The pages of a sheet, one at a time, with a tab to turn to each. Only the one that shows asks for room.
class Tabs : public QWidget {
    Q_OBJECT
  public:
    /// `parts`: each page is a part of the window (`stylePart`), which all of the pages together are too large for.
    enum class Style { ofTheSheet, parts };
    explicit Tabs(QWidget* parent = nullptr, Style style = Style::ofTheSheet);

    void addTab(const Caption& tab, QWidget* page);
    int current() const;
    QWidget* currentTab() const;
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
