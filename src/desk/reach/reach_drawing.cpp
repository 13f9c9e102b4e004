#include "desk/reach/reach_drawing.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "optics/focus.hpp"
#include "text/text.hpp"

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

std::vector<Part> parts_of(const optics::Train& train, const plan::OpticsReport& optics) {
    if (!optics::is_plain(train)) {
        // Where pieces work on each other there are no shares to add up.
        const auto whole = train.facing == optics::Facing::reversed ? QObject::tr("reversed lens")
                           : train.front_lens                       ? QObject::tr("coupled")
                                                                    : QObject::tr("whole train");
        return {{whole, 0, optics.magnification}};
    }
    std::vector<Part> parts = {{QObject::tr("lens"), 0, optics.lens_magnification}};
    double reached = optics.lens_magnification;
    const auto add = [&](const QString& name, double to) {
        if (std::abs(to - reached) > 1e-9) parts.push_back({name, reached, to});
        reached = to;
    };
    add(QObject::tr("extension"), optics.extended_magnification);
    const double factor = train.converter ? train.converter->factor : 1;
    add(QObject::tr("close-up lens"), optics.magnification / factor);
    add(QObject::tr("converter"), optics.magnification);
    return parts;
}

QString length(double mm) { return toQt(text::length_text(mm)); }
QString times(double m) { return toQt(text::magnification_text(m)); }

/// The reach of the ring on a scale of distances, each twice the one before; infinity at the right end.
class DistanceBar {
  public:
    DistanceBar(QPainter& painter, const QRectF& area, const plan::OpticsReport& optics)
        : p_(painter), area_(area), optics_(optics) {
        double nearest = optics.at_closest_ring.value_or(1000);
        for (const auto& d : {optics.at_infinity_ring, optics.subject_to_sensor})
            if (d && *d > 0) nearest = std::min(nearest, *d);
        least_ = std::max(1.0, nearest / 1.6);
        double farthest = nearest * 8;
        if (optics.at_infinity_ring) farthest = std::max(farthest, *optics.at_infinity_ring * 1.3);
        greatest_ = farthest;
    }

    void draw() {
        const Theme& t = theme();
        const double y = area_.top() + 34;
        p_.setPen(QPen(t.ink, 1));
        p_.drawLine(QPointF(area_.left(), y), QPointF(area_.right(), y));
        drawScale(y);
        const double near = x_of(optics_.at_closest_ring), far = x_of(optics_.at_infinity_ring);
        p_.setPen(QPen(t.focus, 6, Qt::SolidLine, Qt::FlatCap));
        p_.drawLine(QPointF(std::min(near, far) - (far == near ? 2 : 0), y),
                    QPointF(std::max(near, far) + (far == near ? 2 : 0), y));
        drawEnds(y, near, far);
        const double here = x_of(optics_.subject_to_sensor);
        QPainterPath triangle(QPointF(here, y - 4));
        triangle.lineTo(here - 5, y - 13);
        triangle.lineTo(here + 5, y - 13);
        triangle.closeSubpath();
        p_.fillPath(triangle, t.ink);
    }

  private:
    QPainter& p_;
    QRectF area_;
    const plan::OpticsReport& optics_;
    double least_ = 100, greatest_ = 1000;

    double x_of(const std::optional<double>& distance) const {
        const double end = area_.right() - 26;  // infinity stands past the last mark
        if (!distance) return area_.right() - 4;
        return area_.left() + (end - area_.left()) * std::log(std::clamp(*distance, least_, greatest_) / least_) /
                                  std::log(greatest_ / least_);
    }

    void drawScale(double y) {
        p_.setFont(textFont(11));
        double free = area_.left() - 8;
        for (const double mm : decadeMarks(least_, greatest_)) {
            const double x = x_of(mm);
            p_.setPen(QPen(theme().ink, 1));
            p_.drawLine(QPointF(x, y), QPointF(x, y + 5));
            const double half = lineWidth(p_.font(), length(mm)) / 2;
            if (x - half < free + 6 || x + half > area_.right() - 14) continue;
            drawLine(p_, QRectF(x - half - 2, y + 5, 2 * half + 4, 14), Qt::AlignCenter, length(mm));
            free = x + half;
        }
        drawLine(p_, QRectF(area_.right() - 12, y + 4, 12, 14), Qt::AlignRight | Qt::AlignVCenter,
                 QStringLiteral("\u221e"));
    }

    /// Magnification at both ends of the bar, above it.
    void drawEnds(double y, double near, double far) {
        const Theme& t = theme();
        p_.setFont(textFont(11, QFont::Medium));
        p_.setPen(t.ink);
        const auto label = [&](double x, const QString& text, bool towards_left) {
            const double width = lineWidth(p_.font(), text);
            const double left = std::clamp(towards_left ? x - width : x, area_.left(), area_.right() - width);
            drawLine(p_, QRectF(left, y - 30, width + 2, 14), Qt::AlignLeft | Qt::AlignVCenter, text);
            return QRectF(left, y - 30, width, 14);
        };
        const double closest = optics_.at_closest_magnification, infinity = optics_.at_infinity_magnification;
        const QRectF first = label(std::min(near, far), times(near < far ? closest : infinity), false);
        const QString other = times(near < far ? infinity : closest);
        if (other == times(near < far ? closest : infinity)) return;
        // Ends at the bar's end where the first leaves room, else begins there.
        const double end = std::max(near, far);
        const double width = lineWidth(p_.font(), other);
        if (end - width > first.right() + 8)
            label(end, other, true);
        else if (std::max(end, first.right() + 8) + width < area_.right())
            label(std::max(end, first.right() + 8), other, false);
    }
};

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
    painter.drawText(QPointF(0, 13), elided(painter.font(), tr("Magnification from"), width()));
    const double left = 82, right = width() - 8.0;
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
        const auto text =
            toQt((part.to >= part.from ? "+" : "\u2212") + text::number_text(std::abs(part.to - part.from)));
        const double text_width = painter.fontMetrics().horizontalAdvance(text);
        painter.setPen(t.ink);
        if (bar.width() > text_width + 8)
            painter.drawText(bar, Qt::AlignCenter, text);
        else if (bar.right() + text_width + 6 < right)
            painter.drawText(QPointF(bar.right() + 5, y + 12), text);
        else if (bar.left() - text_width - 5 > left)
            painter.drawText(QPointF(bar.left() - text_width - 5, y + 12), text);
        else
            painter.drawText(QRectF(right - text_width - 2, y, text_width + 2, 16), Qt::AlignRight | Qt::AlignVCenter,
                             text);
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
                         toQt(text::number_text(i * step)));
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

    // ---- where the subject can be
    if (y + 66 > height()) return;
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    painter.drawText(QPointF(0, y), elided(painter.font(), tr("Subject to sensor"), width()));
    DistanceBar(painter, QRectF(2, y + 4, width() - 10, 60), optics).draw();
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_drawing.moc"
