#include "advice/stations.hpp"

#include "advice/advice.hpp"

#include <algorithm>

namespace poquito::advice {

const char* station_name(Station station) {
    constexpr std::array names = {"Subject", "Reach", "Depth", "Light", "Run", "Proof"};
    return names[static_cast<std::size_t>(station)];
}

const char* status_name(Status status) {
    constexpr std::array names = {"settled", "doubtful", "open"};
    return names[static_cast<std::size_t>(status)];
}

Status status_of(const Assessment& assessment, Station station) {
    const shoot::Shot& shot = assessment.plan.shot;
    const auto speaks_against = [&](const Note& note) {
        return note.station == station && note.level != Level::info && note.concern != Concern::safety;
    };
    if (std::ranges::any_of(assessment.advice.notes, speaks_against)) return Status::doubtful;
    switch (station) {
        case Station::light:
            return assessment.report.light.front_total ? Status::settled : Status::open;
        case Station::run:
            return all_ticked(shot, assessment.advice.checklist) ? Status::settled : Status::open;
        case Station::proof:
            if (shot.proof.empty()) return Status::open;
            return shot.proof.back().verdict == shoot::Verdict::keep ? Status::settled : Status::doubtful;
        default:
            return Status::settled;
    }
}

Status status_of(const Assessment& assessment) {
    Status worst = Status::settled;
    for (const Station station : stations) {
        const auto at = status_of(assessment, station);
        if (at == Status::doubtful) return at;
        if (at == Status::open) worst = at;
    }
    return worst;
}

}  // namespace poquito::advice
