#include "search/missing.hpp"

#include "sold.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <string>
#include <utility>

namespace poquito::search {
namespace {

/// A piece of the catalogue under an id that the bag has for nothing else, said not to be owned.
template <class Piece>
std::string put_into(std::vector<Piece>& pieces, Piece piece) {
    const auto taken = [&](const std::string& id) { return gear::find_gear(pieces, id) != nullptr; };
    const std::string plain = piece.id;
    for (int i = 2; taken(piece.id); ++i) piece.id = fmt::format("{}-{}", plain, i);
    piece.name += " (to get)";
    pieces.push_back(std::move(piece));
    return pieces.back().id;
}

class Lacking {
  public:
    Lacking(const plan::Plan& plan, double magnification) : plan_(plan), magnification_(magnification) {}

    std::optional<Missing> tubes(bool contacts) const {
        std::vector<gear::Tube> all = sold_tubes();
        std::erase_if(all, [&](const gear::Tube& tube) { return tube.contacts != contacts; });
        std::vector<std::vector<gear::Tube>> sets;
        for (std::size_t i = 0; i < all.size(); ++i) {
            sets.push_back({all[i]});
            for (std::size_t j = i + 1; j < all.size(); ++j) sets.push_back({all[i], all[j]});
        }
        // One piece before two, the shorter before the longer.
        const auto length = [](const std::vector<gear::Tube>& set) {
            double sum = 0;
            for (const auto& tube : set) sum += tube.length;
            return sum;
        };
        std::ranges::stable_sort(sets, [&](const auto& a, const auto& b) {
            return a.size() != b.size() ? a.size() < b.size() : length(a) < length(b);
        });
        for (const auto& set : sets) {
            Missing with = nothing();
            for (const auto& tube : set) with.rig.tubes.push_back(put_into(with.kit.tubes, tube));
            with.name = set.size() == 1 ? set[0].name : set[0].name + " + " + set[1].name;
            if (reaches(with)) return with;
        }
        return std::nullopt;
    }

    std::optional<Missing> closeup_lens(bool achromat) const {
        if (plan_.shot.rig.reversing_ring || plan_.shot.rig.front_lens) return std::nullopt;  // no thread in front
        std::vector<gear::CloseupLens> all = sold_closeup_lenses();
        std::erase_if(all, [&](const gear::CloseupLens& lens) { return lens.achromat != achromat; });
        std::ranges::stable_sort(all, {}, &gear::CloseupLens::power_dpt);
        for (const auto& lens : all) {
            Missing with = nothing();
            with.rig.closeup_lenses.push_back(put_into(with.kit.closeup_lenses, lens));
            with.name = lens.name;
            if (reaches(with)) return with;
        }
        return std::nullopt;
    }

  private:
    Missing nothing() const {
        Missing with{.name = {}, .kit = plan_.kit, .rig = plan_.shot.rig};
        with.rig.focus = {.by = shoot::FocusBy::magnification, .value = magnification_};
        return with;
    }

    bool reaches(const Missing& with) const {
        shoot::Shot shot = plan_.shot;
        shot.rig = with.rig;
        const auto then = plan::plan_of(with.kit, shot, plan_.terms);
        return then.found.reached && then.at.working_distance && *then.at.working_distance > 0;
    }

    const plan::Plan& plan_;
    double magnification_;
};

}  // namespace

std::vector<Missing> what_would_reach(const plan::Plan& plan, double magnification) {
    const Lacking lacking(plan, magnification);
    std::vector<Missing> ways;
    const auto take = [&](std::optional<Missing> way) {
        if (way) ways.push_back(std::move(*way));
        return way.has_value();
    };
    if (!take(lacking.tubes(true))) take(lacking.tubes(false));
    if (!take(lacking.closeup_lens(true))) take(lacking.closeup_lens(false));
    return ways;
}

}  // namespace poquito::search
