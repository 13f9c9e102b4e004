// Camera, lens and background: what stands on the axis.
#include "desk/drawing/bench_canvas.hpp"
#include "desk/drawing/gear_section.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace bench_sizes;

namespace {

/// A lens's name, beside the barrel where it does not fit into it.
void letterLens(BenchCanvas& canvas, const QRectF& box, const QString& name) {
    const double width = lineWidth(textFont(11), name) + 6;
    if (box.width() < 24 || width < box.width() || width < box.height()) return;  // it stands in it, or upright
    canvas.labels.add({.lines = {{name, textFont(11, QFont::Medium), theme().ink}},
                       .names = box,
                       .sides = {LabelSide::above, LabelSide::below}});
}

void drawBody(BenchCanvas& canvas, const shoot::MountedPiece& camera) {
    auto& p = canvas.painter;
    const QRectF body = canvas.layout.box(-body_behind, camera.length, body_half);
    drawPiece(p, body, camera, {.lettered = false});
    canvas.labels.keepClear(body);
    const auto& sensor = canvas.plan().sensor;
    const double half = (canvas.elevation == Elevation::side ? sensor.height : sensor.width) / 2;
    p.setPen(QPen(theme().ink, 3, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(canvas.layout.place(0, half), canvas.layout.place(0, -half));
    if (body.width() > 34)
        canvas.labels.add({.lines = {plainLine(QObject::tr("sensor"), theme().quiet)},
                           .names = body,
                           .sides = {LabelSide::below, LabelSide::above},
                           .may_go = true});
}

}  // namespace

void drawGear(BenchCanvas& canvas) {
    const auto& rig = canvas.shot().rig;
    const auto pieces = shoot::mounted_pieces(canvas.plan().kit, rig, canvas.report().optics.ring);
    drawBody(canvas, pieces.front());
    double x = pieces.front().length;  // the mount end of the rest
    QStringList closeups;
    for (std::size_t i = 1; i < pieces.size(); ++i) {
        const auto& piece = pieces[i];
        const bool front_lens = rig.front_lens.has_value() && i + 1 == pieces.size();
        const bool lens = piece.list == "lenses";
        const QRectF box = canvas.layout.box(x, x + piece.length, piece.diameter / 2);
        drawPiece(canvas.painter, box, piece,
                  {.ring = lens && !front_lens ? std::optional(canvas.report().optics.ring) : std::nullopt});
        canvas.labels.keepClear(box);
        if (lens) letterLens(canvas, box, shortName(piece));
        if (shoot::is_thin(piece)) {
            closeups << toQt(piece.name);
            x += 4 / canvas.layout.scale;
        }
        x += piece.length;
    }
    if (const double hood = canvas.report().optics.hood; hood > 0) {
        // Flares a little towards the subject (common practice).
        const double front = canvas.report().optics.front, half_front = canvas.plan().lens.optics.front_diameter / 2;
        auto& p = canvas.painter;
        p.setPen(QPen(theme().quiet, 1.2));
        p.setBrush(Qt::NoBrush);
        for (const double side : {-1.0, 1.0})
            p.drawLine(canvas.layout.place(front - hood, side * half_front),
                       canvas.layout.place(front, side * half_front * 1.1));
    }
    if (closeups.isEmpty()) return;
    const double half = canvas.plan().lens.optics.front_diameter / 2;
    const QRectF glass(canvas.layout.place(x, half) - QPointF(4, 0), canvas.layout.place(x, -half));
    canvas.labels.add({.lines = {{closeups.join(QStringLiteral(", ")), textFont(11, QFont::Medium), theme().link}},
                       .names = glass,
                       .sides = {LabelSide::below, LabelSide::above, LabelSide::right}});
}

void drawShade(BenchCanvas& canvas) {
    const auto& optics = canvas.report().optics;
    if (!optics.shaded_half_angle) return;
    auto& p = canvas.painter;
    const double half = plan::front_diameter(canvas.plan()) / 2;
    const QPointF subject = canvas.subjectMiddle();
    const QLineF upper(subject, canvas.layout.place(optics.front, half)),
        lower(subject, canvas.layout.place(optics.front, -half));
    QColor wash = theme().hairline;
    wash.setAlphaF(0.4f);
    fillPlainly(p, QPolygonF({subject, upper.p2(), lower.p2()}), wash);
    p.setPen(QPen(theme().quiet, 1, Qt::DashLine));
    p.drawLine(upper);
    p.drawLine(lower);
    const QString words =
        QObject::tr("shaded \u00b1%1\u00b0").arg(toQt(text::number_text(*optics.shaded_half_angle, 2)));
    const double room = (canvas.layout.focus - optics.front) * canvas.layout.scale;
    if (room > lineWidth(textFont(11), words) + 40)
        canvas.labels.add(
            {.lines = {plainLine(words, theme().quiet)},
             .names = QRectF(canvas.layout.place(optics.front, 0) + QPointF(4, -4), QSizeF(room * 0.3, 8)),
             .sides = {LabelSide::below, LabelSide::above},
             .may_go = true});
}

void drawBackground(BenchCanvas& canvas) {
    const auto& background = canvas.shot().background;
    if (!background) return;
    auto& p = canvas.painter;
    const Theme& t = theme();
    const bool scaled = canvas.layout.backgroundToScale && !canvas.layout.atInfinity;
    const double x =
        scaled ? canvas.layout.place(canvas.layout.subject + background->distance, 0).x() : canvas.bounds.right() - 16;
    const QRectF card(QPointF(x, canvas.bounds.top() + 30), QPointF(x + 6, canvas.bounds.bottom() - ruler_height - 4));
    const int shade = static_cast<int>(std::clamp(std::sqrt(background->reflectance) * 255, 20.0, 250.0));
    p.setBrush(QColor(shade, shade, shade));
    p.setPen(QPen(t.ink, 1));
    p.drawRect(card);
    if (!scaled) {
        // A break in the axis: from here on the drawing is not to scale.
        p.setPen(QPen(t.ink, 1.2));
        const double y = canvas.layout.origin.y();
        for (const double offset : {-30.0, -25.0})
            p.drawLine(QPointF(x + offset - 3, y + 8), QPointF(x + offset + 3, y - 8));
    }
    canvas.labels.keepClear(card, 2);
    const QString distance = QObject::tr("card %1 behind").arg(lengthText(background->distance));
    Label label{.lines = {plainLine(scaled ? distance : QObject::tr("%1, not to scale").arg(distance), t.quiet)},
                .names = QRectF(QPointF(card.left(), card.bottom() - 34), card.bottomRight()),
                .sides = {LabelSide::left, LabelSide::right}};
    if (const auto& stops = canvas.report().light.background)
        label.lines.push_back(plainLine(QObject::tr("%1 stops").arg(stopsText(*stops)), t.quiet));
    canvas.labels.add(std::move(label));
}

}  // namespace poquito::desk
