#pragma once

#include "log/entry.hpp"

#include <QTimer>
#include <QWidget>

#include <optional>

class QVBoxLayout;
class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace poquito::desk {

class Document;
class FactsView;
class LineField;
class LogBoard;
class LogController;
class LogWriter;
class Sentence;

/// All that was logged, looked through by words, kind, class and verdict; what is chosen with its plan's picture, and a
/// new shot begun from it.
class LogTab : public QWidget {
    Q_OBJECT
  public:
    LogTab(Document& document, LogWriter& writer, QWidget* parent = nullptr);
    void refresh();
    const std::optional<log::Entry>& shown() const { return shown_; }
    /// For more keys, before it looks.
    bool isWaiting() const { return later_.isActive(); }

  Q_SIGNALS:
    void shotWanted();

  private:
    QWidget* buildList();
    void addSearch(QVBoxLayout* column, QWidget* page);
    void addWriting(QVBoxLayout* column, QWidget* page);
    void addExchange(QVBoxLayout* column, QWidget* page);
    QWidget* buildPage();
    void find();
    void look();
    void lookAtShot();
    QPixmap contactSheet() const;
    QString allOfShot() const;
    void showEntry();
    void begin();

    Document& document_;
    LogWriter& writer_;
    LogController& controller_;
    LineField* words_ = nullptr;
    QComboBox* kind_ = nullptr;
    QComboBox* class_ = nullptr;
    QComboBox* verdict_ = nullptr;
    QCheckBox* season_ = nullptr;
    Sentence* found_ = nullptr;
    LogBoard* board_ = nullptr;
    LineField* line_ = nullptr;
    QWidget* page_ = nullptr;
    QLabel* picture_ = nullptr;
    QLabel* thumbnails_ = nullptr;
    FactsView* facts_ = nullptr;
    QPushButton* begin_ = nullptr;
    QPushButton* forget_ = nullptr;
    Sentence* differs_ = nullptr;
    QTimer later_;
    int asked_ = 0;  // the last question: answers to others are passed over
    std::optional<log::Entry> shown_;
    std::vector<log::Entry> ofShot_;  // all of its shot, newest first
};

}  // namespace poquito::desk
