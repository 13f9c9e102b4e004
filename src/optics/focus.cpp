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

/// magnification(ring) = numerator(t) / focal_length(t), t from 0 to 1 over a stretch of the ring along which the
/// lens's own magnification is linear.
struct Stretch {
    double from = 0;
    double to = 1;
    Quartic numerator{};
    Quartic focal_length{};

    double ring(double t) const { return from + t * (to - from); }
};

std::vector<Stretch> stretches(const Train& train);
Quartic turning_points(const Stretch& stretch);

/// Roundings of the closed form stay far below this; a person's ring does not come near it.
bool same_magnification(double a, double b) { return std::abs(a - b) <= 1e-12 * std::max(1e-6, std::abs(b)); }

}  // namespace

FoundFocus find_focus(const Train& train, double wanted) {
    FoundFocus nearest;
    double least_miss = std::numeric_limits<double>::infinity();
    for (const Stretch& stretch : stretches(train)) {
        Quartic excess = stretch.numerator;
        for (std::size_t i = 0; i < excess.size(); ++i) excess[i] -= wanted * stretch.focal_length[i];
        const UnitRoots turns = unit_roots(turning_points(stretch));
        const UnitRoots crossings = unit_roots(excess);
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
        for (const double t : turns) look_at(t);
        look_at(1);
        for (const double t : crossings)
            if (!first || t < *first) first = t;
        if (first) return {.ring = stretch.ring(*first), .reached = true};
    }
    return nearest;
}

MagnificationRange magnification_range(const Train& train) {
    MagnificationRange range{.least = std::numeric_limits<double>::infinity(),
                             .greatest = -std::numeric_limits<double>::infinity()};
    for (const Stretch& stretch : stretches(train)) {
        const auto look_at = [&](double t) {
            // Through the same sums as everywhere, so that a range ends at the very number that is reached.
            const double m = focus_at_ring(train, stretch.ring(t)).magnification;
            range.least = std::min(range.least, m);
            range.greatest = std::max(range.greatest, m);
        };
        look_at(0);
        for (const double t : unit_roots(turning_points(stretch))) look_at(t);
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
        if (!best || std::abs(ring - near_ring) < std::abs(*best - near_ring)) best = ring;
    };
    const auto root_between = [&](double from, double to) {
        std::uintmax_t iterations = 200;
        const auto bracket =
            boost::math::tools::toms748_solve(excess, from, to, boost::math::tools::eps_tolerance<double>(), iterations);
        return (bracket.first + bracket.second) / 2;
    };
    double low = 0;
    double at_low = excess(low);
    for (int i = 1; i <= intervals; ++i) {
        const double high = static_cast<double>(i) / intervals;
        const double at_high = excess(high);
        if (at_low == 0) offer(low);
        if (at_low * at_high < 0) offer(root_between(low, high));
        low = high;
        at_low = at_high;
    }
    if (at_low == 0) offer(low);
    return best;
}

namespace {

/// The quadratic through the values at t = 0, 1/2 and 1.
Quartic quadratic(double at_start, double at_middle, double at_end) {
    return {at_start, 4 * at_middle - 3 * at_start - at_end, 2 * (at_start + at_end - 2 * at_middle), 0, 0};
}

Stretch stretch_between(const Train& train, double from, double to) {
    const double flange = own_flange(train);
    const auto start = lens_state(train.lens, from, flange);
    const auto middle = lens_state(train.lens, (from + to) / 2, flange);
    const auto end = lens_state(train.lens, to, flange);
    // Along a stretch the focal length is linear, and the image distance f (1 + m_s) at most quadratic; so are the
    // places of both principal planes.
    Stretch stretch{.from = from, .to = to};
    stretch.focal_length = {start.focal_length, end.focal_length - start.focal_length, 0, 0, 0};
    Quartic before = quadratic(start.to_principal, middle.to_principal, end.to_principal);
    Quartic behind = quadratic(start.from_principal, middle.from_principal, end.from_principal);
    if (train.facing == Facing::reversed) std::swap(before, behind);

    // f * gap(behind) * thin_lens(1/f) * gap(before) between what the ring leaves alone.
    const RayMatrix rest = behind_lens(train), first = before_lens(train);
    const Quartic& f = stretch.focal_length;
    const auto minus = [](Quartic a, const Quartic& b) {
        for (std::size_t i = 0; i < a.size(); ++i) a[i] -= b[i];
        return a;
    };
    const Quartic a = minus(f, behind);
    const Quartic b_1 = product(before, a), b_2 = product(behind, f);
    const Quartic d = minus(f, before);
    for (std::size_t i = 0; i < f.size(); ++i)
        stretch.numerator[i] =
            -(rest.a * (a[i] * first.a + (b_1[i] + b_2[i]) * first.c) + rest.b * d[i] * first.c);
    stretch.numerator[0] += rest.b * first.a;
    return stretch;
}

std::vector<Stretch> stretches(const Train& train) {
    std::vector<Stretch> found;
    double from = 0;
    for (const RingReading& reading : train.lens.readings) {
        found.push_back(stretch_between(train, from, reading.ring));
        from = reading.ring;
    }
    if (from < 1) found.push_back(stretch_between(train, from, 1));
    return found;
}

/// Numerator of the magnification's derivative, n' f - n f'; f is linear, so it is of the fourth degree.
Quartic turning_points(const Stretch& stretch) {
    const Quartic rising = product(derivative(stretch.numerator), stretch.focal_length);
    const Quartic falling = product(stretch.numerator, derivative(stretch.focal_length));
    Quartic p{};
    for (std::size_t i = 0; i < p.size(); ++i) p[i] = rising[i] - falling[i];
    return p;
}

}  // namespace
}  // namespace poquito::optics
