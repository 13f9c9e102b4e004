#pragma once

#include "desk/toolkit/caption.hpp"

#include <QStringList>
#include <QWidget>

class QComboBox;

namespace poquito::desk {

class BookPage;
class LogController;

/// Pages of the book, one at a time: chosen by name, and printed as they stand. Brought up to date by itself while it
/// is seen.
class PagesTab : public QWidget {
    Q_OBJECT
  public:
    virtual void refresh() = 0;

  protected:
    struct Bar {
        Caption choice;
        int letters = 12;  // of the choice's names, that it has room for
        Caption print;
    };
    /// `page` becomes the tab's own.
    PagesTab(LogController& controller, const Bar& bar, BookPage* page, QWidget* parent);

    /// Another page is wanted, by its place among the names.
    virtual void turn(int place) = 0;

    /// What there is to choose from, and which of it is shown. Nothing: the page says why, and the bar is not there.
    void offer(const QStringList& names, int place);
    QString chosen() const;
    int place() const;  // -1: nothing was offered

    LogController& controller_;

  private:
    QWidget* bar_;
    QComboBox* choice_;
};

}  // namespace poquito::desk
