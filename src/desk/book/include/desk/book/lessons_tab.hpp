#pragma once

#include "log/lessons.hpp"

#include <QWidget>

#include <vector>

class QPushButton;

namespace poquito::desk {

class Document;
class LessonsBoard;
class LogController;
class LogWriter;
class Sentence;

/// What the log teaches, each with its cases and its interval; taken over only when it is asked for.
class LessonsTab : public QWidget {
    Q_OBJECT
  public:
    LessonsTab(Document& document, LogWriter& writer, QWidget* parent = nullptr);
    void refresh();
    const std::vector<log::Lesson>& lessons() const { return lessons_; }

  private:
    void show(std::vector<log::Lesson> lessons);
    void showOffers();
    void showChosen();
    void take();
    void takeTimes();

    Document& document_;
    LogWriter& writer_;
    LogController& controller_;
    Sentence* words_;
    LessonsBoard* board_;
    QPushButton* takeTimes_;
    QPushButton* take_;
    std::vector<QString> offers_;  // one a lesson
    std::vector<log::Lesson> lessons_;
};

}  // namespace poquito::desk
