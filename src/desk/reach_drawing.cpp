#include "desk/reach_drawing.hpp"

#include "desk/document.hpp"
#include "desk/drafting.hpp"
#include "desk/theme.hpp"
#include "optics/focus.hpp"
#include "shoot/text.hpp"

#include <QPainter>
#include <QPainterPath>

#include <cmath>
#include <vector>

namespace poquito::desk {
namespace {

/// What one kind of gear adds to the magnification, in the order it is mounted.
struct Part {
    QString name;
    double from = 0;
    double to = 0;
};

std::vector<Part> parts_of(const optics::Train& train, const shoot::OpticsReport& optics) {
    std::vector<Part> parts = {{QObject::tr("lens"), 0, optics.lens_magnification}};
    double reached = optics.lens_magnification;
    const auto add = [&](const QString& name, double to) {
        if (std::abs(to - reached) > 1e-9) parts.push_back({name, reached, to});
        reached = to;
    };
    add(QObject::tr("tubes"), optics.extended_magnification);
    const double factor = train.converter ? train.converter->factor : 1;
    add(QObject::tr("close-up lens"), optics.magnification / factor);
    add(QObject::tr("converter"), optics.magnification);
    return parts;
}

}  // namespace

ReachDrawing::ReachDrawing(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("reachDrawing"));
    setAccessibleName(tr("Parts of the magnification and reach of the focus ring"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ReachDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& optics = document_.report()->optics;
    const auto train = shoot::train_of(document_.kit(), shot->rig);
    const auto parts = parts_of(train, optics);
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);

    // ---- the magnification as a pile of parts, each bar beginning where the last one ended
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, 13), tr("Where the magnification comes from"));
    const double left = 78, right = width() - 8.0;
    const double greatest = std::max({optics.range.greatest, optics.magnification, 0.05}) * 1.02;
    const auto x_of = [&](double m) { return left + (right - left) * m / greatest; };
    double y = 24;
    painter.setFont(textFont(11));
    for (const auto& part : parts) {
        painter.setPen(t.quiet);
        painter.drawText(QRectF(0, y, left - 8, 16), Qt::AlignRight | Qt::AlignVCenter, part.name);
        const QRectF bar(QPointF(x_of(std::min(part.from, part.to)), y + 2),
                         QPointF(x_of(std::max(part.from, part.to)), y + 14));
        painter.fillRect(bar, part.to >= part.from ? t.focusWash : t.stopWash);
        painter.setPen(QPen(t.focus, 1));
        painter.drawRect(bar);
        const auto text = QString::fromStdString((part.to >= part.from ? "+" : "\u2212") +
                                                 shoot::number_text(std::abs(part.to - part.from)));
        const double text_width = painter.fontMetrics().horizontalAdvance(text);
        painter.setPen(t.ink);
        if (bar.width() > text_width + 8)
            painter.drawText(bar, Qt::AlignCenter, text);
        else if (bar.right() + text_width + 6 < right)
            painter.drawText(QPointF(bar.right() + 5, y + 12), text);
        else
            painter.drawText(QPointF(bar.left() - text_width - 5, y + 12), text);
        y += 19;
    }
    // ---- the scale below it, with what the ring can reach
    painter.setPen(QPen(t.ink, 1));
    painter.drawLine(QLineF(left, y + 8, right, y + 8));
    const double step = rulerStep(greatest, static_cast<int>((right - left) / 44));
    for (int i = 0; i * step <= greatest; ++i) {
        const double x = x_of(i * step);
        painter.drawLine(QLineF(x, y + 8, x, y + 13));
        painter.drawText(QRectF(x - 24, y + 13, 48, 14), Qt::AlignHCenter | Qt::AlignTop,
                         QString::fromStdString(shoot::number_text(i * step)));
    }
    painter.setPen(QPen(t.focus, 5, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(QLineF(x_of(std::max(0.0, optics.range.least)), y + 8, x_of(optics.range.greatest), y + 8));
    painter.setPen(t.quiet);
    painter.drawText(QRectF(0, y, left - 8, 16), Qt::AlignRight | Qt::AlignVCenter, tr("ring reaches"));
    const double marker = x_of(optics.magnification);
    QPainterPath triangle(QPointF(marker, y + 6));
    triangle.lineTo(marker - 5, y - 3);
    triangle.lineTo(marker + 5, y - 3);
    triangle.closeSubpath();
    painter.fillPath(triangle, t.ink);
    y += 44;

    // ---- the subject distance from ring 0 to 1
    if (y + 70 > height()) return;
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, y), tr("Subject to sensor over the ring"));
    y += 8;
    const double bottom = std::min(height() - 20.0, y + 130);
    std::vector<QPointF> curve;
    double nearest = 1e300, farthest = 0;
    for (int i = 0; i <= 60; ++i) {
        const double ring = i / 60.0;
        const auto at = optics::focus_at_ring(train, ring);
        if (!at.subject_to_sensor || *at.subject_to_sensor <= 0) continue;
        curve.emplace_back(ring, *at.subject_to_sensor);
        nearest = std::min(nearest, *at.subject_to_sensor);
        farthest = std::max(farthest, *at.subject_to_sensor);
    }
    if (curve.empty()) return;
    farthest = std::min(farthest, nearest * 12);  // beyond it the curve runs off towards infinity
    const double span = std::log(std::max(farthest / nearest, 1.02));
    const auto point = [&](const QPointF& p) {
        return QPointF(left + (right - left) * p.x(),
                       bottom - (bottom - y) * std::min(1.0, std::log(p.y() / nearest) / span));
    };
    painter.setFont(textFont(11));
    painter.setPen(QPen(t.hairline, 1));
    painter.drawRect(QRectF(QPointF(left, y), QPointF(right, bottom)));
    painter.setPen(t.quiet);
    const auto length = [](double mm) { return QString::fromStdString(shoot::length_text(mm)); };
    painter.drawText(QRectF(0, y - 4, left - 6, 16), Qt::AlignRight | Qt::AlignVCenter, length(farthest));
    painter.drawText(QRectF(0, bottom - 12, left - 6, 16), Qt::AlignRight | Qt::AlignVCenter, length(nearest));
    painter.drawText(QRectF(left, bottom + 3, right - left, 14), Qt::AlignLeft, tr("0 infinity"));
    painter.drawText(QRectF(left, bottom + 3, right - left, 14), Qt::AlignRight, tr("1 closest"));
    painter.drawText(QRectF(left, bottom + 3, right - left, 14), Qt::AlignHCenter, tr("ring"));
    QPainterPath path;
    bool begun = false;
    for (const auto& p : curve) {
        if (p.y() > farthest) continue;
        if (begun)
            path.lineTo(point(p));
        else
            path.moveTo(point(p));
        begun = true;
    }
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawPath(path);
    if (optics.subject_to_sensor && *optics.subject_to_sensor > 0) {
        const QPointF here = point({optics.ring, *optics.subject_to_sensor});
        painter.setPen(QPen(t.panel, 1.5));
        painter.setBrush(t.focus);
        painter.drawEllipse(here, 5, 5);
        const bool rightHalf = optics.ring > 0.5;
        drawLabel(painter, here + QPointF(rightHalf ? -9 : 9, -11),
                  (rightHalf ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, length(*optics.subject_to_sensor),
                  t.ink);
    }
}

}  // namespace poquito::desk
