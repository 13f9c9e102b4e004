#pragma once

#include "shoot/shoot.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace poquito::proof {

/// The frames of a shot as its runs left them.
struct Taken {
    std::vector<std::filesystem::path> files;  // nearest first, or as they were taken
    std::vector<double> planes;                // of each, mm behind the nearest point; empty: all in one place
    std::string run;                           // id of the run they are of
};

/// Of the newest run, with what was taken again since then in the place of what was there, a quarter of a step apart or
/// less. Test frames are not counted. No files: it was not run.
Taken taken_frames(const std::vector<shoot::CopyOnWrite<shoot::RunRecord>>& runs);

}  // namespace poquito::proof
