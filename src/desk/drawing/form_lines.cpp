#include "desk/drawing/form_lines.hpp"

#include <QCache>

#include <array>
#include <optional>
#include <utility>
#include <vector>

namespace poquito::desk {
namespace {

constexpr int cells = 44;

/// The relief on a grid of rays that run along the depth.
class Map {
  public:
    explicit Map(const shoot::Subject& subject) : surface_(subject) {
        const auto& extent = surface_.extent();
        constexpr double room = 1.04;  // so that the outline lies inside the grid
        step_ = {extent.width * room / cells, extent.height * room / cells};
        for (int j = 0; j <= cells; ++j)
            for (int i = 0; i <= cells; ++i) depths_[index(i, j)] = depth(point(i, j));
    }
    double halfDepth() const { return surface_.extent().depth / 2; }

    QPainterPath area() const {
        QPainterPath path;
        for (int j = 0; j < cells; ++j)
            for (int i = 0; i <= cells; ++i) {
                if (!depths_[index(i, j)] || !depths_[index(i, j + 1)]) continue;
                int end = i;
                while (end < cells && depths_[index(end + 1, j)] && depths_[index(end + 1, j + 1)]) ++end;
                const QPointF from = point(i, j), to = point(end, j + 1);
                path.addRect(QRectF(from, to).normalized());
                i = end;
            }
        for (int j = 0; j < cells; ++j)
            for (int i = 0; i < cells; ++i) addEdgeCell(i, j, path);
        return path;
    }

    /// Where the form ends: the crossing on each grid edge found by halving.
    QPainterPath outline() const {
        return segments([&](Node a, Node b) { return edgeBetween(a, b); });
    }

    QPainterPath level(double z) const {
        return segments([&](Node a, Node b) -> std::optional<QPointF> {
            const auto za = at(a), zb = at(b);
            if (!za || !zb || (*za < z) == (*zb < z)) return std::nullopt;
            return place(a) + (place(b) - place(a)) * ((z - *za) / (*zb - *za));
        });
    }

  private:
    using Node = std::pair<int, int>;

    static std::array<Node, 4> cornersOf(int i, int j) { return {{{i, j}, {i + 1, j}, {i + 1, j + 1}, {i, j + 1}}}; }

    std::optional<QPointF> edgeBetween(Node a, Node b) const {
        const bool in_a = at(a).has_value(), in_b = at(b).has_value();
        if (in_a == in_b) return std::nullopt;
        QPointF inside = place(in_a ? a : b), outside = place(in_a ? b : a);
        for (int halving = 0; halving < 5; ++halving) {
            const QPointF middle = (inside + outside) / 2;
            (depth(middle) ? inside : outside) = middle;
        }
        return (inside + outside) / 2;
    }

    /// The form's part of a cell that its edge crosses.
    void addEdgeCell(int i, int j, QPainterPath& path) const {
        const auto corners = cornersOf(i, j);
        QPolygonF part;
        std::size_t inside = 0;
        for (std::size_t k = 0; k < 4; ++k) {
            if (at(corners[k])) part << place(corners[k]), ++inside;
            if (const auto cut = edgeBetween(corners[k], corners[(k + 1) % 4])) part << *cut;
        }
        if (inside == 0 || inside == 4) return;
        path.addPolygon(part);
        path.closeSubpath();
    }

    static std::size_t index(int i, int j) {
        return static_cast<std::size_t>(j) * (cells + 1) + static_cast<std::size_t>(i);
    }
    QPointF point(int i, int j) const { return {(i - cells / 2.0) * step_.x(), (j - cells / 2.0) * step_.y()}; }
    QPointF place(Node node) const { return point(node.first, node.second); }
    std::optional<double> at(Node node) const { return depths_[index(node.first, node.second)]; }
    std::optional<double> depth(QPointF at) const { return surface_.depth_on({.x = at.x(), .y = at.y()}); }

    /// Lines through each cell between the crossings on its edges.
    template <typename Crossing>
    QPainterPath segments(const Crossing& crossing) const {
        QPainterPath path;
        for (int j = 0; j < cells; ++j)
            for (int i = 0; i < cells; ++i) {
                const auto corners = cornersOf(i, j);
                std::vector<QPointF> found;
                for (std::size_t k = 0; k < 4; ++k)
                    if (const auto cut = crossing(corners[k], corners[(k + 1) % 4])) found.push_back(*cut);
                for (std::size_t k = 0; k + 1 < found.size(); k += 2) {
                    path.moveTo(found[k]);
                    path.lineTo(found[k + 1]);
                }
            }
        return path;
    }

    shoot::Surface surface_;
    QPointF step_;
    std::array<std::optional<double>, std::size_t{cells + 1} * (cells + 1)> depths_;
};

/// What a form looks like wherever it is focused, and what the line of focus is found by.
struct Drawn {
    Map map;
    FormLines lines;

    explicit Drawn(const shoot::Subject& subject)
        : map(subject), lines{.area = map.area(), .outline = map.outline(), .contours = {}, .focus = {}} {
        if (map.halfDepth() > 0)
            for (const double quarter : {-0.5, 0.0, 0.5}) lines.contours.addPath(map.level(quarter * map.halfDepth()));
    }
};

/// Kept by its form alone: while focus is dragged, the line of focus is all that moves.
const Drawn& drawn(const shoot::Subject& subject, const QByteArray& form) {
    static QCache<QByteArray, Drawn> known(60);
    if (const auto* found = known.object(form)) return *found;
    auto* made = new Drawn(subject);
    known.insert(form, made);
    return *made;
}

}  // namespace

FormLines formLines(const shoot::Subject& subject, double focusOffset) {
    static QCache<QByteArray, FormLines> known(200);
    const QByteArray form = formKey(subject), key = form + QByteArray::number(focusOffset, 'g', 17);
    if (const auto* lines = known.object(key)) return *lines;
    const Drawn& of = drawn(subject, form);
    auto* lines = new FormLines(of.lines);
    if (of.map.halfDepth() > 0) lines->focus = of.map.level(focusOffset);
    FormLines result = *lines;
    known.insert(key, lines);
    return result;
}

QByteArray formKey(const shoot::Subject& subject) {
    QByteArray key;
    for (const double number :
         {static_cast<double>(subject.form), subject.width, subject.height, subject.depth, subject.tilt, subject.turn})
        key += QByteArray::number(number, 'g', 17) + ' ';
    if (subject.form == shoot::Form::height_map && subject.height_map) {
        const auto& heights = (*subject.height_map)->heights;
        key += QByteArray::number((*subject.height_map)->width) + ' ';
        key.append(reinterpret_cast<const char*>(heights.data()), static_cast<qsizetype>(heights.size()));
    }
    return key;
}

}  // namespace poquito::desk
