// Lamps, flashes, window and sky; where a polished face looks; what a light would give elsewhere.
#include "desk/drawing/bench_sheet.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/space.hpp"
#include "plan/lighting.hpp"
#include "plan/reflections.hpp"
#include "sun/shine.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace bench_sizes;

QRectF DrawnLamp::bounds() const {
    const QPointF back = along * depth;
    return QPolygonF({front().p1(), front().p2(), front().p1() + back, front().p2() + back}).boundingRect();
}

namespace {

constexpr double degree = 3.14159265358979323846 / 180;

QPointF unit(QLineF line, QPointF otherwise) {
    return line.length() > 1 ? (line.p2() - line.p1()) / line.length() : otherwise;
}

/// `depth` pixels of a face and what is behind it, away from the subject.
QPolygonF slab(const DrawnLamp& lamp, double half, double from, double depth) {
    const QPointF near = lamp.face + lamp.along * from, far = near + lamp.along * depth, across = lamp.across() * half;
    return QPolygonF({near + across, near - across, far - across, far + across});
}

/// From the lamp's face to what it lights: the subject, or where it is turned to; a grid narrows it to its angle.
QPolygonF beamOutline(const BenchSheet& sheet, std::size_t light, const DrawnLamp& lamp) {
    const auto& set = sheet.shot().lights[light];
    const auto& source = sheet.report().light.sources[light];
    QPointF target = sheet.subjectMiddle();
    if (!set.on_lens && set.aim != light::Aim{}) {
        const light::Point end =
            light::place_of(source.place) + source.place.distance * light::looks_along(source.place, set.aim);
        target = sheet.placeOf({end.z(), sheet.elevation == Elevation::side ? end.y() : -end.x()});
    }
    const QLineF axis(lamp.face, target);
    if (axis.length() < 1) return {};
    const QPointF along = unit(axis, {}), across(-along.y(), along.x());
    const auto* modifier = sheet.plan().sources[light].modifier;
    const double end_half =
        modifier && modifier->grid ? axis.length() * std::tan(std::min(*modifier->grid / 2, 80.0) * degree) : 3;
    return QPolygonF({lamp.face + across * lamp.half, lamp.face - across * lamp.half, target - across * end_half,
                      target + across * end_half});
}

/// Where a lamp of that diameter is drawn: in its place, or where the way to it leaves the sheet.
DrawnLamp drawnLamp(const BenchSheet& sheet, const light::Position& place, double diameter, double depth) {
    const QPointF subject = sheet.subjectMiddle();
    QLineF ray(subject, sheet.placeOf(lightInPlane(place, sheet.elevation)));
    const bool scaled = sheet.lampRoom().contains(ray.p2());
    if (!scaled) ray = clippedTo(ray, sheet.lampRoom());
    const double half = std::max(diameter / 2 * sheet.layout.scale, 5.0);
    return {.face = ray.p2(),
            .along = unit(ray, QPointF(-0.7, -0.7)),
            .half = scaled ? half : std::min(half, 26.0),
            .depth = depth,
            .scaled = scaled};
}

/// A twin light's other tube, without lettering.
void drawTube(BenchSheet& sheet, const plan::SourceTube& tube, double fill) {
    auto& p = sheet.painter;
    const QPointF subject = sheet.subjectMiddle();
    const QLineF ray(subject, sheet.placeOf(lightInPlane(tube.place, sheet.elevation)));
    if (ray.length() < 1) return;
    const DrawnLamp lamp{.face = ray.p2(),
                         .along = unit(ray, {}),
                         .half = std::max(tube.diameter / 2 * sheet.layout.scale, 4.0),
                         .depth = 7};
    QColor beam = theme().light;
    beam.setAlphaF(static_cast<float>(0.16 * fill));
    fillPlainly(
        p, QPolygonF({lamp.front().p1(), lamp.front().p2(), subject - lamp.across() * 3, subject + lamp.across() * 3}),
        beam);
    p.setBrush(theme().cautionWash);
    p.setPen(QPen(theme().light, 1.6));
    p.drawPolygon(slab(lamp, lamp.half, 0, lamp.depth));
    sheet.labels.keepClear(lamp.bounds());
}

void drawBeam(BenchSheet& sheet, std::size_t light, const DrawnLamp& lamp) {
    QColor beam = theme().light;
    beam.setAlphaF(sheet.report().light.sources[light].fires ? 0.16f : 0.05f);
    fillPlainly(sheet.painter, beamOutline(sheet, light, lamp), beam);
}

void drawHead(BenchSheet& sheet, std::size_t light, const DrawnLamp& lamp) {
    auto& p = sheet.painter;
    const Theme& t = theme();
    const bool chosen = light == sheet.chosen;
    const bool card = sheet.plan().sources[light].is_reflector();
    const double thick = card ? 3 : sheet.plan().sources[light].modifier ? 10 : 6;
    p.setBrush(sheet.report().light.sources[light].fires ? t.cautionWash : t.panel);
    p.setPen(QPen(chosen ? t.ink : t.light, chosen ? 1.8 : 1.6));
    p.drawPolygon(slab(lamp, lamp.half, 0, thick));
    const double head = lamp.depth - thick;
    p.setBrush(t.panel);
    p.setPen(QPen(t.ink, 1.2));
    if (!card) p.drawPolygon(slab(lamp, head * 0.6, thick, head));
    if (!lamp.scaled) {
        const QPointF cut = sheet.subjectMiddle() + (lamp.face - sheet.subjectMiddle()) * 0.72;
        for (const double offset : {-3.0, 3.0})
            p.drawLine(cut + lamp.along * offset + lamp.across() * 7, cut + lamp.along * offset - lamp.across() * 7);
    }
    sheet.labels.keepClear(lamp.front().translated(lamp.along * thick / 2), 6);
    sheet.labels.keepClear(slab(lamp, head * 0.6, thick, head).boundingRect(), 6);
}

QString setWords(const BenchSheet& sheet, std::size_t i) {
    const auto& light = sheet.shot().lights[i];
    const auto& source = sheet.report().light.sources[i];
    const auto* modifier = sheet.plan().sources[i].modifier;
    if (source.reflector)
        return QObject::tr("%1  card, %2").arg(toQt(source.label), lengthText(light.reflector->diameter));
    const QString power =
        source.suggested_power
            ? toQt(plan::setting_text(sheet.plan().sources[i], light.power.value_or(*source.suggested_power)))
            : QObject::tr("off");
    return QObject::tr("%1  %2, %3")
        .arg(toQt(source.label), power,
             modifier        ? toQt(modifier->name).toLower()
             : light.on_lens ? QObject::tr("on the lens")
             : light.bounce  ? QObject::tr("off a card")
                             : QObject::tr("bare"));
}

/// The kelvin of a light that the picture shows in colour; empty: as white as the camera is set.
QString colourWords(const BenchSheet& sheet, double kelvin, bool gelled) {
    constexpr double seen = 20;  // mired (common practice)
    if (std::abs(1e6 / kelvin - 1e6 / sheet.report().light.white) < seen) return {};
    const QString words = QObject::tr(", %1 K").arg(std::round(kelvin / 50) * 50);
    return gelled ? words + QObject::tr(" by its gel") : words;
}

QString distanceWords(const BenchSheet& sheet, std::size_t i) {
    const auto& source = sheet.report().light.sources[i];
    QString words = lengthText(source.path);
    // What the camera sees of it: its front, its edge, what comes through.
    if (source.through && (!source.front || *source.through > *source.front))
        words += QObject::tr(", %1 through").arg(stopsText(*source.through));
    else if (source.front)
        words += QObject::tr(", %1 in front").arg(stopsText(*source.front));
    if (source.rim && !source.through)
        words += QObject::tr(", edge %1").arg(stopsText(*source.rim + *sheet.report().light.front_total));
    else if (source.stops && !source.front && !source.through)
        words += QObject::tr(", not on the front");
    if (!sheet.lamps[i].scaled) words += QObject::tr(", at the edge");
    return words + colourWords(sheet, source.kelvin, sheet.shot().lights[i].gel != 0);
}

}  // namespace

bool sunShines(const BenchSheet& sheet) {
    constexpr double widest = 10;  // degrees: a sky draws none
    const auto& ambient = sheet.shot().ambient;
    return ambient && ambient->kind == shoot::AmbientKind::sky && ambient->size <= widest;
}

namespace {

light::Position overGround(const BenchSheet& sheet, const shoot::Ambient& ambient) {
    return sun::over_ground(sheet.shot().rig.inclination, ambient.position);
}

QString sunWords(const BenchSheet& sheet, const shoot::Ambient& ambient) {
    return QObject::tr("sun, %1\u00b0 high").arg(std::round(overGround(sheet, ambient).elevation));
}

/// Where the shadow of the subject's top falls on what it stands on, mm from its middle: right, up, towards the camera.
/// Empty: the sun is too low, or the shadow longer than anyone would look for.
std::optional<light::Point> shadowTip(const BenchSheet& sheet, const shoot::Ambient& ambient) {
    const double down = sheet.shot().rig.inclination * degree, half = sheet.shot().subject.height / 2;
    const light::Point up(0, std::cos(down), std::sin(down));
    const light::Point sun = light::place_of(ambient.position).normalized();
    const double rise = sun.dot(up);
    constexpr double least = 0.02;  // about a degree high
    if (rise < least) return std::nullopt;
    return up * half - sun * (2 * half / rise);
}

/// The sun's disc where its rays come in, and the shadow on the table to scale. False: it is no sun.
bool drawSun(BenchSheet& sheet, const shoot::Ambient& ambient, QPointF comes_in) {
    if (!sunShines(sheet)) return false;
    auto& p = sheet.painter;
    constexpr double radius = 8;
    p.setPen(QPen(theme().light, 1.6));
    p.setBrush(theme().cautionWash);
    p.drawEllipse(comes_in, radius, radius);
    sheet.labels.keepClear(QRectF(comes_in - QPointF(radius, radius), QSizeF(2 * radius, 2 * radius)), 4);
    const auto tip = shadowTip(sheet, ambient);
    if (!tip) return true;
    const double down = sheet.shot().rig.inclination * degree, half = sheet.shot().subject.height / 2;
    const light::Point foot(0, -half * std::cos(down), -half * std::sin(down));
    const bool side = sheet.elevation == Elevation::side;
    const auto place = [&](const light::Point& at) { return sheet.placeOf({at.z(), side ? at.y() : -at.x()}); };
    QColor shade = theme().ink;
    shade.setAlphaF(0.22F);
    p.save();
    p.setClipRect(sheet.room());
    QPointF end = place(*tip);
    if (side) {
        p.setPen(QPen(shade, 5, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(place(foot), end);
    } else {
        // As wide as the subject across the sun's way.
        const QLineF way(place(foot), end);
        const QPointF along = unit(way, QPointF(1, 0)), across(-along.y(), along.x());
        const double wide = subjectHalf(sheet.report().extent, sheet.elevation) * sheet.layout.scale;
        fillPlainly(
            p,
            QPolygonF({way.p1() + across * wide, way.p1() - across * wide, end - across * wide, end + across * wide}),
            shade);
    }
    p.restore();
    const double length = (*tip - foot).norm();
    const bool drawn = sheet.room().contains(end);
    if (!drawn) end = clippedTo({place(foot), end}, sheet.room()).p2();
    sheet.labels.add({.lines = {plainLine(QObject::tr("shadow %1").arg(lengthText(length)), theme().quiet)},
                      .names = QRectF(end - QPointF(3, 3), QSizeF(6, 6)),
                      .may_go = true});
    return true;
}

}  // namespace

void drawAmbient(BenchSheet& sheet) {
    const auto& ambient = sheet.shot().ambient;
    if (!ambient || ambient->kind == shoot::AmbientKind::even) return;
    // Window or sky stand off the sheet: rays from their side, parallel, as broad as the subject.
    const QPointF to = lightInPlane(ambient->position, sheet.elevation);
    const double length = std::hypot(to.x(), to.y());
    if (length < 1e-6) return;
    auto& p = sheet.painter;
    const QPointF along(-to.x() / length, -to.y() / length), across(-along.y(), along.x());
    const QPointF subject = sheet.subjectMiddle();
    const QRectF room = sheet.bounds.adjusted(16, 40, -16, -ruler_height - 8);
    const double half = std::max(18.0, subjectHalf(sheet.report().extent, sheet.elevation) * sheet.layout.scale * 0.7);
    const QLineF middle = clippedTo({subject, subject + along * (sheet.bounds.width() + sheet.bounds.height())}, room);
    p.setPen(QPen(theme().link, 1.2, Qt::DashLine));
    for (const double offset : {-1.0, -0.33, 0.33, 1.0}) {
        const QPointF shift = across * half * offset;
        const QLineF ray(middle.pointAt(0.35) + shift, middle.p2() + shift);
        p.drawLine(ray);
        const QPointF tip = ray.p1();
        p.drawLine(tip, tip + along * 7 + across * 4);
        p.drawLine(tip, tip + along * 7 - across * 4);
    }
    const bool sun = drawSun(sheet, *ambient, middle.p2());
    const QString name = ambient->kind == shoot::AmbientKind::window ? QObject::tr("window")
                         : sun                                       ? sunWords(sheet, *ambient)
                                                                     : QObject::tr("sky");
    const QPointF at = middle.pointAt(0.8);
    const QString colour =
        colourWords(sheet, sheet.report().light.ambient_kelvin.value_or(sheet.report().light.white), false);
    sheet.labels.add({.lines = {{QObject::tr("%1, EV %2").arg(name, toQt(text::number_text(ambient->ev100))) + colour,
                                 textFont(11, QFont::Medium), theme().link}},
                      .names = QRectF(at - across * half, at + across * half).normalized()});
}

void drawFamily(BenchSheet& sheet) {
    if (sheet.report().reflections.empty()) return;
    const bool side = sheet.elevation == Elevation::side;
    const auto family = plan::family_of_angles(sheet.plan(), side ? plan::AxisPlane::upright : plan::AxisPlane::level);
    if (!family) return;
    auto& p = sheet.painter;
    const double far = (sheet.bounds.width() + sheet.bounds.height()) / sheet.layout.scale;
    const auto edge = [&](const light::Reflection& ray) {
        const auto place = [&](const light::Point& point) {
            return sheet.placeOf({point.z(), side ? point.y() : -point.x()});
        };
        return QLineF(place(ray.at), place(ray.at + far * ray.direction));
    };
    const QLineF one = edge(family->one), other = edge(family->other);
    p.save();
    p.setClipRect(sheet.room());
    QColor wash = theme().link;
    wash.setAlphaF(0.10f);
    fillPlainly(p, QPolygonF({one.p1(), one.p2(), other.p2(), other.p1()}), wash);
    p.setPen(QPen(theme().link, 1, Qt::DashDotLine));
    p.drawLine(one);
    p.drawLine(other);
    p.restore();
    // Named at the far end of the edge that leaves the sheet last.
    const QRectF room = sheet.bounds.adjusted(12, 34, -12, -ruler_height - 8);
    const QLineF first = clippedTo(one, room), second = clippedTo(other, room);
    const QPointF at = (first.length() > second.length() ? first : second).pointAt(0.9);
    sheet.labels.add({.lines = {plainLine(QObject::tr("the face shows this"), theme().link)},
                      .names = QRectF(at - QPointF(1, 1), QSizeF(2, 2))});
}

void drawRings(BenchSheet& sheet) {
    const auto& lights = sheet.shot().lights;
    if (sheet.chosen >= lights.size() || lights[sheet.chosen].on_lens) return;
    const auto& source = sheet.report().light.sources[sheet.chosen];
    const QPointF at = lightInPlane(source.place, sheet.elevation);
    if (!sheet.lampRoom().contains(sheet.placeOf(at))) return;
    auto& p = sheet.painter;
    const double in_plane = std::hypot(at.x(), at.y()), distance = source.place.distance;
    const double out_of_plane = std::max(0.0, distance * distance - in_plane * in_plane);
    const double bearing = std::atan2(at.y(), -at.x());  // of the paper, up positive
    const QPointF subject = sheet.subjectMiddle();
    constexpr double spread = 24;  // degrees to either side of the lamp
    p.save();
    p.setClipRect(sheet.room());
    p.setBrush(Qt::NoBrush);
    for (const int stops : {-2, -1, 0, 1, 2}) {
        const auto reach = plan::distance_for(sheet.plan().sources[sheet.chosen], source, stops);
        if (!reach || *reach * *reach <= out_of_plane) continue;
        const double radius = std::sqrt(*reach * *reach - out_of_plane) * sheet.layout.scale;
        if (radius < 14) continue;
        p.setPen(QPen(theme().light, stops == 0 ? 1.4 : 1, stops == 0 ? Qt::SolidLine : Qt::DotLine));
        p.drawArc(QRectF(subject.x() - radius, subject.y() - radius, 2 * radius, 2 * radius),
                  static_cast<int>((bearing / degree - spread) * 16), static_cast<int>(2 * spread * 16));
        if (stops == 0) continue;
        const double edge = bearing + (at.y() >= 0 ? -1 : 1) * spread * degree;
        const QPointF end = subject + QPointF(std::cos(edge), -std::sin(edge)) * radius;
        sheet.labels.add(
            {.lines = {plainLine((stops > 0 ? QStringLiteral("+%1") : QStringLiteral("\u2212%1")).arg(std::abs(stops)),
                                 theme().lightText)},
             .names = QRectF(end - QPointF(2, 2), QSizeF(4, 4)),
             .may_go = true});
    }
    p.restore();
}

/// All beams behind all heads, so that none hides another; the chosen light last.
void drawLights(BenchSheet& sheet) {
    const auto& sources = sheet.report().light.sources;
    const double lamp = std::min(std::max(18 * sheet.layout.scale, 6.0), 16.0);
    for (std::size_t i = 0; i < sources.size(); ++i) {
        const double thick = sheet.plan().sources[i].modifier ? 10 : 6;
        sheet.lamps.push_back(drawnLamp(sheet, sources[i].place, sources[i].tubes.front().diameter, thick + lamp));
        drawBeam(sheet, i, sheet.lamps.back());
    }
    for (std::size_t i = 0; i < sources.size(); ++i)
        for (std::size_t k = 1; k < sources[i].tubes.size(); ++k)
            drawTube(sheet, sources[i].tubes[k], sources[i].fires ? 1 : 0.3);
    for (std::size_t i = 0; i < sources.size(); ++i)
        if (i != sheet.chosen) drawHead(sheet, i, sheet.lamps[i]);
    if (sheet.chosen < sources.size()) drawHead(sheet, sheet.chosen, sheet.lamps[sheet.chosen]);
}

/// The handle that turns the chosen light.
void drawAim(BenchSheet& sheet) {
    const auto grip = aimGrip(sheet.layout, sheet.shot(), sheet.report(), sheet.elevation, sheet.chosen);
    if (!grip || sheet.chosen >= sheet.lamps.size() || !sheet.lamps[sheet.chosen].scaled) return;
    auto& p = sheet.painter;
    p.setPen(QPen(theme().light, 1.2, Qt::DashLine));
    p.drawLine(sheet.lamps[sheet.chosen].face, *grip);
    p.setPen(QPen(theme().light, 1.6));
    p.setBrush(theme().panel);
    p.drawEllipse(*grip, 4.5, 4.5);
    sheet.labels.keepClear(QRectF(*grip - QPointF(6, 6), QSizeF(12, 12)), 4);
}

/// The chosen light's lettering finds its place first.
void letterLights(BenchSheet& sheet) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < sheet.lamps.size(); ++i) order.push_back(i);
    std::stable_partition(order.begin(), order.end(), [&](std::size_t i) { return i == sheet.chosen; });
    for (const auto i : order) {
        const auto& lamp = sheet.lamps[i];
        // Behind the head, on the side the lamp stands, before the other.
        const bool right = lamp.along.x() > 0, up = lamp.along.y() < 0;
        const auto aside = right ? LabelSide::right : LabelSide::left,
                   back = right ? LabelSide::left : LabelSide::right;
        const auto high = up ? LabelSide::above : LabelSide::below, low = up ? LabelSide::below : LabelSide::above;
        const QPointF head = lamp.face + lamp.along * lamp.depth / 2;
        sheet.labels.add({.lines = {heavyLine(setWords(sheet, i), theme().lightText),
                                    plainLine(distanceWords(sheet, i), theme().lightText)},
                          .names = QRectF(head - QPointF(8, 8), QSizeF(16, 16)),
                          .sides = {aside, high, back, low}});
    }
}

}  // namespace poquito::desk
