#pragma once

#include "light/space.hpp"

#include <Eigen/Core>

#include <array>
#include <optional>

/// What a polished face mirrors into the lens: its family of angles. Places as in space.hpp, mm. The law of reflection
/// and nothing else; the pupil is a point.
namespace poquito::light {

/// A face, flat or the front half of an ellipsoid. `right` and `up` are of length 1 and at right angles; their cross
/// product looks away from the face.
struct Mirror {
    Point centre = Point::Zero();  // of what is nearest to the viewer
    Point right = Point::UnitX();
    Point up = Point::UnitY();
    double half_width = 10;
    double half_height = 10;
    std::optional<double> bulge;  // mm from the rim to the nearest point: the third half axis; empty: flat
};

/// A ray from the pupil to a place of the face and on from there.
struct Reflection {
    Point at = Point::Zero();
    Point direction = Point::UnitZ();  // of length 1
};
/// At a place of the face, u to its right and v up, -1 to 1; empty where the pupil does not see it.
std::optional<Reflection> reflect(const Mirror& mirror, const Point& pupil, double u, double v);

/// A round source that looks at the subject's centre.
struct DiscSource {
    Point centre = Point(0, 0, 500);
    double diameter = 100;
};
/// Whether a reflected ray ends in the source.
bool shows(const Reflection& ray, const DiscSource& source);

/// Rays over the whole face, evenly across it; those that the pupil sees.
class Reflections {
  public:
    Reflections(const Mirror& mirror, const Point& pupil);
    /// Of the face that the pupil sees, what shows the source; 0 to 1.
    [[nodiscard]] double share_of(const DiscSource& source) const;

  private:
    static constexpr int across = 24;
    using Row = Eigen::Array<float, across, 1>;  // places of one height beside each other: reckoned together
    struct Rays {
        std::array<Row, 3> at, direction;  // of no length where the pupil does not see the place
    };
    std::array<Rays, across> rows_;
    int seen_ = 0;
};

/// The diameter with which a source in that place fills the reflection of the whole face; empty where part of the face
/// looks past its plane.
std::optional<double> filling_diameter(const Mirror& mirror, const Point& pupil, const Point& source);

/// Where a source at that distance must stand for the middle of the face to show it.
std::optional<Position> shown_from(const Mirror& mirror, const Point& pupil, double distance);

/// The mark a source makes on a round face.
struct Glint {
    Point at = Point::Zero();  // of its middle
    double width = 0;          // mm, diameter of the circle of the same area as the mark seen from the pupil
};
/// On the front half of a face that bulges; empty where the mark would lie on its far side.
std::optional<Glint> glint(const Mirror& round, const Point& pupil, const DiscSource& source);

inline constexpr const char* glint_formula = "w * R / (2 * d)" /* small source, far off */;

}  // namespace poquito::light
