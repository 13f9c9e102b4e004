#pragma once

#include "text/stored_path.hpp"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

/// What the logbook keeps: one entry for each thing that happened, with where and with what. Times local, ISO 8601;
/// stops, minutes, mm.
namespace poquito::log {

enum class Kind {
    run,          // frames that were exposed
    proof,        // frames that were looked at, and what became of them
    count,        // tries at what is left to chance, and how many hit
    correction,   // how far a light was from what its record says
    calibration,  // what was measured of gear
    change,       // how long a change of the set took
    note,         // the photographer's own words
    inspection    // what the frames themselves showed
};
inline constexpr int kinds = 8;
const char* kind_text(Kind kind);  // in files: "run"
std::optional<Kind> kind_of(const std::string& text);

/// A frame as it was exposed.
struct LoggedFrame {
    int index = 0;
    text::StoredPath file;
    std::optional<double> plane;  // mm behind the subject's nearest point
    double f_number = 8;
    double shutter = 1.0 / 125;
    double iso = 100;
    std::string time;
    std::string picture;  // JPEG, a thumbnail; empty: none

    bool operator==(const LoggedFrame&) const = default;
};

/// Texts that are not known are empty, numbers that are not known are not there.
struct Entry {
    std::int64_t id = 0;  // in its book; 0: in none yet
    std::string uid;      // of what happened: entered once, whoever writes it, however often
    Kind kind = Kind::note;
    std::string time;
    std::string shoot;  // title
    std::string shot;   // id
    std::string name;   // of the shot
    std::string subject_class;
    std::string words;  // species, title, what else one would look for
    std::string place;
    std::string wind;     // "swings 3 mm", "calm a third of the time"; empty: nothing moves
    std::string light;    // "flash", "window", "sun", "flash and window"
    std::string support;  // "tripod", "hand"
    std::string camera;   // names of gear, as the kit had them
    std::string lens;
    std::string unit;  // flash or lamp, and its modifier
    std::string modifier;
    std::string approach;  // "one frame", "stack by rail", "bursts by hand"
    std::string verdict;   // "keep", "redo", "look"; empty: none
    std::string what;      // of a change or a calibration: "light", "steps"; of an inspection with `value`: "depth"
    std::string causes;    // what an inspection found, by the words of files and how often: "gap 2, shaken 1"
    std::optional<int> frames, kept, tried;
    std::optional<double> f_number;  // marked, that it was taken at
    std::optional<double> planned_f_number;
    std::optional<double> magnification;
    std::optional<double> stops;           // of a correction: brighter than the record says; of frames: than planned
    std::optional<double> minutes;         // that it took
    std::optional<double> value, planned;  // what was measured, and what it was planned as; of a run its frames
    std::optional<double> scale;           // that frames were really taken at, over the planned one
    std::optional<double> off;             // that the subject lies off its planned place, share of the frame's width
    std::optional<double> power;           // of the first flash, fraction of full
    std::optional<double> cadence;         // s from frame to frame
    std::optional<int> held;               // frames before its light first fell behind; of all where it never did
    std::string remark;
    std::vector<LoggedFrame> exposed;
    std::string plan;     // poquito-shoot, of that shot alone with its kit; empty: not kept
    std::string picture;  // JPEG, small; empty: none

    bool operator==(const Entry&) const = default;
};

}  // namespace poquito::log
