#include "desk/toolkit/label_placer.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QPainter>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double label_line = 15, side_room = 3;  // pixels
constexpr double per_pixel_away = 9;              // square pixels hidden that a pixel nearer is worth

QSizeF sizeOf(const std::vector<LabelLine>& lines) {
    double width = 0;
    for (const auto& line : lines) width = std::max(width, lineWidth(line.font, line.text));
    return {width + 2 * side_room, label_line * static_cast<double>(lines.size())};
}

double common(const QRectF& one, const QRectF& other) {
    const QRectF both = one & other;
    return both.isEmpty() ? 0 : both.width() * both.height();
}

/// The point of a box nearest to a place.
QPointF nearest(const QRectF& box, QPointF to) {
    return {std::clamp(to.x(), box.left(), box.right()), std::clamp(to.y(), box.top(), box.bottom())};
}

/// Three places on one side of what is named, `gap` pixels from it: level with its middle, its beginning, its end.
std::array<QPointF, 3> places(const QRectF& names, QSizeF size, LabelSide side, double gap) {
    const double x = names.center().x() - size.width() / 2, y = names.center().y() - size.height() / 2;
    const double left = names.left() - size.width() - gap, right = names.right() + gap;
    const double above = names.top() - size.height() - gap, below = names.bottom() + gap;
    const double low = names.bottom() - size.height(), end = names.right() - size.width();
    switch (side) {
        case LabelSide::right:
            return {QPointF(right, y), QPointF(right, names.top()), QPointF(right, low)};
        case LabelSide::left:
            return {QPointF(left, y), QPointF(left, names.top()), QPointF(left, low)};
        case LabelSide::above:
            return {QPointF(x, above), QPointF(names.left(), above), QPointF(end, above)};
        case LabelSide::below:
            break;
    }
    return {QPointF(x, below), QPointF(names.left(), below), QPointF(end, below)};
}

}  // namespace

double gapBetween(const QRectF& one, const QRectF& other) {
    const double x = std::max({0.0, one.left() - other.right(), other.left() - one.right()});
    const double y = std::max({0.0, one.top() - other.bottom(), other.top() - one.bottom()});
    return std::hypot(x, y);
}

void LabelPlacer::keepClear(const QLineF& line, double weight) {
    constexpr double piece = 10;  // pixels: a slanted line as a row of boxes
    const int pieces = std::max(1, static_cast<int>(line.length() / piece));
    for (int i = 0; i < std::min(pieces, 400); ++i) {
        const QPointF middle = line.pointAt((i + 0.5) / pieces);
        keepClear(QRectF(middle - QPointF(piece / 2, piece / 2), QSizeF(piece, piece)), weight);
    }
}

std::vector<PlacedLabel> LabelPlacer::place() const {
    if (auto placed = placedAll(0)) return std::move(*placed);
    // Too much for the room: first lines alone, and where even that is too much, as many of them as fit.
    if (auto placed = placedAll(1)) return std::move(*placed);
    return *placedAll(1, Fit::as_many_as_can);
}

/// Empty where one that may not go finds no place. `most_lines` of each; 0: all.
std::optional<std::vector<PlacedLabel>> LabelPlacer::placedAll(std::size_t most_lines, Fit fit) const {
    std::vector<PlacedLabel> placed;
    placed.reserve(wanted_.size());
    for (Label label : wanted_) {
        if (most_lines > 0 && label.lines.size() > most_lines) label.lines.resize(most_lines);
        auto box = bestPlace(label, sizeOf(label.lines), placed);
        if (!box && label.lines.size() > 1) {
            label.lines.resize(1);
            box = bestPlace(label, sizeOf(label.lines), placed);
        }
        if (!box && !label.may_go && fit == Fit::all) return std::nullopt;
        if (!box) continue;
        const double gap = gapBetween(*box, label.names);
        if (label.may_go && gap > leader_from) continue;
        PlacedLabel made{.label = std::move(label), .box = *box, .leader = {}};
        if (gap > leader_from) {
            const QPointF at = nearest(made.label.names, box->center());
            made.leader = QLineF(nearest(*box, at), at);
        }
        placed.push_back(std::move(made));
    }
    return placed;
}

/// Beside what is named at growing distances; where all of that is taken, anywhere in the room.
std::optional<QRectF> LabelPlacer::bestPlace(const Label& label, QSizeF size,
                                             const std::vector<PlacedLabel>& placed) const {
    std::optional<QRectF> best;
    double least = 0;
    const auto consider = [&](const QRectF& box, double handicap) {
        // How far off it is already says that it is no better: what it hides need not be looked at.
        if (best && per_pixel_away * gapBetween(box, label.names) + handicap >= least) return;
        const auto cost = costOf(box, label, placed);
        if (!cost || (best && *cost + handicap >= least)) return;
        least = *cost + handicap;
        best = box;
    };
    for (const double gap : {3.0, 10.0, 20.0, 32.0, 46.0, 60.0, 84.0, 120.0})
        for (std::size_t i = 0; i < label.sides.size(); ++i)
            for (const QPointF& corner : places(label.names, size, label.sides[i], gap))
                consider(QRectF(corner, size), 60 * static_cast<double>(i));
    if (best || label.may_go) return best;
    constexpr double step = 9;
    for (double y = room_.top(); y + size.height() <= room_.bottom(); y += step)
        for (double x = room_.left(); x + size.width() <= room_.right(); x += step)
            consider(QRectF(QPointF(x, y), size), 0);
    return best;
}

/// What a place hides and how far off it is, in square pixels; empty: it is not to be had.
std::optional<double> LabelPlacer::costOf(const QRectF& box, const Label& label,
                                          const std::vector<PlacedLabel>& placed) const {
    if (!room_.contains(box)) return std::nullopt;
    const QRectF padded = box.adjusted(-3, -1, 3, 1);
    for (const auto& other : placed)
        if (padded.intersects(other.box)) return std::nullopt;
    double cost = per_pixel_away * gapBetween(box, label.names);
    for (const auto& obstacle : obstacles_) cost += obstacle.weight * common(box, obstacle.area);
    // A leader across another label would seem to point at that.
    for (const auto& other : placed)
        if (other.leader) {
            const QRectF across = QRectF(other.leader->p1(), other.leader->p2()).normalized();
            cost += 0.5 * common(box, across.adjusted(-1, -1, 1, 1));
        }
    return cost;
}

void drawLabels(QPainter& painter, const std::vector<PlacedLabel>& labels) {
    painter.save();
    for (const auto& [label, box, leader] : labels)
        if (leader && !label.lines.empty()) {
            painter.setPen(QPen(label.lines.front().colour, 0.8));
            painter.drawLine(*leader);
            painter.setBrush(label.lines.front().colour);
            painter.drawEllipse(leader->p2(), 1.8, 1.8);
        }
    for (const auto& [label, box, leader] : labels) {
        painter.fillRect(box, theme().panel);
        double y = box.top();
        // Lettering left of what it names ends there.
        const bool ends = box.center().x() < label.names.left();
        for (const auto& line : label.lines) {
            painter.setFont(line.font);
            painter.setPen(line.colour);
            drawLine(painter, QRectF(box.left() + side_room, y, box.width() - 2 * side_room, label_line),
                     (ends ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, line.text);
            y += label_line;
        }
    }
    painter.restore();
}

}  // namespace poquito::desk
