#pragma once

#include "day/order.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

struct DayPlan;

/// A day as lines, one a shot in the order they are taken: its change, its handling and its frames over the hours. As
/// listed, a line is dragged to another place; the brackets of fixed times are dragged in any order.
class DayDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit DayDrawing(QWidget* parent = nullptr);

    /// Lives as long as it is shown; null: nothing.
    void setPlan(const DayPlan* plan, bool listed, int selected);
    /// For tests and tools: where a line stands, and the bracket of a fixed time (empty: it has none).
    QRectF rowRect(std::size_t row) const;
    QPointF fence(std::size_t row, bool notBefore) const;
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {160, 120}; }

  Q_SIGNALS:
    // Indices in the order given.
    void shotClicked(int index);
    void shotWanted();  // the selected one
    void shotMoved(int from, int to);
    void timeDragged(int index, bool notBefore, double time);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    /// What a press took hold of.
    struct Held {
        std::size_t row = 0;
        enum class By { line, not_before, done_by } by = By::line;
        double from = 0;  // px of the press, downwards
    };
    const schedule::Day& day() const;
    double end() const;  // s after midnight, of the paper
    std::optional<Held> heldAt(QPointF at) const;
    std::size_t rowAt(double y) const;  // nearest
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
    bool listed_ = true;
    std::optional<Held> held_;
    std::optional<std::size_t> target_;  // row that the dragged line would take
    int selected_ = -1;
};

}  // namespace poquito::desk
