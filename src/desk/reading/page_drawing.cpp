#include "desk/reading/page_drawing.hpp"

#include "desk/drawing/stack_bands.hpp"
#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::desk {
namespace {

using advice::Assessment;

constexpr int small = 11, line_height = 16;

QString lengthText(double mm) { return toQt(text::length_text(mm)); }

class PagePainter {
  public:
    PagePainter(QPainter& painter, const QRectF& area, const Assessment& assessment)
        : p_(painter), area_(area), plan_(assessment.plan), report_(assessment.report) {
        p_.setRenderHint(QPainter::Antialiasing);
        p_.setFont(textFont(small));
    }

    void scale();
    void distance();
    void aperture();
    void discs();
    void depth();
    void stack();
    void plane();
    void background();
    void tones();
    void falloff();
    void pulse();
    void angles();
    void trace();

  private:
    void words(const QRectF& at, const QString& text, const QColor& colour, Qt::Alignment side = Qt::AlignLeft) {
        p_.setPen(colour);
        drawLine(p_, at, side | Qt::AlignVCenter, elided(p_.font(), text, at.width()));
    }
    /// The line of words at the foot of the drawing.
    void foot(const QString& text, const QColor& colour, int line = 0) {
        words({area_.left(), area_.bottom() - (line + 1) * line_height, area_.width(), line_height}, text, colour);
    }
    QRectF field(int lines) const { return area_.adjusted(2, 4, -2, -lines * line_height - 6); }
    QRectF section(double low, double high, int lines);

    QPainter& p_;
    QRectF area_;
    const plan::Plan& plan_;
    const plan::Report& report_;
    const Theme& t_ = theme();
};

/// Sensor and field side by side, to one scale.
void PagePainter::scale() {
    const auto& sensor = plan_.sensor;
    const double m = report_.optics.magnification;
    if (!(m > 0)) return foot(QObject::tr("Nothing is in focus yet"), t_.quiet);
    const double wide = sensor.width / m, high = sensor.height / m;
    const QRectF room = field(2);
    const double apart = 16;
    const double unit =
        std::min((room.width() - apart) / (sensor.width + wide), room.height() / std::max(sensor.height, high));
    const double left = room.left() + (room.width() - apart - unit * (sensor.width + wide)) / 2;
    const QRectF chip(left, room.center().y() - unit * sensor.height / 2, unit * sensor.width, unit * sensor.height);
    const QRectF seen(chip.right() + apart, room.center().y() - unit * high / 2, unit * wide, unit * high);
    p_.setPen(QPen(t_.ink, 1.2));
    p_.setBrush(t_.hairline);
    p_.drawRect(chip);
    p_.setPen(QPen(t_.focus, 1.2));
    p_.setBrush(t_.focusWash);
    p_.drawRect(seen);
    p_.setClipRect(seen);
    p_.setPen(QPen(t_.ink, 1.2));
    p_.setBrush(t_.panel);
    p_.drawEllipse(seen.center(), report_.extent.width * unit / 2, report_.extent.height * unit / 2);
    p_.setClipping(false);
    foot(QObject::tr("sensor %1 × %2 mm, and to the same scale")
             .arg(sensor.width, 0, 'g', 3)
             .arg(sensor.height, 0, 'g', 3),
         t_.ink, 1);
    foot(QObject::tr("what it sees, %1 × %2, with the subject").arg(lengthText(wide), lengthText(high)), t_.focus);
}

/// Sensor, lens and subject along the axis.
void PagePainter::distance() {
    const auto& optics = report_.optics;
    if (!optics.subject_to_sensor || !optics.working_distance)
        return foot(QObject::tr("Focused at infinity"), t_.quiet);
    const QRectF room = field(2);
    const double total = *optics.subject_to_sensor + report_.extent.depth / 2;
    const double unit = (room.width() - 8) / total;
    const double y = room.top() + room.height() * 0.38, tall = room.height() * 0.3;
    const auto x = [&](double mm) { return room.left() + 4 + mm * unit; };
    p_.setPen(QPen(t_.ink, 1.2));
    p_.setBrush(t_.panel);
    p_.drawRect(QRectF(x(0), y - tall / 2, x(optics.front) - x(0), tall));
    p_.setPen(QPen(t_.ink, 3));
    p_.drawLine(QPointF(x(0), y - tall * 0.3), QPointF(x(0), y + tall * 0.3));
    p_.setPen(QPen(t_.quiet, 1, Qt::DashLine));
    p_.drawLine(QPointF(x(0), y), QPointF(x(total), y));
    p_.setPen(QPen(t_.focus, 1.2));
    p_.setBrush(t_.focusWash);
    const double deep = std::max(report_.extent.depth * unit, 2.0);
    p_.drawEllipse(QPointF(x(*optics.subject_to_sensor), y), deep / 2,
                   std::clamp(report_.extent.height * unit / 2, 2.0, tall));
    p_.setPen(QPen(t_.ink, 1));
    const double low = y + tall / 2 + 16;
    drawDimension(p_, {x(optics.front), low}, {x(*optics.subject_to_sensor), low},
                  lengthText(*optics.working_distance));
    drawDimension(p_, {x(0), low + 20}, {x(*optics.subject_to_sensor), low + 20},
                  lengthText(*optics.subject_to_sensor));
    foot(QObject::tr("upper line: working distance"), t_.ink, 1);
    foot(QObject::tr("lower line: from the sensor"), t_.ink);
}

/// One opening, and the sensor where it would be for far things and where it is.
void PagePainter::aperture() {
    const double marked = plan_.shot.exposure.f_number, working = report_.optics.working_f_number;
    if (!(working > 0)) return;
    const QRectF room = field(2);
    // Distance over opening is the f-number.
    const double unit = (room.width() - 12) / std::max(working, marked);
    const double opening = std::clamp(unit * 2, 24.0, room.height() * 0.9);
    const double y = room.center().y(), left = room.left() + 6;
    const auto cone = [&](double n, const QColor& wash, const QPen& line) {
        QPainterPath path(QPointF(left, y - opening / 2));
        path.lineTo(left + n * unit, y);
        path.lineTo(left, y + opening / 2);
        p_.fillPath(path, wash);
        p_.setBrush(Qt::NoBrush);
        p_.setPen(line);
        p_.drawPath(path);
        p_.setPen(QPen(line.color(), 2.4));
        p_.drawLine(QPointF(left + n * unit, y - 18), QPointF(left + n * unit, y + 18));
    };
    cone(working, t_.focusWash, QPen(t_.focus, 1.2));
    cone(marked, Qt::transparent, QPen(t_.quiet, 1.2, Qt::DashLine));
    p_.setPen(QPen(t_.ink, 2.4));
    p_.drawLine(QPointF(left, y - opening / 2), QPointF(left, y - room.height() / 2));
    p_.drawLine(QPointF(left, y + opening / 2), QPointF(left, y + room.height() / 2));
    foot(QObject::tr("dashed: far away the sensor is here, %1").arg(toQt(text::f_number_text(marked))), t_.quiet, 1);
    foot(QObject::tr("close up it is further, %1").arg(toQt(text::f_number_text(working))), t_.focus);
}

/// The discs on the sensor's own pixels.
void PagePainter::discs() {
    const double limit = report_.sharpness.blur_limit, airy = report_.sharpness.airy_diameter;
    const double pitch = plan_.sensor.width / std::max(1, plan_.sensor.width_px);
    const QRectF room = field(3);
    const double whole = std::max({limit, airy, 3 * pitch}) * 1.25;
    const double unit = room.height() / whole;
    p_.save();
    p_.setClipRect(room);
    p_.setPen(QPen(t_.hairline, 1));
    // Pixels so small that they would be a grey are left out.
    const QPointF centre = room.center();
    if (pitch * unit > 3) {
        for (double x = std::fmod(centre.x() - room.left(), pitch * unit); x < room.width(); x += pitch * unit)
            p_.drawLine(QPointF(room.left() + x, room.top()), QPointF(room.left() + x, room.bottom()));
        for (double y = std::fmod(centre.y() - room.top(), pitch * unit); y < room.height(); y += pitch * unit)
            p_.drawLine(QPointF(room.left(), room.top() + y), QPointF(room.right(), room.top() + y));
    }
    if (const auto ends = report_.sharpness.edge_blur) {
        p_.setPen(QPen(t_.link, 1.4, Qt::DashLine));
        p_.setBrush(Qt::NoBrush);
        p_.drawEllipse(centre, *ends * unit / 2, *ends * unit / 2);
    }
    p_.setPen(QPen(t_.focus, 1.6));
    p_.setBrush(Qt::NoBrush);
    p_.drawEllipse(centre, limit * unit / 2, limit * unit / 2);
    p_.setPen(Qt::NoPen);
    QColor spread = t_.caution;
    spread.setAlphaF(0.45F);
    p_.setBrush(spread);
    p_.drawEllipse(centre, airy * unit / 2, airy * unit / 2);
    p_.restore();
    foot(QObject::tr("green ring: the limit, %1; squares: pixels").arg(lengthText(limit)), t_.focus, 2);
    foot(QObject::tr("brown: diffraction, %1").arg(lengthText(airy)), t_.caution, 1);
    if (const auto ends = report_.sharpness.edge_blur)
        foot(QObject::tr("dashed: a point at the subject's end, %1").arg(lengthText(*ends)), t_.link);
}

/// The subject's section with what is outside it, and the words' place below; returns where depth is drawn.
QRectF PagePainter::section(double low, double high, int lines) {
    const QRectF room = field(lines);
    drawSection(p_, room.adjusted(0, 8, 0, -8), plan_.shot, report_, low, high);
    return room;
}

void PagePainter::depth() {
    const auto& sharp = report_.sharpness;
    const double deep = std::max(report_.extent.depth, 1e-3);
    const double focus = report_.extent.depth / 2 + plan_.focus;
    const double from = focus - sharp.near.value_or(deep), to = focus + sharp.far.value_or(deep);
    const double margin = deep * 0.15;
    const double low = std::min(-margin, std::max(from - margin / 2, -deep));
    const double high = std::max(deep + margin, std::min(to + margin / 2, 2 * deep));
    const QRectF room = field(2);
    const auto x = [&](double mm) {
        return room.left() + (std::clamp(mm, low, high) - low) / (high - low) * room.width();
    };
    p_.fillRect(QRectF(QPointF(x(from), room.top()), QPointF(std::max(x(to), x(from) + 1.5), room.bottom())),
                t_.focusWash);
    section(low, high, 2);
    p_.setPen(QPen(t_.focus, 2));
    p_.drawLine(QPointF(x(focus), room.top()), QPointF(x(focus), room.bottom()));
    foot(sharp.depth_of_field ? QObject::tr("tinted: sharp in one frame, %1").arg(lengthText(*sharp.depth_of_field))
                              : QObject::tr("tinted: sharp in one frame"),
         t_.focus, 1);
    foot(QObject::tr("the subject from the side, %1 deep; camera left").arg(lengthText(report_.extent.depth)), t_.ink);
}

void PagePainter::stack() {
    const auto bands = bandsOf(plan_, report_);
    if (bands.size() < 2) return depth();
    const double deep = std::max(report_.extent.depth, 1e-3);
    const double margin = deep * 0.06;
    const double low = std::min(bands.front().from, 0.0) - margin, high = std::max(bands.back().to, deep) + margin;
    const QRectF room = field(2);
    const auto x = [&](double mm) { return room.left() + (mm - low) / (high - low) * room.width(); };
    QColor wash = t_.focus;
    wash.setAlphaF(bands.size() > 40 ? 0.25F : 0.16F);
    bool upper = true;
    for (const auto& band : bands) {
        // Neighbours lie over one another where they overlap: one high, one low.
        const double half = room.height() / 2;
        const QRectF slice(x(band.from), upper ? room.top() : room.top() + half * 0.9,
                           std::max(x(band.to) - x(band.from), 1.0), half * 1.1);
        p_.fillRect(slice, wash);
        upper = !upper;
    }
    section(low, high, 2);
    foot(QObject::tr("%1 slices, each overlapped by the next").arg(bands.size()), t_.focus, 1);
    foot(QObject::tr("the subject from the side, %1 deep; camera left").arg(lengthText(report_.extent.depth)), t_.ink);
}

/// A flat thing that leans, and the same parallel to the sensor.
void PagePainter::plane() {
    const auto& subject = plan_.shot.subject;
    const bool turned = std::abs(subject.tilt) >= 0.5 || std::abs(subject.turn) >= 0.5;
    const double degrees = !turned                                            ? 5
                           : std::abs(subject.tilt) >= std::abs(subject.turn) ? std::abs(subject.tilt)
                                                                              : std::abs(subject.turn);
    const double length = std::abs(subject.tilt) >= std::abs(subject.turn) ? subject.height : subject.width;
    const double angle = degrees * std::numbers::pi / 180;
    const QRectF room = field(2);
    const double unit = room.height() * 0.92 / length;
    const double deep = length * std::sin(angle);
    const double one = report_.sharpness.depth_of_field.value_or(deep / 4);
    const auto side = [&](double middle, double lean) {
        const double y = room.center().y();
        const double half = std::clamp(one * unit / 2, 1.0, room.width() / 5);
        p_.fillRect(QRectF(middle - half, room.top(), 2 * half, room.height()), t_.focusWash);
        p_.setPen(QPen(t_.ink, 4, Qt::SolidLine, Qt::RoundCap));
        const QPointF arm(std::sin(lean) * length * unit / 2, -std::cos(lean) * length * unit / 2);
        p_.drawLine(QPointF(middle, y) - arm, QPointF(middle, y) + arm);
    };
    side(room.left() + room.width() * 0.3, angle);
    side(room.left() + room.width() * 0.75, 0);
    foot(turned ? QObject::tr("left as it leans, %1°: %2 deep").arg(degrees, 0, 'g', 3).arg(lengthText(deep))
                : QObject::tr("left if it leaned by 5°: %1 deep").arg(lengthText(deep)),
         t_.ink, 1);
    foot(QObject::tr("right parallel; tinted: sharp in one frame"), t_.focus);
}

/// What a point of the background becomes, in the frame.
void PagePainter::background() {
    const auto share = report_.sharpness.background_disc_share;
    const QRectF room = field(2);
    const auto& sensor = plan_.sensor;
    const double unit = std::min(room.width() / sensor.width, room.height() / sensor.height);
    QRectF frame(0, 0, sensor.width * unit, sensor.height * unit);
    frame.moveCenter(room.center());
    p_.setPen(QPen(t_.ink, 1.2));
    p_.setBrush(t_.panel);
    p_.drawRect(frame);
    p_.save();
    p_.setClipRect(frame);
    QColor soft = t_.light;
    soft.setAlphaF(0.5F);
    p_.setBrush(soft);
    p_.setPen(Qt::NoPen);
    const auto disc = [&](double x, double y, double of) {
        p_.drawEllipse(QPointF(frame.left() + x * frame.width(), frame.top() + y * frame.height()),
                       of * frame.width() / 2, of * frame.width() / 2);
    };
    if (share) {
        disc(0.25, 0.3, *share);
        disc(0.7, 0.65, *share);
    } else {
        disc(0.15, 0.5, 0.03);
        disc(0.4, 0.5, 0.2);
        disc(0.8, 0.5, 0.5);
    }
    p_.restore();
    if (share) {
        foot(QObject::tr("the frame, and two points of the background"), t_.ink, 1);
        foot(QObject::tr("each becomes a disc of %1 % of its width").arg(*share * 100, 0, 'g', 2), t_.lightText);
    } else {
        foot(QObject::tr("no background is planned; a point as a disc"), t_.ink, 1);
        foot(QObject::tr("of 3, 20 and 50 % of the frame's width"), t_.lightText);
    }
}

/// Greys by stops, with what the picture has where.
void PagePainter::tones() {
    constexpr int least = -5, most = 3;
    const QRectF room = field(3);
    const double cell = room.width() / (most - least + 1);
    const QRectF strip(room.left(), room.center().y() - 18, room.width(), 36);
    const auto x = [&](double stops) {
        return strip.left() + (std::clamp(stops, least - 0.5, most + 0.5) - least + 0.5) * cell;
    };
    for (int s = least; s <= most; ++s) {
        const QRectF patch(x(s - 0.5), strip.top(), cell, strip.height());
        p_.fillRect(patch, greyOf(0.18 * std::exp2(s)));
        words({patch.left(), strip.bottom() + 2, cell, line_height},
              s > 0   ? QStringLiteral("+%1").arg(s)
              : s < 0 ? QStringLiteral("\u2212%1").arg(-s)
                      : QStringLiteral("0"),
              t_.quiet, Qt::AlignHCenter);
    }
    p_.setPen(QPen(t_.hairline, 1));
    p_.setBrush(Qt::NoBrush);
    p_.drawRect(strip);
    const auto mark = [&](const std::optional<double>& stops, const QColor& colour, const QString& name, int line) {
        if (!stops) return;
        const double at = x(*stops);
        p_.setPen(Qt::NoPen);
        p_.setBrush(colour);
        p_.drawPolygon(QPolygonF({{at, strip.top() - 2}, {at - 6, strip.top() - 14}, {at + 6, strip.top() - 14}}));
        foot(QStringLiteral("%1: %2").arg(name, toQt(text::stops_text(*stops))), colour, line);
    };
    const auto& light = report_.light;
    mark(light.front_total, t_.focus, QObject::tr("the subject's front"), 2);
    mark(light.highlight, t_.caution, QObject::tr("its brightest part"), 1);
    mark(light.background, t_.link, QObject::tr("the background"), 0);
    if (!light.front_total && !light.background) foot(QObject::tr("no light is planned yet"), t_.quiet);
}

/// Stops that a light gives, over its distance.
void PagePainter::falloff() {
    const plan::SourceReport* near = nullptr;
    for (const auto& source : report_.light.sources)
        if (source.path > 0 && (!near || source.path < near->path)) near = &source;
    const double from = near ? near->path : 150;
    const double deep = std::max(report_.extent.depth, 1e-3);
    const QRectF room = field(2).adjusted(22, 0, 0, -line_height);
    const double low = from * 0.4, high = from * 2.6;
    constexpr double top = 2.8, bottom = -3;
    const auto x = [&](double mm) { return room.left() + (mm - low) / (high - low) * room.width(); };
    const auto y = [&](double stops) { return room.top() + (top - stops) / (top - bottom) * room.height(); };
    for (const double s : {-2.0, 0.0, 2.0}) {
        p_.setPen(QPen(t_.hairline, 1));
        p_.drawLine(QPointF(room.left(), y(s)), QPointF(room.right(), y(s)));
        words({area_.left(), y(s) - 8, 20, line_height},
              s > 0   ? QStringLiteral("+2")
              : s < 0 ? QStringLiteral("\u22122")
                      : QStringLiteral("0"),
              t_.quiet, Qt::AlignRight);
    }
    p_.fillRect(QRectF(QPointF(x(from - deep / 2), room.top()),
                       QPointF(std::max(x(from + deep / 2), x(from - deep / 2) + 2), room.bottom())),
                t_.focusWash);
    QPainterPath curve;
    for (int i = 0; i <= 60; ++i) {
        const double mm = low + (high - low) * i / 60;
        const QPointF at(x(mm), y(-2 * std::log2(mm / from)));
        i == 0 ? curve.moveTo(at) : curve.lineTo(at);
    }
    p_.setBrush(Qt::NoBrush);
    p_.setPen(QPen(t_.lightText, 1.8));
    p_.drawPath(curve);
    for (const double mm : rulerMarks(low, high, 5))
        words({x(mm) - 30, room.bottom() + 1, 60, line_height}, lengthText(mm), t_.quiet, Qt::AlignHCenter);
    foot(near ? QObject::tr("stops over the distance of light %1").arg(toQt(near->label))
              : QObject::tr("stops over the distance of a light"),
         t_.lightText, 1);
    foot(QObject::tr("tinted: from the subject's near end to its far end"), t_.focus);
}

/// Light of a flash over time.
void PagePainter::pulse() {
    const plan::SourceReport* flash = nullptr;
    for (const auto& source : report_.light.sources)
        if (source.fires && source.t05 && source.t01 && (!flash || *source.t01 > *flash->t01)) flash = &source;
    const QRectF room = field(2).adjusted(4, 0, -4, -4);
    // A pulse that dies away is above half until ln 2, above a tenth until ln 10 of its own time; one that is cut off
    // ends before (ISO 2827). It rises at once.
    const bool cut = flash && *flash->t01 < 1.5 * *flash->t05;
    const double whole = cut ? 1 : 3.6;
    const double half = cut ? 0.45 : std::numbers::ln2, tenth = cut ? half : std::numbers::ln10;
    const auto x = [&](double time) { return room.left() + 10 + time / whole * (room.width() - 10); };
    const auto y = [&](double share) { return room.bottom() - share * room.height(); };
    const auto until = [&](double time, const QColor& wash) {
        QPainterPath path(QPointF(x(0), y(0)));
        for (int i = 0; i <= 40; ++i) path.lineTo(x(time * i / 40), y(std::exp(-time * i / 40)));
        path.lineTo(x(time), y(0));
        p_.fillPath(path, wash);
    };
    if (!cut) until(tenth, t_.linkWash);
    until(half, t_.focusWash);
    QPainterPath curve(QPointF(room.left(), y(0)));
    curve.lineTo(x(0), y(0));
    const double end = cut ? half : whole;
    for (int i = 0; i <= 60; ++i) curve.lineTo(x(end * i / 60), y(std::exp(-end * i / 60)));
    if (cut) curve.lineTo(x(end), y(0));
    p_.setBrush(Qt::NoBrush);
    p_.setPen(QPen(t_.lightText, 1.8));
    p_.drawPath(curve);
    if (cut) {
        p_.setPen(QPen(t_.quiet, 1, Qt::DashLine));
        QPainterPath rest(QPointF(x(half), y(std::exp(-half))));
        for (int i = 0; i <= 40; ++i) {
            const double time = half + (whole - half) * i / 40;
            rest.lineTo(x(time), y(std::exp(-time)));
        }
        p_.drawPath(rest);
    }
    p_.setPen(QPen(t_.ink, 1));
    p_.drawLine(QPointF(room.left(), y(0)), QPointF(room.right(), y(0)));
    if (cut) {
        foot(QObject::tr("dashed: what it would give, had it not been cut off"), t_.quiet, 1);
        return foot(QObject::tr("green: what freezes, t0.1 as t0.5, %1").arg(toQt(text::shutter_text(*flash->t01))),
                    t_.focus);
    }
    foot(flash ? QObject::tr("green: t0.5, above half its peak, %1").arg(toQt(text::shutter_text(*flash->t05)))
               : QObject::tr("green: t0.5, above half its peak"),
         t_.focus, 1);
    foot(flash ? QObject::tr("with blue: t0.1, what freezes, %1").arg(toQt(text::shutter_text(*flash->t01)))
               : QObject::tr("with blue: t0.1, what freezes"),
         t_.link);
}

/// A polished face: what it shows the lens.
void PagePainter::angles() {
    const QRectF room = field(2);
    const auto& optics = report_.optics;
    const double away = optics.working_distance.value_or(150);
    const double half = plan::front_diameter(plan_) / 2;
    const double spread = std::atan(half / std::max(away, 1.0));
    const auto& subject = plan_.shot.subject;
    const bool tilted = std::abs(subject.tilt) >= 1;
    const double tilt = (tilted ? std::clamp(std::abs(subject.tilt), 1.0, 60.0) : 25.0) * std::numbers::pi / 180;
    const QPointF face(room.left() + room.width() * 0.42, room.bottom() - 14);
    const double reach = room.height() - 20;
    // The lens looks down on the face; what the face mirrors into it comes in at twice the tilt.
    const auto cone = [&](double middle, const QColor& wash, const QColor& line) {
        QPainterPath path(face);
        path.lineTo(face + reach * QPointF(std::sin(middle - spread), -std::cos(middle - spread)));
        path.lineTo(face + reach * QPointF(std::sin(middle + spread), -std::cos(middle + spread)));
        path.closeSubpath();
        p_.fillPath(path, wash);
        p_.setPen(QPen(line, 1.2));
        p_.setBrush(Qt::NoBrush);
        p_.drawPath(path);
    };
    p_.save();
    p_.setClipRect(room);
    cone(2 * tilt, t_.cautionWash, t_.light);
    cone(0, t_.linkWash, t_.link);
    p_.setPen(QPen(t_.quiet, 1, Qt::DashLine));
    p_.drawLine(face, face + reach * 0.8 * QPointF(std::sin(tilt), -std::cos(tilt)));
    p_.setPen(QPen(t_.ink, 4, Qt::SolidLine, Qt::RoundCap));
    const QPointF along(std::cos(tilt) * 26, std::sin(tilt) * 26);
    p_.drawLine(face - along, face + along);
    p_.restore();
    foot(QObject::tr("blue: to the lens; the face tilted by %1°%2")
             .arg(tilt * 180 / std::numbers::pi, 0, 'f', 0)
             .arg(tilted ? QString() : QObject::tr(", for example")),
         t_.link, 1);
    foot(QObject::tr("yellow: the family, where a lamp would show"), t_.lightText);
}

/// What movement draws, against the limit.
void PagePainter::trace() {
    const auto& motion = report_.motion;
    const double limit = report_.sharpness.blur_limit;
    const QRectF room = field(1);
    struct Line {
        QString name;
        double length;
        QColor colour;
    };
    std::vector<Line> lines = {{QObject::tr("the limit"), limit, t_.focus},
                               {QObject::tr("the subject"), std::max(motion.blur, motion.sway_blur), t_.caution},
                               {QObject::tr("the hands"), motion.hand_blur, t_.link}};
    if (motion.ghost_share > 0) lines.push_back({QObject::tr("the ghost"), motion.ghost_blur, t_.quiet});
    double longest = limit;
    for (const auto& line : lines) longest = std::max(longest, line.length);
    constexpr double names = 84, numbers = 74;
    // The limit is never less than a tenth: what is longer goes out of the drawing, with an arrow.
    const double unit = (room.width() - names - numbers) / std::min(longest, limit * 10);
    const double at = room.left() + names + limit * unit;
    double y = room.top();
    const double each = room.height() / static_cast<double>(lines.size());
    for (const auto& line : lines) {
        words({room.left(), y, names - 6, each}, line.name, t_.ink);
        const double long_ = std::min(line.length * unit, room.width() - names - numbers);
        const QRectF bar(room.left() + names, y + each / 2 - 5, std::max(long_, 1.5), 10);
        p_.setPen(Qt::NoPen);
        p_.setBrush(line.colour);
        p_.drawRect(bar);
        if (line.length * unit > long_ + 1)
            p_.drawPolygon(QPolygonF(
                {bar.topRight() + QPointF(0, -3), bar.topRight() + QPointF(9, 5), bar.bottomRight() + QPointF(0, 3)}));
        words({std::max(bar.right(), at) + 12, y, numbers, each},
              line.length > 0 ? lengthText(line.length) : QObject::tr("none"), t_.ink);
        y += each;
    }
    p_.setPen(QPen(t_.focus, 1, Qt::DashLine));
    p_.drawLine(QPointF(at, room.top()), QPointF(at, room.bottom()));
    foot(QObject::tr("lengths drawn on the sensor, to one scale"), t_.quiet);
}

}  // namespace

void drawPage(QPainter& painter, const QRectF& area, handbook::Drawing drawing, const Assessment& assessment) {
    using handbook::Drawing;
    painter.save();
    PagePainter sheet(painter, area, assessment);
    switch (drawing) {
        case Drawing::none:
            break;
        case Drawing::scale:
            sheet.scale();
            break;
        case Drawing::distance:
            sheet.distance();
            break;
        case Drawing::aperture:
            sheet.aperture();
            break;
        case Drawing::discs:
            sheet.discs();
            break;
        case Drawing::depth:
            sheet.depth();
            break;
        case Drawing::plane:
            sheet.plane();
            break;
        case Drawing::background:
            sheet.background();
            break;
        case Drawing::stack:
            sheet.stack();
            break;
        case Drawing::tones:
            sheet.tones();
            break;
        case Drawing::falloff:
            sheet.falloff();
            break;
        case Drawing::pulse:
            sheet.pulse();
            break;
        case Drawing::angles:
            sheet.angles();
            break;
        case Drawing::trace:
            sheet.trace();
            break;
    }
    painter.restore();
}

}  // namespace poquito::desk
