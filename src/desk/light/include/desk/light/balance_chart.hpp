#pragma once

#include "desk/toolkit/chart.hpp"
#include "light/levers.hpp"
#include "whatif/flash_balance.hpp"

#include <optional>

namespace poquito::desk {

class Document;

/// Light that stays on across, flash up, in stops about a correct exposure. The plan is a dot; the curve is where both
/// together are correct; the sync limit is a wall to the left. Dragging the dot proposes settings, letting go takes
/// them; arrow keys move it by a third of a stop.
class BalanceChart : public Chart {
    Q_OBJECT
  public:
    explicit BalanceChart(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {220, 150}; }

    using Chart::placeOf;
    QPointF placeOf(const light::Balance& balance) const;
    /// What is proposed while one drags; empty otherwise.
    const std::optional<whatif::BalanceProposal>& proposal() const { return proposal_; }

  protected:
    bool prepare() override;
    void draw(QPainter& painter) override;
    QString reading(double ambient, double flash) const override;
    bool step(int right, int up) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

  private:
    std::optional<light::Balance> now() const;
    std::optional<double> wall() const;  // stops of light that stays on, where the shutter comes to sync
    void drawScales(QPainter& painter) const;
    void drawCorrect(QPainter& painter) const;
    void drawWall(QPainter& painter) const;
    void drawNames(QPainter& painter, const QRectF& taken) const;
    QRectF drawMissing(QPainter& painter) const;  // what its words take
    QRectF drawPlan(QPainter& painter) const;
    void propose(QPointF place);
    void take(const whatif::BalanceProposal& proposal);

    Document& document_;
    std::optional<whatif::BalanceProposal> proposal_;
    bool dragging_ = false;
};

}  // namespace poquito::desk
