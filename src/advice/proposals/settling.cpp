#include "settling.hpp"

#include "light/power.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "text/scales.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace poquito::advice {
namespace {

constexpr double base_iso = 100, top_iso = 102400;
constexpr double slowest = 30, fastest = 1.0 / 8000;  // s, what cameras time themselves (common practice)
constexpr double as_marked = 1.001;

const std::vector<double>& all_times() {
    static const auto list = [] {
        std::vector<double> made;
        for (double t = slowest; made.empty() || (t < made.back() && t * as_marked >= fastest);
             t = text::step_shutter(t, -1))
            made.push_back(t);
        std::ranges::reverse(made);
        return made;
    }();
    return list;
}

const std::vector<double>& all_isos() {
    static const auto list = [] {
        std::vector<double> made;
        for (double iso = base_iso; made.empty() || (iso > made.back() && iso <= top_iso * as_marked);
             iso = text::step_iso(iso, 1))
            made.push_back(iso);
        return made;
    }();
    return list;
}

std::vector<double> stops_of(const plan::Plan& plan) {
    const auto& lens = plan.train.lens;
    std::vector<double> stops{lens.max_aperture};
    for (double f = text::step_f_number(lens.max_aperture, 1); f > stops.back(); f = text::step_f_number(f, 1)) {
        if (f > lens.min_aperture * as_marked ||
            (plan.terms.limits.f_number && f > *plan.terms.limits.f_number * as_marked))
            break;
        stops.push_back(f);
    }
    return stops;
}

int nearest(const std::vector<double>& scale, double value) {
    const auto further = [&](double a, double b) {
        return std::abs(std::log(a / value)) < std::abs(std::log(b / value));
    };
    return static_cast<int>(std::ranges::min_element(scale, further) - scale.begin());
}

/// Steps on the scales of stop, time, ISO and power. The first of them are what stands beside a setting: one dial a
/// third on, or two that keep the exposure.
constexpr std::size_t steps_beside = 12;
constexpr std::array<std::array<int, 4>, 34> steps = {{
    {1, 1, 0, 0},    {-1, -1, 0, 0}, {1, 0, 1, 0},   {-1, 0, -1, 0}, {0, 1, -1, 0},  {0, -1, 1, 0},  {1, 0, 0, 0},
    {-1, 0, 0, 0},   {0, 1, 0, 0},   {0, -1, 0, 0},  {0, 0, 1, 0},   {0, 0, -1, 0},  {0, 0, 0, 1},   {0, 0, 0, -1},
    {3, 3, 0, 0},    {-3, -3, 0, 0}, {3, 0, 3, 0},   {-3, 0, -3, 0}, {0, 3, -3, 0},  {0, -3, 3, 0},  {2, 1, 1, 0},
    {-2, -1, -1, 0}, {2, 0, 2, 0},   {-2, 0, -2, 0}, {2, 2, 0, 0},   {-2, -2, 0, 0}, {0, 2, -2, 0},  {0, -2, 2, 0},
    {1, 2, -1, 0},   {-1, -2, 1, 0}, {1, -1, 2, 0},  {-1, 1, -2, 0}, {1, 0, 0, 1},   {-1, 0, 0, -1},
}};

}  // namespace

Settling::Settling(const gear::Kit& kit, const shoot::Shot& begun, const shoot::Terms& terms, Lit lit,
                   const Stays& stays, double change)
    : shot_(begun),
      plan_(plan::plan_of(kit, shot_, terms)),
      lit_(lit),
      stays_(stays),
      change_(change),
      stops_(stops_of(plan_)),
      times_(all_times()),
      isos_(all_isos()) {
    if (stays.stop) stops_ = {begun.exposure.f_number};
    if (stays.times) times_ = {begun.exposure.shutter}, isos_ = {begun.exposure.iso};
    measure_light();
}

/// Everything scales: what stays on with stop, time and ISO, a flash with stop, ISO and power. Flashes share what the
/// front still wants as they do now, or alike; what does not light the front keeps its stops.
void Settling::measure_light() {
    const shoot::Exposure was = shot_.exposure;
    const auto now = plan::report_light(plan_);
    full_.assign(plan_.sources.size(), 0);
    parts_ = full_;
    high_speed_ = flashes();
    double sum = 0;
    bool all_set = true;
    const auto shares = [&](std::size_t i) {
        const auto& source = plan_.sources[i];
        return source.is_flash() && !source.set.off && !source.set.own_stops && now.sources[i].shown_share() > 0;
    };
    for (std::size_t i = 0; i < full_.size(); ++i) all_set &= !shares(i) || plan_.sources[i].set.power;
    shot_.exposure = {.f_number = stops_.front(), .shutter = plan_.camera.sync, .iso = base_iso};
    for (std::size_t i = 0; i < full_.size(); ++i) {
        const auto& source = plan_.sources[i];
        if (!source.is_flash() || source.set.off) continue;
        high_speed_ &= source.flash->high_speed_sync;
        high_speed_loss_ = std::max(high_speed_loss_, source.flash->high_speed_loss);
        if (!shares(i)) continue;
        full_[i] = plan::light_at(plan_, source, 1, 0) * now.sources[i].shown_share();
        parts_[i] = all_set ? *source.set.power * full_[i] : 1;
        sum += parts_[i];
    }
    for (double& part : parts_) part = sum > 0 ? part / sum : 0;
    const auto light = plan::report_light(plan_);
    steady_ = ratio_of(light.continuous);
    if (!flashes() && !(steady_ > 0)) {  // the ground alone
        constexpr double white_over = 1.5;
        steady_ = ratio_of(light.background) * std::exp2(-white_over);
    }
    // Brighter on purpose: as if there were so much less.
    const double fainter = std::exp2(-plan_.terms.wishes.brighter.value_or(0));
    steady_ *= fainter;
    for (double& full : full_) full *= fainter;
    shot_.exposure = was;
}

std::size_t Settling::Hash::operator()(const At& at) const {
    constexpr std::size_t places = 128;
    std::size_t sum = 0;
    for (const int place : {at.stop, at.time, at.iso, at.power})
        sum = sum * places + static_cast<std::size_t>(place + 8);
    return sum;
}

bool Settling::Score::operator<(const Score& other) const {
    if ((worth < 0) != (other.worth < 0)) return worth < 0;
    constexpr double none = 1e-9;
    if (std::abs(excess - other.excess) > none) return excess > other.excess;
    return worth < other.worth;
}

/// The place of the ISO that exposes for what stays on; past either end of the scale where none does.
int Settling::iso_for(int stop, int time) const {
    const double f = stops_[static_cast<std::size_t>(stop)], t = times_[static_cast<std::size_t>(time)];
    const double ratio = steady_ * std::pow(stops_.front() / f, 2) * t / plan_.camera.sync;
    if (!(ratio > 0)) return static_cast<int>(isos_.size());
    return static_cast<int>(std::lround(3 * std::log2(1 / ratio)));
}

void Settling::set_powers(double flash, double gain) {
    for (std::size_t i = 0; i < full_.size(); ++i) {
        if (!(parts_[i] > 0) || !(full_[i] > 0)) continue;
        auto& light = shot_.lights[i];
        const auto& scale = plan_.sources[i].flash->scale;
        light.power =
            light::nearest_setting(scale, std::clamp(flash * parts_[i] / (full_[i] * gain), scale.least, 1.0));
        light.metered.reset();
    }
}

void Settling::set(const At& at) {
    auto& exposure = shot_.exposure;
    exposure.f_number = stops_[static_cast<std::size_t>(at.stop)];
    exposure.shutter = times_[static_cast<std::size_t>(at.time)];
    exposure.iso = isos_[static_cast<std::size_t>(at.iso)];
    const bool fast = flashes() && exposure.shutter < plan_.camera.sync * (1 - 1e-9);
    exposure.high_speed_sync = fast && high_speed_;
    if (!flashes() || stays_.power) return;
    double gain = std::pow(stops_.front() / exposure.f_number, 2) * exposure.iso / base_iso;
    const double steady = steady_ * gain * exposure.shutter / plan_.camera.sync;
    if (fast)
        gain *= std::exp2(
            -light::high_speed_loss({.sync = plan_.camera.sync, .at_sync = high_speed_loss_}, exposure.shutter));
    constexpr double thirds = 3, least_wanted = 1e-3;
    set_powers(std::max(least_wanted, 1 - steady) * std::exp2(at.power / thirds), gain);
}

const Settling::Score& Settling::score(const At& at) {
    const auto [found, fresh] = scores_.try_emplace(at);
    auto& score = found->second;
    if (!fresh) return score;
    const auto inside = [](int place, const std::vector<double>& scale) {
        return place >= 0 && place < static_cast<int>(scale.size());
    };
    if (!inside(at.stop, stops_) || !inside(at.time, times_) || !inside(at.iso, isos_)) return score;
    if (flashes() && !high_speed_ && !stays_.times &&
        times_[static_cast<std::size_t>(at.time)] < plan_.camera.sync * (1 - 1e-9))
        return score;
    set(at);
    if (shot_.freeze && shot_.freeze->repeating) {  // all its flashes come while the shutter is open
        constexpr double rounding = 1e-3;
        if (shot_.exposure.shutter < light::burst_time(shot_.freeze->repeating->burst) * (1 - rounding)) return score;
    }
    const auto report = plan::assess(plan_);
    const bool stack = shot_.capture.mode == shoot::CaptureMode::stack;
    if (stack) {
        const auto& bracket = plan_.camera.bracket;
        const bool by_itself = report.capture.stack && report.capture.stack->bracket();
        const double most = !by_itself                ? 1e9
                            : shot_.capture.composite ? bracket.composite_max_frames
                                                      : bracket.max_frames;
        if (report.capture.frames <= 1 || report.capture.frames > most) return score;
    }
    if (flashes()) {
        if (!report.light.flash) return score;
        const double steady = ratio_of(report.light.continuous), flash = ratio_of(report.light.flash);
        if ((steady > flash) != (lit_ == Lit::fill)) return score;
    }
    score = {.excess = excess_of(plan_, report).sum(), .worth = worth_of(plan_, report, change_).worth};
    return score;
}

/// Full stops of everything, of what stays on with the ISO that exposes.
std::vector<Settling::At> Settling::coarse() {
    std::vector<At> tried;
    const int stops = static_cast<int>(stops_.size()), times = static_cast<int>(times_.size()),
              isos = static_cast<int>(isos_.size());
    constexpr int full = 3, two = 6;
    const int each = flashes() ? two : full;
    const int highest = plan_.terms.limits.iso
                            ? std::min(isos - 1, nearest(isos_, std::min(*plan_.terms.limits.iso, isos_.back())))
                            : isos - 1;
    for (int stop = 0; stop < stops + each - 1; stop += each) {
        const int at_stop = std::min(stop, stops - 1);
        for (int time = flashes() ? nearest(times_, plan_.camera.sync) % two : 0; time < times; time += each) {
            if (!flashes()) {
                const int wanted = iso_for(at_stop, time);
                constexpr int bright = 3, dark = 9;  // thirds that may be missing where nothing else is left
                if (wanted < -bright || wanted > highest + dark) continue;
                tried.push_back({at_stop, time, std::clamp(wanted, 0, highest)});
                continue;
            }
            for (int iso = 0; iso < std::max(1, highest + 1); iso += two) {
                if (iso_for(at_stop, time) < iso - full) break;  // what is there is too bright already
                tried.push_back({at_stop, time, std::min(iso, isos - 1)});
            }
        }
    }
    return tried;
}

bool Settling::gains(const At& from, const At& to) {
    constexpr int most = 6;  // thirds
    if (to.power != from.power && (!flashes() || stays_.power || std::abs(to.power) > most)) return false;
    const Score now = score(from), there = score(to);
    constexpr double more = 1 + 1e-9;
    return now.worth < 0 ? there.worth >= 0 : now < Score{there.excess, there.worth / more};
}

Settling::At Settling::climbed(At from) {
    // As far in each direction as it gains, until a whole round gains nothing.
    for (std::size_t since = 0, next = 0; since < steps.size(); next = (next + 1) % steps.size()) {
        const auto& move = steps[next];
        bool gained = false;
        for (;;) {
            const At to{from.stop + move[0], from.time + move[1], from.iso + move[2], from.power + move[3]};
            if (!gains(from, to)) break;
            from = to;
            gained = true;
        }
        since = gained ? 0 : since + 1;
    }
    return from;
}

/// A flash has its power in steps of its own, which a third of a stop elsewhere can make it miss: climbed until no
/// setting beside this one is worth more with a power beside its own.
Settling::At Settling::polished(At from) {
    constexpr std::array powers = {-1, 1, -2, 2, -3, 3};
    for (bool gained = true; gained;) {
        gained = false;
        for (std::size_t i = 0; i < steps_beside; ++i)
            for (const int power : powers) {
                const auto& step = steps[i];
                const At to{from.stop + step[0], from.time + step[1], from.iso + step[2], from.power + power};
                if (!gains(from, to)) continue;
                from = climbed(to);
                gained = true;
            }
    }
    return from;
}

std::optional<Settled> Settling::best() {
    if (!can_be_lit()) return std::nullopt;
    auto tried = coarse();
    if (stays_.times || stays_.stop)
        for (int stop = 0; stop < static_cast<int>(stops_.size()); ++stop)
            if (stays_.times) tried.push_back({stop, 0, 0});
    constexpr std::size_t hills = 2;
    return best_of(std::move(tried), hills);
}

std::optional<Settled> Settling::beside(double f_number) {
    if (!can_be_lit()) return std::nullopt;
    const int stop = nearest(stops_, f_number), time = nearest(times_, shot_.exposure.shutter),
              last = static_cast<int>(isos_.size()) - 1;
    const int iso = flashes() ? nearest(isos_, shot_.exposure.iso) : iso_for(stop, time);
    // Too bright or too dark at that time: at the one that the lowest ISO takes; with flash at sync.
    const int other =
        flashes() ? nearest(times_, plan_.camera.sync) : std::clamp(time + iso, 0, static_cast<int>(times_.size()) - 1);
    return best_of({{stop, time, std::clamp(iso, 0, last)}, {stop, other, flashes() ? std::clamp(iso, 0, last) : 0}},
                   2);
}

bool Settling::can_be_lit() const {
    if (!(plan_.at.magnification > 0)) return false;
    if (!flashes()) return steady_ > 0;
    return stays_.power || std::ranges::any_of(parts_, [](double part) { return part > 0; });
}

std::optional<Settled> Settling::best_of(std::vector<At> tried, std::size_t hills) {
    if (tried.empty()) return std::nullopt;
    std::ranges::stable_sort(tried, [&](const At& a, const At& b) {
        const Score one = score(a), other = score(b);
        return other < one;
    });
    std::optional<At> best;
    Score reached;
    for (std::size_t i = 0; i < std::min(hills, tried.size()); ++i) {
        if (score(tried[i]).worth < 0) break;
        const At top = climbed(tried[i]);
        if (!best || reached < score(top)) best = top, reached = score(top);
    }
    if (!best) return std::nullopt;
    if (flashes() && !stays_.power) best = polished(*best), reached = score(*best);
    // In the dark any time is as good: that which the flash is usually taken with.
    constexpr double as_good = 0.998;
    const int usual = nearest(times_, plan_.camera.sync);
    for (At to = *best; flashes() && to.time != usual;) {
        to.time += to.time < usual ? 1 : -1;
        const Score& there = score(to);
        if (there.worth < as_good * reached.worth || there.excess > reached.excess) break;
        best = to;
    }
    set(*best);
    return Settled{.worth = reached.worth, .excess = reached.excess, .shot = shot_};
}

}  // namespace poquito::advice
