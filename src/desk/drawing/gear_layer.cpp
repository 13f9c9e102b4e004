// Camera, lens and background: what stands on the axis.
#include "desk/drawing/bench_sheet.hpp"
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
void letterLens(BenchSheet& sheet, const QRectF& box, const QString& name) {
    const double width = lineWidth(textFont(11), name) + 6;
    if (box.width() < 24 || width < box.width() || width < box.height()) return;  // it stands in it, or upright
    sheet.labels.add({.lines = {{name, textFont(11, QFont::Medium), theme().ink}},
                      .names = box,
                      .sides = {LabelSide::above, LabelSide::below}});
}

void drawBody(BenchSheet& sheet, const shoot::MountedPiece& camera) {
    auto& p = sheet.painter;
    const QRectF body = sheet.layout.box(-body_behind, camera.length, body_half);
    drawPiece(p, body, camera, {.lettered = false});
    sheet.labels.keepClear(body);
    const auto& sensor = sheet.plan().sensor;
    const double half = (sheet.elevation == Elevation::side ? sensor.height : sensor.width) / 2;
    p.setPen(QPen(theme().ink, 3, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(sheet.layout.place(0, half), sheet.layout.place(0, -half));
    if (body.width() > 34)
        sheet.labels.add({.lines = {plainLine(QObject::tr("sensor"), theme().quiet)},
                          .names = body,
                          .sides = {LabelSide::below, LabelSide::above},
                          .may_go = true});
}

}  // namespace

void drawGear(BenchSheet& sheet) {
    const auto& rig = sheet.shot().rig;
    const auto pieces = shoot::mounted_pieces(sheet.plan().kit, rig, sheet.report().optics.ring);
    drawBody(sheet, pieces.front());
    double x = pieces.front().length;  // the mount end of the rest
    QStringList closeups;
    for (std::size_t i = 1; i < pieces.size(); ++i) {
        const auto& piece = pieces[i];
        const bool front_lens = rig.front_lens.has_value() && i + 1 == pieces.size();
        const bool lens = piece.list == "lenses";
        const QRectF box = sheet.layout.box(x, x + piece.length, piece.diameter / 2);
        drawPiece(sheet.painter, box, piece,
                  {.ring = lens && !front_lens ? std::optional(sheet.report().optics.ring) : std::nullopt});
        sheet.labels.keepClear(box);
        if (lens) letterLens(sheet, box, shortName(piece));
        if (shoot::is_thin(piece)) {
            closeups << toQt(piece.name);
            x += 4 / sheet.layout.scale;
        }
        x += piece.length;
    }
    if (const double hood = sheet.report().optics.hood; hood > 0) {
        // Flares a little towards the subject (common practice).
        const double front = sheet.report().optics.front, half_front = sheet.plan().lens.optics.front_diameter / 2;
        auto& p = sheet.painter;
        p.setPen(QPen(theme().quiet, 1.2));
        p.setBrush(Qt::NoBrush);
        for (const double side : {-1.0, 1.0})
            p.drawLine(sheet.layout.place(front - hood, side * half_front),
                       sheet.layout.place(front, side * half_front * 1.1));
    }
    if (closeups.isEmpty()) return;
    const double half = sheet.plan().lens.optics.front_diameter / 2;
    const QRectF glass(sheet.layout.place(x, half) - QPointF(4, 0), sheet.layout.place(x, -half));
    sheet.labels.add({.lines = {{closeups.join(QStringLiteral(", ")), textFont(11, QFont::Medium), theme().link}},
                      .names = glass,
                      .sides = {LabelSide::below, LabelSide::above, LabelSide::right}});
}

void drawShade(BenchSheet& sheet) {
    const auto& optics = sheet.report().optics;
    if (!optics.shaded_half_angle) return;
    auto& p = sheet.painter;
    const double half = plan::front_diameter(sheet.plan()) / 2;
    const QPointF subject = sheet.subjectMiddle();
    const QLineF upper(subject, sheet.layout.place(optics.front, half)),
        lower(subject, sheet.layout.place(optics.front, -half));
    QColor wash = theme().hairline;
    wash.setAlphaF(0.4f);
    fillPlainly(p, QPolygonF({subject, upper.p2(), lower.p2()}), wash);
    p.setPen(QPen(theme().quiet, 1, Qt::DashLine));
    p.drawLine(upper);
    p.drawLine(lower);
    const QString words =
        QObject::tr("shaded \u00b1%1\u00b0").arg(toQt(text::number_text(*optics.shaded_half_angle, 2)));
    const double room = (sheet.layout.focus - optics.front) * sheet.layout.scale;
    if (room > lineWidth(textFont(11), words) + 40)
        sheet.labels.add({.lines = {plainLine(words, theme().quiet)},
                          .names = QRectF(sheet.layout.place(optics.front, 0) + QPointF(4, -4), QSizeF(room * 0.3, 8)),
                          .sides = {LabelSide::below, LabelSide::above},
                          .may_go = true});
}

void drawBackground(BenchSheet& sheet) {
    const auto& background = sheet.shot().background;
    if (!background) return;
    auto& p = sheet.painter;
    const Theme& t = theme();
    const bool scaled = sheet.layout.backgroundToScale && !sheet.layout.atInfinity;
    const double x =
        scaled ? sheet.layout.place(sheet.layout.subject + background->distance, 0).x() : sheet.bounds.right() - 16;
    const QRectF card(QPointF(x, sheet.bounds.top() + 30), QPointF(x + 6, sheet.bounds.bottom() - ruler_height - 4));
    const int shade = static_cast<int>(std::clamp(std::sqrt(background->reflectance) * 255, 20.0, 250.0));
    p.setBrush(QColor(shade, shade, shade));
    p.setPen(QPen(t.ink, 1));
    p.drawRect(card);
    if (!scaled) {
        // A break in the axis: from here on the drawing is not to scale.
        p.setPen(QPen(t.ink, 1.2));
        const double y = sheet.layout.origin.y();
        for (const double offset : {-30.0, -25.0})
            p.drawLine(QPointF(x + offset - 3, y + 8), QPointF(x + offset + 3, y - 8));
    }
    sheet.labels.keepClear(card, 2);
    const QString distance = QObject::tr("card %1 behind").arg(lengthText(background->distance));
    Label label{.lines = {plainLine(scaled ? distance : QObject::tr("%1, not to scale").arg(distance), t.quiet)},
                .names = QRectF(QPointF(card.left(), card.bottom() - 34), card.bottomRight()),
                .sides = {LabelSide::left, LabelSide::right}};
    if (const auto& stops = sheet.report().light.background)
        label.lines.push_back(plainLine(QObject::tr("%1 stops").arg(stopsText(*stops)), t.quiet));
    sheet.labels.add(std::move(label));
}

}  // namespace poquito::desk
