#pragma once

#include "desk/book/practice_tab.hpp"

#include <QWidget>

namespace poquito::desk {

class Bag;
class Document;
class KitRoom;
class Tabs;
class LessonsTab;
class LogTab;
class ProtocolsTab;
class ReviewTab;

/// What outlives a shoot, a tab a chapter: the bag, the log, what it teaches, series over the
/// months, days looked back on, and exercises.
class BookSheet : public QWidget {
    Q_OBJECT
  public:
    BookSheet(Document& document, Bag& bag, const PracticeTab::Controllers& controllers, QWidget* parent = nullptr);

    KitRoom& kit() { return *kit_; }
    bool showsKit() const;
    void turnToKit();
    void turnToReview();
    void refresh();

  Q_SIGNALS:
    void turned();  // another chapter
    void shotWanted();

  private:
    Tabs* tabs_;
    KitRoom* kit_;
    LogTab* log_;
    LessonsTab* lessons_;
    ProtocolsTab* protocols_;
    ReviewTab* review_;
    PracticeTab* practice_;
};

}  // namespace poquito::desk
