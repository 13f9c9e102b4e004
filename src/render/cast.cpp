#include "render/cast.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace poquito::render {
namespace {

using Vector = std::array<float, 3>;

Vector turned(const Caster& caster, float x, float y, float z) {
    return {x, y * caster.cosine + z * caster.sine, z * caster.cosine - y * caster.sine};
}

float dot(const Vector& a, const Vector& b) { return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]; }

/// The share of a disc of radius `own` that another one covers, their middles `apart`.
float overlap(float own, float other, float apart) {
    if (apart >= own + other) return 0;
    if (apart <= std::abs(own - other)) return other >= own ? 1 : other * other / (own * own);
    const float a = (apart * apart + own * own - other * other) / (2 * apart * own);
    const float b = (apart * apart + other * other - own * own) / (2 * apart * other);
    const float from_own = std::acos(std::clamp(a, -1.0f, 1.0f)), from_other = std::acos(std::clamp(b, -1.0f, 1.0f));
    const float lens =
        own * own * (from_own - a * std::sin(from_own)) + other * other * (from_other - b * std::sin(from_other));
    return lens / (std::numbers::pi_v<float> * own * own);
}

}  // namespace

float seen_past(const Caster& caster, const imaging::Rgba& place, const Beam& beam) {
    // In the thing's own axes and radii it is a ball of radius 1 about 0.
    auto from =
        turned(caster, place.x() - caster.middle[0], place.y() - caster.middle[1], place.z() - caster.middle[2]);
    auto way = turned(caster, beam.towards.x(), beam.towards.y(), beam.towards.z());
    for (std::size_t i = 0; i < 3; ++i) from[i] /= caster.radius[i], way[i] /= caster.radius[i];
    const float length = -dot(from, way) / dot(way, way);  // mm to where the ray is nearest to the middle
    if (!(length > 0)) return 1;
    Vector off{};
    for (std::size_t i = 0; i < 3; ++i) off[i] = from[i] + length * way[i];
    const float share = std::sqrt(dot(off, off));  // of the way to its edge
    // Back in mm: how far past the middle, and where the edge lies that way. There the thing is a disc before the
    // source.
    float miss = 0;
    for (std::size_t i = 0; i < 3; ++i) miss += off[i] * off[i] * caster.radius[i] * caster.radius[i];
    miss = std::sqrt(miss);
    const float least = std::min({caster.radius[0], caster.radius[1], caster.radius[2]});
    const float edge = share > 0.01f ? miss / share : least;
    const float spread = std::max(beam.spread, 0.01f);
    if (miss > 2 * (edge + spread * length) && length > 2 * edge) return 1;  // far beside it, as most places are
    // Angles from the place: rays that graze it touch it before its middle.
    const float away = std::sqrt(length * length + miss * miss);
    const float looks = std::asin(std::min(1.0f, edge / away)), aside = std::atan2(miss, length);
    return 1 - overlap(std::atan(spread), looks, aside);
}

float seen_past(const Casters& casters, std::size_t own, const imaging::Rgba& place, const Beam& beam) {
    float seen = 1;
    for (std::size_t i = 0; i < casters.things.size() && seen > 0; ++i)
        if (i != own && casters.things[i].casts) seen *= seen_past(casters.things[i], place, beam);
    return seen;
}

}  // namespace poquito::render
