#pragma once

#include "job/locks.hpp"
#include "log/entry.hpp"
#include "shoot/shoot.hpp"

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

/// A series that is to look the same for months: its sessions as they were logged, against the first of them.
namespace poquito::log {

/// One session, a day of it. Stops, ratios, shares of the frame's width; empty: was not measured, or not planned.
struct Session {
    std::string time;
    std::int64_t entry = 0;                 // that it is by
    std::optional<double> exposure;         // how light the frames came out, over the first session's
    std::optional<double> scale;            // size that it was taken at, over the first session's
    std::optional<double> framing;          // that the subject lies off its place
    std::optional<double> light;            // that the lights give, over the first session's
    bool measured = false;                  // exposure, scale and framing by the frames, not by the plan alone
    std::vector<job::Deviation> otherwise;  // of the plan, in what is locked
};

/// What of it has drifted, for people; and by how much it may: a fifth of a stop, two hundredths in size and in place
/// (common practice).
inline constexpr double exposure_may = 0.2, scale_may = 0.02, framing_may = 0.02;
struct Drift {
    std::string text;
    std::string since;  // day of the first session that is off
};

struct Protocol {
    std::string name;
    std::vector<shoot::Lock> locks;
    std::vector<Session> sessions;  // oldest first; the first is what the others are held against
    std::vector<Drift> drifts;
    std::vector<std::string> settings;  // of the first, a line each: camera, framing, stop, lights, ground
};

/// Of a shot of this shoot: entries of shots with its name, whole, with their plans, in any order. Nothing is locked:
/// all is compared. Without sessions where no entry has a plan that can be read.
Protocol protocol_of(const shoot::Shoot& shoot, std::size_t shot, const std::vector<Entry>& entries);

}  // namespace poquito::log
