#pragma once

#include "shoot/shoot.hpp"

#include <filesystem>
#include <optional>
#include <vector>

namespace poquito::devices {

/// mm along a rail from where the planned plane is in focus, towards the subject.
struct RailWay {
    double from = 0;
    double to = 0;

    /// mm from the home switch where the carriage stands when the planned plane is in focus: the set-up is made there,
    /// so that the whole way lies in the middle of the rail.
    double reference(double travel) const { return travel / 2 - (from + to) / 2; }
};

/// What has to stand on the bench. Kit and shot outlive it.
struct BenchSetup {
    const gear::Kit& kit;
    const shoot::Shot& shot;
    std::filesystem::path folder;  // where the camera puts its frames
    std::vector<double> powers;    // of the flashes, fractions of full
    std::optional<RailWay> way;    // empty: without a rail
};

}  // namespace poquito::devices
