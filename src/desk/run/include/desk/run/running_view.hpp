#pragma once

#include "run/runner.hpp"

#include <QHash>
#include <QImage>
#include <QWidget>

#include <optional>

class QPushButton;
class QToolButton;
class QCheckBox;

namespace poquito::desk {

class Document;
class RunController;

/// A run as one follows it from two metres away: which shot, frame k of n, where the plane of focus stands on the
/// subject, when the flash is ready, how long it still takes, and the frames so far as a strip.
class RunningView : public QWidget {
    Q_OBJECT
  public:
    RunningView(Document& document, RunController& runs, QWidget* parent = nullptr);

    QString frameText() const;                 // "7 of 20"
    QString phaseText() const;                 // "exposing"
    QString problemText() const;               // empty: none
    QString flashText() const;                 // "ready", "in 1.5 s", "not charging"
    QRectF cellRect(std::size_t frame) const;  // of the strip

  Q_SIGNALS:
    void leaveWanted();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    struct Strip {
        QRectF area;
        std::size_t first = 0, count = 0;  // frames that are shown
        double width = 1;                  // of a cell
    };
    Strip strip() const;
    void refresh();
    QString boxText() const;  // what is wrong, what to change, what a rehearsal came to; empty: the numbers
    void paintBox(QPainter& painter, const QRectF& box, const QString& words, const QColor& wash) const;
    void paintSubject(QPainter& painter, const QRectF& area, const run::RunStatus& status) const;
    void paintPicture(QPainter& painter, const QRectF& area, const run::RunStatus& status);
    void paintStrip(QPainter& painter, const run::RunStatus& status);
    void paintNumbers(QPainter& painter, const QRectF& area, const run::RunStatus& status) const;
    const QImage* thumbnail(const run::RunStatus& status, std::size_t frame);
    void sound(const run::RunStatus& status);

    Document& document_;
    RunController& runs_;
    std::size_t chosen_ = 0;  // where redo begins
    bool chosenByHand_ = false;
    std::string shownRun_;
    QHash<qulonglong, QImage> thumbnails_;
    QImage picture_;  // of a rehearsal, the one that is shown large
    QString pictureFile_;
    std::optional<run::Phase> heard_;
    QPushButton* pause_ = nullptr;
    QPushButton* stop_ = nullptr;
    QPushButton* skip_ = nullptr;
    QPushButton* redo_ = nullptr;
    QPushButton* leave_ = nullptr;
    QPushButton* notice_ = nullptr;  // of a rehearsal
    QCheckBox* sounds_ = nullptr;
};

}  // namespace poquito::desk
