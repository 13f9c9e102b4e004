#include "desk/light/balance_chart.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double least = -9, greatest = 3;  // stops shown on both axes

QString stops(double value) { return QString::fromStdString(text::stops_text(value)); }

}  // namespace

BalanceChart::BalanceChart(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("balanceChart"));
    setAccessibleName(tr("Balance of light that stays on and flash, in stops"));
    setToolTip(
        tr("Drag the dot: the shutter moves it left and right, power up and down. Arrow keys move it by a third "
           "of a stop."));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
}

void BalanceChart::refresh() {
    proposal_.reset();
    update();
}

QRectF BalanceChart::plot() const { return QRectF(rect()).adjusted(44, 22, -12, -36); }

QPointF BalanceChart::placeOf(const light::Balance& balance) const {
    const QRectF area = plot();
    const auto share = [](double value) { return (std::clamp(value, least, greatest) - least) / (greatest - least); };
    return {area.left() + area.width() * share(balance.ambient), area.bottom() - area.height() * share(balance.flash)};
}

light::Balance BalanceChart::balanceAt(QPointF place) const {
    const QRectF area = plot();
    return {.ambient = least + (greatest - least) * (place.x() - area.left()) / area.width(),
            .flash = least + (greatest - least) * (area.bottom() - place.y()) / area.height()};
}

void BalanceChart::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = document_.report()->light;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), tr("Balance, stops from correct"));
    const QRectF area = plot();
    // ---- looks of the frame by region: flash leads above the diagonal, the room below it
    painter.setFont(textFont(11));
    for (int stop = static_cast<int>(least); stop <= greatest; ++stop) {
        const bool whole = stop % 2 == 0;
        const QPointF at = placeOf({.ambient = static_cast<double>(stop), .flash = static_cast<double>(stop)});
        painter.setPen(QPen(t.hairline, stop == 0 ? 1.4 : 0.6));
        if (whole) {
            painter.drawLine(QLineF(at.x(), area.top(), at.x(), area.bottom()));
            painter.drawLine(QLineF(area.left(), at.y(), area.right(), at.y()));
            painter.setPen(t.quiet);
            const QString text = stop == 0 ? tr("0") : stops(stop).section(QLatin1Char('.'), 0, 0);
            drawLine(painter, {at.x() - 20, area.bottom() + 3, 40, 14}, Qt::AlignCenter, text);
            drawLine(painter, {area.left() - 36, at.y() - 8, 30, 16}, Qt::AlignRight | Qt::AlignVCenter, text);
        }
    }
    painter.setPen(t.quiet);
    drawLine(painter, {area.left(), area.bottom() + 18, area.width(), 15}, Qt::AlignRight | Qt::AlignVCenter,
             tr("stays on: shutter, with aperture and ISO \u2192"));
    painter.save();
    painter.translate(9, area.center().y());
    painter.rotate(-90);
    drawLine(painter, {-area.height() / 2, -8, area.height(), 15}, Qt::AlignCenter, tr("flash: power \u2192"));
    painter.restore();
    painter.save();
    painter.setClipRect(area);
    // ---- black without flash
    const double black = placeOf({.ambient = plan::black_frame_limit}).x();
    painter.fillRect(QRectF(area.topLeft(), QPointF(black, area.bottom())), t.linkWash);
    // ---- where both together are correct
    QPainterPath correct;
    constexpr int places = 120;
    for (int i = 0; i <= places; ++i) {
        // Even in the angle, so that both ends are drawn as finely as the bend.
        const double turn = std::sin(i * 1.5707963267948966 / places);
        const double light = std::exp2(least) + (1 - 2 * std::exp2(least)) * turn * turn;  // of the one that stays on
        const QPointF at = placeOf({.ambient = std::log2(light), .flash = std::log2(1 - light)});
        if (i == 0)
            correct.moveTo(at);
        else
            correct.lineTo(at);
    }
    painter.setPen(QPen(t.focus, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(correct);
    // ---- sync wall: the shutter alone cannot pass it
    const auto now = plan::balance_of(report);
    if (now && report.shutter_room) {
        const double wall = placeOf({.ambient = now->ambient - *report.shutter_room}).x();
        painter.setPen(QPen(t.stop, 2));
        painter.drawLine(QLineF(wall, area.top(), wall, area.bottom()));
        for (double y = area.top() - 8; y < area.bottom(); y += 7)
            painter.drawLine(QLineF(wall, y + 7, wall - 5, y + 12));
    }
    painter.restore();
    painter.setPen(QPen(t.ink, 1));
    painter.drawRect(area);
    if (area.width() > 190) {
        drawLabel(painter, {area.left() + 5, area.bottom() - 10}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("black without flash"), t.link);
        drawLabel(painter, placeOf({.ambient = -8.9, .flash = 0}) + QPointF(0, -11), Qt::AlignLeft | Qt::AlignVCenter,
                  tr("correct"), t.focus);
    }
    if (now && report.shutter_room) {
        const double wall = placeOf({.ambient = now->ambient - *report.shutter_room}).x();
        if (wall > area.left() + 4)
            drawLabel(painter, {wall + 5, area.top() + 11}, Qt::AlignLeft | Qt::AlignVCenter, tr("sync"), t.stop);
    }
    if (!now) {
        if (report.continuous) {  // where the light that is there stands by itself
            const double x = placeOf({.ambient = *report.continuous}).x();
            painter.setPen(QPen(t.ink, 1.4));
            painter.drawLine(QLineF(x, area.top(), x, area.bottom()));
            const bool right = x > area.center().x();
            drawLabel(painter, {x + (right ? -6 : 6), area.top() + 11},
                      (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, stops(*report.continuous), t.ink);
        }
        const QString missing = report.flash        ? tr("no light stays on: switch on the ambient light or add a lamp")
                                : report.continuous ? tr("no flash fires: add one to balance it")
                                                    : tr("no light yet");
        drawLabel(painter, area.center(), Qt::AlignCenter, elided(textFont(11), missing, area.width() - 12), t.quiet);
        return;
    }
    // ---- the plan
    const QPointF at = placeOf(*now);
    painter.setPen(QPen(t.panel, 1.5));
    painter.setBrush(t.focus);
    painter.drawEllipse(at, 6, 6);
    if (hasFocus()) {
        painter.setPen(QPen(t.link, 1.5));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at, 9, 9);
    }
    QString words = tr("%1 stays on, %2 flash").arg(stops(now->ambient), stops(now->flash));
    QPointF anchor = at;
    if (proposal_) {
        anchor = placeOf(proposal_->reached);
        painter.setPen(QPen(t.focus, 1.2, Qt::DashLine));
        painter.drawLine(at, anchor);
        painter.setPen(QPen(t.focus, 2));
        painter.setBrush(t.panel);
        painter.drawEllipse(anchor, 6, 6);
        words = QString::fromStdString(proposal_->text);
        if (proposal_->at_wall) words += tr("; sync reached");
    }
    const bool right_half = anchor.x() > area.center().x();
    const double above = anchor.y() > area.top() + 30 ? -15 : 17;
    painter.setFont(textFont(11, QFont::DemiBold));
    const double width = lineWidth(textFont(11, QFont::DemiBold), words);
    const double x = std::clamp(right_half ? anchor.x() - width : anchor.x(), area.left() + 4,
                                std::max(area.left() + 4, area.right() - width - 6));
    drawLabel(painter, {x, anchor.y() + above}, Qt::AlignLeft | Qt::AlignVCenter, words, t.ink);
}

void BalanceChart::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !document_.shot()) return;
    dragging_ = true;
    propose(event->position());
}

void BalanceChart::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_) propose(event->position());
}

void BalanceChart::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    if (!proposal_) return;
    const auto taken = std::move(*proposal_);
    proposal_.reset();
    take(taken);
}

void BalanceChart::keyPressEvent(QKeyEvent* event) {
    const auto now = document_.shot() ? plan::balance_of(document_.report()->light) : std::nullopt;
    if (!now) return QWidget::keyPressEvent(event);
    light::Balance wanted = *now;
    constexpr double third = 1.0 / 3;
    switch (event->key()) {
        case Qt::Key_Left:
            wanted.ambient -= third;
            break;
        case Qt::Key_Right:
            wanted.ambient += third;
            break;
        case Qt::Key_Up:
            wanted.flash += third;
            break;
        case Qt::Key_Down:
            wanted.flash -= third;
            break;
        default:
            return QWidget::keyPressEvent(event);
    }
    if (const auto proposal = plan::propose_balance(document_.kit(), *document_.shot(), wanted)) take(*proposal);
}

void BalanceChart::propose(QPointF place) {
    const QRectF area = plot();
    const auto wanted =
        balanceAt({std::clamp(place.x(), area.left(), area.right()), std::clamp(place.y(), area.top(), area.bottom())});
    proposal_ = plan::propose_balance(document_.kit(), *document_.shot(), wanted);
    update();
}

void BalanceChart::take(const plan::BalanceProposal& proposal) {
    document_.editShot({tr("Change the balance")}, [&](shoot::Shot& shot) { shot = proposal.shot; });
}

}  // namespace poquito::desk
