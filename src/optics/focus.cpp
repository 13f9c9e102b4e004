#include "optics/focus.hpp"

#include "optics/chain.hpp"
#include "optics/unit_roots.hpp"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <utility>
#include <vector>

namespace poquito::optics {
namespace {

/// Of the magnification, converter and tubes included, times the focal length.
Quartic numerator(const RingStretch& stretch, const RayMatrix& behind);
Quartic turning_points(const Quartic& numerator, const Quartic& focal_length);

/// Roundings of the closed form stay far below this; a person's ring does not come near it.
bool same_magnification(double a, double b) { return std::abs(a - b) <= 1e-12 * std::max(1e-6, std::abs(b)); }

}  // namespace

FoundFocus find_focus(const Train& train, double wanted) {
    const RayMatrix behind = behind_lens(train);
    FoundFocus nearest;
    double least_miss = std::numeric_limits<double>::infinity();
    for (const RingStretch& stretch : ring_stretches(train)) {
        const Quartic rising = numerator(stretch, behind);
        // The ends and turning points first: where the wanted value is only touched, no crossing is found.
        std::optional<double> first;
        const auto look_at = [&](double t) {
            const double m = focus_at_ring(train, stretch.ring(t)).magnification;
            if (same_magnification(m, wanted) && (!first || t < *first)) first = t;
            if (std::abs(m - wanted) < least_miss) {
                least_miss = std::abs(m - wanted);
                nearest.ring = stretch.ring(t);
            }
        };
        look_at(0);
        for (const double t : unit_roots(turning_points(rising, stretch.focal_length))) look_at(t);
        look_at(1);
        for (const double t : unit_roots(excess(stretch, behind, wanted)))
            if (!first || t < *first) first = t;
        if (first) return {.ring = stretch.ring(*first), .reached = true};
    }
    return nearest;
}

MagnificationRange magnification_range(const Train& train) {
    const RayMatrix behind = behind_lens(train);
    MagnificationRange range{.least = std::numeric_limits<double>::infinity(),
                             .greatest = -std::numeric_limits<double>::infinity()};
    for (const RingStretch& stretch : ring_stretches(train)) {
        const auto look_at = [&](double t) {
            // Through the same sums as everywhere, so that a range ends at the very number that is reached.
            const double m = focus_at_ring(train, stretch.ring(t)).magnification;
            range.least = std::min(range.least, m);
            range.greatest = std::max(range.greatest, m);
        };
        look_at(0);
        for (const double t : unit_roots(turning_points(numerator(stretch, behind), stretch.focal_length))) look_at(t);
        look_at(1);
    }
    return range;
}

std::optional<double> ring_for_distance(const Train& train, double subject_to_sensor, double near_ring) {
    constexpr int intervals = 512;
    // Reciprocal distance, so that infinity is an ordinary end of the scale.
    const auto excess = [&](double ring) {
        const auto at = focus_at_ring(train, ring).subject_to_sensor;
        return (at ? 1 / *at : 0) - 1 / subject_to_sensor;
    };
    std::optional<double> best;
    const auto offer = [&](double ring) {
        // A change of sign may also be a pole: the plane of focus running through the sensor and back from infinity.
        if (!(std::abs(excess(ring)) * subject_to_sensor < 1e-6)) return;
        if (!best || std::abs(ring - near_ring) < std::abs(*best - near_ring)) best = ring;
    };
    const auto root_between = [&](double from, double to) {
        std::uintmax_t iterations = 200;
        const auto bracket = boost::math::tools::toms748_solve(excess, from, to,
                                                               boost::math::tools::eps_tolerance<double>(), iterations);
        return (bracket.first + bracket.second) / 2;
    };
    const auto look_into = [&](int interval) {
        if (interval < 0 || interval >= intervals) return;
        const double low = static_cast<double>(interval) / intervals;
        const double high = static_cast<double>(interval + 1) / intervals;
        const double at_low = excess(low), at_high = excess(high);
        if (at_low == 0) offer(low);
        if (at_high == 0) offer(high);
        if (at_low * at_high < 0) offer(root_between(low, high));
    };
    // From where the ring is to either side, until nothing that is left can be nearer than what was found.
    const int start = std::clamp(static_cast<int>(near_ring * intervals), 0, intervals - 1);
    for (int away = 0; away < intervals; ++away) {
        const double next = static_cast<double>(away - 1) / intervals;
        if (best && std::abs(*best - near_ring) <= next) break;
        look_into(start + away);
        if (away > 0) look_into(start - away);
    }
    return best;
}

// ---- chain.hpp ---------------------------------------------------------------------------------------------------

namespace {

/// The quadratic through the values at t = 0, 1/2 and 1.
Quartic quadratic(double at_start, double at_middle, double at_end) {
    return {at_start, 4 * at_middle - 3 * at_start - at_end, 2 * (at_start + at_end - 2 * at_middle), 0, 0};
}

Quartic minus(Quartic a, const Quartic& b) {
    for (std::size_t i = 0; i < a.size(); ++i) a[i] -= b[i];
    return a;
}

Quartic sum(double p, const Quartic& a, double q, const Quartic& b) {
    Quartic made;
    for (std::size_t i = 0; i < made.size(); ++i) made[i] = p * a[i] + q * b[i];
    return made;
}

RingStretch stretch_between(const Train& train, double from, double to) {
    const double flange = own_flange(train);
    const auto start = lens_state(train.lens, from, flange);
    const auto middle = lens_state(train.lens, (from + to) / 2, flange);
    const auto end = lens_state(train.lens, to, flange);
    // Along a stretch the focal length is linear, and the image distance f (1 + m_s) at most quadratic; so are the
    // places of both principal planes.
    const Quartic f = {start.focal_length, end.focal_length - start.focal_length, 0, 0, 0};
    Quartic front = quadratic(start.to_principal, middle.to_principal, end.to_principal);
    Quartic rear = quadratic(start.from_principal, middle.from_principal, end.from_principal);
    if (train.facing == Facing::reversed) std::swap(front, rear);
    // f * gap(rear) * thin_lens(1/f) * gap(front), then what stands before it.
    const Quartic a = minus(f, rear), d = minus(f, front), c = {-1, 0, 0, 0, 0};
    const Quartic b = sum(1, product(front, a), 1, product(rear, f));
    const RayMatrix before = before_lens(train);
    return {.from = from,
            .to = to,
            .focal_length = f,
            .a = sum(before.a, a, before.c, b),
            .b = sum(before.b, a, before.d, b),
            .c = sum(before.a, c, before.c, d),
            .d = sum(before.b, c, before.d, d)};
}

Quartic numerator(const RingStretch& stretch, const RayMatrix& behind) {
    return sum(-behind.a, stretch.a, -behind.b, stretch.c);
}

/// Numerator of the magnification's derivative, n' f - n f'; f is linear, so it is of the fourth degree.
Quartic turning_points(const Quartic& numerator, const Quartic& focal_length) {
    return minus(product(derivative(numerator), focal_length), product(numerator, derivative(focal_length)));
}

}  // namespace

std::vector<RingStretch> ring_stretches(const Train& train) {
    std::vector<RingStretch> found;
    double from = 0;
    for (const RingReading& reading : train.lens.readings) {
        found.push_back(stretch_between(train, from, reading.ring));
        from = reading.ring;
    }
    if (from < 1) found.push_back(stretch_between(train, from, 1));
    return found;
}

Quartic excess(const RingStretch& stretch, const RayMatrix& behind, double wanted) {
    return sum(1, numerator(stretch, behind), -wanted, stretch.focal_length);
}

}  // namespace poquito::optics
