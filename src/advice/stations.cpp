#include "advice/stations.hpp"

#include "advice/advice.hpp"

#include <algorithm>

namespace poquito::advice {

const char* station_name(Station station) {
    constexpr std::array names = {"Subject", "Reach", "Depth", "Light", "Run", "Proof"};
    return names[static_cast<std::size_t>(station)];
}

const char* standing_name(Standing standing) {
    constexpr std::array names = {"settled", "doubtful", "open"};
    return names[static_cast<std::size_t>(standing)];
}

Standing standing(const Assessment& assessment, Station station) {
    const shoot::Shot& shot = assessment.plan.shot;
    const auto speaks_against = [&](const Note& note) {
        return note.station == station && note.level != Level::info && note.concern != Concern::safety;
    };
    if (std::ranges::any_of(assessment.advice.notes, speaks_against)) return Standing::doubtful;
    switch (station) {
        case Station::light:
            return assessment.report.light.front_total ? Standing::settled : Standing::open;
        case Station::run:
            return all_ticked(shot, assessment.advice.checklist) ? Standing::settled : Standing::open;
        case Station::proof:
            if (shot.proof.empty()) return Standing::open;
            return shot.proof.back().verdict == shoot::Verdict::keep ? Standing::settled : Standing::doubtful;
        default:
            return Standing::settled;
    }
}

Standing standing(const Assessment& assessment) {
    Standing worst = Standing::settled;
    for (const Station station : stations) {
        const auto at = standing(assessment, station);
        if (at == Standing::doubtful) return at;
        if (at == Standing::open) worst = at;
    }
    return worst;
}

}  // namespace poquito::advice
