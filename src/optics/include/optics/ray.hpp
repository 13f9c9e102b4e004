#pragma once

/// Ray-transfer matrices: a ray is (height above the axis in mm, angle to it), light goes from the subject to the
/// sensor, and the matrix of what stands first is the rightmost factor. Gerrard and Burch, Introduction to Matrix
/// Methods in Optics.
///
/// What stands behind the lens, the lens at its ring position and what stands before it are one product
/// (`focus_at_ring` of train.hpp); magnification, distances, pupils and working f-numbers are read off it, the same way
/// for a lens that is reversed, coupled, on bellows or behind a converter. Between two readings of the ring the product
/// times the focal length is a polynomial (chain.hpp), which `find_focus` inverts by isolating its roots.
namespace poquito::optics {

struct RayMatrix {
    double a = 1, b = 0;  // height behind = a * height + b * angle
    double c = 0, d = 1;  // angle behind = c * height + d * angle

    bool operator==(const RayMatrix&) const = default;
};

constexpr RayMatrix operator*(const RayMatrix& behind, const RayMatrix& before) {
    return {.a = behind.a * before.a + behind.b * before.c,
            .b = behind.a * before.b + behind.b * before.d,
            .c = behind.c * before.a + behind.d * before.c,
            .d = behind.c * before.b + behind.d * before.d};
}

constexpr RayMatrix gap(double length) { return {.b = length}; }
constexpr RayMatrix thin_lens(double power) { return {.c = -power}; }  // 1/mm

}  // namespace poquito::optics
