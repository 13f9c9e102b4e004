#pragma once

#include "light/levers.hpp"
#include "plan/flash_balance.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

class Document;

/// Light that stays on across, flash up, in stops about a correct exposure. The plan is a dot; the curve is where both
/// together are correct; the sync limit is a wall to the left. Dragging the dot proposes settings, letting go takes
/// them.
class BalanceChart : public QWidget {
    Q_OBJECT
  public:
    explicit BalanceChart(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {220, 150}; }

    void refresh();

    /// Where a balance stands, and which one stands at a place, in this widget's pixels.
    QPointF placeOf(const light::Balance& balance) const;
    light::Balance balanceAt(QPointF place) const;
    /// What is proposed while one drags; empty otherwise.
    const std::optional<plan::BalanceProposal>& proposal() const { return proposal_; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF plot() const;
    void propose(QPointF place);
    void take(const plan::BalanceProposal& proposal);

    Document& document_;
    std::optional<plan::BalanceProposal> proposal_;
    bool dragging_ = false;
};

}  // namespace poquito::desk
