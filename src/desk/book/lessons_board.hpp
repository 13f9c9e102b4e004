#pragma once

#include "log/lessons.hpp"

#include <QWidget>

#include <vector>

namespace poquito::desk {

/// Lessons by topic: what about, a bar of its interval with the value on it, how many cases.
class LessonsBoard : public QWidget {
    Q_OBJECT
  public:
    explicit LessonsBoard(QWidget* parent = nullptr);
    void setLessons(std::vector<log::Lesson> lessons);
    QSize minimumSizeHint() const override { return {240, 120}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    struct Scale {
        double low = 0, high = 1;
    };
    Scale scaleOf(log::Topic topic) const;
    void drawBar(QPainter& painter, const QRectF& area, const log::Lesson& lesson) const;

    std::vector<log::Lesson> lessons_;
};

}  // namespace poquito::desk
