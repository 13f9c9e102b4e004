#pragma once

#include "optics/train.hpp"
#include "optics/unit_roots.hpp"

/// For whoever looks through many trains: the parts of a train's matrix that its focus ring leaves alone, and those it
/// moves.
namespace poquito::optics {

/// A lens at a ring position, seen from its own front rim towards its own mount.
struct LensState {
    double focal_length = 50;
    double magnification = 0;
    double to_principal = 0;    // front rim to front principal plane
    double from_principal = 0;  // rear principal plane to mount face
    double length = 60;         // front rim to mount face
    double pupil = 10;          // entrance pupil at marked f-number 1
};
LensState lens_state(const Lens& lens, double ring, double own_flange);

/// From rim to mount face; turned round, from mount face to rim.
RayMatrix lens_matrix(const LensState& state, Facing facing);

/// From the face the subject looks at to the entrance pupil as seen from there, and its diameter at f-number 1.
struct Pupil {
    double distance = 0;
    double diameter = 0;
};
Pupil front_pupil(const LensState& state, double pupil_magnification, Facing facing);

double own_flange(const Train& train);

/// What stands behind the lens: from its rear face to the sensor, behind_extension * gap(to_mount).
RayMatrix behind_lens(const Train& train);
/// From the lens's rear face to where the tubes would begin, and from there on.
double to_mount(const Train& train);
RayMatrix behind_extension(const std::optional<Converter>& converter, double tubes, double rear_tubes);
/// What stands in front of it: from the frontmost face to the lens's front face.
RayMatrix before_lens(const Train& train);

/// Length of the parts behind the lens, sensor to the lens's rear face, and of those in front of it.
double length_behind(const Train& train);
double length_before(const Train& train);

/// A stretch of the ring along which the lens's own magnification is linear: from the front to the lens's rear face,
/// the entries of the ray matrix times the focal length, polynomials in t from 0 to 1.
struct RingStretch {
    double from = 0;  // ring positions
    double to = 1;
    Quartic focal_length{};
    Quartic a{}, b{}, c{}, d{};

    double ring(double t) const { return from + t * (to - from); }
};
std::vector<RingStretch> ring_stretches(const Train& train);

/// Magnification less the wanted one, times the focal length; `behind`: see behind_lens.
Quartic excess(const RingStretch& stretch, const RayMatrix& behind, double wanted);

}  // namespace poquito::optics
