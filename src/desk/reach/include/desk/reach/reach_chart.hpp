#pragma once

#include "desk/toolkit/chart.hpp"
#include "search/reach_search.hpp"

#include <optional>
#include <vector>

namespace poquito::desk {

/// Working distance against light lost, a dot each; the best trade-offs are joined. A click chooses the nearest dot,
/// arrow keys go along the front.
class ReachChart : public Chart {
    Q_OBJECT
  public:
    explicit ReachChart(QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {320, 240}; }

    void show(const std::vector<search::ReachFound>& found, double leastWorkingDistance);
    void mark(const std::optional<search::ReachFound>& chosen);

    using Chart::placeOf;
    QPointF placeOf(const search::ReachFound& found) const;

  Q_SIGNALS:
    void chosen(const search::ReachFound& found);

  protected:
    bool prepare() override { return true; }
    void draw(QPainter& painter) override;
    QString reading(double workingDistance, double loss) const override;
    bool step(int right, int up) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    void drawScales(QPainter& painter) const;
    void drawFound(QPainter& painter) const;
    void drawChosen(QPainter& painter) const;

    std::vector<search::ReachFound> found_;
    std::vector<search::ReachFound> front_;  // by falling working distance
    std::optional<search::ReachFound> chosen_;
    double bound_ = 0;
};

}  // namespace poquito::desk
