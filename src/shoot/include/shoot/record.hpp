#pragma once

#include "text/stored_path.hpp"

#include <filesystem>
#include <string>
#include <vector>

/// What happened: the verdicts on the frames of a shot, and the runs as they were really exposed.
namespace poquito::shoot {

/// What was shot, and the judgement on it.
enum class Verdict { keep, redo };
struct ProofEntry {
    std::string time;  // local time, ISO 8601
    int frames = 1;
    double correction = 0;  // stops the next exposure should differ; positive: brighter
    Verdict verdict = Verdict::keep;
    std::string remark;
    std::string unknown;

    bool operator==(const ProofEntry&) const = default;
};

/// One frame as it was really exposed.
struct ExposedFrame {
    int index = 0;        // in the planned order, from 0
    std::string file;     // its name in the run's folder
    double plane = 0;     // mm behind the subject's nearest point where it was focused
    double f_number = 8;  // marked
    double shutter = 1.0 / 125;
    double iso = 100;
    double flash = 1;    // share of the flash light it should have had, the least of all flashes
    std::string time;    // local time, ISO 8601
    std::string remark;  // what was odd about it; empty: nothing
    std::string unknown;

    bool operator==(const ExposedFrame&) const = default;
};

/// Runs of a shot's first, middle and last frame alone, and of what was to be taken again, are called so by their ids.
inline constexpr const char *test_run_end = "-test", *retake_run_end = "-retake";
inline bool is_test_run(const std::string& id) { return id.ends_with(test_run_end); }
inline bool is_retake_run(const std::string& id) { return id.ends_with(retake_run_end); }

/// What happened at the bench: an exact record, also of a run that broke off.
enum class RunEnd { complete, stopped, broken };
struct RunRecord {
    std::string id;           // of its journal
    std::string time;         // when it began, local time, ISO 8601
    text::StoredPath folder;  // where the frames lie
    int planned = 0;          // frames
    RunEnd end = RunEnd::complete;
    std::string remark;
    std::vector<ExposedFrame> frames;  // in the order they were taken
    std::string unknown;

    bool operator==(const RunRecord&) const = default;
};

/// Where a frame of a run lies.
inline std::filesystem::path file_of(const RunRecord& run, const ExposedFrame& frame) {
    return run.folder.path() / text::StoredPath::of_text(frame.file).path();
}

}  // namespace poquito::shoot
