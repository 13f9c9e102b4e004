#include "search/reach_search.hpp"

#include "best_hits.hpp"
#include "pair.hpp"
#include "parts.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <span>
#include <tuple>

namespace poquito::search {
namespace {

/// The rig of a kit that takes least effort: few pieces, contacts kept, extension before glass.
std::optional<shoot::Rig> simplest_rig(const gear::Kit& kit, const shoot::Rig& now, const WantedReach& wanted) {
    constexpr double at_most = 20000;  // combinations, a millisecond or two
    const ReachWish wish{.magnification = wanted.magnification,
                         .least_working_distance = std::nextafter(wanted.working_distance, wanted.working_distance + 1),
                         .only_camera = now.camera,
                         .simple = true};
    if (combination_count(kit, wish) > at_most) return std::nullopt;
    const auto result = search_reach(kit, wish);
    const auto effort = [&](const ReachFound& one) {
        return std::tuple(one.reversing_ring.has_value(), one.pieces, !one.autofocus, one.converter.has_value(),
                          one.closeups[0].has_value(), one.bellows.has_value(), one.optical_cost, one.loss);
    };
    const auto best = std::ranges::min_element(result.found, {}, effort);
    if (best == result.found.end()) return std::nullopt;
    shoot::Rig rig = rig_of(kit, *best, now);
    rig.focus = {.by = shoot::FocusBy::magnification, .value = wanted.magnification};
    return rig;
}

}  // namespace

double combination_count(const gear::Kit& kit, const ReachWish& wish) {
    double zooms = 0, pairs = 0;
    for (const gear::Lens& lens : kit.lenses) zooms += static_cast<double>(zoom_steps(lens).size());
    for (const gear::Lens& lens : kit.lenses) {
        const double own = static_cast<double>(zoom_steps(lens).size());
        pairs += own * (zooms - own);
    }
    const auto closeups = static_cast<double>(kit.closeup_lenses.size());
    const double fronts = zooms * (1 + closeups + (wish.simple ? 0 : closeups * (closeups - 1) / 2)) +
                          zooms * static_cast<double>(kit.reversing_rings.size()) +
                          (wish.simple ? 0 : pairs * static_cast<double>(kit.coupling_rings.size()));
    double tubes = std::pow(2.0, static_cast<double>(kit.tubes.size()));
    for (const auto& converter : kit.teleconverters)
        tubes +=
            std::pow(converter.optics.has_length() && !wish.simple ? 3.0 : 2.0, static_cast<double>(kit.tubes.size()));
    const double rears = tubes * (1 + static_cast<double>(kit.bellows.size()));
    return fronts * rears * static_cast<double>(Parts(kit, wish).bodies().size());
}

namespace {

/// Asks now and then whether to go on, with the share of `all` that is done.
class Asking {
  public:
    Asking(const std::function<bool(double)>& go_on, double all) : go_on_(go_on), all_(all) {}
    bool on() {
        constexpr std::size_t every = 32;
        if (done_++ % every != 0 || !go_on_) return true;
        return go_on_(std::min(1.0, static_cast<double>(done_) / all_));
    }

  private:
    const std::function<bool(double)>& go_on_;
    double all_;
    std::size_t done_ = 0;
};

}  // namespace

ReachResult search_reach(const gear::Kit& kit, const ReachWish& wish, const std::function<bool(double)>& go_on,
                         const ReachKept& kept) {
    const double all = combination_count(kit, wish);
    if (all > most_combinations) return {.too_many = true};
    const Parts parts(kit, wish);
    BestHits keeper(kept);
    ReachLeftOut left_out;
    std::size_t tried = 0;
    Asking ask(go_on, all);
    const auto tries = [&](const Body& body, const FrontPart& front, const RearPart& rear) {
        ++tried;
        const auto setting = setting_for(front, rear, rear.matrix * optics::gap(front.to_mount), body.wanted);
        if (!setting) return void(++left_out.out_of_reach);
        const Pair pair{kit, body, front, rear};
        const auto train = pair.train(setting->extension);
        auto found = assemble(pair, *setting, optics::focus_at_ring(train, setting->ring), wish.f_number);
        found.infinity = optics::has_infinity(train);
        if (within(found, wish, front.glass_in_front, left_out)) keeper.add(found);
    };
    bool on = true;
    for (const Body& body : parts.bodies()) {
        const auto fronts = parts.fronts(body.flange);
        on = on && parts.each_rear([&](const RearPart& rear) {
            for (const FrontPart& front : fronts) {
                if (!ask.on()) return false;
                tries(body, front, rear);
            }
            return true;
        });
    }
    auto result = std::move(keeper).result();
    result.tried = tried;
    result.left_out = left_out;
    result.cancelled = !on;
    return result;
}

void rank(std::vector<ReachFound>& found, const std::vector<ReachMeasure>& order) {
    std::ranges::sort(found, [&](const ReachFound& a, const ReachFound& b) { return before(a, b, order); });
}

std::optional<ReachFound> greatest_reach(const gear::Kit& kit, const ReachWish& wish,
                                         const std::function<bool(double)>& go_on) {
    if (combination_count(kit, wish) > most_combinations) return std::nullopt;
    const Parts parts(kit, wish);
    std::optional<ReachFound> best;
    Asking ask(go_on, combination_count(kit, wish));
    for (const Body& body : parts.bodies()) {
        const auto fronts = parts.fronts(body.flange);
        const bool on = parts.each_rear([&](const RearPart& rear) {
            for (const FrontPart& front : fronts) {
                if (!ask.on()) return false;
                Greatest({kit, body, front, rear}, wish.f_number, best).look();
            }
            return true;
        });
        if (!on) return std::nullopt;
    }
    return best;
}

shoot::Rig rig_of(const gear::Kit& kit, const ReachFound& found, const shoot::Rig& now) {
    const gear::Lens& lens = kit.lenses[found.lens];
    const gear::Camera& camera = kit.cameras[found.camera];
    shoot::Rig rig{
        .camera = camera.id, .lens = lens.id, .focal_length = focal_length(lens, found.zoom), .rail = now.rail};
    if (found.crop_mode) rig.crop_mode = camera.crop_modes[*found.crop_mode].name;
    if (found.converter) rig.teleconverter = kit.teleconverters[*found.converter].id;
    for (Index i = 0; i < count(kit.tubes); ++i) {
        if (found.tubes >> i & 1) rig.tubes.push_back(kit.tubes[i].id);
        if (found.tubes_behind >> i & 1) rig.tubes_behind_converter.push_back(kit.tubes[i].id);
    }
    if (found.bellows) {
        const gear::Bellows& bellows = kit.bellows[*found.bellows];
        rig.bellows = shoot::BellowsSetting{
            .bellows = bellows.id,
            .extension = std::clamp(static_cast<double>(found.extension), bellows.least, bellows.greatest)};
    }
    if (found.reversing_ring) rig.reversing_ring = kit.reversing_rings[*found.reversing_ring].id;
    for (const PieceIndex closeup : found.closeups)
        if (closeup) rig.closeup_lenses.push_back(kit.closeup_lenses[*closeup].id);
    if (found.front_lens) {
        const gear::Lens& front = kit.lenses[*found.front_lens];
        const auto zoom = focal_length(front, found.front_zoom);
        rig.front_lens = shoot::FrontLens{.lens = front.id,
                                          .coupling_ring = kit.coupling_rings[*found.coupling_ring].id,
                                          .f_number = gear::optics_of(front, zoom).max_aperture,
                                          .focal_length = zoom};
    }
    rig.support = now.support;
    rig.focus = {.by = shoot::FocusBy::ring, .value = found.ring};
    rig.unknown = now.unknown;
    return rig;
}

std::optional<shoot::Rig> find_rig(const gear::Kit& kit, const shoot::Rig& now, const WantedReach& wanted) {
    // By stages, each with less gear than the next would look at: the shot's own lens, the others, reversed ones.
    gear::Kit stage = kit;
    stage.reversing_rings.clear();
    std::erase_if(stage.lenses, [&](const gear::Lens& lens) { return lens.id != now.lens; });
    // Before anything the pieces that keep what this lens does by itself.
    const auto without = [](const auto& piece) { return !piece.contacts; };
    if (std::ranges::any_of(stage.lenses, [](const gear::Lens& lens) { return lens.contacts; })) {
        gear::Kit joined = stage;
        std::erase_if(joined.tubes, without);
        std::erase_if(joined.teleconverters, without);
        std::erase_if(joined.bellows, without);
        if (auto rig = simplest_rig(joined, now, wanted)) return rig;
    }
    if (auto rig = simplest_rig(stage, now, wanted)) return rig;
    stage.lenses = kit.lenses;
    if (auto rig = simplest_rig(stage, now, wanted)) return rig;
    stage.reversing_rings = kit.reversing_rings;
    return stage.reversing_rings.empty() ? std::nullopt : simplest_rig(stage, now, wanted);
}

}  // namespace poquito::search
