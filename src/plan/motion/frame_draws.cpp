#include "plan/motion/frame_draws.hpp"

#include "plan/motion/chance.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <random>

namespace poquito::plan {

struct FrameDraws::State {
    std::mt19937_64 random;
    // Of the plan and its report, as the laws of chance need them.
    double limit = 0, magnification = 0;
    double exposure = 0, open_exposure = 0, open_share = 0;       // of the flash or alone, of the shutter beside it
    double half_depth = std::numeric_limits<double>::infinity();  // behind and before the plane of focus
    double nearer = 0, farther = 0;                               // where it lands, within focus
    double half_width = 0, half_height = 0;
    shoot::Tries tries;
    shoot::Subject subject;
    std::optional<shoot::Freeze> freeze;
    double aside = 0;             // that throws scatter to the sides
    double off_x = 0, off_y = 0;  // of what is thrown from the middle of the frame as the light comes
    bool by_hand = false;
    double shake = 0;  // mm/s at the sensor, root of the mean square
    double along = 0;
    std::optional<Burst> burst;
    double own_speed = 0;      // mm/s at the sensor of what moves by itself; 0: it stands
    double still = 1;          // share of the time that it holds still
    double trigger_share = 1;  // as reckoned
    bool lands = false;
    double held = 1;     // share that the flash holds
    bool thrown = true;  // it gets there

    double share() { return std::uniform_real_distribution<double>(0, 1)(random); }
    /// Each cause has its frame drawn by the one or the other, as the laws have it.
    double time() { return open_share > 0 && share() < open_share ? open_exposure : exposure; }
    double gauss(double deviation) {
        return deviation > 0 ? std::normal_distribution<double>(0, deviation)(random) : 0;
    }
    void wind(FrameDraw& draw);
    void hold(FrameDraw& draw);
    void land(FrameDraw& draw);
    void walk(FrameDraw& draw);
};

/// A swing at a random phase: how far it goes while the shutter is open, and where it stands through focus.
void FrameDraws::State::wind(FrameDraw& draw) {
    if (!(subject.sway_amplitude > 0)) return;
    constexpr double turn = 2 * std::numbers::pi, half = 0.5;
    const auto swing = [&] { return share() < tries.calm ? tries.calm_swing : 1; };
    const double across = subject.sway_amplitude * swing(), phase = share() * turn;
    const double passes = turn * subject.sway_frequency * time();
    // The extremes of a sine over that stretch: at its ends, or where it turns in between.
    double least = std::min(std::sin(phase), std::sin(phase + passes));
    double most = std::max(std::sin(phase), std::sin(phase + passes));
    for (double turns = half * half * turn; turns < phase + passes; turns += half * turn)
        if (turns > phase) least = std::min(least, std::sin(turns)), most = std::max(most, std::sin(turns));
    const double smear = magnification * across * (most - least);
    draw.smear += smear;
    draw.aside += across * (most + least) / 2;
    draw.sharp = draw.sharp && smear <= limit;
    const double depth = shoot::sway_through(subject) * swing();
    const double through = depth * std::sin(share() * turn);
    draw.through += through;
    draw.sharp = draw.sharp && std::abs(through) <= half_depth;
}

void FrameDraws::State::hold(FrameDraw& draw) {
    if (!by_hand) return;
    const double each = shake * time() / std::numbers::sqrt2;
    const double smear = std::hypot(gauss(each), gauss(each));
    // Of a burst the frame that comes nearest: the subject lies as far behind it as it is focused before the place.
    const double through =
        burst ? -nearest_focus(burst->sway, burst->row, share() * 2 * burst->sway.range) : gauss(along);
    draw.smear += smear;
    draw.through += through;
    draw.sharp = draw.sharp && smear <= limit && std::abs(through) <= half_depth;
}

void FrameDraws::State::land(FrameDraw& draw) {
    if (!freeze && tries.perch) {
        const double through = gauss(tries.perch->scatter), right = gauss(tries.perch->aside);
        const double up = gauss(tries.perch->aside);
        draw.through += through, draw.aside += right, draw.up += up;
        draw.sharp = draw.sharp && through >= -nearer && through <= farther && std::abs(right) <= half_width &&
                     std::abs(up) <= half_height;
    }
    if (!freeze) return;
    draw.fired = share() < trigger_share;
    if (lands) {
        const double through = gauss(freeze->scatter);
        draw.through += through;
        draw.sharp = draw.sharp && through >= -nearer && through <= farther;
    }
    draw.aside += off_x + gauss(aside);
    draw.up += off_y + (freeze->act == shoot::Act::thrown ? gauss(aside) : 0);
    draw.sharp = draw.sharp && share() < held && thrown && draw.fired && std::abs(draw.aside) <= half_width &&
                 std::abs(draw.up) <= half_height;
}

/// Its speed is spread as that of hands is: now slower than it is said to be, now faster.
void FrameDraws::State::walk(FrameDraw& draw) {
    if (!(own_speed > 0) || share() < still) return;
    const double each = own_speed * time() / std::numbers::sqrt2;
    const double smear = std::hypot(gauss(each), gauss(each));
    draw.smear += smear;
    draw.sharp = draw.sharp && smear <= limit;
}

FrameDraws::FrameDraws(const Plan& plan, const Report& report, std::uint64_t seed) : state_(std::make_unique<State>()) {
    auto& urn = *state_;
    urn.random.seed(seed);
    urn.limit = blur_limit(plan);
    urn.exposure = report.motion.flash_time.value_or(report.motion.exposure_time);
    urn.open_exposure = plan.shot.exposure.shutter;
    urn.open_share = report.motion.flash_time ? report.motion.open_share : 0;
    urn.magnification = std::max(0.0, plan.at.magnification);
    if (const auto depth = depth_to_hit(report)) urn.half_depth = *depth / 2;
    urn.nearer = report.sharpness.near.value_or(0);
    urn.farther = report.sharpness.far.value_or(std::numeric_limits<double>::infinity());
    urn.half_width = report.optics.field_width.value_or(std::numeric_limits<double>::infinity()) / 2;
    urn.half_height = report.optics.field_height.value_or(std::numeric_limits<double>::infinity()) / 2;
    urn.tries = shoot::tries_of(plan.shot);
    urn.subject = plan.shot.subject;
    urn.freeze = plan.shot.freeze;
    urn.aside = shoot::aside_of(plan.shot);
    urn.shake = shake_of(plan, hands_of(plan), 1);
    urn.along = hands_of(plan).along;
    urn.burst = burst_of(plan, report);
    // What there is of causes the report says: nothing else is drawn.
    const auto hangs_on = [&](ChanceCause cause) { return report.chance && report.chance->hangs_on(cause); };
    urn.by_hand = hangs_on(ChanceCause::hands);
    urn.lands = hangs_on(ChanceCause::landing);
    if (hangs_on(ChanceCause::moving))
        urn.own_speed = urn.magnification * plan.shot.subject.speed, urn.still = shoot::still_of(plan.shot);
    if (!plan.shot.freeze) return;
    urn.thrown = report.freeze && report.freeze->path;
    if (urn.thrown) urn.off_x = report.freeze->path->off_x, urn.off_y = report.freeze->path->off_y;
    if (!report.chance) return;
    for (const auto& cause : report.chance->causes) {
        if (cause.cause == ChanceCause::trigger) urn.trigger_share = cause.share;
        if (cause.cause == ChanceCause::flash) urn.held = cause.share;
    }
}

double smear_of(const FrameDraw& draw, const Report& report) {
    const bool drawn = report.chance && report.chance->hangs_on(ChanceCause::moving);
    return draw.smear + (drawn ? 0 : report.motion.blur);
}

FrameDraws::~FrameDraws() = default;
FrameDraws::FrameDraws(FrameDraws&&) noexcept = default;
FrameDraws& FrameDraws::operator=(FrameDraws&&) noexcept = default;

FrameDraw FrameDraws::draw() {
    FrameDraw draw;
    state_->wind(draw);
    state_->hold(draw);
    state_->land(draw);
    state_->walk(draw);
    return draw;
}

}  // namespace poquito::plan
