#pragma once

#include "search/reach_search.hpp"

#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

/// Working distance against light lost, a dot each; the best trade-offs are joined. A click chooses the nearest dot,
/// arrow keys go along the front.
class ReachChart : public QWidget {
    Q_OBJECT
  public:
    explicit ReachChart(QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {320, 240}; }

    void show(const std::vector<search::ReachFound>& found, double leastWorkingDistance);
    void mark(const std::optional<search::ReachFound>& chosen);

    QPointF placeOf(const search::ReachFound& found) const;

  Q_SIGNALS:
    void chosen(const search::ReachFound& found);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF plot() const;
    double xOf(double workingDistance) const;
    double yOf(double loss) const;
    void drawAxes(QPainter& painter) const;

    std::vector<search::ReachFound> found_;
    std::vector<search::ReachFound> front_;  // by falling working distance
    std::optional<search::ReachFound> chosen_;
    double bound_ = 0;
    double least_ = 1, greatest_ = 1000;  // mm, ends of the axis
    double most_ = 1;                     // stops
};

}  // namespace poquito::desk
