#include "proof/taken.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace poquito::proof {
namespace {

struct One {
    double plane = 0;
    std::filesystem::path file;
};

/// A frame that was taken twice counts as it was the last time.
std::vector<One> frames_of(const shoot::RunRecord& run) {
    std::map<int, One> by_index;
    for (const auto& frame : run.frames)
        by_index[frame.index] = {.plane = frame.plane, .file = shoot::file_of(run, frame)};
    std::vector<One> all;
    all.reserve(by_index.size());
    for (auto& [index, one] : by_index) all.push_back(std::move(one));
    return all;
}

}  // namespace

Taken taken_frames(const std::vector<shoot::CopyOnWrite<shoot::RunRecord>>& runs) {
    Taken taken;
    std::vector<One> frames;
    double step = 0;
    for (const auto& run : runs) {
        if (shoot::is_test_run(run->id) || run->frames.empty()) continue;
        auto these = frames_of(*run);
        if (!shoot::is_retake_run(run->id)) {
            frames = std::move(these);
            taken.run = run->id;
            step = frames.size() < 2
                       ? 0
                       : std::abs(frames.back().plane - frames.front().plane) / static_cast<double>(frames.size() - 1);
            continue;
        }
        for (auto& again : these) {
            const auto nearest =
                std::ranges::min_element(frames, {}, [&](const One& one) { return std::abs(one.plane - again.plane); });
            if (nearest != frames.end() && std::abs(nearest->plane - again.plane) <= step / 4)
                *nearest = std::move(again);
            else
                frames.push_back(std::move(again));
        }
    }
    if (step > 0) std::ranges::stable_sort(frames, {}, &One::plane);
    for (auto& one : frames) {
        taken.files.push_back(std::move(one.file));
        if (step > 0) taken.planes.push_back(one.plane);
    }
    return taken;
}

}  // namespace poquito::proof
