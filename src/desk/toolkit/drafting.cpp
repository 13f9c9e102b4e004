#include "desk/toolkit/drafting.hpp"

#include "desk/toolkit/theme.hpp"

#include <QCache>
#include <QFontMetricsF>
#include <QImage>
#include <QLineF>
#include <QPainter>
#include <QPainterPath>
#include <QStaticText>

#include <cmath>

namespace poquito::desk {
namespace {

void drawArrow(QPainter& painter, QPointF tip, double direction) {
    constexpr double length = 7, half = 2.4;
    QPainterPath path(tip);
    path.lineTo(tip + QPointF(-direction * length, -half));
    path.lineTo(tip + QPointF(-direction * length, half));
    path.closeSubpath();
    painter.fillPath(path, theme().ink);
}

QStaticText shaped(const QFont& font, const QString& text) {
    static QCache<std::pair<QFont, QString>, QStaticText> cache(4000);
    const std::pair key(font, text);
    if (const auto* known = cache.object(key)) return *known;
    QStaticText made(text);
    made.setTextFormat(Qt::PlainText);
    made.setPerformanceHint(QStaticText::AggressiveCaching);
    made.prepare({}, font);
    cache.insert(key, new QStaticText(made));  // shared, not copied
    return made;
}

}  // namespace

void drawDimension(QPainter& painter, QPointF from, QPointF to, const QString& text) {
    painter.save();
    painter.setFont(textFont(11, QFont::Medium));
    painter.setPen(QPen(theme().ink, 1));
    const double width = QFontMetricsF(painter.font()).horizontalAdvance(text) + 10;
    const double length = to.x() - from.x();
    const QPointF middle = (from + to) / 2;
    painter.drawLine(QLineF(from + QPointF(0, -4), from + QPointF(0, 4)));
    painter.drawLine(QLineF(to + QPointF(0, -4), to + QPointF(0, 4)));
    if (length > 2) painter.drawLine(QLineF(from, to));
    if (length > 18) {
        drawArrow(painter, from, -1);
        drawArrow(painter, to, 1);
    }
    if (length > width + 20) {
        drawLabel(painter, middle, Qt::AlignCenter, text, theme().ink);
    } else {
        drawLabel(painter, to + QPointF(5, 0), Qt::AlignLeft | Qt::AlignVCenter, text, theme().ink);
    }
    painter.restore();
}

void drawLine(QPainter& painter, const QRectF& area, Qt::Alignment side, const QString& text) {
    const QStaticText line = shaped(painter.font(), text);
    const QSizeF size = line.size();
    QPointF corner = area.topLeft();
    if (side & Qt::AlignHCenter) corner.rx() += (area.width() - size.width()) / 2;
    if (side & Qt::AlignRight) corner.rx() += area.width() - size.width();
    if (side & Qt::AlignVCenter) corner.ry() += (area.height() - size.height()) / 2;
    if (side & Qt::AlignBottom) corner.ry() += area.height() - size.height();
    painter.drawStaticText(corner, line);
}

double lineWidth(const QFont& font, const QString& text) { return shaped(font, text).size().width(); }

QString elided(const QFont& font, const QString& text, double width) {
    if (lineWidth(font, text) <= width) return text;
    static QCache<std::pair<std::pair<QFont, QString>, double>, QString> cache(1000);
    const std::pair key(std::pair(font, text), width);
    if (const auto* known = cache.object(key)) return *known;
    QString cut = QFontMetricsF(font).elidedText(text, Qt::ElideRight, width);
    cache.insert(key, new QString(cut));
    return cut;
}

QStringList wrapped(const QFont& font, const QString& words, double width, int most) {
    QStringList lines;
    QString rest = words;
    while (!rest.isEmpty() && static_cast<int>(lines.size()) < most - 1 && lineWidth(font, rest) > width) {
        qsizetype cut = rest.lastIndexOf(QLatin1Char(' '));
        while (cut > 0 && lineWidth(font, rest.left(cut)) > width) cut = rest.lastIndexOf(QLatin1Char(' '), cut - 1);
        if (cut <= 0) break;
        lines << rest.left(cut);
        rest = rest.mid(cut + 1);
    }
    if (!rest.isEmpty()) lines << elided(font, rest, width);
    return lines;
}

QRectF drawLabel(QPainter& painter, QPointF anchor, Qt::Alignment side, const QString& text, const QColor& colour) {
    const QSizeF size = shaped(painter.font(), text).size() + QSizeF(6, 0);
    QPointF corner = anchor;
    if (side & Qt::AlignHCenter) corner.rx() -= size.width() / 2;
    if (side & Qt::AlignRight) corner.rx() -= size.width();
    if (side & Qt::AlignVCenter) corner.ry() -= size.height() / 2;
    if (side & Qt::AlignBottom) corner.ry() -= size.height();
    const QRectF patch(corner, size);
    painter.fillRect(patch, theme().panel);
    painter.setPen(colour);
    drawLine(painter, patch, Qt::AlignCenter, text);
    return patch;
}

QColor statusColour(Status status) {
    switch (status) {
        case Status::settled:
            return theme().focus;
        case Status::doubtful:
            return theme().caution;
        case Status::open:
            break;
    }
    return theme().quiet;
}

void fillPlainly(QPainter& painter, const QPolygonF& outline, const QColor& colour) {
    const bool smooth = painter.testRenderHint(QPainter::Antialiasing);
    const QPen pen = painter.pen();
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPolygon(outline);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(pen);
    painter.setRenderHint(QPainter::Antialiasing, smooth);
}

void drawFocusRing(QPainter& painter, const QRectF& area) {
    painter.setPen(QPen(theme().link, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(area.adjusted(1, 1, -1, -1), 3, 3);
}

void drawFilling(QPainter& painter, const QRectF& area, const QImage& picture) {
    const double scale = std::max(area.width() / picture.width(), area.height() / picture.height());
    const QSizeF part = area.size() / scale;
    painter.drawImage(
        area, picture,
        QRectF(QPointF((picture.width() - part.width()) / 2, (picture.height() - part.height()) / 2), part));
}

void drawCard(QPainter& painter, const QRectF& card, const QColor& sheet, const QPen& line, double radius) {
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(Qt::NoPen);
    painter.setBrush(sheet);
    painter.drawRoundedRect(card, radius, radius);
    painter.setRenderHint(QPainter::Antialiasing);
    if (line.style() == Qt::NoPen) return;
    painter.setPen(line);
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(card, radius, radius);
}

void drawStatus(QPainter& painter, QPointF centre, Status status) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(statusColour(status), 1.8, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    switch (status) {
        case Status::settled:
            painter.drawPolyline(
                QPolygonF({centre + QPointF(-5, 0), centre + QPointF(-1.5, 4), centre + QPointF(5, -4.5)}));
            break;
        case Status::doubtful:
            painter.drawPolygon(
                QPolygonF({centre + QPointF(0, -5), centre + QPointF(5.2, 4.2), centre + QPointF(-5.2, 4.2)}));
            break;
        case Status::open:
            painter.setPen(QPen(statusColour(status), 1.4));
            painter.drawEllipse(centre, 3.6, 3.6);
            break;
    }
    painter.restore();
}

double rulerStep(double length, int most) {
    const double raw = length / most;
    if (!(raw > 0) || !std::isfinite(raw)) return 1;
    const double decade = std::pow(10.0, std::floor(std::log10(raw)));
    for (const double mark : {1.0, 2.0, 5.0})
        if (mark * decade >= raw) return mark * decade;
    return 10 * decade;
}

std::vector<double> rulerMarks(double low, double high, int most) {
    const double step = rulerStep(high - low, most);
    std::vector<double> marks;
    if (!std::isfinite(low) || !std::isfinite(high)) return marks;
    // Counted, not added up: far from 0 a small step may be less than what a double can add.
    const double first = std::ceil(low / step);
    for (int i = 0; i <= most + 1 && (first + i) * step <= high; ++i) marks.push_back((first + i) * step);
    return marks;
}

std::vector<double> decadeMarks(double least, double greatest) {
    std::vector<double> marks;
    if (!(least > 0) || !std::isfinite(greatest)) return marks;
    for (double decade = std::pow(10, std::floor(std::log10(least))); decade <= greatest; decade *= 10)
        for (const double step : {1.0, 2.0, 5.0})
            if (decade * step >= least && decade * step <= greatest) marks.push_back(decade * step);
    return marks;
}

QRectF paintCut(QPainter& painter, const QRectF& frame, double shape) {
    const double width = std::min(frame.width(), frame.height() * shape);
    QRectF kept(0, 0, width, width / shape);
    kept.moveCenter(frame.center());
    QPainterPath outside;
    outside.addRect(frame);
    outside.addRect(kept);
    painter.fillPath(outside, theme().shadePicture);
    // Over a picture of any brightness: a dark line under a light one.
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().underPicture, 2.4));
    painter.drawRect(kept);
    painter.setPen(QPen(theme().overPicture, 1));
    painter.drawRect(kept);
    return kept;
}

}  // namespace poquito::desk
