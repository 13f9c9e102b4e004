#include "desk/drawing/gear_section.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace poquito::desk {
namespace {

void outline(QPainter& p, const QPainterPath& path, const QColor& fill, bool selected) {
    p.setBrush(fill);
    p.setPen(
        QPen(selected ? theme().link : theme().ink, selected ? 2.2 : 1.3, Qt::SolidLine, Qt::SquareCap, Qt::RoundJoin));
    p.drawPath(path);
}

QPainterPath rectangle(const QRectF& box) {
    QPainterPath path;
    path.addRect(box);
    return path;
}

/// A barrel from mount to front; turned round, the mount is on the right.
QPainterPath barrel(const QRectF& box, bool reversed) {
    const double w = box.width(), h = box.height();
    const double mount = std::min(h * 0.42, std::max(h * 0.36, 16.0));  // half of the mount end
    const auto at = [&](double along, double half) {
        return QPointF(reversed ? box.right() - along * w : box.left() + along * w, box.center().y() - half);
    };
    QPainterPath path(at(0, mount));
    path.lineTo(at(0.12, h / 2));
    path.lineTo(at(1, h / 2));
    path.lineTo(at(1, -h / 2));
    path.lineTo(at(0.12, -h / 2));
    path.lineTo(at(0, -mount));
    path.closeSubpath();
    return path;
}

/// Grip of the focus ring; the long mark stands where the ring stands, infinity at the mount's end.
void drawGrip(QPainter& p, const QRectF& box, bool reversed, std::optional<double> ring) {
    if (box.width() < 24) return;
    const auto x_of = [&](double along) {
        return reversed ? box.right() - along * box.width() : box.left() + along * box.width();
    };
    p.setPen(QPen(theme().quiet, 1));
    for (int i = 0; i <= 12; ++i) {
        const double x = x_of(0.3 + 0.32 * i / 12);
        p.drawLine(QPointF(x, box.top()), QPointF(x, box.top() + 5));
        p.drawLine(QPointF(x, box.bottom()), QPointF(x, box.bottom() - 5));
    }
    if (!ring) return;
    const double here = x_of(0.3 + 0.32 * *ring);
    p.setPen(QPen(theme().focus, 2.4));
    p.drawLine(QPointF(here, box.top()), QPointF(here, box.top() + 8));
}

void drawFolds(QPainter& p, const QRectF& box, bool selected) {
    const double board = std::min(4.0, box.width() / 4);
    const int folds = std::max(2, static_cast<int>((box.width() - 2 * board) / 9));
    QPainterPath path(QPointF(box.left() + board, box.top() + 6));
    for (int i = 1; i <= 2 * folds; ++i)
        path.lineTo(box.left() + board + (box.width() - 2 * board) * i / (2 * folds), box.top() + (i % 2 ? 1 : 7));
    for (int i = 2 * folds; i >= 0; --i)
        path.lineTo(box.left() + board + (box.width() - 2 * board) * i / (2 * folds), box.bottom() - (i % 2 ? 1 : 7));
    path.closeSubpath();
    outline(p, path, theme().panel, selected);
    outline(p, rectangle(QRectF(box.left(), box.top(), board, box.height())), theme().paper, selected);
    outline(p, rectangle(QRectF(box.right() - board, box.top(), board, box.height())), theme().paper, selected);
}

/// Glass with one bulging face; it has no length in the model, so its drawing has a fixed one.
void drawGlass(QPainter& p, const QRectF& box, bool selected) {
    QPainterPath glass(box.topLeft());
    glass.quadTo(QPointF(box.left() + 9, box.center().y()), box.bottomLeft());
    glass.closeSubpath();
    p.setBrush(theme().linkWash);
    p.setPen(QPen(theme().link, selected ? 2.4 : 1.4));
    p.drawPath(glass);
}

void letter(QPainter& p, const QRectF& box, const QString& name, const QColor& ground) {
    p.setFont(textFont(11));
    const double width = lineWidth(p.font(), name);
    if (width + 6 < box.width()) {
        p.fillRect(QRectF(box.center().x() - width / 2 - 3, box.center().y() - 8, width + 6, 16), ground);
        p.setPen(theme().ink);
        p.drawText(box, Qt::AlignCenter, name);
    } else if (box.width() > 13 && width + 6 < box.height()) {
        p.save();
        p.translate(box.center());
        p.rotate(-90);
        p.fillRect(QRectF(-width / 2 - 3, -7, width + 6, 14), ground);
        p.setPen(theme().ink);
        p.drawText(QRectF(-box.height() / 2, -box.width() / 2, box.height(), box.width()), Qt::AlignCenter, name);
        p.restore();
    }
}

}  // namespace

QString shortName(const shoot::MountedPiece& piece) {
    auto text = toQt(piece.name) + (piece.measured ? QObject::tr(", measured") : QString());
    if (piece.list == "tubes") return toQt(text::number_text(piece.length));
    if (piece.list == "bellows") return toQt(text::length_text(piece.length));
    if (piece.list == "reversing_rings" || piece.list == "coupling_rings") return {};
    return text;
}

void drawPiece(QPainter& p, const QRectF& box, const shoot::MountedPiece& piece, const PieceLook& look) {
    const Theme& t = theme();
    const bool lens = piece.list == "lenses";
    const QColor ground = piece.list == "teleconverters" ? t.linkWash : t.paper;
    if (lens) {
        outline(p, barrel(box, piece.reversed), t.paper, look.selected);
        drawGrip(p, box, piece.reversed, look.ring);
    } else if (piece.list == "bellows") {
        drawFolds(p, box, look.selected);
    } else if (shoot::is_thin(piece)) {
        return drawGlass(p, box, look.selected);
    } else {
        outline(p, rectangle(box), ground, look.selected);
        if (piece.list == "tubes" && box.width() > 9) {  // the ribs of a tube
            p.setPen(QPen(t.hairline, 1));
            for (const double inset : {2.5, box.width() - 2.5})
                p.drawLine(QPointF(box.left() + inset, box.top() + 2), QPointF(box.left() + inset, box.bottom() - 2));
        }
    }
    if (look.lettered) letter(p, box, shortName(piece), piece.list == "bellows" ? t.panel : ground);
}

}  // namespace poquito::desk
