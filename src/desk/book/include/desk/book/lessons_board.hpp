#pragma once

#include "log/lessons.hpp"

#include <QString>
#include <QWidget>

#include <vector>

namespace poquito::desk {

/// Lessons by topic: what about, a bar of its interval with the value on it, how many cases.
class LessonsBoard : public QWidget {
    Q_OBJECT
  public:
    explicit LessonsBoard(QWidget* parent = nullptr);
    /// `offers`: what each would change now; empty: nothing.
    void setLessons(std::vector<log::Lesson> lessons, std::vector<QString> offers);
    std::size_t chosen() const { return chosen_; }
    QRectF rowRect(std::size_t index) const;
    QSize minimumSizeHint() const override { return {240, 120}; }

  Q_SIGNALS:
    void lessonChosen();
    void offerWanted();  // by a double click or Enter

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    struct Scale {
        double low = 0, high = 1;
    };
    Scale scaleOf(log::Topic topic) const;
    void drawBar(QPainter& painter, const QRectF& area, const log::Lesson& lesson) const;

    void layOut();
    void choose(std::size_t index);

    std::vector<log::Lesson> lessons_;
    std::vector<QString> offers_;
    std::vector<double> tops_;
    std::size_t chosen_ = 0;
};

}  // namespace poquito::desk
