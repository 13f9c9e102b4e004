#include "desk/light/balance_chart.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QMouseEvent>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {}  // namespace

BalanceChart::BalanceChart(Document& document, QWidget* parent) : Chart(parent), document_(document) {
    setObjectName(QStringLiteral("balanceChart"));
    setAccessibleName(tr("Balance of light that stays on and flash, in stops"));
    setToolTip(
        tr("Drag the dot: the shutter moves it left and right, power up and down. Arrow keys move it by a third "
           "of a stop."));
    setFocusPolicy(Qt::StrongFocus);
    setMargins(44, 22, 12, 36);
    setAxes(Axis::even(-9, 3), Axis::even(-9, 3));
}

bool BalanceChart::prepare() {
    if (!dragging_) proposal_.reset();
    return document_.shot() != nullptr;
}

QPointF BalanceChart::placeOf(const light::Balance& balance) const {
    return placeOf(xAxis().clamped(balance.ambient), yAxis().clamped(balance.flash));
}

std::optional<light::Balance> BalanceChart::now() const {
    return document_.shot() ? whatif::balance_of(document_.report()->light) : std::nullopt;
}

std::optional<double> BalanceChart::wall() const {
    const auto balance = now();
    const auto& room = document_.report()->light.shutter_room;
    if (!balance || !room) return std::nullopt;
    return balance->ambient - *room;
}

void BalanceChart::draw(QPainter& painter) {
    drawTitle(painter, tr("Balance, stops from correct"));
    drawScales(painter);
    painter.save();
    painter.setClipRect(area());
    const double black = placeOf({.ambient = plan::black_frame_limit}).x();
    painter.fillRect(QRectF(area().topLeft(), QPointF(black, area().bottom())), theme().linkWash);
    drawCorrect(painter);
    drawWall(painter);
    painter.restore();
    painter.setPen(QPen(theme().ink, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(area());
    const QRectF taken = now() ? drawPlan(painter) : drawMissing(painter);
    drawNames(painter, taken);
}

void BalanceChart::drawScales(QPainter& painter) const {
    std::vector<Mark> marks;
    for (int stop = -8; stop <= 2; stop += 2)
        marks.push_back({static_cast<double>(stop),
                         stop == 0 ? tr("0") : stopsText(stop).section(QLatin1Char('.'), 0, 0), stop == 0 ? 1.4 : 0.6});
    drawColumns(painter, marks, Lines::across);
    drawRows(painter, marks);
    drawNote(painter, Qt::AlignRight, tr("stays on: shutter, with aperture and ISO \u2192"));
    painter.save();
    painter.translate(9, area().center().y());
    painter.rotate(-90);
    drawLine(painter, {-area().height() / 2, -8, area().height(), 15}, Qt::AlignCenter, tr("flash: power \u2192"));
    painter.restore();
}

/// Where both together are correct.
void BalanceChart::drawCorrect(QPainter& painter) const {
    QPolygonF correct;
    constexpr int places = 120;
    const double least = std::exp2(xAxis().from());
    for (int i = 0; i <= places; ++i) {
        // Even in the angle, so that both ends are drawn as finely as the bend.
        const double turn = std::sin(i * 1.5707963267948966 / places);
        const double light = least + (1 - 2 * least) * turn * turn;  // of the one that stays on
        correct << placeOf({.ambient = std::log2(light), .flash = std::log2(1 - light)});
    }
    painter.setPen(QPen(theme().focus, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(correct);
}

/// The shutter alone cannot pass it.
void BalanceChart::drawWall(QPainter& painter) const {
    if (!wall()) return;
    const double at = placeOf({.ambient = *wall()}).x();
    painter.setPen(QPen(theme().stop, 2));
    painter.drawLine(QLineF(at, area().top(), at, area().bottom()));
    for (double y = area().top() - 8; y < area().bottom(); y += 7) painter.drawLine(QLineF(at, y + 7, at - 5, y + 12));
}

void BalanceChart::drawNames(QPainter& painter, const QRectF& taken) const {
    const QRectF all = area();
    painter.setFont(textFont(11));
    if (all.width() > 190) {
        drawLabel(painter, {all.left() + 5, all.bottom() - 10}, Qt::AlignLeft | Qt::AlignVCenter,
                  tr("black without flash"), theme().link);
        // At the end of the curve that the plan's own words leave free.
        const QPointF left = placeOf({.ambient = -8.9, .flash = 0}) + QPointF(0, -11);
        const QPointF low = placeOf({.ambient = 0, .flash = -8.3}) - QPointF(6, 0);
        const double wide = lineWidth(painter.font(), tr("correct")) + 6;
        if (taken.intersects(QRectF(left.x(), left.y() - 8, wide, 16)))
            drawLabel(painter, low, Qt::AlignRight | Qt::AlignVCenter, tr("correct"), theme().focus);
        else
            drawLabel(painter, left, Qt::AlignLeft | Qt::AlignVCenter, tr("correct"), theme().focus);
    }
    if (!wall()) return;
    const double at = placeOf({.ambient = *wall()}).x();
    if (at > all.left() + 4)
        drawLabel(painter, {at + 5, all.top() + 11}, Qt::AlignLeft | Qt::AlignVCenter,
                  document_.shot()->exposure.high_speed_sync ? tr("fastest") : tr("sync"), theme().stop);
}

/// Half of the balance is not there: where the light that stays on stands by itself, and what to add.
QRectF BalanceChart::drawMissing(QPainter& painter) const {
    const auto& report = document_.report()->light;
    const QRectF all = area();
    if (report.continuous) {
        drawUpright(painter, QPen(theme().ink, 1.4), xAxis().clamped(*report.continuous));
        const double x = placeOf({.ambient = *report.continuous}).x();
        const bool right = x > all.center().x();
        drawLabel(painter, {x + (right ? -6 : 6), all.top() + 11},
                  (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, stopsText(*report.continuous),
                  theme().ink);
    }
    const QString missing = report.flash        ? tr("no light stays on: switch on the ambient light or add a lamp")
                            : report.continuous ? tr("no flash fires: add one to balance it")
                                                : tr("no light yet");
    return drawLabel(painter, all.center(), Qt::AlignCenter, elided(textFont(11), missing, all.width() - 12),
                     theme().quiet);
}

QRectF BalanceChart::drawPlan(QPainter& painter) const {
    const Theme& t = theme();
    const QRectF all = area();
    const QPointF at = placeOf(*now());
    painter.setPen(QPen(t.panel, 1.5));
    painter.setBrush(t.focus);
    painter.drawEllipse(at, 6, 6);
    if (hasFocus()) {
        painter.setPen(QPen(t.link, 1.5));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(at, 9, 9);
    }
    QString words = tr("%1 stays on, %2 flash").arg(stopsText(now()->ambient), stopsText(now()->flash));
    QPointF anchor = at;
    if (proposal_) {
        anchor = placeOf(proposal_->reached);
        painter.setPen(QPen(t.focus, 1.2, Qt::DashLine));
        painter.drawLine(at, anchor);
        painter.setPen(QPen(t.focus, 2));
        painter.setBrush(t.panel);
        painter.drawEllipse(anchor, 6, 6);
        words = toQt(proposal_->text);
        if (proposal_->at_wall) words += tr("; sync reached");
    }
    const QFont font = textFont(11, QFont::DemiBold);
    const double above = anchor.y() > all.top() + 30 ? -15 : 17, wide = lineWidth(font, words);
    const double x = std::clamp(anchor.x() > all.center().x() ? anchor.x() - wide : anchor.x(), all.left() + 4,
                                std::max(all.left() + 4, all.right() - wide - 6));
    painter.setFont(font);
    return drawLabel(painter, {x, anchor.y() + above}, Qt::AlignLeft | Qt::AlignVCenter, words, t.ink);
}

QString BalanceChart::reading(double ambient, double flash) const {
    const double both = std::log2(std::exp2(ambient) + std::exp2(flash));
    return tr("%1 stays on, %2 flash: together %3").arg(stopsText(ambient), stopsText(flash), stopsText(both));
}

void BalanceChart::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !document_.shot()) return;
    dragging_ = true;
    propose(event->position());
}

void BalanceChart::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_) propose(event->position());
    Chart::mouseMoveEvent(event);
}

void BalanceChart::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    if (!proposal_) return;
    const auto taken = std::move(*proposal_);
    proposal_.reset();
    take(taken);
}

bool BalanceChart::step(int right, int up) {
    auto wanted = now();
    if (!wanted) return false;
    constexpr double third = 1.0 / 3;
    wanted->ambient += right * third;
    wanted->flash += up * third;
    if (const auto proposal = whatif::propose_balance(document_.assessment()->plan, *wanted)) take(*proposal);
    return true;
}

void BalanceChart::propose(QPointF place) {
    proposal_ = whatif::propose_balance(document_.assessment()->plan, {.ambient = xAxis().clamped(xAt(place.x())),
                                                                       .flash = yAxis().clamped(yAt(place.y()))});
    update();
}

void BalanceChart::take(const whatif::BalanceProposal& proposal) {
    document_.editShot({tr("Change the balance")}, [&](shoot::Shot& shot) { shot = proposal.shot; });
}

}  // namespace poquito::desk

#include "desk/light/moc_balance_chart.moc"
