#include "desk/subject/frame_drawing.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/form_lines.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"
#include "text/text.hpp"

#include <QPainter>
#include <QPainterPath>

namespace poquito::desk {
namespace {

/// The largest rectangle of the field's shape inside `area`, centred.
QRectF frame_in(const QRectF& area, const plan::Report& report) {
    const auto& optics = report.optics;
    const double aspect = optics.field_width ? *optics.field_width / *optics.field_height : 1.5;
    const double width = std::min(area.width(), area.height() * aspect);
    QRectF frame(0, 0, width, width / aspect);
    frame.moveCenter(area.center());
    return frame;
}

QRectF subject_in(const QRectF& frame, const plan::Report& report) {
    const double scale = frame.width() / *report.optics.field_width;
    QRectF subject(0, 0, report.extent.width * scale, report.extent.height * scale);
    subject.moveCenter(frame.center());
    return subject;
}

}  // namespace

FrameDrawing::FrameDrawing(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("frameDrawing"));
    setAccessibleName(tr("Frame with the subject to scale"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void FrameDrawing::paintFrame(QPainter& painter, const QRectF& area, const shoot::Shot& shot,
                              const plan::Report& report) {
    const QRectF frame = frame_in(area, report);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme().ink, 1));
    painter.setBrush(theme().panel);
    painter.drawRect(frame);
    if (report.optics.field_width) {
        painter.setClipRect(frame);
        const double scale = frame.width() / *report.optics.field_width;
        const FormLines lines = formLines(shot.subject, report.sharpness.focus);
        painter.translate(frame.center());
        painter.scale(scale, -scale);
        painter.fillPath(lines.area, theme().focusWash);
        painter.setBrush(Qt::NoBrush);
        const auto stroke = [&](const QPainterPath& path, const QColor& colour, double width) {
            QPen pen(colour, width);
            pen.setCosmetic(true);
            painter.strokePath(path, pen);
        };
        // Lines of equal depth want room; on a card the outline says enough.
        constexpr double roomy = 120;
        if (frame.width() > roomy) stroke(lines.contours, theme().quiet, 1);
        if (frame.width() > roomy) stroke(lines.focus, theme().focus, 2);
        stroke(lines.outline, theme().focus, 1.4);
    }
    painter.restore();
}

void FrameDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& report = *document_.report();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF area = QRectF(rect()).adjusted(4, 18, -56, -55);
    paintFrame(painter, area, *shot, report);
    painter.setFont(textFont(11));
    if (!report.optics.field_width) {
        drawLabel(painter, frame_in(area, report).center(), Qt::AlignCenter,
                  tr("focused at infinity: no size in the frame"), theme().quiet);
        return;
    }
    const QRectF frame = frame_in(area, report);
    painter.setPen(QPen(theme().hairline, 1, Qt::DashLine));
    for (const double third : {1.0 / 3, 2.0 / 3}) {
        painter.drawLine(QLineF(frame.left() + third * frame.width(), frame.top(), frame.left() + third * frame.width(),
                                frame.bottom()));
        painter.drawLine(QLineF(frame.left(), frame.top() + third * frame.height(), frame.right(),
                                frame.top() + third * frame.height()));
    }

    const auto millimetres = [](double mm) { return QString::fromStdString(text::length_text(mm)); };
    const QRectF subject = subject_in(frame, report).intersected(frame);
    painter.setPen(theme().quiet);
    painter.drawText(
        QPointF(frame.left(), frame.top() - 6),
        tr("Field %1 × %2").arg(millimetres(*report.optics.field_width), millimetres(*report.optics.field_height)));
    drawDimension(painter, {subject.left(), frame.bottom() + 12}, {subject.right(), frame.bottom() + 12},
                  millimetres(report.extent.width));
    painter.setFont(textFont(11, QFont::Medium));
    painter.setPen(QPen(theme().ink, 1));
    const double x = frame.right() + 8;
    painter.drawLine(QLineF(x, subject.top(), x, subject.bottom()));
    painter.drawLine(QLineF(x - 4, subject.top(), x + 4, subject.top()));
    painter.drawLine(QLineF(x - 4, subject.bottom(), x + 4, subject.bottom()));
    drawLabel(painter, {x + 2, subject.center().y()}, Qt::AlignLeft | Qt::AlignVCenter,
              millimetres(report.extent.height), theme().ink);
    painter.setPen(theme().quiet);
    painter.setFont(textFont(11));
    painter.drawText(QPointF(frame.left(), frame.bottom() + 34),
                     tr("fills %1 % of the frame").arg(qRound(*report.optics.fill * 100)));
    if (report.extent.depth > 0)
        painter.drawText(
            QPointF(frame.left(), frame.bottom() + 49),
            elided(textFont(11), tr("lines at quarters of the depth, green in focus"), width() - frame.left()));
}

}  // namespace poquito::desk
