#pragma once

#include "desk/book/practice_leaf.hpp"

#include <QWidget>

namespace poquito::desk {

class Bag;
class Document;
class KitRoom;
class Leaves;
class LessonsLeaf;
class LogLeaf;
class ProtocolsLeaf;
class ReviewLeaf;

/// What outlives a shoot, a leaf a chapter: the bag, the log, what it teaches, series over the
/// months, days looked back on, and exercises.
class BookSheet : public QWidget {
    Q_OBJECT
  public:
    BookSheet(Document& document, Bag& bag, const PracticeLeaf::Desks& desks, QWidget* parent = nullptr);

    KitRoom& kit() { return *kit_; }
    bool showsKit() const;
    void turnToKit();
    void turnToReview();
    void refresh();

  Q_SIGNALS:
    void turned();  // another chapter
    void shotWanted();

  private:
    Leaves* leaves_;
    KitRoom* kit_;
    LogLeaf* log_;
    LessonsLeaf* lessons_;
    ProtocolsLeaf* protocols_;
    ReviewLeaf* review_;
    PracticeLeaf* practice_;
};

}  // namespace poquito::desk
