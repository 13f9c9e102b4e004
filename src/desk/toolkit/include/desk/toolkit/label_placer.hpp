#pragma once

#include <QColor>
#include <QFont>
#include <QLineF>
#include <QRectF>
#include <QString>

#include <optional>
#include <vector>

class QPainter;

/// Where the lettering of a drawing goes. A drawing asks for its labels while it is made and draws them last: none
/// covers another, each stands as near to what it names as the drawing lets it, and has a leader where that is far.
namespace poquito::desk {

struct LabelLine {
    QString text;
    QFont font;
    QColor colour;
};

enum class LabelSide { right, left, above, below };

struct Label {
    std::vector<LabelLine> lines;
    QRectF names;  // what it is about, pixels
    std::vector<LabelSide> sides = {LabelSide::right, LabelSide::left, LabelSide::above,
                                    LabelSide::below};  // best first
    bool may_go = false;                                // left out where it would have to move away
};

struct PlacedLabel {
    Label label;  // its lines may be fewer than asked for: the first alone where no more fits
    QRectF box;
    std::optional<QLineF> leader;  // from the box to what it names; empty: near enough
};

/// Pixels between a label and what it names from which on a leader joins them.
inline constexpr double leader_from = 28;

class LabelPlacer {
  public:
    /// Labels stay within `room`.
    explicit LabelPlacer(const QRectF& room) : room_(room) {}

    /// What labels had better not hide; `weight` against 1 for a plain line of ink.
    void keepClear(const QRectF& area, double weight = 1) { obstacles_.push_back({area, weight}); }
    /// A line, as wide as a pen and a little.
    void keepClear(const QLineF& line, double weight = 1);

    /// Those asked for first choose first.
    void add(Label label) { wanted_.push_back(std::move(label)); }

    std::vector<PlacedLabel> place() const;

  private:
    struct Obstacle {
        QRectF area;
        double weight;
    };
    enum class Fit { all, as_many_as_can };
    std::optional<std::vector<PlacedLabel>> placedAll(std::size_t most_lines, Fit fit = Fit::all) const;
    std::optional<QRectF> bestPlace(const Label& label, QSizeF size, const std::vector<PlacedLabel>& placed) const;
    std::optional<double> costOf(const QRectF& box, const Label& label, const std::vector<PlacedLabel>& placed) const;

    QRectF room_;
    std::vector<Obstacle> obstacles_;
    std::vector<Label> wanted_;
};

void drawLabels(QPainter& painter, const std::vector<PlacedLabel>& labels);

/// Pixels between two boxes; 0 where they touch or overlap.
double gapBetween(const QRectF& one, const QRectF& other);

}  // namespace poquito::desk
