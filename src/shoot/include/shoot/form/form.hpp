#pragma once

#include "shoot/fwd.hpp"
#include "shoot/values/copy_on_write.hpp"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// The shape of a subject as a relief over its measured box: what stands where, seen from the camera. mm and degrees;
/// x to the right, y up, z away from the camera, from the middle of the depth the subject presents.
namespace poquito::shoot {

enum class Form { ball, dome, ring, leaf, slab, box, grains, bowl, insect, bottle, folds, height_map };
struct FormName {
    Form form;
    const char* name;
};
/// For people; names.hpp has what files call them.
const std::vector<FormName>& forms();
const char* form_name(Form form);

/// A relief the user supplies: rows from the top, 0 farthest, 255 nearest. At least 2 x 2; stretched to that range.
struct HeightMap {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> heights;
    std::string unknown;  // as in kit.hpp

    bool operator==(const HeightMap&) const = default;
};
/// The longer side a stored map may have: finer relief than this is texture.
inline constexpr int greatest_height_map = 256;

/// How far a subject may be tilted or turned, degrees: beyond it the camera looks at its side.
inline constexpr double greatest_view_angle = 85;

struct Point3 {
    double x = 0;
    double y = 0;
    double z = 0;

    bool operator==(const Point3&) const = default;
};

/// What the subject measures as it is turned towards the camera: the box about its visible surface.
struct Extent {
    double width = 0;
    double height = 0;
    double depth = 0;

    bool operator==(const Extent&) const = default;
};
/// The measured size where the subject is neither tilted nor turned. For a flat subject at an angle t the depth is
/// W sin t, W its extent along the tilt (MODEL 2).
Extent presented_extent(const Subject& subject);

/// Where a flat subject faces as it is tilted and turned, of length 1.
Point3 facing_normal(const Subject& subject);

/// The subject with nothing but what decides its relief.
Subject shape_of(const Subject& subject);

/// A viewing ray: the points (x + dx z, y + dy z, z).
struct ViewRay {
    double x = 0;
    double y = 0;
    double dx = 0;
    double dy = 0;
};
struct SurfacePoint {
    double z = 0;             // mm behind the middle of the presented depth
    Point3 normal{0, 0, -1};  // towards the camera, of length 1
    double u = 0;             // place in the subject's own box, -1 to 1: what marks and texture are tied to
    double v = 0;
};

/// The relief, tilted and turned. Cheap to copy only by reference: it keeps what its form needs prepared.
class Surface {
  public:
    explicit Surface(const Subject& subject);

    /// The nearest point of the surface on a ray; empty where it passes by.
    std::optional<SurfacePoint> hit(const ViewRay& ray) const;
    /// Its z alone, for a fraction of the work.
    std::optional<double> depth_on(const ViewRay& ray) const;

    /// The point of the surface at a place of the subject's own box.
    std::optional<Point3> point(double u, double v) const;

    const Extent& extent() const { return extent_; }

  private:
    struct Grain {
        double u, v, radius, base;
    };
    struct Met {
        double z, u, v;
    };
    std::optional<Met> meet(const ViewRay& ray) const;
    /// Share of the depth towards the camera, 0 to 1; empty beside the form.
    std::optional<double> relief(double u, double v) const;
    std::optional<double> heap(double u, double v) const;
    double mapped(double u, double v) const;
    Point3 turned(const Point3& own) const;
    Point3 own_direction(const Point3& seen) const;
    Point3 normal_at(double u, double v) const;
    void measure();

    Form form_;
    double half_width_, half_height_, depth_;
    double rows_[3][3];  // own axes to camera axes
    bool rotated_;
    std::optional<CopyOnWrite<HeightMap>> map_;
    double map_low_ = 0, map_range_ = 1;
    static constexpr int heap_cells = 12;
    double heap_low_ = 0, heap_range_ = 1;
    std::vector<std::vector<Grain>> heap_;  // the grains that reach into each cell of the box
    Point3 middle_;
    Extent extent_;
};

}  // namespace poquito::shoot
