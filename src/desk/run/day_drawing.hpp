#pragma once

#include <QWidget>

namespace poquito::desk {

struct DayPlan;

/// A day as lines, one a shot in the order they are taken: its change, its handling and its frames over the hours.
class DayDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit DayDrawing(QWidget* parent = nullptr);

    /// Lives as long as it is shown; null: nothing.
    void setPlan(const DayPlan* plan, int selected);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {160, 120}; }

  Q_SIGNALS:
    void shotClicked(int index);  // in the order given

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    double rowHeight() const;
    double namesWidth() const;
    double changesWidth() const;
    QRectF field() const;
    double xOf(double time) const;           // s after midnight
    double lateness(std::size_t row) const;  // s after it should have been done
    bool isLate(std::size_t row) const;
    void drawHours(QPainter& painter) const;
    void drawWork(QPainter& painter, std::size_t row) const;
    void drawWords(QPainter& painter, std::size_t row) const;

    const DayPlan* plan_ = nullptr;
    int selected_ = -1;
};

}  // namespace poquito::desk
