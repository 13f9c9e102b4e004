#include "search/reach_search.hpp"

#include "optics/aperture.hpp"
#include "optics/chain.hpp"
#include "optics/focus.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <span>
#include <tuple>

namespace poquito::search {
namespace {

using Index = std::uint16_t;  // into a list of the kit

template <typename Gear>
Index count(const std::vector<Gear>& list) {
    return static_cast<Index>(list.size());
}

// ---- the parts that are combined ---------------------------------------------------------------------------------

/// A lens with everything in front of it, at every position of its ring.
struct FrontPart {
    ReachFound pieces;    // lens, zoom, reversing ring, front lens, close-up lenses
    optics::Train train;  // without extension and converter
    std::vector<optics::RingStretch> stretches;
    double to_mount = 0;
    double cost = 0;
    int count = 1;
    bool contacts = true, autofocus = true, glass_in_front = false, reversed = false;
};

/// What stands between camera and lens.
struct RearPart {
    ReachFound pieces;  // converter, tubes, bellows
    double tubes = 0, rear_tubes = 0;
    optics::RayMatrix matrix;                            // without bellows, up to the mount
    double least_extension = 0, greatest_extension = 0;  // of the bellows
    double cost = 0;
    int count = 0;
    bool contacts = true;
};

struct Body {
    Index camera = 0;
    PieceIndex crop_mode;
    double flange = 44;
    double wanted = 1;
};

std::vector<PieceIndex> zoom_steps(const gear::Lens& lens) {
    std::vector<PieceIndex> steps;
    for (Index i = 0; i < count(lens.zoom); ++i) steps.emplace_back(i);
    if (steps.empty()) steps.emplace_back();
    return steps;
}

std::optional<double> focal_length(const gear::Lens& lens, PieceIndex zoom) {
    return zoom ? std::optional(lens.zoom[*zoom].focal_length) : std::nullopt;
}

double closeup_cost(const gear::CloseupLens& closeup) {
    if (closeup.achromat) return 0;
    return closeup.power_dpt > optical_cost::strong_power ? optical_cost::strong_single_element
                                                          : optical_cost::single_element;
}

class Parts {
  public:
    Parts(const gear::Kit& kit, const ReachWish& wish) : kit_(kit), wish_(wish) {}

    std::vector<Body> bodies() const {
        std::vector<Body> found;
        for (Index i = 0; i < count(kit_.cameras); ++i) {
            const gear::Camera& camera = kit_.cameras[i];
            if (wish_.only_camera && camera.id != *wish_.only_camera) continue;
            const auto add = [&](PieceIndex mode, const optics::Sensor& sensor) {
                found.push_back(
                    {.camera = i,
                     .crop_mode = mode,
                     .flange = camera.flange,
                     .wanted = wish_.field_width ? sensor.width / *wish_.field_width : wish_.magnification});
            };
            add({}, camera.sensor);
            if (wish_.crop_modes && wish_.field_width)
                for (Index mode = 0; mode < count(camera.crop_modes); ++mode) add(mode, camera.crop_modes[mode].sensor);
        }
        return found;
    }

    /// `flange`: of the camera; a lens of another mount brings its own.
    std::vector<FrontPart> fronts(double flange) const {
        std::vector<FrontPart> parts;
        for (Index i = 0; i < count(kit_.lenses); ++i)
            for (const PieceIndex zoom : zoom_steps(kit_.lenses[i])) {
                const gear::Lens& lens = kit_.lenses[i];
                FrontPart bare;
                bare.pieces.lens = i;
                bare.pieces.zoom = zoom;
                bare.train = {.lens = gear::optics_of(lens, focal_length(lens, zoom)), .flange = flange};
                bare.contacts = lens.contacts;
                bare.autofocus = lens.autofocus;
                add_closeups(parts, bare);
                for (Index ring = 0; ring < count(kit_.reversing_rings); ++ring) parts.push_back(reversed(bare, ring));
                if (!wish_.simple) add_coupled(parts, bare);
            }
        for (FrontPart& part : parts) {
            part.stretches = optics::ring_stretches(part.train);
            part.to_mount = optics::to_mount(part.train);
        }
        return parts;
    }

    /// Every rear part once, made when it is asked for: there are twice as many with each tube. False from `take` ends
    /// it, and is what comes back.
    template <typename Take>
    bool each_rear(const Take& take) const {
        for (int converter = -1; converter < static_cast<int>(kit_.teleconverters.size()); ++converter) {
            RearPart part;
            if (converter >= 0) {
                const auto& gear = kit_.teleconverters[static_cast<std::size_t>(converter)];
                part.pieces.converter = static_cast<Index>(converter);
                part.cost = std::max(0.0, gear.optics.factor - 1) * optical_cost::converter_per_factor;
                part.count = 1;
                part.contacts = gear.contacts;
            }
            if (!with_tubes(part, 0, take)) return false;
        }
        return true;
    }

  private:
    const gear::Kit& kit_;
    const ReachWish& wish_;

    std::optional<optics::Converter> converter_of(const RearPart& part) const {
        return !part.pieces.converter ? std::nullopt
                                      : std::optional(kit_.teleconverters[*part.pieces.converter].optics);
    }

    void add_closeups(std::vector<FrontPart>& parts, const FrontPart& bare) const {
        constexpr double mm_per_metre = 1000;
        parts.push_back(bare);
        for (Index i = 0; i < count(kit_.closeup_lenses); ++i) {
            const auto with = [&](FrontPart part, Index place, Index closeup) {
                part.pieces.closeups[place] = closeup;
                part.train.closeup_power += kit_.closeup_lenses[closeup].power_dpt / mm_per_metre;
                part.cost += closeup_cost(kit_.closeup_lenses[closeup]);
                ++part.count;
                part.glass_in_front = true;
                return part;
            };
            const FrontPart one = with(bare, 0, i);
            parts.push_back(one);
            for (Index j = i + 1; j < count(kit_.closeup_lenses) && !wish_.simple; ++j)
                parts.push_back(with(one, 1, j));
        }
    }

    FrontPart reversed(FrontPart part, Index ring) const {
        part.pieces.reversing_ring = ring;
        part.train.facing = optics::Facing::reversed;
        part.train.reversing_ring = kit_.reversing_rings[ring].length;
        part.contacts = part.contacts && kit_.reversing_rings[ring].contacts;
        part.reversed = true;
        ++part.count;
        return part;
    }

    void add_coupled(std::vector<FrontPart>& parts, const FrontPart& bare) const {
        for (Index ring = 0; ring < count(kit_.coupling_rings); ++ring)
            for (Index other = 0; other < count(kit_.lenses); ++other)
                for (const PieceIndex zoom : zoom_steps(kit_.lenses[other])) {
                    if (other == bare.pieces.lens) continue;
                    FrontPart part = bare;
                    part.pieces.front_lens = other;
                    part.pieces.front_zoom = zoom;
                    part.pieces.coupling_ring = ring;
                    const auto optics = gear::optics_of(kit_.lenses[other], focal_length(kit_.lenses[other], zoom));
                    part.train.front_lens = optics::FrontLens{.lens = optics,
                                                              .f_number = optics.max_aperture,
                                                              .coupling = kit_.coupling_rings[ring].length,
                                                              .own_flange = optics.flange.value_or(bare.train.flange)};
                    part.cost += optical_cost::coupled;
                    part.count += 2;
                    part.glass_in_front = true;
                    parts.push_back(part);
                }
    }

    /// Every tube stays in the bag, or goes in front of the converter, or behind it.
    template <typename Take>
    bool with_tubes(const RearPart& part, Index tube, const Take& take) const {
        if (tube == count(kit_.tubes)) return with_bellows(part, take);
        if (!with_tubes(part, static_cast<Index>(tube + 1), take)) return false;
        const gear::Tube& gear = kit_.tubes[tube];
        RearPart with = part;
        with.contacts = part.contacts && gear.contacts;
        ++with.count;
        RearPart behind = with;
        with.tubes += gear.length;
        with.pieces.tubes |= std::uint64_t{1} << tube;
        if (!with_tubes(with, static_cast<Index>(tube + 1), take)) return false;
        // Behind a converter without length nothing can be computed: see docs/file-format.md.
        if (wish_.simple || !part.pieces.converter || !kit_.teleconverters[*part.pieces.converter].optics.has_length())
            return true;
        behind.rear_tubes += gear.length;
        behind.pieces.tubes_behind |= std::uint64_t{1} << tube;
        return with_tubes(behind, static_cast<Index>(tube + 1), take);
    }

    template <typename Take>
    bool with_bellows(const RearPart& part, const Take& take) const {
        RearPart made = part;
        made.matrix = optics::behind_extension(converter_of(part), part.tubes, part.rear_tubes);
        if (!take(made)) return false;
        ++made.count;
        for (Index i = 0; i < count(kit_.bellows); ++i) {
            made.pieces.bellows = i;
            made.least_extension = kit_.bellows[i].least;
            made.greatest_extension = kit_.bellows[i].greatest;
            made.contacts = part.contacts && kit_.bellows[i].contacts;
            if (!take(made)) return false;
        }
        return true;
    }
};

// ---- one combination ---------------------------------------------------------------------------------------------

/// A front and a rear part on a body. The matrix behind the lens is affine in the extension.
struct Pair {
    const gear::Kit& kit;
    const Body& body;
    const FrontPart& front;
    const RearPart& rear;

    optics::Train train(double extension) const {
        optics::Train made = front.train;
        made.tubes = rear.tubes + extension;
        made.rear_tubes = rear.rear_tubes;
        if (rear.pieces.converter) made.converter = kit.teleconverters[*rear.pieces.converter].optics;
        return made;
    }
};

/// The smallest ring position that gives the wanted magnification.
std::optional<double> ring_for(const FrontPart& front, const optics::RayMatrix& behind, double wanted) {
    for (const auto& stretch : front.stretches) {
        const auto polynomial = optics::excess(stretch, behind, wanted);
        // An end that gives it but for rounding counts, as it does in find_focus.
        const double rounding = 1e-12 * std::max(1e-6, wanted) * stretch.focal_length[0];
        if (std::abs(polynomial[0]) <= rounding) return stretch.from;
        if (const auto roots = optics::unit_roots(polynomial); roots.count > 0) return stretch.ring(roots.at[0]);
        if (std::abs(optics::value_of(polynomial, 1)) <= rounding) return stretch.to;
    }
    return std::nullopt;
}

struct Setting {
    double ring = 0;
    double extension = 0;
};

/// Bellows: with the ring at infinity where they reach it alone; else at the nearer end and the ring turned. All that a
/// pair can reach is reached so, the magnification being monotonic in the extension.
std::optional<Setting> setting_for(const FrontPart& front, const RearPart& rear, const optics::RayMatrix& behind,
                                   double wanted) {
    if (!rear.pieces.bellows) {
        const auto ring = ring_for(front, behind, wanted);
        return ring ? std::optional(Setting{.ring = *ring}) : std::nullopt;
    }
    const auto with = [&](double extension) { return behind * optics::gap(extension); };
    const auto& stretch = front.stretches.front();
    const double at_none = optics::value_of(optics::excess(stretch, behind, wanted), 0);
    const double by_each = optics::value_of(optics::excess(stretch, with(1), wanted), 0) - at_none;
    if (by_each == 0) return std::nullopt;
    const double extension = -at_none / by_each;
    const double possible = std::clamp(extension, rear.least_extension, rear.greatest_extension);
    if (possible == extension) return Setting{.ring = 0, .extension = extension};
    const auto ring = ring_for(front, with(possible), wanted);
    return ring ? std::optional(Setting{.ring = *ring, .extension = possible}) : std::nullopt;
}

ReachFound assemble(const Pair& pair, const Setting& setting, const optics::FocusedTrain& at, double f_number) {
    ReachFound found = pair.front.pieces;
    found.camera = pair.body.camera;
    found.crop_mode = pair.body.crop_mode;
    found.converter = pair.rear.pieces.converter;
    found.bellows = pair.rear.pieces.bellows;
    found.tubes = pair.rear.pieces.tubes;
    found.tubes_behind = pair.rear.pieces.tubes_behind;
    found.extension = static_cast<float>(setting.extension);
    found.ring = at.ring;
    found.magnification = at.magnification;
    found.working_distance = at.working_distance.value_or(std::numeric_limits<double>::infinity());
    found.loss = optics::exposure_loss(at, f_number);
    found.length = at.front - pair.body.flange;
    found.optical_cost = pair.front.cost + pair.rear.cost;
    found.pieces = pair.front.count + pair.rear.count;
    found.autofocus = pair.front.contacts && pair.rear.contacts && pair.front.autofocus;
    return found;
}

bool within(const ReachFound& found, const ReachWish& wish, bool glass_in_front, ReachLeftOut& out) {
    if (!(found.working_distance > 0)) return ++out.inside, false;
    if (found.working_distance < wish.least_working_distance) return ++out.too_near, false;
    if (wish.most_loss && found.loss > *wish.most_loss + 1e-9) return ++out.too_dark, false;
    if (wish.autofocus && !found.autofocus) return ++out.without_autofocus, false;
    if (wish.infinity && !found.infinity) return ++out.without_infinity, false;
    if (wish.no_glass_in_front && glass_in_front) return ++out.glass_in_front, false;
    return true;
}

void mark_best_trades(std::vector<ReachFound>& found) {
    double least_loss = std::numeric_limits<double>::infinity();
    double distance = std::numeric_limits<double>::infinity();
    for (ReachFound& one : found) {  // sorted by falling working distance, then rising loss
        one.best_trade = one.loss < least_loss || (one.loss == least_loss && one.working_distance == distance);
        if (one.loss < least_loss) {
            least_loss = one.loss;
            distance = one.working_distance;
        }
    }
}

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

/// The largest magnification of one pair with the subject in front of it: at an end or turn of the ring with the
/// bellows racked out, or where the front comes to touch the subject.
class Greatest {
  public:
    Greatest(const Pair& pair, double f_number, std::optional<ReachFound>& best)
        : pair_(pair), f_number_(f_number), best_(best) {}

    void look() {
        look_over_ring(pair_.rear.greatest_extension);
        if (!pair_.rear.pieces.bellows) return;
        for (const auto* end : {&pair_.front.stretches.front(), &pair_.front.stretches.back()}) {
            const double t = end == &pair_.front.stretches.front() ? 0 : 1;
            if (const auto extension = extension_at_touch(*end, t)) look_at(end->ring(t), *extension);
        }
    }

  private:
    const Pair& pair_;
    double f_number_;
    std::optional<ReachFound>& best_;

    optics::RayMatrix behind(double extension) const {
        return pair_.rear.matrix * optics::gap(pair_.front.to_mount + extension);
    }

    void look_over_ring(double extension) {
        for (const auto& stretch : pair_.front.stretches) {
            // Greater than the best so far nowhere on this stretch, ends and turns included.
            if (best_) {
                const auto more = optics::excess(stretch, behind(extension), best_->magnification);
                if (optics::has_one_sign(more) && more[0] < 0) continue;
            }
            look_at(stretch.from, extension);
            look_at(stretch.to, extension);
            const auto train = pair_.train(extension);
            look_at(optics::find_focus(train, optics::magnification_range(train).greatest).ring, extension);
            for (const double t : optics::unit_roots(height_at_touch(stretch, behind(extension))))
                for (const double beside : {t - 1e-9, t + 1e-9})
                    look_at(stretch.ring(std::clamp(beside, 0.0, 1.0)), extension);
        }
    }

    /// The matrix entry b, times the focal length: 0 where the subject touches the front.
    static optics::Quartic height_at_touch(const optics::RingStretch& stretch, const optics::RayMatrix& behind) {
        optics::Quartic b;
        for (std::size_t i = 0; i < b.size(); ++i) b[i] = behind.a * stretch.b[i] + behind.b * stretch.d[i];
        return b;
    }

    /// A hair less than the extension at which the subject touches the front; empty where the bellows do not go there.
    std::optional<double> extension_at_touch(const optics::RingStretch& stretch, double t) const {
        const double at_none = optics::value_of(height_at_touch(stretch, behind(0)), t);
        const double by_each = optics::value_of(height_at_touch(stretch, behind(1)), t) - at_none;
        const double extension = -at_none / by_each * (1 - 1e-9);
        const bool possible = extension >= pair_.rear.least_extension && extension <= pair_.rear.greatest_extension;
        return possible ? std::optional(extension) : std::nullopt;
    }

    void look_at(double ring, double extension) {
        const auto at = optics::focus_at_ring(pair_.train(extension), ring);
        if (!at.working_distance || !(*at.working_distance > 0)) return;
        if (best_ && at.magnification <= best_->magnification) return;
        best_ = assemble(pair_, {.ring = ring, .extension = extension}, at, f_number_);
    }
};

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

double measure_of(const ReachFound& one, ReachMeasure measure) {
    switch (measure) {
        case ReachMeasure::working_distance:
            return -one.working_distance;
        case ReachMeasure::loss:
            return one.loss;
        case ReachMeasure::pieces:
            return one.pieces;
        case ReachMeasure::optical_cost:
            break;
    }
    return one.optical_cost;
}

using MeasureOrder = std::array<ReachMeasure, 4>;

/// Those that are equal by all measures stand as the gear does, so that an order is always the same.
bool before(const ReachFound& a, const ReachFound& b, std::span<const ReachMeasure> order) {
    for (const ReachMeasure measure : order) {
        const double left = measure_of(a, measure), right = measure_of(b, measure);
        if (left != right) return left < right;
    }
    const auto pieces = [](const ReachFound& f) {
        return std::tie(f.camera, f.crop_mode, f.lens, f.zoom, f.reversing_ring, f.front_lens, f.front_zoom,
                        f.coupling_ring, f.closeups[0], f.closeups[1], f.converter, f.tubes, f.tubes_behind, f.bellows);
    };
    return pieces(a) < pieces(b);
}

/// See ReachKept.
class Keeper {
  public:
    explicit Keeper(const ReachKept& kept) : kept_(kept) {}

    void add(const ReachFound& found) {
        ++reached_;
        found_.push_back(found);
        if (found_.size() >= 2 * std::max<std::size_t>(kept_.all, 1)) thin_out();
    }
    ReachResult result() && {
        if (found_.size() > kept_.all) thin_out();
        rank(found_, {ReachMeasure::working_distance, ReachMeasure::loss});
        mark_best_trades(found_);
        return {.found = std::move(found_), .reached = reached_};
    }

  private:
    void thin_out() {
        // By working distance, what nothing beats in both is marked on the way.
        rank(found_, {ReachMeasure::working_distance, ReachMeasure::loss});
        mark_best_trades(found_);
        std::vector<bool> stays(found_.size());
        std::vector<std::size_t> places(found_.size());
        for (std::size_t i = 0; i < found_.size(); ++i) {
            stays[i] = found_[i].best_trade;
            places[i] = i;
        }
        const auto best = static_cast<std::ptrdiff_t>(std::min(kept_.best, places.size()));
        MeasureOrder order = {ReachMeasure::working_distance, ReachMeasure::loss, ReachMeasure::pieces,
                              ReachMeasure::optical_cost};
        do {
            std::ranges::nth_element(places, places.begin() + best,
                                     [&](std::size_t a, std::size_t b) { return before(found_[a], found_[b], order); });
            for (auto place = places.begin(); place != places.begin() + best; ++place) stays[*place] = true;
        } while (std::ranges::next_permutation(order).found);
        std::size_t to = 0;
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (stays[i]) found_[to++] = found_[i];
        found_.resize(to);
    }

    ReachKept kept_;
    std::vector<ReachFound> found_;
    std::size_t reached_ = 0;
};

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
    Keeper keeper(kept);
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

std::vector<std::string> mounting_order(const gear::Kit& kit, const shoot::Rig& rig) {
    std::vector<std::string> names;
    const auto add = [&](const auto& list, const std::string& id) { names.push_back(gear::find_gear(list, id)->name); };
    add(kit.cameras, rig.camera);
    if (rig.crop_mode) names.back() += ", " + *rig.crop_mode;
    for (const auto& id : rig.tubes_behind_converter) add(kit.tubes, id);
    if (rig.teleconverter) add(kit.teleconverters, *rig.teleconverter);
    for (const auto& id : rig.tubes) add(kit.tubes, id);
    if (rig.bellows) {
        add(kit.bellows, rig.bellows->bellows);
        names.back() += " at " + text::length_text(rig.bellows->extension);
    }
    if (rig.reversing_ring) add(kit.reversing_rings, *rig.reversing_ring);
    const gear::Lens& lens = *find_gear(kit.lenses, rig.lens);
    add(kit.lenses, rig.lens);
    if (!lens.calibrations.empty()) names.back() += " (measured)";
    if (const auto position = gear::zoom_position(lens, rig.focal_length))
        names.back() += " at " + text::length_text(*position);
    if (rig.reversing_ring) names.back() += " reversed";
    for (const auto& id : rig.closeup_lenses) add(kit.closeup_lenses, id);
    if (const auto& front = rig.front_lens) {
        if (front->coupling_ring) add(kit.coupling_rings, *front->coupling_ring);
        add(kit.lenses, front->lens);
        names.back() += " reversed";
    }
    return names;
}

std::string pieces_text(const gear::Kit& kit, const shoot::Rig& rig) {
    auto names = mounting_order(kit, rig);
    names.erase(names.begin());
    return fmt::format("{}", fmt::join(names, " + "));
}

std::string cost_text(const gear::Kit& kit, const ReachFound& found) {
    std::vector<std::string> reasons;
    for (const PieceIndex closeup : found.closeups) {
        if (!closeup) continue;
        const double cost = closeup_cost(kit.closeup_lenses[*closeup]);
        if (cost > 0)
            reasons.push_back(fmt::format("{} is of one element and softens the corners{}",
                                          kit.closeup_lenses[*closeup].name,
                                          cost > optical_cost::single_element ? " badly" : ""));
    }
    if (found.converter)
        reasons.push_back(fmt::format("{} enlarges the lens's faults", kit.teleconverters[*found.converter].name));
    if (found.front_lens) reasons.emplace_back("coupled lenses darken the corners");
    return reasons.empty() ? "Plain extension and achromats keep the lens's quality."
                           : fmt::format("{}.", fmt::join(reasons, "; "));
}

std::string space_text(const gear::Kit& kit, const ReachWish& wish) {
    std::string text = fmt::format(
        "Tried: every {}lens{}, with every set of tubes, on either side of a converter; {}up to two close-up lenses in "
        "front. ",
        wish.only_camera ? "" : "camera and ", kit.reversing_rings.empty() ? "" : " forwards and reversed",
        kit.bellows.empty() ? "" : "each bellows or helicoid; ");
    if (!kit.coupling_rings.empty())
        text += "Coupled: every two lenses, the front one wide open at infinity, without close-up lenses. ";
    if (!kit.bellows.empty())
        text += "Bellows: the lens's ring at infinity where the extension does it alone, else at the nearer end. ";
    if (std::ranges::any_of(kit.lenses, [](const gear::Lens& lens) { return !lens.zoom.empty(); }))
        text += "Zooms: at the focal lengths of their record. ";
    text += "Not tried: three close-up lenses or more, two converters, two bellows";
    if (kit.reversing_rings.empty()) text += ", reversed lenses (no reversing ring in the kit)";
    if (kit.coupling_rings.empty()) text += ", coupled lenses (no coupling ring in the kit)";
    if (!wish.crop_modes || !wish.field_width) text += ", crop modes";
    return text + ".";
}

std::string left_out_text(const ReachLeftOut& out) {
    std::vector<std::string> parts;
    const auto add = [&](std::size_t number, const char* why) {
        if (number > 0) parts.push_back(fmt::format("{} {}", number, why));
    };
    add(out.out_of_reach, "do not give this size");
    add(out.inside, "would focus inside the rig");
    add(out.too_near, "come too near");
    add(out.too_dark, "lose too much light");
    add(out.without_autofocus, "have no autofocus");
    add(out.without_infinity, "lose infinity");
    add(out.glass_in_front, "put glass in front");
    return parts.empty() ? std::string() : fmt::format("{}.", fmt::join(parts, ", "));
}

std::optional<shoot::Rig> find_rig(const gear::Kit& kit, const shoot::Rig& now, const WantedReach& wanted) {
    // By stages, each with less gear than the next would look at: the shot's own lens, the others, reversed ones.
    gear::Kit stage = kit;
    stage.reversing_rings.clear();
    std::erase_if(stage.lenses, [&](const gear::Lens& lens) { return lens.id != now.lens; });
    if (auto rig = simplest_rig(stage, now, wanted)) return rig;
    stage.lenses = kit.lenses;
    if (auto rig = simplest_rig(stage, now, wanted)) return rig;
    stage.reversing_rings = kit.reversing_rings;
    return stage.reversing_rings.empty() ? std::nullopt : simplest_rig(stage, now, wanted);
}

}  // namespace poquito::search
