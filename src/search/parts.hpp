#pragma once

#include "optics/chain.hpp"
#include "search/reach_search.hpp"

#include <algorithm>
#include <array>
#include <cstdint>
#include <optional>
#include <vector>

/// The parts that a search combines: bodies, what is mounted before the lens with it, what stands behind it.
namespace poquito::search {

using Index = std::uint16_t;  // into a list of the kit

template <typename Gear>
Index count(const std::vector<Gear>& list) {
    return static_cast<Index>(list.size());
}

/// A lens with everything in front of it, at every position of its ring.
struct FrontPart {
    ReachFound pieces;    // lens, zoom, reversing ring, front lens, close-up lenses
    optics::Train train;  // without extension and converter
    std::vector<optics::RingStretch> stretches;
    double to_mount = 0;
    double cost = 0;
    int count = 1;
    double hood = 0;  // mm that it stands before the front rim
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

inline std::vector<PieceIndex> zoom_steps(const gear::Lens& lens) {
    std::vector<PieceIndex> steps;
    for (Index i = 0; i < count(lens.zoom); ++i) steps.emplace_back(i);
    if (steps.empty()) steps.emplace_back();
    return steps;
}

inline std::optional<double> focal_length(const gear::Lens& lens, PieceIndex zoom) {
    return zoom ? std::optional(lens.zoom[*zoom].focal_length) : std::nullopt;
}

inline double closeup_cost(const gear::CloseupLens& closeup) {
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
                found.push_back({.camera = i,
                                 .crop_mode = mode,
                                 .flange = camera.flange,
                                 .wanted = wish_.field_width
                                               ? (wish_.upright ? sensor.height : sensor.width) / *wish_.field_width
                                               : wish_.magnification});
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
                bare.hood = lens.hood_length.value_or(0);
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
        part.hood = 0;
        ++part.count;
        return part;
    }

    void add_coupled(std::vector<FrontPart>& parts, const FrontPart& bare) const {
        for (Index ring = 0; ring < count(kit_.coupling_rings); ++ring)
            for (Index other = 0; other < count(kit_.lenses); ++other)
                for (const PieceIndex zoom : zoom_steps(kit_.lenses[other])) {
                    if (other == bare.pieces.lens) continue;
                    FrontPart part = bare;
                    part.hood = 0;
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

}  // namespace poquito::search
