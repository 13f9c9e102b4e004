#include "desk/day/sky_drawing.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "sun/zone.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double degree = std::numbers::pi / 180, strip_room = 118, rim_room = 50;

}  // namespace

SkyDrawing::SkyDrawing(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("skyDrawing"));
    setAccessibleName(tr("The sun over the set, from above and over the day"));
    setToolTip(tr("Drag the sun, the line below or the camera; arrow keys move the time by five minutes"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(false);
}

void SkyDrawing::setDay(std::optional<SkyDay> day) {
    day_ = std::move(day);
    if (day_) {
        const auto now = sun::position_at(day_->place, day_->moment);
        setAccessibleDescription(tr("%1: the sun stands %2\u00b0 high at a bearing of %3\u00b0")
                                     .arg(toQt(text::day_time_text(sun::clock_at(day_->site.zone, day_->moment))))
                                     .arg(std::lround(now.elevation))
                                     .arg(std::lround(now.bearing)));
    }
    update();
}

// ---- where things are --------------------------------------------------------------------------------------------

QPointF SkyDrawing::centre() const { return {width() / 2.0, (height() - strip_room) / 2.0}; }

double SkyDrawing::radius() const {
    return std::max(60.0, std::min(width() / 2.0, (height() - strip_room) / 2.0) - rim_room);
}

/// The horizon is the rim, the zenith the middle; evenly in between.
QPointF SkyDrawing::placeOf(double bearing, double elevation) const {
    const double out = radius() * (90 - elevation) / 90;
    return centre() + QPointF(std::sin(bearing * degree), -std::cos(bearing * degree)) * out;
}

QRectF SkyDrawing::stripArea() const { return {14, height() - strip_room + 18, width() - 28.0, strip_room - 40}; }

double SkyDrawing::xOf(double moment) const {
    const auto area = stripArea();
    return area.left() + area.width() * (moment - day_->day.begin) / (day_->day.end - day_->day.begin);
}

double SkyDrawing::timeAt(double x) const {
    const auto area = stripArea();
    const double share = std::clamp((x - area.left()) / area.width(), 0.0, 1.0);
    constexpr double minute = 60, last = 1;  // s: the day's end is another day
    const double moment = day_->day.begin + share * (day_->day.end - day_->day.begin);
    return std::min(std::round(moment / minute) * minute, day_->day.end - last);
}

QPointF SkyDrawing::cameraPlace() const { return placeOf(day_->bearing + 180, 52); }

/// A piece of the sky between two bearings, clockwise, and two heights.
QPainterPath SkyDrawing::sector(double from, double to, double low, double high) const {
    double wide = std::fmod(to - from, 360);
    if (wide <= 0) wide += 360;
    QPainterPath path;
    const int steps = std::max(2, static_cast<int>(wide / 4));
    for (int i = 0; i <= steps; ++i) {
        const auto place = placeOf(from + wide * i / steps, low);
        if (i == 0)
            path.moveTo(place);
        else
            path.lineTo(place);
    }
    for (int i = steps; i >= 0; --i) path.lineTo(placeOf(from + wide * i / steps, high));
    path.closeSubpath();
    return path;
}

// ---- the sky from above ------------------------------------------------------------------------------------------

void SkyDrawing::drawSky(QPainter& painter) const {
    const Theme& t = theme();
    const double r = radius();
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(t.panel);
    painter.drawEllipse(centre(), r, r);
    painter.setBrush(Qt::NoBrush);
    if (day_->site.window) {
        // What it does not let in is shaded.
        QPainterPath all;
        all.addEllipse(centre(), r, r);
        const auto& window = *day_->site.window;
        const auto open = sector(window.from, window.to, window.low, window.high);
        painter.fillPath(all.subtracted(open), t.shadePicture.alpha() < 255 ? t.shadePicture : t.hairline);
        painter.setPen(QPen(t.ink, 1.4));
        painter.drawPath(open);
    }
    for (const auto& obstacle : day_->site.obstacles) {
        const auto wall = sector(obstacle.from, obstacle.to, 0, std::clamp(obstacle.height, 0.0, 90.0));
        painter.fillPath(wall, t.hairline);
        painter.setPen(QPen(t.quiet, 1));
        painter.drawPath(wall);
    }
    painter.setPen(QPen(t.hairline, 1, Qt::DotLine));
    for (const double height : {30.0, 60.0})
        painter.drawEllipse(centre(), r * (90 - height) / 90, r * (90 - height) / 90);
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    for (const double height : {30.0, 60.0})
        drawLabel(painter, placeOf(0, height), Qt::AlignCenter, QStringLiteral("%1\u00b0").arg(height), t.quiet);
    painter.setFont(textFont(13, QFont::DemiBold));
    painter.setPen(t.ink);
    const std::pair<double, QString> points[] = {{0, tr("N")}, {90, tr("E")}, {180, tr("S")}, {270, tr("W")}};
    for (const auto& [bearing, name] : points) {
        const auto place = centre() + (placeOf(bearing, 0) - centre()) * (1 + 13 / r);
        drawLine(painter, QRectF(place - QPointF(14, 9), QSizeF(28, 18)), Qt::AlignCenter, name);
    }
}

void SkyDrawing::drawWay(QPainter& painter) const {
    const Theme& t = theme();
    constexpr double step = 300;  // s
    std::optional<QPointF> before;
    for (double at = day_->day.begin; at <= day_->day.end; at += step) {
        const auto position = sun::position_at(day_->place, at);
        if (position.elevation < 0) {
            before.reset();
            continue;
        }
        const auto place = placeOf(position.bearing, position.elevation);
        const bool reaches = sun::reaches(day_->site, position);
        painter.setPen(QPen(reaches ? t.light : t.quiet, reaches ? 3 : 1.2, reaches ? Qt::SolidLine : Qt::DotLine));
        if (before) painter.drawLine(*before, place);
        before = place;
    }
    painter.setFont(textFont(11));
    for (int hour = 0; hour < 24; ++hour) {
        const auto at =
            sun::moment_of(day_->site.zone, sun::date_at(day_->site.zone, day_->day.begin + 43200), hour * 3600.0);
        if (!at) continue;
        const auto position = sun::position_at(day_->place, *at);
        if (position.elevation < 1) continue;
        const auto place = placeOf(position.bearing, position.elevation);
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.ink);
        painter.drawEllipse(place, 2, 2);
        painter.setBrush(Qt::NoBrush);
        const auto now = sun::position_at(day_->place, day_->moment);
        const auto there = now.elevation < 0 ? QPointF(-99, -99) : placeOf(now.bearing, now.elevation);
        if (hour % 2 != 0 || std::hypot(there.x() - place.x(), there.y() - place.y()) < 22) continue;
        auto out = place - centre();
        const double far = std::hypot(out.x(), out.y());
        out = far > 1 ? out / far : QPointF(0, 1);
        drawLabel(painter, place + out * 13, Qt::AlignCenter, QString::number(hour), t.ink);
    }
}

void SkyDrawing::drawCamera(QPainter& painter) const {
    const Theme& t = theme();
    const auto place = cameraPlace();
    const QPointF along = QPointF(std::sin(day_->bearing * degree), -std::cos(day_->bearing * degree)),
                  across(-along.y(), along.x());
    // What it looks along, and its body.
    painter.setPen(QPen(t.ink, 1, Qt::DashLine));
    painter.drawLine(place, centre() + along * radius() * 0.28);
    const QPolygonF body({place + along * 11 + across * 6, place + along * 11 - across * 6,
                          place - across * 9 - along * 7, place + across * 9 - along * 7});
    painter.setPen(QPen(t.ink, 1.2));
    painter.setBrush(held_ == Held::camera ? t.linkWash : t.panel);
    painter.drawPolygon(body);
    painter.setBrush(t.focusWash);
    painter.setPen(QPen(t.focus, 1.2));
    painter.drawEllipse(centre(), 7, 7);
    painter.setBrush(Qt::NoBrush);
    painter.setFont(textFont(11));
    const auto side = along.x() > 0.2    ? Qt::AlignRight | Qt::AlignVCenter
                      : along.x() < -0.2 ? Qt::AlignLeft | Qt::AlignVCenter
                                         : Qt::Alignment(Qt::AlignCenter);
    drawLabel(painter, place - along * 16, side, tr("looks to %1\u00b0").arg(std::lround(day_->bearing)), t.ink);
}

void SkyDrawing::drawSun(QPainter& painter) const {
    const Theme& t = theme();
    const auto position = sun::position_at(day_->place, day_->moment);
    if (position.elevation < 0) {
        painter.setFont(textFont(12));
        drawLabel(painter, centre() + QPointF(0, 24), Qt::AlignCenter, tr("the sun is down"), t.quiet);
        return;
    }
    const auto place = placeOf(position.bearing, position.elevation);
    const bool reaches = sun::reaches(day_->site, position);
    if (reaches) {
        painter.setPen(QPen(t.light, 1.4));
        painter.drawLine(place, centre());
        // The shadow of what stands 24 px high, away from the sun, to scale.
        constexpr double high = 24;
        const double longest = radius() * 0.8;
        const double shadow = std::min(longest, sun::shadow_length(position).value_or(0) * high);
        const QPointF away = -QPointF(std::sin(position.bearing * degree), -std::cos(position.bearing * degree));
        QPen pen(t.quiet, 7);
        pen.setCapStyle(Qt::FlatCap);
        auto grey = t.quiet;
        grey.setAlpha(110);
        pen.setColor(grey);
        painter.setPen(pen);
        painter.drawLine(centre() + away * 7, centre() + away * (7 + shadow));
    }
    painter.setPen(QPen(t.ink, 1.4));
    painter.setBrush(reaches ? t.light : t.panel);
    painter.drawEllipse(place, 9, 9);
    painter.setBrush(Qt::NoBrush);
}

// ---- the day as a line -------------------------------------------------------------------------------------------

void SkyDrawing::drawStrip(QPainter& painter) const {
    const Theme& t = theme();
    const auto area = stripArea();
    const auto band = [&](const std::vector<sun::Stretch>& stretches, const QColor& colour) {
        for (const auto& one : stretches)
            painter.fillRect(QRectF(QPointF(xOf(one.from), area.top()), QPointF(xOf(one.to), area.bottom())), colour);
    };
    band(day_->day.blue, t.linkWash);
    band(day_->day.golden, t.cautionWash);
    painter.setPen(QPen(t.hairline, 1));
    painter.drawRect(area);
    // Its height, from 18 degrees under the horizon to as high as it comes.
    double most = 10;
    constexpr double step = 600, lowest = -18;
    QPolygonF curve;
    std::vector<std::pair<double, double>> heights;
    for (double at = day_->day.begin; at <= day_->day.end; at += step) {
        heights.emplace_back(at, sun::position_at(day_->place, at).elevation);
        most = std::max(most, heights.back().second * 1.1);
    }
    const auto yOf = [&](double elevation) {
        return area.bottom() - area.height() * (std::clamp(elevation, lowest, most) - lowest) / (most - lowest);
    };
    for (const auto& [at, height] : heights) curve << QPointF(xOf(at), yOf(height));
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QPointF(area.left(), yOf(0)), QPointF(area.right(), yOf(0)));
    painter.setPen(QPen(t.quiet, 1.2));
    painter.drawPolyline(curve);
    for (const auto& one : day_->shining) {
        QPolygonF part;
        for (const auto& [at, height] : heights)
            if (at >= one.from && at <= one.to) part << QPointF(xOf(at), yOf(height));
        painter.setPen(QPen(t.light, 3.2));
        painter.drawPolyline(part);
    }
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    for (int hour = 0; hour <= 24; hour += 3) {
        const double x = area.left() + area.width() * hour / 24;
        painter.drawLine(QPointF(x, area.bottom()), QPointF(x, area.bottom() + 3));
        drawLine(painter, QRectF(x - 14, area.bottom() + 4, 28, 14), Qt::AlignCenter, QString::number(hour));
    }
    drawWishes(painter, area);
    const double x = xOf(day_->moment);
    painter.setPen(QPen(t.link, 1.6));
    painter.drawLine(QPointF(x, area.top() - 4), QPointF(x, area.bottom()));
    painter.setFont(textFont(12, QFont::DemiBold));
    drawLabel(painter, QPointF(std::clamp(x, area.left() + 20, area.right() - 20), area.top() - 9), Qt::AlignCenter,
              toQt(text::day_time_text(sun::clock_at(day_->site.zone, day_->moment))), t.link);
}

/// A bracket of the selected shot's fixed times, on the ground of the strip.
void SkyDrawing::drawWishes(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    constexpr double whole = 86400;
    painter.setFont(textFont(11));
    for (const auto& wish : day_->wishes) {
        if (!wish.selected) continue;
        const double from = area.left() + area.width() * wish.from.value_or(0) / whole;
        const double to = area.left() + area.width() * wish.to.value_or(whole) / whole;
        const double y = area.bottom() - 8;
        painter.setPen(QPen(t.focus, 3));
        painter.drawLine(QPointF(from, y), QPointF(to, y));
        painter.setPen(QPen(t.focus, 1.4));
        for (const double x : {from, to}) painter.drawLine(QPointF(x, y - 5), QPointF(x, y + 5));
        painter.setPen(t.focus);
        drawLine(painter, QRectF(from + 4, y - 18, std::max(60.0, to - from - 8), 14), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(11), wish.name, std::max(60.0, to - from - 8)));
    }
}

/// About the rim: from which side of the camera the sun comes where it stands there.
void SkyDrawing::drawSides(QPainter& painter) const {
    const Theme& t = theme();
    const double out = radius() + 27;
    const QRectF ring(centre() - QPointF(out, out), QSizeF(2 * out, 2 * out));
    // Seen from the camera's side of the axis, where the front is; bearings, clockwise.
    const double front = day_->bearing + 180;
    const std::tuple<double, double, QString> sides[] = {{-50, 50, tr("front")}, {50, 115, tr("side")},
                                                         {115, 155, tr("rim")},  {155, 205, tr("behind")},
                                                         {205, 245, tr("rim")},  {245, 310, tr("side")}};
    painter.setFont(textFont(11));
    for (const auto& [from, to, name] : sides) {
        constexpr double gap = 1.5;
        painter.setPen(QPen(t.quiet, 1.4));
        const double start = 90 - (front + to - gap);
        painter.drawArc(ring, static_cast<int>(std::lround(start * 16)),
                        static_cast<int>(std::lround((to - from - 2 * gap) * 16)));
        const double middle = (front + (from + to) / 2) * degree;
        const auto place = centre() + QPointF(std::sin(middle), -std::cos(middle)) * (out + 12);
        const auto side = std::sin(middle) > 0.3    ? Qt::AlignLeft | Qt::AlignVCenter
                          : std::sin(middle) < -0.3 ? Qt::AlignRight | Qt::AlignVCenter
                                                    : Qt::Alignment(Qt::AlignCenter);
        drawLabel(painter, place, side, name, t.quiet);
    }
}

void SkyDrawing::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (!day_) {
        painter.setFont(textFont(13));
        painter.setPen(theme().quiet);
        painter.drawText(QRectF(rect()).adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                         tr("Say where the set stands: a town from the list, or its latitude and longitude. Then the "
                            "day has its sun here."));
        return;
    }
    drawSky(painter);
    drawSides(painter);
    drawWay(painter);
    drawCamera(painter);
    drawSun(painter);
    drawStrip(painter);
    if (hasFocus()) drawFocusRing(painter, QRectF(rect()).adjusted(1, 1, -1, -1));
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void SkyDrawing::mousePressEvent(QMouseEvent* event) {
    if (!day_) return;
    const auto place = event->position();
    const auto position = sun::position_at(day_->place, day_->moment);
    const auto near = [&](QPointF other, double within) {
        return std::hypot(place.x() - other.x(), place.y() - other.y()) < within;
    };
    constexpr double grip = 16;
    if (position.elevation >= 0 && near(placeOf(position.bearing, position.elevation), grip))
        held_ = Held::sun;
    else if (near(cameraPlace(), grip))
        held_ = Held::camera;
    else if (place.y() > stripArea().top() - 16)
        held_ = Held::time;
    else
        return;
    dragTo(place);
}

void SkyDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (day_ && held_ != Held::nothing) dragTo(event->position());
}

void SkyDrawing::mouseReleaseEvent(QMouseEvent*) {
    held_ = Held::nothing;
    update();
}

void SkyDrawing::dragTo(QPointF place) {
    if (held_ == Held::time) return Q_EMIT momentDragged(timeAt(place.x()));
    if (held_ == Held::camera) {
        const auto off = place - centre();
        double bearing = std::atan2(off.x(), -off.y()) / degree + 180;
        bearing = std::fmod(std::round(bearing), 360);
        return Q_EMIT bearingDragged(bearing);
    }
    // The moment of the day at which the sun stands nearest to the hand.
    double best = day_->moment, nearest = 1e9;
    constexpr double step = 300;
    for (double at = day_->day.begin; at < day_->day.end; at += step) {
        const auto position = sun::position_at(day_->place, at);
        if (position.elevation < 0) continue;
        const auto there = placeOf(position.bearing, position.elevation);
        const double far = std::hypot(there.x() - place.x(), there.y() - place.y());
        if (far < nearest) nearest = far, best = at;
    }
    Q_EMIT momentDragged(best);
}

void SkyDrawing::keyPressEvent(QKeyEvent* event) {
    if (!day_) return QWidget::keyPressEvent(event);
    constexpr double step = 300, more = 3600, last = 1;
    const double by = event->modifiers() & Qt::ShiftModifier ? more : step;
    const double way = event->key() == Qt::Key_Right ? by : event->key() == Qt::Key_Left ? -by : 0;
    if (way == 0) return QWidget::keyPressEvent(event);
    Q_EMIT momentDragged(std::clamp(day_->moment + way, day_->day.begin, day_->day.end - last));
}

}  // namespace poquito::desk

#include "desk/day/moc_sky_drawing.moc"
