#include "desk/light_scale.hpp"

#include "desk/document.hpp"
#include "desk/drafting.hpp"
#include "desk/theme.hpp"
#include "shoot/text.hpp"

#include <QPainter>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr double darkest = -10, brightest = 4;  // stops shown

QString stops(double value) { return QString::fromStdString(shoot::stops_text(value)); }

}  // namespace

LightScale::LightScale(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("lightScale"));
    setAccessibleName(tr("Light at subject and background in stops"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LightScale::paintEvent(QPaintEvent*) {
    if (!document_.shot()) return;
    const auto& light = document_.report()->light;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double left = 64, right = width() - 8.0;
    const auto x_of = [&](double value) {
        return left + (right - left) * (std::clamp(value, darkest, brightest) - darkest) / (brightest - darkest);
    };
    double y = 0;
    const auto heading = [&](const QString& text) {
        painter.setFont(textFont(12, QFont::DemiBold));
        painter.setPen(t.ink);
        painter.drawText(QPointF(0, y + 13), text);
        y += 22;
        painter.setFont(textFont(11));
    };
    const auto row = [&](const QString& name, const std::optional<double>& value, const QColor& fill,
                         const QColor& edge) {
        painter.setPen(t.quiet);
        painter.drawText(QRectF(0, y, left - 8, 18), Qt::AlignRight | Qt::AlignVCenter, name);
        if (!value) {
            painter.drawText(QRectF(left + 4, y, right - left, 18), Qt::AlignLeft | Qt::AlignVCenter, tr("none"));
        } else {
            const QRectF bar(QPointF(left, y + 3), QPointF(std::max(x_of(*value), left + 2), y + 15));
            painter.fillRect(bar, fill);
            painter.setPen(QPen(edge, 1));
            painter.drawRect(bar);
            const bool inside = bar.width() > 60;
            painter.setPen(t.ink);
            painter.drawText(inside ? bar.adjusted(0, 0, -5, 0) : QRectF(bar.right() + 5, y, 60, 18),
                             (inside ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, stops(*value));
        }
        y += 20;
    };
    const auto axis = [&](double top, const QString& correct) {
        const int step = right - left > 220 ? 2 : 5;  // both meet 0
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QLineF(left, y + 2, right, y + 2));
        painter.setPen(t.quiet);
        for (int stop = static_cast<int>(darkest); stop <= brightest; stop += step) {
            painter.drawLine(QLineF(x_of(stop), y + 2, x_of(stop), y + 6));
            painter.drawText(QRectF(x_of(stop) - 20, y + 7, 40, 14), Qt::AlignHCenter,
                             stop == 0 ? correct : stops(stop).section(QLatin1Char('.'), 0, 0));
        }
        painter.setPen(QPen(t.focus, 1.6));
        painter.drawLine(QLineF(x_of(0), top, x_of(0), y + 2));
        y += 30;
    };

    heading(tr("At the subject, in stops"));
    const double top = y;
    if (light.ambient) row(tr("ambient"), light.ambient, t.linkWash, t.link);
    for (std::size_t i = 0; i < light.sources.size(); ++i)
        row(tr("flash %1").arg(QChar('A' + static_cast<int>(i))), light.sources[i].stops, t.cautionWash, t.light);
    row(tr("together"), light.total, t.focusWash, t.focus);
    axis(top, tr("0"));

    if (!document_.shot()->background || y + 70 > height()) return;
    heading(tr("Background, in stops"));
    const double band = y;
    const light::LookLimits limits;
    const std::pair<QString, std::pair<double, double>> zones[] = {
        {tr("black"), {darkest, limits.black_below}},
        {tr("dark"), {limits.black_below, limits.dark_below}},
        {tr("keeps colour"), {limits.dark_below, limits.white_from}},
        {tr("white"), {limits.white_from, brightest}}};
    const auto& greys = t.greyScale;
    for (int i = 0; i < 4; ++i) {
        const auto& [name, ends] = zones[i];
        const QRectF zone(QPointF(x_of(ends.first), band), QPointF(x_of(ends.second), band + 20));
        painter.fillRect(zone, greys[i]);
        painter.setPen(i < 2 ? greys[3] : greys[0]);
        if (zone.width() > painter.fontMetrics().horizontalAdvance(name) + 4)
            painter.drawText(zone, Qt::AlignCenter, name);
    }
    painter.setPen(QPen(t.ink, 1));
    painter.drawRect(QRectF(QPointF(left, band), QPointF(right, band + 20)));
    painter.setPen(t.quiet);
    painter.drawText(QRectF(0, band, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter, tr("card"));
    if (light.background) {
        const double x = x_of(*light.background);
        const QPolygonF pointer({QPointF(x, band + 17), QPointF(x - 6, band + 28), QPointF(x + 6, band + 28)});
        painter.setBrush(t.focus);
        painter.setPen(QPen(t.panel, 1));
        painter.drawPolygon(pointer);
        painter.setFont(textFont(11, QFont::DemiBold));
        const bool rightHalf = x > (left + right) / 2;
        drawLabel(painter, {x + (rightHalf ? -8 : 8), band + 30},
                  (rightHalf ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, stops(*light.background), t.ink);
    } else {
        drawLabel(painter, {left, band + 30}, Qt::AlignLeft | Qt::AlignVCenter, tr("no light reaches it"), t.quiet);
    }
}

}  // namespace poquito::desk
