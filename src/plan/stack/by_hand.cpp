// Stacks by hand: bursts while the camera sways through focus.
#include "making.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace poquito::plan {
namespace {

HandStack hand_stack(const Plan& plan, const StackWish& wish) {
    const auto& hand = plan.shot.capture.hand;
    const double depth = wish.frame_depth, step = wish.step;
    // Planes away from the middle are passed at uneven times, the outermost worst.
    const auto outermost = [&](double frames) { return sway_odds(hand, depth, (frames - 1) * step / 2); };
    HandStack made{.burst_frames = burst_frames(hand), .plane = sway_odds(hand, depth)};
    made.bursts = bursts_for_all(outermost(wish.frames), wish.frames);
    constexpr double most_told = 1000;  // more than anyone takes by hand
    while (made.largest < std::min(wish.frames + 200, most_told) &&
           bursts_for_all(outermost(made.largest + 1), made.largest + 1) <= most_bursts)
        ++made.largest;
    for (const Brace& brace : braces()) {
        shoot::HandHeld other = hand;
        other.speed = brace.speed;
        other.range = brace.range;
        made.braced.push_back(sway_odds(other, depth));
    }
    return made;
}

}  // namespace

MadeStack stack_by_hand(const Plan& plan, const StackWish& wish) {
    const auto planes = evenly(plan, wish.step, wish.frames);
    return {.step = wish.step,
            .frames = wish.frames,
            .stack = {.first = planes.first, .last = planes.last, .way = hand_stack(plan, wish)},
            .ring_travel = {},
            .viewpoint_change = {}};
}

const std::vector<Brace>& braces() {
    static const std::vector<Brace> list = {
        {.id = "standing", .name = "standing free", .speed = 12, .range = 15},
        {.id = "kneeling", .name = "kneeling, elbow on the knee", .speed = 6, .range = 6},
        {.id = "stick", .name = "lens resting on a stick or on the hand that holds the stem", .speed = 3, .range = 3},
        {.id = "ground", .name = "elbows or a bean bag on the ground", .speed = 1.5, .range = 1.5},
    };
    return list;
}

double burst_frames(const shoot::HandHeld& sway) {
    return std::max(1.0, std::floor(sway.frames_per_second * sway.burst + as_good_as_whole));
}

namespace {

double bursts_until(double chance, double miss) {
    if (chance <= 0) return infinite;
    if (chance >= 1) return 1;
    return std::max(1.0, std::ceil(std::log(miss) / std::log1p(-chance) - as_good_as_whole));
}
constexpr double miss = 0.05;

}  // namespace

SwayOdds sway_odds(const shoot::HandHeld& sway, double depth, double offset) {
    constexpr double most_of_burst = 2000;  // frames: no buffer takes more
    const double half = sway.range / 2, circle = 2 * sway.range;
    // On the way there the depth is passed between `low` and `high`, on the way back the other way round.
    const double low = std::max(-half, offset - depth / 2), high = std::min(half, offset + depth / 2);
    if (low >= high) return {.chance = 0, .bursts = infinite};
    const double length = high - low;
    const std::array starts = {half + low, 3 * half - high};
    const auto frames = static_cast<std::size_t>(std::min(burst_frames(sway), most_of_burst));
    const double stride = sway.speed / sway.frames_per_second;
    // A beginning is a hit where some frame then falls into the depth: each frame's hits, moved back by its way.
    std::vector<double> arcs;
    arcs.reserve(2 * frames);
    for (std::size_t i = 0; i < frames; ++i)
        for (const double start : starts) {
            double at = std::fmod(start - static_cast<double>(i) * stride, circle);
            if (at < 0) at += circle;
            arcs.push_back(at);
        }
    std::ranges::sort(arcs);
    double hit = 0;
    for (std::size_t i = 0; i < arcs.size(); ++i) {
        const double next = i + 1 < arcs.size() ? arcs[i + 1] : arcs.front() + circle;
        hit += std::min(length, next - arcs[i]);
    }
    const double chance = std::min(1.0, hit / circle);
    return {.chance = chance, .bursts = bursts_until(chance, miss)};
}

double bursts_for_all(const SwayOdds& odds, double planes) { return bursts_until(odds.chance, miss / planes); }

}  // namespace poquito::plan
