#include "desk/light/freeze_table.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "optics/blur_limit.hpp"
#include "plan/light/lighting.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using plan::ExposedBy;

namespace {

constexpr double head = 40, row_height = 19;  // pixels

/// Widths of the columns beside the bars; where there is no room for bars they go.
struct Columns {
    double power = 52, time = 70, blur = 44, cell = 56;
    bool bars = true;
};
Columns columns_for(double width) {
    if (width >= 320) return {};
    return {.power = 46, .time = 66, .blur = 36, .cell = 40, .bars = false};
}

/// What cameras offer (common practice).
bool settable(double iso) { return iso >= 50 && iso <= 102400; }

}  // namespace

FreezeTable::FreezeTable(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("freezeTable"));
    setAccessibleName(tr("Blur at each power of the flash"));
    setToolTip(
        tr("Click an f-number or an ISO to take that power with it. Keys: F takes the brightest power that "
           "freezes by its aperture, I by ISO."));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void FreezeTable::refresh() { update(); }

QRectF FreezeTable::cell(std::size_t row, ExposedBy by) const {
    const double cell = columns_for(width()).cell;
    const double x = width() - (by == ExposedBy::aperture ? 2 : 1) * cell - 4;
    return {x, head + row_height * static_cast<double>(row), cell, row_height};
}

double FreezeTable::bottom() const {
    return head + row_height * static_cast<double>(document_.report()->freeze->rows.size());
}

void FreezeTable::drawHeading(QPainter& painter, const QString& words) const {
    const QFont font = textFont(12, QFont::DemiBold);
    painter.setFont(font);
    painter.setPen(theme().ink);
    drawLine(painter, QRectF(0, 0, width(), 18), Qt::AlignLeft | Qt::AlignVCenter, elided(font, words, width()));
}

void FreezeTable::drawInstead(QPainter& painter, const QString& heading, const QString& words) const {
    drawHeading(painter, heading);
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    painter.drawText(QRectF(0, 24, width(), 60), Qt::TextWordWrap, words);
    if (hasFocus()) drawFocusRing(painter, rect());
}

void FreezeTable::paintEvent(QPaintEvent*) {
    if (!document_.shot()) return;
    const auto& report = *document_.report();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (!report.freeze)
        return drawInstead(painter, tr("Nothing to freeze"),
                           tr("Tick the box for salt that falls, a berry that is dropped, milk that splashes: the "
                              "flash's duration stops it, not the shutter."));
    const auto& freeze = *report.freeze;
    const QString speed = tr("%1 m/s").arg(toQt(text::number_text(freeze.speed / 1000, 2)));
    const QString slowest = toQt(text::shutter_text(freeze.slowest));
    if (!freeze.light)
        return drawInstead(painter, tr("At %1").arg(speed),
                           tr("No flash with a duration table fires in this shot: the shutter alone would have to be "
                              "%1.")
                               .arg(slowest));
    if (freeze.rows.empty())
        return drawInstead(painter, tr("At %1").arg(speed), tr("Its duration table holds none of the settings."));
    drawHeading(painter, tr("At %1, flash %2: it takes %3 or shorter")
                             .arg(speed, toQt(report.light.sources[*freeze.light].label), slowest));
    drawTitles(painter);
    for (std::size_t i = 0; i < freeze.rows.size() && head + row_height * static_cast<double>(i + 1) <= height(); ++i)
        drawRow(painter, i);
    if (columns_for(width()).bars) {
        const double limit = barEnd(document_.shot()->freeze->wanted_blur);
        painter.setPen(QPen(theme().focus, 1.6));
        painter.drawLine(QLineF(limit, head - 2, limit, std::min(bottom() + 2, height() - 1.0)));
    }
    if (bottom() + 50 <= height()) drawRest(painter);
}

void FreezeTable::drawTitles(QPainter& painter) const {
    const auto [power, time, blur, cell, bars] = columns_for(width());
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    const auto title = [&](double x, double w, Qt::Alignment side, const QString& words) {
        drawLine(painter, {x, 22, w, 16}, side | Qt::AlignVCenter, words);
    };
    title(0, power, Qt::AlignLeft, tr("power"));
    title(power, time - 8, Qt::AlignRight, tr("t0.1"));
    title(power + time, blur - 6, Qt::AlignRight, tr("px"));
    title(width() - 2 * cell - 4, cell - 6, Qt::AlignRight, tr("with"));
    title(width() - cell - 4, cell - 6, Qt::AlignRight, tr("or ISO"));
}

double FreezeTable::pitch() const { return optics::pixel_pitch(document_.assessment()->plan.sensor); }

/// Where the bar of so many pixels ends; equal ratios at equal lengths.
double FreezeTable::barEnd(double px) const {
    const auto [power, time, blur, cell, bars] = columns_for(width());
    const double left = power + time + blur, right = width() - 2 * cell - 6;
    const double wanted = document_.shot()->freeze->wanted_blur;
    double most = wanted * 3, fewest = wanted / 8;
    for (const auto& row : document_.report()->freeze->rows) {
        most = std::max(most, row.blur / pitch());
        fewest = std::min(fewest, std::max(row.blur / pitch(), 1e-3) / 1.5);
    }
    return left +
           (right - left) * std::clamp(std::log(std::max(px, fewest) / fewest) / std::log(most / fewest), 0.01, 1.0);
}

void FreezeTable::drawRow(QPainter& painter, std::size_t i) const {
    const Theme& t = theme();
    const auto& freeze = *document_.report()->freeze;
    const auto& row = freeze.rows[i];
    const auto [power_width, time_width, blur_width, cell_width, bars] = columns_for(width());
    const double y = head + row_height * static_cast<double>(i), bars_left = power_width + time_width + blur_width;
    const bool now = std::abs(std::log2(document_.report()->light.sources[*freeze.light].power / row.power)) < 0.5;
    if (now) painter.fillRect(QRectF(0, y, width(), row_height), t.linkWash);
    painter.setFont(textFont(11, now ? QFont::DemiBold : QFont::Normal));
    painter.setPen(t.ink);
    drawLine(painter, {4, y, power_width, row_height}, Qt::AlignLeft | Qt::AlignVCenter,
             toQt(plan::setting_text(document_.assessment()->plan.sources[*freeze.light], row.power)));
    drawLine(painter, {power_width, y, time_width - 8, row_height}, Qt::AlignRight | Qt::AlignVCenter,
             toQt(text::shutter_text(row.t01)));
    const double px = row.blur / pitch();
    const bool sharp = px <= document_.shot()->freeze->wanted_blur * (1 + 1e-9);
    if (bars) {
        const QRectF bar(QPointF(bars_left, y + 4), QPointF(barEnd(px), y + row_height - 4));
        painter.fillRect(bar, sharp ? t.focusWash : t.cautionWash);
        painter.setPen(QPen(sharp ? t.focus : t.caution, 1));
        painter.drawRect(bar);
    }
    painter.setPen(bars ? t.ink : sharp ? t.focus : t.caution);
    painter.setFont(textFont(11));
    drawLine(painter, {bars_left - blur_width, y, blur_width - 6, row_height}, Qt::AlignRight | Qt::AlignVCenter,
             toQt(text::number_text(px, 2)));
    painter.setPen(t.link);
    const auto taken = [&](ExposedBy by, bool any, const std::string& words) {
        drawLine(painter, cell(i, by).adjusted(0, 0, -6, 0), Qt::AlignRight | Qt::AlignVCenter,
                 any ? toQt(words) : QStringLiteral("\u2013"));
    };
    taken(ExposedBy::aperture, row.f_number.has_value(), text::f_number_text(row.f_number.value_or(1)));
    taken(ExposedBy::iso, settable(row.iso), text::number_text(row.iso, 3));
}

/// What else follows.
void FreezeTable::drawRest(QPainter& painter) const {
    const auto& freeze = *document_.report()->freeze;
    const auto number = [](double value, int digits) { return toQt(text::number_text(value, digits)); };
    QStringList lines;
    if (freeze.brightest_that_freezes)
        lines += tr("brightest that freezes: %1")
                     .arg(toQt(plan::setting_text(document_.assessment()->plan.sources[*freeze.light],
                                                  freeze.rows[*freeze.brightest_that_freezes].power)));
    else
        lines += tr("no setting freezes to %1 px: nearer to its turning point, farther away, or a shorter flash")
                     .arg(number(document_.shot()->freeze->wanted_blur, 2));
    if (freeze.landing_inside)
        lines += tr("depth of field holds %1 % of where it may come down").arg(number(*freeze.landing_inside * 100, 2));
    if (freeze.second_after)
        lines += tr("second drop %1 ms after the first leaves").arg(number(*freeze.second_after * 1000, 3));
    if (freeze.burst_time)
        lines += tr("repeating flash: shutter %1 or longer, images %2 px apart")
                     .arg(toQt(text::shutter_text(*freeze.burst_time)), number(*freeze.burst_spacing / pitch(), 3));
    painter.setPen(theme().quiet);
    painter.setFont(textFont(11));
    double y = bottom() + 6;
    for (const QString& words : lines) {
        if (y + 16 > height()) return;
        drawLine(painter, {4, y, width() - 8.0, 16}, Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), words, width() - 8));
        y += 16;
    }
}

std::optional<std::pair<std::size_t, ExposedBy>> FreezeTable::cellAt(QPointF place) const {
    if (!document_.shot() || !document_.report()->freeze) return std::nullopt;
    const auto& rows = document_.report()->freeze->rows;
    for (std::size_t i = 0; i < rows.size(); ++i)
        for (const auto by : {ExposedBy::aperture, ExposedBy::iso})
            if (cell(i, by).contains(place) &&
                (by == ExposedBy::iso ? settable(rows[i].iso) : rows[i].f_number.has_value()))
                return std::pair(i, by);
    return std::nullopt;
}

void FreezeTable::mouseMoveEvent(QMouseEvent* event) {
    setCursor(cellAt(event->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void FreezeTable::mouseReleaseEvent(QMouseEvent* event) {
    if (const auto hit = cellAt(event->position())) take(hit->first, hit->second);
}

void FreezeTable::keyPressEvent(QKeyEvent* event) {
    const bool aperture = event->key() == Qt::Key_F, iso = event->key() == Qt::Key_I;
    const auto* report = document_.report();
    if ((!aperture && !iso) || !report || !report->freeze || !report->freeze->brightest_that_freezes)
        return QWidget::keyPressEvent(event);
    take(*report->freeze->brightest_that_freezes, aperture ? ExposedBy::aperture : ExposedBy::iso);
}

void FreezeTable::take(std::size_t row, ExposedBy by) {
    const auto& freeze = *document_.report()->freeze;
    const auto changed = plan::at_power(*document_.shot(), freeze, freeze.rows[row], by);
    document_.editShot({tr("Take a power")}, [&](shoot::Shot& shot) { shot = changed; });
}

}  // namespace poquito::desk

#include "desk/light/moc_freeze_table.moc"
