// Lamps, flashes, window and sky; where a polished face looks; what a light would give elsewhere.
#include "desk/drawing/bench_canvas.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/space.hpp"
#include "plan/light/lighting.hpp"
#include "plan/light/reflections.hpp"
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
QPolygonF beamOutline(const BenchCanvas& canvas, std::size_t light, const DrawnLamp& lamp) {
    const auto& set = canvas.shot().lights[light];
    const auto& source = canvas.report().light.sources[light];
    QPointF target = canvas.subjectMiddle();
    if (!set.on_lens && set.aim != light::Aim{}) {
        const light::Point end =
            light::place_of(source.place) + source.place.distance * light::looks_along(source.place, set.aim);
        target = canvas.placeOf({end.z(), canvas.elevation == Elevation::side ? end.y() : -end.x()});
    }
    const QLineF axis(lamp.face, target);
    if (axis.length() < 1) return {};
    const QPointF along = unit(axis, {}), across(-along.y(), along.x());
    const auto* modifier = canvas.plan().sources[light].modifier;
    const double end_half =
        modifier && modifier->grid ? axis.length() * std::tan(std::min(*modifier->grid / 2, 80.0) * degree) : 3;
    return QPolygonF({lamp.face + across * lamp.half, lamp.face - across * lamp.half, target - across * end_half,
                      target + across * end_half});
}

/// Where a lamp of that diameter is drawn: in its place, or where the way to it leaves the sheet.
DrawnLamp drawnLamp(const BenchCanvas& canvas, const light::Position& place, double diameter, double depth) {
    const QPointF subject = canvas.subjectMiddle();
    QLineF ray(subject, canvas.placeOf(lightInPlane(place, canvas.elevation)));
    const bool scaled = canvas.lampRoom().contains(ray.p2());
    if (!scaled) ray = clippedTo(ray, canvas.lampRoom());
    const double half = std::max(diameter / 2 * canvas.layout.scale, 5.0);
    return {.face = ray.p2(),
            .along = unit(ray, QPointF(-0.7, -0.7)),
            .half = scaled ? half : std::min(half, 26.0),
            .depth = depth,
            .scaled = scaled};
}

/// A twin light's other tube, without lettering.
void drawTube(BenchCanvas& canvas, const plan::SourceTube& tube, double fill) {
    auto& p = canvas.painter;
    const QPointF subject = canvas.subjectMiddle();
    const QLineF ray(subject, canvas.placeOf(lightInPlane(tube.place, canvas.elevation)));
    if (ray.length() < 1) return;
    const DrawnLamp lamp{.face = ray.p2(),
                         .along = unit(ray, {}),
                         .half = std::max(tube.diameter / 2 * canvas.layout.scale, 4.0),
                         .depth = 7};
    QColor beam = theme().light;
    beam.setAlphaF(static_cast<float>(0.16 * fill));
    fillPlainly(
        p, QPolygonF({lamp.front().p1(), lamp.front().p2(), subject - lamp.across() * 3, subject + lamp.across() * 3}),
        beam);
    p.setBrush(theme().cautionWash);
    p.setPen(QPen(theme().light, 1.6));
    p.drawPolygon(slab(lamp, lamp.half, 0, lamp.depth));
    canvas.labels.keepClear(lamp.bounds());
}

void drawBeam(BenchCanvas& canvas, std::size_t light, const DrawnLamp& lamp) {
    QColor beam = theme().light;
    beam.setAlphaF(canvas.report().light.sources[light].fires ? 0.16f : 0.05f);
    fillPlainly(canvas.painter, beamOutline(canvas, light, lamp), beam);
}

void drawHead(BenchCanvas& canvas, std::size_t light, const DrawnLamp& lamp) {
    auto& p = canvas.painter;
    const Theme& t = theme();
    const bool chosen = light == canvas.chosen;
    const bool card = canvas.plan().sources[light].is_reflector();
    const double thick = card ? 3 : canvas.plan().sources[light].modifier ? 10 : 6;
    p.setBrush(canvas.report().light.sources[light].fires ? t.cautionWash : t.panel);
    p.setPen(QPen(chosen ? t.ink : t.light, chosen ? 1.8 : 1.6));
    p.drawPolygon(slab(lamp, lamp.half, 0, thick));
    const double head = lamp.depth - thick;
    p.setBrush(t.panel);
    p.setPen(QPen(t.ink, 1.2));
    if (!card) p.drawPolygon(slab(lamp, head * 0.6, thick, head));
    if (!lamp.scaled) {
        const QPointF cut = canvas.subjectMiddle() + (lamp.face - canvas.subjectMiddle()) * 0.72;
        for (const double offset : {-3.0, 3.0})
            p.drawLine(cut + lamp.along * offset + lamp.across() * 7, cut + lamp.along * offset - lamp.across() * 7);
    }
    canvas.labels.keepClear(lamp.front().translated(lamp.along * thick / 2), 6);
    canvas.labels.keepClear(slab(lamp, head * 0.6, thick, head).boundingRect(), 6);
}

QString setWords(const BenchCanvas& canvas, std::size_t i) {
    const auto& light = canvas.shot().lights[i];
    const auto& source = canvas.report().light.sources[i];
    const auto* modifier = canvas.plan().sources[i].modifier;
    if (source.reflector)
        return QObject::tr("%1  card, %2").arg(toQt(source.label), lengthText(light.reflector->diameter));
    const QString power =
        source.suggested_power
            ? toQt(plan::setting_text(canvas.plan().sources[i], light.power.value_or(*source.suggested_power)))
            : QObject::tr("off");
    return QObject::tr("%1  %2, %3")
        .arg(toQt(source.label), power,
             modifier        ? toQt(modifier->name).toLower()
             : light.on_lens ? QObject::tr("on the lens")
             : light.bounce  ? QObject::tr("off a card")
                             : QObject::tr("bare"));
}

/// The kelvin of a light that the picture shows in colour; empty: as white as the camera is set.
QString colourWords(const BenchCanvas& canvas, double kelvin, bool gelled) {
    constexpr double seen = 20;  // mired (common practice)
    if (std::abs(1e6 / kelvin - 1e6 / canvas.report().light.white) < seen) return {};
    const QString words = QObject::tr(", %1 K").arg(std::round(kelvin / 50) * 50);
    return gelled ? words + QObject::tr(" by its gel") : words;
}

QString distanceWords(const BenchCanvas& canvas, std::size_t i) {
    const auto& source = canvas.report().light.sources[i];
    QString words = lengthText(source.path);
    // What the camera sees of it: its front, its edge, what comes through.
    if (source.through && (!source.front || *source.through > *source.front))
        words += QObject::tr(", %1 through").arg(stopsText(*source.through));
    else if (source.front)
        words += QObject::tr(", %1 in front").arg(stopsText(*source.front));
    if (source.rim && !source.through)
        words += QObject::tr(", edge %1").arg(stopsText(*source.rim + *canvas.report().light.front_total));
    else if (source.stops && !source.front && !source.through)
        words += QObject::tr(", not on the front");
    if (!canvas.lamps[i].scaled) words += QObject::tr(", at the edge");
    return words + colourWords(canvas, source.kelvin, canvas.shot().lights[i].gel != 0);
}

}  // namespace

bool sunShines(const BenchCanvas& canvas) {
    constexpr double widest = 10;  // degrees: a sky draws none
    const auto& ambient = canvas.shot().ambient;
    return ambient && ambient->kind == shoot::AmbientKind::sky && ambient->size <= widest;
}

namespace {

light::Position overGround(const BenchCanvas& canvas, const shoot::Ambient& ambient) {
    return sun::over_ground(canvas.shot().rig.inclination, ambient.position);
}

QString sunWords(const BenchCanvas& canvas, const shoot::Ambient& ambient) {
    return QObject::tr("sun, %1\u00b0 high").arg(std::round(overGround(canvas, ambient).elevation));
}

/// Where the shadow of the subject's top falls on what it stands on, mm from its middle: right, up, towards the camera.
/// Empty: the sun is too low, or the shadow longer than anyone would look for.
std::optional<light::Point> shadowTip(const BenchCanvas& canvas, const shoot::Ambient& ambient) {
    const double down = canvas.shot().rig.inclination * degree, half = canvas.shot().subject.height / 2;
    const light::Point up(0, std::cos(down), std::sin(down));
    const light::Point sun = light::place_of(ambient.position).normalized();
    const double rise = sun.dot(up);
    constexpr double least = 0.02;  // about a degree high
    if (rise < least) return std::nullopt;
    return up * half - sun * (2 * half / rise);
}

/// The sun's disc where its rays come in, and the shadow on the table to scale. False: it is no sun.
bool drawSun(BenchCanvas& canvas, const shoot::Ambient& ambient, QPointF comes_in) {
    if (!sunShines(canvas)) return false;
    auto& p = canvas.painter;
    constexpr double radius = 8;
    p.setPen(QPen(theme().light, 1.6));
    p.setBrush(theme().cautionWash);
    p.drawEllipse(comes_in, radius, radius);
    canvas.labels.keepClear(QRectF(comes_in - QPointF(radius, radius), QSizeF(2 * radius, 2 * radius)), 4);
    const auto tip = shadowTip(canvas, ambient);
    if (!tip) return true;
    const double down = canvas.shot().rig.inclination * degree, half = canvas.shot().subject.height / 2;
    const light::Point foot(0, -half * std::cos(down), -half * std::sin(down));
    const bool side = canvas.elevation == Elevation::side;
    const auto place = [&](const light::Point& at) { return canvas.placeOf({at.z(), side ? at.y() : -at.x()}); };
    QColor shade = theme().ink;
    shade.setAlphaF(0.22F);
    p.save();
    p.setClipRect(canvas.room());
    QPointF end = place(*tip);
    if (side) {
        p.setPen(QPen(shade, 5, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(place(foot), end);
    } else {
        // As wide as the subject across the sun's way.
        const QLineF way(place(foot), end);
        const QPointF along = unit(way, QPointF(1, 0)), across(-along.y(), along.x());
        const double wide = subjectHalf(canvas.report().extent, canvas.elevation) * canvas.layout.scale;
        fillPlainly(
            p,
            QPolygonF({way.p1() + across * wide, way.p1() - across * wide, end - across * wide, end + across * wide}),
            shade);
    }
    p.restore();
    const double length = (*tip - foot).norm();
    const bool drawn = canvas.room().contains(end);
    if (!drawn) end = clippedTo({place(foot), end}, canvas.room()).p2();
    canvas.labels.add({.lines = {plainLine(QObject::tr("shadow %1").arg(lengthText(length)), theme().quiet)},
                       .names = QRectF(end - QPointF(3, 3), QSizeF(6, 6)),
                       .may_go = true});
    return true;
}

}  // namespace

void drawAmbient(BenchCanvas& canvas) {
    const auto& ambient = canvas.shot().ambient;
    if (!ambient || ambient->kind == shoot::AmbientKind::even) return;
    // Window or sky stand off the sheet: rays from their side, parallel, as broad as the subject.
    const QPointF to = lightInPlane(ambient->position, canvas.elevation);
    const double length = std::hypot(to.x(), to.y());
    if (length < 1e-6) return;
    auto& p = canvas.painter;
    const QPointF along(-to.x() / length, -to.y() / length), across(-along.y(), along.x());
    const QPointF subject = canvas.subjectMiddle();
    const QRectF room = canvas.bounds.adjusted(16, 40, -16, -ruler_height - 8);
    const double half =
        std::max(18.0, subjectHalf(canvas.report().extent, canvas.elevation) * canvas.layout.scale * 0.7);
    const QLineF middle =
        clippedTo({subject, subject + along * (canvas.bounds.width() + canvas.bounds.height())}, room);
    p.setPen(QPen(theme().link, 1.2, Qt::DashLine));
    for (const double offset : {-1.0, -0.33, 0.33, 1.0}) {
        const QPointF shift = across * half * offset;
        const QLineF ray(middle.pointAt(0.35) + shift, middle.p2() + shift);
        p.drawLine(ray);
        const QPointF tip = ray.p1();
        p.drawLine(tip, tip + along * 7 + across * 4);
        p.drawLine(tip, tip + along * 7 - across * 4);
    }
    const bool sun = drawSun(canvas, *ambient, middle.p2());
    const QString name = ambient->kind == shoot::AmbientKind::window ? QObject::tr("window")
                         : sun                                       ? sunWords(canvas, *ambient)
                                                                     : QObject::tr("sky");
    const QPointF at = middle.pointAt(0.8);
    const QString colour =
        colourWords(canvas, canvas.report().light.ambient_kelvin.value_or(canvas.report().light.white), false);
    canvas.labels.add({.lines = {{QObject::tr("%1, EV %2").arg(name, toQt(text::number_text(ambient->ev100))) + colour,
                                  textFont(11, QFont::Medium), theme().link}},
                       .names = QRectF(at - across * half, at + across * half).normalized()});
}

void drawFamily(BenchCanvas& canvas) {
    if (canvas.report().reflections.empty()) return;
    const bool side = canvas.elevation == Elevation::side;
    const auto family = plan::family_of_angles(canvas.plan(), side ? plan::AxisPlane::upright : plan::AxisPlane::level);
    if (!family) return;
    auto& p = canvas.painter;
    const double far = (canvas.bounds.width() + canvas.bounds.height()) / canvas.layout.scale;
    const auto edge = [&](const light::Reflection& ray) {
        const auto place = [&](const light::Point& point) {
            return canvas.placeOf({point.z(), side ? point.y() : -point.x()});
        };
        return QLineF(place(ray.at), place(ray.at + far * ray.direction));
    };
    const QLineF one = edge(family->one), other = edge(family->other);
    p.save();
    p.setClipRect(canvas.room());
    QColor wash = theme().link;
    wash.setAlphaF(0.10f);
    fillPlainly(p, QPolygonF({one.p1(), one.p2(), other.p2(), other.p1()}), wash);
    p.setPen(QPen(theme().link, 1, Qt::DashDotLine));
    p.drawLine(one);
    p.drawLine(other);
    p.restore();
    // Named at the far end of the edge that leaves the sheet last.
    const QRectF room = canvas.bounds.adjusted(12, 34, -12, -ruler_height - 8);
    const QLineF first = clippedTo(one, room), second = clippedTo(other, room);
    const QPointF at = (first.length() > second.length() ? first : second).pointAt(0.9);
    canvas.labels.add({.lines = {plainLine(QObject::tr("the face shows this"), theme().link)},
                       .names = QRectF(at - QPointF(1, 1), QSizeF(2, 2))});
}

void drawRings(BenchCanvas& canvas) {
    const auto& lights = canvas.shot().lights;
    if (canvas.chosen >= lights.size() || lights[canvas.chosen].on_lens) return;
    const auto& source = canvas.report().light.sources[canvas.chosen];
    const QPointF at = lightInPlane(source.place, canvas.elevation);
    if (!canvas.lampRoom().contains(canvas.placeOf(at))) return;
    auto& p = canvas.painter;
    const double in_plane = std::hypot(at.x(), at.y()), distance = source.place.distance;
    const double out_of_plane = std::max(0.0, distance * distance - in_plane * in_plane);
    const double bearing = std::atan2(at.y(), -at.x());  // of the paper, up positive
    const QPointF subject = canvas.subjectMiddle();
    constexpr double spread = 24;  // degrees to either side of the lamp
    p.save();
    p.setClipRect(canvas.room());
    p.setBrush(Qt::NoBrush);
    for (const int stops : {-2, -1, 0, 1, 2}) {
        const auto reach = plan::distance_for(canvas.plan().sources[canvas.chosen], source, stops);
        if (!reach || *reach * *reach <= out_of_plane) continue;
        const double radius = std::sqrt(*reach * *reach - out_of_plane) * canvas.layout.scale;
        if (radius < 14) continue;
        p.setPen(QPen(theme().light, stops == 0 ? 1.4 : 1, stops == 0 ? Qt::SolidLine : Qt::DotLine));
        p.drawArc(QRectF(subject.x() - radius, subject.y() - radius, 2 * radius, 2 * radius),
                  static_cast<int>((bearing / degree - spread) * 16), static_cast<int>(2 * spread * 16));
        if (stops == 0) continue;
        const double edge = bearing + (at.y() >= 0 ? -1 : 1) * spread * degree;
        const QPointF end = subject + QPointF(std::cos(edge), -std::sin(edge)) * radius;
        canvas.labels.add(
            {.lines = {plainLine((stops > 0 ? QStringLiteral("+%1") : QStringLiteral("\u2212%1")).arg(std::abs(stops)),
                                 theme().lightText)},
             .names = QRectF(end - QPointF(2, 2), QSizeF(4, 4)),
             .may_go = true});
    }
    p.restore();
}

/// All beams behind all heads, so that none hides another; the chosen light last.
void drawLights(BenchCanvas& canvas) {
    const auto& sources = canvas.report().light.sources;
    const double lamp = std::min(std::max(18 * canvas.layout.scale, 6.0), 16.0);
    for (std::size_t i = 0; i < sources.size(); ++i) {
        const double thick = canvas.plan().sources[i].modifier ? 10 : 6;
        canvas.lamps.push_back(drawnLamp(canvas, sources[i].place, sources[i].tubes.front().diameter, thick + lamp));
        drawBeam(canvas, i, canvas.lamps.back());
    }
    for (std::size_t i = 0; i < sources.size(); ++i)
        for (std::size_t k = 1; k < sources[i].tubes.size(); ++k)
            drawTube(canvas, sources[i].tubes[k], sources[i].fires ? 1 : 0.3);
    for (std::size_t i = 0; i < sources.size(); ++i)
        if (i != canvas.chosen) drawHead(canvas, i, canvas.lamps[i]);
    if (canvas.chosen < sources.size()) drawHead(canvas, canvas.chosen, canvas.lamps[canvas.chosen]);
}

/// The handle that turns the chosen light.
void drawAim(BenchCanvas& canvas) {
    const auto grip = aimGrip(canvas.layout, canvas.shot(), canvas.report(), canvas.elevation, canvas.chosen);
    if (!grip || canvas.chosen >= canvas.lamps.size() || !canvas.lamps[canvas.chosen].scaled) return;
    auto& p = canvas.painter;
    p.setPen(QPen(theme().light, 1.2, Qt::DashLine));
    p.drawLine(canvas.lamps[canvas.chosen].face, *grip);
    p.setPen(QPen(theme().light, 1.6));
    p.setBrush(theme().panel);
    p.drawEllipse(*grip, 4.5, 4.5);
    canvas.labels.keepClear(QRectF(*grip - QPointF(6, 6), QSizeF(12, 12)), 4);
}

/// The chosen light's lettering finds its place first.
void letterLights(BenchCanvas& canvas) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < canvas.lamps.size(); ++i) order.push_back(i);
    std::stable_partition(order.begin(), order.end(), [&](std::size_t i) { return i == canvas.chosen; });
    for (const auto i : order) {
        const auto& lamp = canvas.lamps[i];
        // Behind the head, on the side the lamp stands, before the other.
        const bool right = lamp.along.x() > 0, up = lamp.along.y() < 0;
        const auto aside = right ? LabelSide::right : LabelSide::left,
                   back = right ? LabelSide::left : LabelSide::right;
        const auto high = up ? LabelSide::above : LabelSide::below, low = up ? LabelSide::below : LabelSide::above;
        const QPointF head = lamp.face + lamp.along * lamp.depth / 2;
        canvas.labels.add({.lines = {heavyLine(setWords(canvas, i), theme().lightText),
                                     plainLine(distanceWords(canvas, i), theme().lightText)},
                           .names = QRectF(head - QPointF(8, 8), QSizeF(16, 16)),
                           .sides = {aside, high, back, low}});
    }
}

}  // namespace poquito::desk
