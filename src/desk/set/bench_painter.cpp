#include "desk/set/bench_painter.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/kit/gear_section.hpp"
#include "desk/shell/document.hpp"
#include "light/space.hpp"
#include "plan/lighting.hpp"
#include "plan/reflections.hpp"
#include "text/text.hpp"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <vector>

namespace poquito::desk {
namespace {

using namespace bench_sizes;

QString mm(double length) { return QString::fromStdString(text::length_text(length)); }

class BenchPainter {
  public:
    BenchPainter(QPainter& painter, const BenchLayout& layout, const Document& document, Elevation elevation,
                 const QRectF& bounds, std::size_t chosen)
        : p_(painter),
          layout_(layout),
          kit_(document.kit()),
          shot_(*document.shot()),
          report_(*document.report()),
          elevation_(elevation),
          bounds_(bounds),
          chosen_(chosen) {}

    void draw() {
        drawAxis();
        if (!layout_.atInfinity) drawShade();
        drawBackground();
        drawGear();
        if (layout_.atInfinity) {
            p_.setFont(textFont(12));
            drawLabel(p_, layout_.place(layout_.focus, 0), Qt::AlignRight | Qt::AlignVCenter,
                      QObject::tr("focused at infinity"), theme().quiet);
        } else {
            drawAmbient();
            drawFamily();
            drawRings();
            for (std::size_t i = 0; i < shot_.lights.size(); ++i) drawLight(i);
            drawSubject();
            drawAim();
            for (std::size_t i = 0; i < shot_.lights.size(); ++i) drawLightText(i);
            drawFamilyText();
            drawDimensions();
        }
        drawRuler();
    }

  private:
    QPainter& p_;
    const BenchLayout& layout_;
    const gear::Kit& kit_;
    const shoot::Shot& shot_;
    const plan::Report& report_;
    Elevation elevation_;
    QRectF bounds_;
    std::size_t chosen_;

    /// A lamp as drawn: the middle of its face, the direction it stands in, half its width in pixels.
    struct Lamp {
        QPointF face, along;
        double half = 0;
        bool scaled = true;
    };
    static QRectF around(const Lamp& lamp) {
        return {lamp.face - QPointF(lamp.half, lamp.half), QSizeF(2 * lamp.half, 2 * lamp.half)};
    }
    std::vector<Lamp> lamps_;
    std::vector<QLineF> family_;  // the edges of the family of angles
    std::vector<QRectF> labels_;  // lettering that others keep clear of

    void drawAxis() {
        QPen pen(theme().quiet, 1);
        pen.setDashPattern({9, 3, 2, 3});
        p_.setPen(pen);
        p_.drawLine(QPointF(bounds_.left() + 8, layout_.origin.y()), QPointF(bounds_.right() - 8, layout_.origin.y()));
    }

    void drawGear() {
        const Theme& t = theme();
        const auto pieces = shoot::mounted_pieces(kit_, shot_.rig, report_.optics.ring);
        // The body about the sensor, the mount end of the rest in front of it.
        const double flange = pieces.front().length;
        const QRectF body = layout_.box(-body_behind, flange, body_half);
        drawPiece(p_, body, pieces.front(), {.lettered = false});
        const auto& sensor = shoot::sensor_of(kit_, shot_.rig);
        const double sensor_half = (elevation_ == Elevation::side ? sensor.height : sensor.width) / 2;
        p_.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::FlatCap));
        p_.drawLine(layout_.place(0, sensor_half), layout_.place(0, -sensor_half));
        p_.setFont(textFont(11));
        p_.setPen(t.quiet);
        if (body.width() > 34) p_.drawText(QPointF(body.left(), body.bottom() + 13), QObject::tr("sensor"));

        double x = flange;
        const bool coupled = shot_.rig.front_lens.has_value();
        QStringList closeups;
        for (std::size_t i = 1; i < pieces.size(); ++i) {
            const auto& piece = pieces[i];
            const bool front_lens = coupled && i + 1 == pieces.size();
            const QRectF box = layout_.box(x, x + piece.length, piece.diameter / 2);
            const bool lens = piece.list == "lenses";
            drawPiece(p_, box, piece,
                      {.ring = lens && !front_lens ? std::optional(report_.optics.ring) : std::nullopt});
            if (lens) nameBeside(box, shortName(piece), front_lens);
            if (piece.list == "closeup_lenses") closeups << QString::fromStdString(piece.name);
            x += piece.length;
            if (piece.list == "closeup_lenses") x += 4 / layout_.scale;
        }
        if (closeups.isEmpty()) return;
        const double half = shoot::lens_of(kit_, shot_).optics.front_diameter / 2;
        p_.setFont(textFont(11, QFont::Medium));
        drawLabel(p_, layout_.place(x, -half) + QPointF(-4, 3), Qt::AlignLeft | Qt::AlignTop,
                  closeups.join(QStringLiteral(", ")), t.link);
    }

    /// Above the barrel, where its name does not fit in it; a lens in front, near the lamps, has it below.
    void nameBeside(const QRectF& box, const QString& name, bool below) {
        if (box.width() < 24 || lineWidth(textFont(11), name) + 6 < box.width()) return;
        if (lineWidth(textFont(11), name) + 6 < box.height()) return;  // stands upright in it
        p_.setFont(textFont(11, QFont::Medium));
        const QPointF at(box.center().x(), below ? box.bottom() + 3 : box.top() - 3);
        labels_.push_back(
            drawLabel(p_, at, Qt::AlignHCenter | (below ? Qt::AlignTop : Qt::AlignBottom), name, theme().ink));
    }

    void drawShade() {
        if (!report_.optics.shaded_half_angle) return;
        constexpr double degree = 3.14159265358979323846 / 180;
        const double half = std::tan(*report_.optics.shaded_half_angle * degree) * *report_.optics.working_distance;
        const QPointF subject = layout_.place(layout_.subject, 0);
        QColor wash = theme().hairline;
        wash.setAlphaF(0.4f);
        p_.setPen(Qt::NoPen);
        p_.setBrush(wash);
        p_.drawPolygon(QPolygonF(
            {subject, layout_.place(report_.optics.front, half), layout_.place(report_.optics.front, -half)}));
        QPen pen(theme().quiet, 1, Qt::DashLine);
        p_.setPen(pen);
        p_.drawLine(subject, layout_.place(report_.optics.front, half));
        p_.drawLine(subject, layout_.place(report_.optics.front, -half));
        const QString text = QObject::tr("shaded ±%1°")
                                 .arg(QString::fromStdString(text::number_text(*report_.optics.shaded_half_angle, 2)));
        p_.setFont(textFont(11));
        const double room = (layout_.focus - report_.optics.front) * layout_.scale;
        if (room > p_.fontMetrics().horizontalAdvance(text) + 40)
            drawLabel(p_, layout_.place(report_.optics.front, 0) + QPointF(room * 0.1 + 4, 11),
                      Qt::AlignLeft | Qt::AlignVCenter, text, theme().quiet);
    }

    void drawSubject() {
        const Theme& t = theme();
        const auto& sharp = report_.sharpness;
        const double half = subjectHalf(report_.extent, elevation_);
        const QPointF centre = layout_.place(layout_.focus, 0);
        QPolygonF outline = subjectProfile(shot_.subject, elevation_);
        for (QPointF& point : outline) point = layout_.place(layout_.subject + point.x(), point.y());
        p_.setBrush(t.panel);
        p_.setPen(QPen(t.ink, 1.3));
        p_.drawPolygon(outline);

        // The slice one frame holds, and the frames of a stack as a comb above it.
        const double reach = std::max(half * layout_.scale + 12, 26.0);
        const double near = sharp.near.value_or(layout_.focus) * layout_.scale;
        const double far = sharp.far.value_or(1e6) * layout_.scale;
        const QRectF slice(QPointF(centre.x() - near, centre.y() - reach),
                           QPointF(std::min(centre.x() + far, bounds_.right() - 4), centre.y() + reach));
        QColor wash = t.focus;
        wash.setAlphaF(0.28f);
        p_.fillRect(slice, wash);
        p_.setPen(QPen(t.focus, 2));
        p_.drawLine(QPointF(centre.x(), slice.top()), QPointF(centre.x(), slice.bottom()));
        if (report_.capture.travel && report_.capture.frames > 1) drawComb(centre, slice.top());
        drawSubjectText(centre, slice);
    }

    void drawComb(QPointF centre, double top) {
        const auto& travel = *report_.capture.travel;
        const double first = centre.x() + travel.first * layout_.scale, last = centre.x() + travel.last * layout_.scale;
        const double teeth = std::min(report_.capture.frames, std::max(2.0, std::floor((last - first) / 3) + 1));
        p_.setPen(QPen(theme().focus, 1));
        p_.drawLine(QPointF(first, top - 3), QPointF(last, top - 3));
        for (int i = 0; i < static_cast<int>(teeth); ++i) {
            const double x = first + (last - first) * i / (teeth - 1);
            p_.drawLine(QPointF(x, top - 8), QPointF(x, top - 3));
        }
    }

    void drawSubjectText(QPointF centre, const QRectF& slice) {
        const auto& capture = report_.capture;
        const auto& depth = report_.sharpness.depth_of_field;
        p_.setFont(textFont(11, QFont::DemiBold));
        const QString holds =
            depth ? QObject::tr("one frame holds %1").arg(mm(*depth)) : QObject::tr("one frame holds all");
        const QString of = capture.frames > 1
                               ? QObject::tr("%1 frames over %2")
                                     .arg(QString::fromStdString(text::number_text(capture.frames, 9)),
                                          mm(report_.extent.depth + shot_.capture.lead + shot_.capture.tail))
                               : QObject::tr("of the subject's %1").arg(mm(report_.extent.depth));
        const double width = std::max(QFontMetricsF(textFont(11, QFont::DemiBold)).horizontalAdvance(holds),
                                      QFontMetricsF(textFont(11)).horizontalAdvance(of)) +
                             6;
        const double half_depth = report_.extent.depth / 2 * layout_.scale;
        const QPointF at = freePlace(QSizeF(width, 30), std::min(slice.left(), centre.x() - half_depth) - 8,
                                     std::max(slice.right(), centre.x() + half_depth) + 8, slice);
        const auto side = Qt::AlignLeft | Qt::AlignVCenter;
        labels_.push_back(drawLabel(p_, at, side, holds, theme().focus));
        p_.setFont(textFont(11));
        labels_.push_back(drawLabel(p_, at + QPointF(0, 15), side, of, theme().focus));
    }

    double backgroundX() const {
        return layout_.backgroundToScale && !layout_.atInfinity
                   ? layout_.place(layout_.subject + shot_.background->distance, 0).x()
                   : bounds_.right() - 16;
    }

    /// A corner for lettering of that size beside the slice, where it hides least: right of it, else left, above,
    /// below.
    QPointF freePlace(QSizeF size, double left, double right, const QRectF& slice) const {
        std::vector<QRectF> obstacles = {layout_.box(-body_behind, report_.optics.front, body_half)};
        if (shot_.background) obstacles.emplace_back(backgroundX() - 2, bounds_.top(), 10, bounds_.height());
        for (const auto& lamp : lamps_) obstacles.push_back(around(lamp));
        const double top = slice.top() + 2, bottom = slice.bottom() - 22,
                     middle = slice.center().x() - size.width() / 2;
        const QPointF places[] = {{right, top},
                                  {right, bottom},
                                  {left - size.width(), bottom},
                                  {left - size.width(), top},
                                  {middle, slice.top() - 38},
                                  {middle, slice.bottom() + 10}};
        constexpr double square_pixels = 250;  // a later place must hide so much less to be taken
        const auto hidden = [&](const QPointF& place) {
            const QRectF area(place - QPointF(0, 8), size);
            const QRectF inside = area & bounds_.adjusted(4, 24, -4, -ruler_height + 6);
            double sum = area.width() * area.height() - inside.width() * inside.height();
            sum += square_pixels * static_cast<double>(&place - places);
            for (const auto& obstacle : obstacles) {
                const QRectF common = area & obstacle;
                sum += common.width() * common.height();
            }
            return sum;
        };
        return *std::ranges::min_element(places, {}, hidden);
    }

    void drawBackground() {
        if (!shot_.background) return;
        const Theme& t = theme();
        const QString distance = QObject::tr("card %1 behind").arg(mm(shot_.background->distance));
        const QString stops =
            report_.light.background
                ? QObject::tr("%1 stops").arg(QString::fromStdString(text::stops_text(*report_.light.background)))
                : QString();
        const bool scaled = layout_.backgroundToScale && !layout_.atInfinity;
        const double x = backgroundX();
        const double top = bounds_.top() + 30, bottom = bounds_.bottom() - ruler_height - 4;
        const int shade = static_cast<int>(std::clamp(std::sqrt(shot_.background->reflectance) * 255, 20.0, 250.0));
        p_.setBrush(QColor(shade, shade, shade));
        p_.setPen(QPen(t.ink, 1));
        p_.drawRect(QRectF(x, top, 6, bottom - top));
        if (!scaled) {
            // A break in the axis: from here on the drawing is not to scale.
            p_.setPen(QPen(t.ink, 1.2));
            for (const double offset : {-30.0, -25.0})
                p_.drawLine(QPointF(x + offset - 3, layout_.origin.y() + 8),
                            QPointF(x + offset + 3, layout_.origin.y() - 8));
        }
        p_.setFont(textFont(11));
        labels_.push_back(drawLabel(p_, {x - 4, bottom - 16}, Qt::AlignRight | Qt::AlignVCenter,
                                    scaled ? distance : QObject::tr("%1, not to scale").arg(distance), t.quiet));
        if (!stops.isEmpty())
            labels_.push_back(drawLabel(p_, {x - 4, bottom - 2}, Qt::AlignRight | Qt::AlignVCenter, stops, t.quiet));
    }

    /// Where the family of angles of a polished face goes in this elevation: what stands there is mirrored.
    void drawFamily() {
        if (report_.reflections.empty()) return;
        const auto plan = plan::plan_of(kit_, shot_);
        const auto pupil = plan::pupil_point(plan);
        if (!pupil) return;
        const auto mirror = plan::mirror_of(shot_.subject);
        const double edge = mirror.bulge ? 0.85 : 1;
        const bool side = elevation_ == Elevation::side;
        const auto one = light::reflect(mirror, *pupil, side ? 0 : -edge, side ? -edge : 0);
        const auto other = light::reflect(mirror, *pupil, side ? 0 : edge, side ? edge : 0);
        if (!one || !other) return;
        const auto flat = [&](const light::Point& point) { return side ? point.y() : -point.x(); };
        const auto place = [&](const light::Reflection& ray, double length) {
            const light::Point end = ray.at + length * ray.direction;
            return layout_.place(layout_.subject - end.z(), flat(end));
        };
        const double far = (bounds_.width() + bounds_.height()) / layout_.scale;
        p_.save();
        p_.setClipRect(bounds_.adjusted(1, 24, -1, -ruler_height + 4));
        QColor wash = theme().link;
        wash.setAlphaF(0.10f);
        p_.setPen(Qt::NoPen);
        p_.setBrush(wash);
        p_.drawPolygon(QPolygonF({place(*one, 0), place(*one, far), place(*other, far), place(*other, 0)}));
        p_.setPen(QPen(theme().link, 1, Qt::DashDotLine));
        p_.drawLine(place(*one, 0), place(*one, far));
        p_.drawLine(place(*other, 0), place(*other, far));
        p_.restore();
        family_ = {QLineF(place(*one, 0), place(*one, far)), QLineF(place(*other, 0), place(*other, far))};
    }

    /// Along one of its edges, where it hides least.
    void drawFamilyText() {
        if (family_.empty()) return;
        p_.setFont(textFont(11));
        const QString words = QObject::tr("the face shows this");
        const QSizeF size(lineWidth(textFont(11), words) + 6, 16);
        const QRectF room = bounds_.adjusted(size.width() / 2 + 4, 34, -size.width() / 2 - 4, -ruler_height - 8);
        std::vector<QRectF> obstacles = labels_;
        obstacles.push_back(layout_.box(-body_behind, report_.optics.front, body_half));
        for (const auto& lamp : lamps_) obstacles.push_back(around(lamp));
        QPointF best = room.center();
        double least = 1e12;
        for (const QLineF& edge : family_) {
            const QLineF seen = clippedTo(edge, room);
            for (const double along : {0.95, 0.85, 0.75, 0.65, 0.55, 0.45, 0.35}) {
                const QRectF area(seen.pointAt(along) - QPointF(size.width() / 2, size.height() / 2), size);
                double hides = 0;
                for (const auto& obstacle : obstacles) {
                    const QRectF both = area & obstacle;
                    hides += both.width() * both.height();
                }
                if (hides < least) {
                    least = hides;
                    best = area.center();
                }
            }
        }
        labels_.push_back(drawLabel(p_, best, Qt::AlignCenter, words, theme().link));
    }

    /// Window or sky, which stand off the sheet: rays from their side, parallel, as broad as the subject.
    void drawAmbient() {
        if (!shot_.ambient || shot_.ambient->kind == shoot::AmbientKind::even) return;
        const QPointF to = lightInPlane(shot_.ambient->position, elevation_);
        const double length = std::hypot(to.x(), to.y());
        if (length < 1e-6) return;
        const QPointF along(-to.x() / length, -to.y() / length), across(-along.y(), along.x());
        const QPointF subject = layout_.place(layout_.subject, 0);
        const QRectF room = bounds_.adjusted(16, 40, -16, -ruler_height - 8);
        const double half = std::max(18.0, subjectHalf(report_.extent, elevation_) * layout_.scale * 0.7);
        const QLineF middle = clippedTo({subject, subject + along * (bounds_.width() + bounds_.height())}, room);
        p_.setPen(QPen(theme().link, 1.2, Qt::DashLine));
        for (const double offset : {-1.0, -0.33, 0.33, 1.0}) {
            const QPointF shift = across * half * offset;
            const QLineF ray(middle.pointAt(0.35) + shift, middle.p2() + shift);
            p_.drawLine(ray);
            const QPointF tip = ray.p1();
            p_.drawLine(tip, tip + along * 7 + across * 4);
            p_.drawLine(tip, tip + along * 7 - across * 4);
        }
        p_.setFont(textFont(11, QFont::Medium));
        const QString name =
            shot_.ambient->kind == shoot::AmbientKind::window ? QObject::tr("window") : QObject::tr("sky");
        const QString words =
            QObject::tr("%1, EV %2").arg(name, QString::fromStdString(text::number_text(shot_.ambient->ev100)));
        labels_.push_back(drawLabel(p_, middle.pointAt(0.8), Qt::AlignCenter, words, theme().link));
    }

    QRectF lampRoom() const { return bounds_.adjusted(30, 52, -30, -ruler_height - 20); }
    bool isScaled(std::size_t i) const {
        const QPointF at = lightInPlane(report_.light.sources[i].place, elevation_);
        return lampRoom().contains(layout_.place(layout_.subject - at.x(), at.y()));
    }

    /// Where the chosen light would give a stop more or less, about the subject.
    void drawRings() {
        if (chosen_ >= shot_.lights.size() || shot_.lights[chosen_].on_lens || !isScaled(chosen_)) return;
        const auto& light = shot_.lights[chosen_];
        const auto& source = report_.light.sources[chosen_];
        const QPointF at = lightInPlane(source.place, elevation_);
        const double in_plane = std::hypot(at.x(), at.y()), distance = source.place.distance;
        const double out_of_plane = std::max(0.0, distance * distance - in_plane * in_plane);
        const double bounced = source.path - distance;
        const auto* modifier = shoot::modifier_of(kit_, light);
        const double face = modifier ? modifier->diameter / 2 : 0;
        const double now = source.path * source.path + face * face;
        const double bearing = std::atan2(at.y(), -at.x());  // of the paper, up positive
        const QPointF subject = layout_.place(layout_.subject, 0);
        p_.save();
        p_.setClipRect(bounds_.adjusted(1, 24, -1, -ruler_height + 4));
        p_.setFont(textFont(11));
        for (const int stops : {-2, -1, 0, 1, 2}) {
            const double squared = now * std::exp2(-stops) - face * face;
            const double reach = std::sqrt(std::max(squared, 0.0)) - bounced;
            const double radius = std::sqrt(std::max(0.0, reach * reach - out_of_plane)) * layout_.scale;
            if (reach * reach <= out_of_plane || radius < 14) continue;
            constexpr double degree = 3.14159265358979323846 / 180;
            constexpr double spread = 24;  // degrees to either side of the lamp
            QPen pen(theme().light, stops == 0 ? 1.4 : 1, stops == 0 ? Qt::SolidLine : Qt::DotLine);
            p_.setPen(pen);
            p_.setBrush(Qt::NoBrush);
            const double start = bearing / degree - spread;
            p_.drawArc(QRectF(subject.x() - radius, subject.y() - radius, 2 * radius, 2 * radius),
                       static_cast<int>(start * 16), static_cast<int>(2 * spread * 16));
            if (stops == 0) continue;
            const double edge = bearing + (at.y() >= 0 ? -1 : 1) * spread * degree;
            const QPointF end = subject + QPointF(std::cos(edge), -std::sin(edge)) * radius;
            drawLabel(p_, end, Qt::AlignCenter,
                      (stops > 0 ? QStringLiteral("+%1") : QStringLiteral("\u2212%1")).arg(std::abs(stops)),
                      theme().lightText);
        }
        p_.restore();
    }

    /// The handle that turns the chosen light.
    void drawAim() {
        const auto grip = aimGrip(layout_, shot_, report_, elevation_, chosen_);
        if (!grip || chosen_ >= lamps_.size() || !lamps_[chosen_].scaled) return;
        p_.setPen(QPen(theme().light, 1.2, Qt::DashLine));
        p_.drawLine(lamps_[chosen_].face, *grip);
        p_.setPen(QPen(theme().light, 1.6));
        p_.setBrush(theme().panel);
        p_.drawEllipse(*grip, 4.5, 4.5);
    }

    /// A twin light's other tube, without lettering.
    void drawTube(const plan::SourceTube& tube, double fill) {
        const QPointF subject = layout_.place(layout_.subject, 0);
        const QPointF at = lightInPlane(tube.place, elevation_);
        const QPointF face = layout_.place(layout_.subject - at.x(), at.y());
        const QLineF ray(subject, face);
        if (ray.length() < 1) return;
        const QPointF along = (face - subject) / ray.length(), across(-along.y(), along.x());
        const double half = std::max(tube.diameter / 2 * layout_.scale, 4.0);
        QColor beam = theme().light;
        beam.setAlphaF(static_cast<float>(0.16 * fill));
        p_.setPen(Qt::NoPen);
        p_.setBrush(beam);
        p_.drawPolygon(
            QPolygonF({face + across * half, face - across * half, subject - across * 3, subject + across * 3}));
        p_.setBrush(theme().cautionWash);
        p_.setPen(QPen(theme().light, 1.6));
        p_.drawPolygon(QPolygonF({face + across * half, face - across * half, face - across * half + along * 7,
                                  face + across * half + along * 7}));
    }

    void drawLight(std::size_t i) {
        const Theme& t = theme();
        const auto& light = shot_.lights[i];
        const auto& source = report_.light.sources[i];
        const auto* modifier = shoot::modifier_of(kit_, light);
        for (std::size_t k = 1; k < source.tubes.size(); ++k) drawTube(source.tubes[k], source.fires ? 1 : 0.3);
        const QPointF subject = layout_.place(layout_.subject, 0);
        const QPointF at = lightInPlane(source.place, elevation_);
        QPointF face = layout_.place(layout_.subject - at.x(), at.y());
        const QRectF room = lampRoom();
        const bool scaled = room.contains(face);
        QLineF ray(subject, face);
        if (!scaled) ray = clippedTo(ray, room);
        face = ray.p2();
        const double half = std::max(source.tubes.front().diameter / 2 * layout_.scale, 5.0);
        const double drawn_half = scaled ? half : std::min(half, 26.0);
        QPointF along = ray.length() > 1 ? (face - subject) / ray.length() : QPointF(-0.7, -0.7);
        const QPointF across(-along.y(), along.x());

        QColor beam = t.light;
        beam.setAlphaF(source.fires ? 0.16f : 0.05f);
        p_.setPen(Qt::NoPen);
        p_.setBrush(beam);
        p_.drawPolygon(beamOutline(source, light, {face, subject}, drawn_half));
        p_.setBrush(source.fires ? t.cautionWash : t.panel);
        p_.setPen(QPen(i == chosen_ ? t.ink : t.light, i == chosen_ ? 1.8 : 1.6));
        const double thick = modifier ? 10 : 6;
        p_.drawPolygon(
            QPolygonF({face + across * drawn_half, face - across * drawn_half,
                       face - across * drawn_half + along * thick, face + across * drawn_half + along * thick}));
        const QPointF back = face + along * thick;
        const double lamp = std::min(std::max(18 * layout_.scale, 6.0), 16.0);
        p_.setBrush(t.panel);
        p_.setPen(QPen(t.ink, 1.2));
        p_.drawPolygon(
            QPolygonF({back + across * lamp * 0.6, back - across * lamp * 0.6,
                       back - across * lamp * 0.6 + along * lamp, back + across * lamp * 0.6 + along * lamp}));
        if (!scaled) {
            p_.setPen(QPen(t.ink, 1.2));
            const QPointF cut = subject + (face - subject) * 0.72;
            for (const double offset : {-3.0, 3.0})
                p_.drawLine(cut + along * offset + across * 7, cut + along * offset - across * 7);
        }
        // The letter goes with the lamp, wherever its lettering finds room.
        p_.setFont(textFont(11, QFont::DemiBold));
        p_.setPen(t.lightText);
        drawLine(p_, QRectF(back + along * (lamp + 8) - QPointF(12, 8), QSizeF(24, 16)), Qt::AlignCenter,
                 QString::fromStdString(source.label));
        lamps_.push_back({face, along, drawn_half, scaled});
    }

    /// From the lamp's face to what it lights: the subject, or where it is turned to; a grid narrows it to its angle.
    QPolygonF beamOutline(const plan::SourceReport& source, const shoot::Light& light, QLineF way, double half) const {
        const QPointF face = way.p1();
        QPointF target = way.p2();
        if (!light.on_lens && light.aim != light::Aim{}) {
            const light::Point end =
                light::place_of(source.place) + source.place.distance * light::looks_along(source.place, light.aim);
            target = layout_.place(layout_.subject - end.z(), elevation_ == Elevation::side ? end.y() : -end.x());
        }
        const QLineF axis(face, target);
        if (axis.length() < 1) return {};
        const QPointF along = (target - face) / axis.length(), across(-along.y(), along.x());
        const auto* modifier = shoot::modifier_of(kit_, light);
        double end_half = 3;
        if (modifier && modifier->grid) {
            constexpr double degree = 3.14159265358979323846 / 180;
            end_half = axis.length() * std::tan(std::min(*modifier->grid / 2, 80.0) * degree);
        }
        return {face + across * half, face - across * half, target - across * end_half, target + across * end_half};
    }

    void drawLightText(std::size_t i) {
        const auto& [face, along, half, scaled] = lamps_[i];
        const auto& light = shot_.lights[i];
        const auto& source = report_.light.sources[i];
        const auto* modifier = shoot::modifier_of(kit_, light);
        const QString power =
            source.suggested_power
                ? QString::fromStdString(plan::setting_text(kit_, light, light.power.value_or(*source.suggested_power)))
                : QObject::tr("off");
        const QString first = QObject::tr("%1  %2, %3")
                                  .arg(QString::fromStdString(source.label), power,
                                       modifier        ? QString::fromStdString(modifier->name).toLower()
                                       : light.on_lens ? QObject::tr("on the lens")
                                       : light.bounce  ? QObject::tr("off a card")
                                                       : QObject::tr("bare"));
        QString second = mm(source.path);
        if (source.stops)
            second += QObject::tr(", %1 stops").arg(QString::fromStdString(text::stops_text(*source.stops)));
        if (!scaled) second += QObject::tr(", at the edge");
        // Beside the lamp, on the side with more room, off its beam.
        p_.setFont(textFont(11, QFont::DemiBold));
        const double width = std::max(QFontMetricsF(textFont(11, QFont::DemiBold)).horizontalAdvance(first),
                                      QFontMetricsF(textFont(11)).horizontalAdvance(second)) +
                             8;
        const double clear = half * std::abs(along.y()) + 14;
        const double top = std::clamp(face.y() - 6, bounds_.top() + 32, bounds_.bottom() - ruler_height - 22);
        const QRectF gear = layout_.box(-body_behind, report_.optics.front, body_half);
        const double subject_reach = std::max(subjectHalf(report_.extent, elevation_) * layout_.scale + 12, 26.0);
        const QPointF centre = layout_.place(layout_.subject, 0);
        const QRectF subject(centre - QPointF(10, subject_reach), centre + QPointF(10, subject_reach));
        const auto corner = [&, face = face](bool to_right) {
            return to_right ? std::min(face.x() + clear, bounds_.right() - width - 6)
                            : std::max(face.x() - clear, bounds_.left() + width + 6);
        };
        // What a place for the lettering would hide, in square pixels; other lettering counts most.
        const auto hidden = [&](bool to_right, double at_y) {
            const QRectF area(to_right ? corner(true) : corner(false) - width, at_y - 8, width, 30);
            const auto common = [&](const QRectF& other) {
                const QRectF both = area & other;
                return both.width() * both.height();
            };
            double sum = common(gear) + width * 30 - common(bounds_.adjusted(4, 24, -4, -ruler_height + 6));
            if (shot_.background) sum += common(QRectF(backgroundX() - 2, bounds_.top(), 10, bounds_.height()));
            for (const auto& label : labels_) sum += 4 * common(label);
            for (const auto& lamp : lamps_) sum += common(around(lamp));
            return sum + 4 * common(subject);
        };
        // Beside the lamp on the side it leans to, else on the other; lamps behind one another move their lettering
        // down.
        bool towards_right = along.x() > 0;
        double y = top;
        double least = hidden(towards_right, y);
        for (double at_y = top; least > 0 && at_y < bounds_.bottom() - ruler_height - 22; at_y += 6)
            for (const bool to_right : {along.x() > 0, along.x() <= 0})
                if (const double hides = hidden(to_right, at_y); hides < least) {
                    least = hides;
                    y = at_y;
                    towards_right = to_right;
                }
        const double x = corner(towards_right);
        const auto side = (towards_right ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter;
        labels_.push_back(drawLabel(p_, {x, y}, side, first, theme().lightText));
        p_.setFont(textFont(11));
        labels_.push_back(drawLabel(p_, {x, y + 14}, side, second, theme().lightText));
    }

    /// The part of a ray from inside a rectangle that lies in it.
    static QLineF clippedTo(QLineF ray, const QRectF& room) {
        double share = 1;
        const auto limit = [&](double from, double to, double low, double high) {
            if (to > high && to > from) share = std::min(share, (high - from) / (to - from));
            if (to < low && to < from) share = std::min(share, (low - from) / (to - from));
        };
        limit(ray.x1(), ray.x2(), room.left(), room.right());
        limit(ray.y1(), ray.y2(), room.top(), room.bottom());
        ray.setP2(ray.pointAt(std::clamp(share, 0.0, 1.0)));
        return ray;
    }

    void drawDimensions() {
        const auto& optics = report_.optics;
        const double y = bounds_.bottom() - ruler_height + 12;
        const double subject = layout_.place(layout_.focus, 0).x();
        const double front = layout_.place(optics.front, 0).x();
        const double half = shoot::lens_of(kit_, shot_).optics.front_diameter / 2;
        p_.setPen(QPen(theme().hairline, 1));
        p_.drawLine(QLineF(front, layout_.place(0, -half).y(), front, y + 4));
        p_.drawLine(QLineF(subject, layout_.origin.y() + 26, subject, y + 22));
        p_.drawLine(QLineF(layout_.origin.x(), layout_.place(0, -body_half).y(), layout_.origin.x(), y + 22));
        if (*optics.working_distance > 0) {
            drawDimension(p_, {front, y}, {subject, y},
                          QObject::tr("working distance %1").arg(mm(*optics.working_distance)));
        } else {
            p_.setFont(textFont(11, QFont::DemiBold));
            drawLabel(p_, {front, y}, Qt::AlignLeft | Qt::AlignVCenter,
                      QObject::tr("focus %1 inside the lens").arg(mm(-*optics.working_distance)), theme().stop);
        }
        drawDimension(p_, {layout_.origin.x(), y + 18}, {subject, y + 18},
                      QObject::tr("sensor to subject %1").arg(mm(*optics.subject_to_sensor)));
    }

    void drawRuler() {
        const double y = bounds_.bottom() - 20;
        const double from = layout_.origin.x();
        const double length = (bounds_.right() - 14 - from) / layout_.scale;
        const double step = rulerStep(length, static_cast<int>(std::max(2.0, length * layout_.scale / 80)));
        p_.setFont(textFont(11));
        for (int i = 0; i * step / 10 <= length; ++i) {
            const double x = from + i * step / 10 * layout_.scale;
            const bool whole = i % 10 == 0;
            p_.setPen(QPen(whole ? theme().quiet : theme().hairline, 1));
            p_.drawLine(QLineF(x, y, x, y + (whole ? 6 : i % 5 == 0 ? 4 : 2)));
            if (!whole) continue;
            p_.setPen(theme().quiet);
            const QString text =
                QString::fromStdString(text::number_text(i * step / 10, 4)) + (i == 0 ? QObject::tr(" mm") : QString());
            if (x + 3 + lineWidth(textFont(11), text) < bounds_.right() - 2) p_.drawText(QPointF(x + 3, y + 14), text);
        }
    }
};

}  // namespace

void paintBench(QPainter& painter, const BenchLayout& layout, const Document& document, Elevation elevation,
                const QRectF& bounds, std::size_t chosen) {
    BenchPainter(painter, layout, document, elevation, bounds, chosen).draw();
}

}  // namespace poquito::desk
