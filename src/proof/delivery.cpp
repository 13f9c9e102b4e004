#include "proof/delivery.hpp"

#include "proof/taken.hpp"
#include "shoot/change/view_set.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_reader.hpp"
#include "storage/safe_name.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <system_error>

namespace poquito::proof {
namespace fs = std::filesystem;

namespace {

/// The picture that a shot came to; empty, and why, where there is none.
struct Source {
    std::optional<fs::path> file;
    std::string why;
};

std::optional<fs::path> finished(const fs::path& folder, const std::string& id) {
    std::error_code failed;
    for (const auto& entry : fs::directory_iterator(folder / "finished", failed))
        if (entry.path().stem() == id && storage::may_be_frame(entry.path())) return entry.path();
    return std::nullopt;
}

Source source_of(const shoot::Shoot& shoot, const shoot::Shot& shot, const fs::path& folder) {
    if (auto file = finished(folder, shot.id)) return {.file = std::move(file), .why = {}};
    if (shot.capture.mode == shoot::CaptureMode::stack)
        return {.file = {},
                .why = fmt::format("{}: a stack; its combined picture is not in finished, as {}.tif or .jpg", shot.name,
                                   shot.id)};
    const auto taken = taken_frames(shoot::runs_of(shoot.runs, shot.id));
    std::error_code failed;
    if (taken.files.empty())
        return {.file = {}, .why = fmt::format("{}: not taken yet, and not in finished", shot.name)};
    if (!fs::exists(taken.files.back(), failed))
        return {.file = {}, .why = fmt::format("{}: {} is not there any more", shot.name, taken.files.back().string())};
    return {.file = taken.files.back(), .why = {}};
}

}  // namespace

DeliveryPlan delivery_plan(const shoot::Shoot& shoot, const job::AllAssessed& shots, const fs::path& folder) {
    DeliveryPlan plan;
    std::set<fs::path> names;
    const auto own_name = [&](const std::string& outlet, const std::string& name) {
        const auto begin = folder / storage::safe_name(outlet) / storage::safe_name(name);
        for (int i = 1;; ++i)
            if (auto path = fs::path(begin.string() + (i > 1 ? fmt::format("-{}", i) : "") + ".jpg");
                names.insert(path).second)
                return path;
    };
    for (const auto& outlet : shoot.outlets)
        for (const auto& thing : shoot::things_of(shoot))
            for (const auto& file : job::files_for(shoot, shots, outlet, thing)) {
                DeliveryJob made{.to = own_name(outlet.id, file.name),
                                 .parts = {},
                                 .most_long_px = file.most_long_px,
                                 .least_short_px = outlet.least_short_px};
                for (const auto& part : file.parts) {
                    auto source = source_of(shoot, shoot.shots[part.shot], folder);
                    if (!source.file) {
                        if (std::ranges::count(plan.missing, source.why) == 0)
                            plan.missing.push_back(std::move(source.why));
                        break;
                    }
                    made.parts.push_back({.file = std::move(*source.file),
                                          .left = part.left,
                                          .top = part.top,
                                          .width = part.width,
                                          .height = part.height});
                }
                if (made.parts.size() == file.parts.size()) plan.jobs.push_back(std::move(made));
            }
    return plan;
}

Delivered deliver(const DeliveryJob& job, IfThere there) {
    const auto name = job.to.filename().string();
    std::error_code failed;
    if (there == IfThere::keep && fs::exists(fs::symlink_status(job.to, failed)))
        return {.problem = fmt::format("{}: is there already, and stays as it is", name)};
    auto picture = cut_picture(job.parts, job.most_long_px);
    if (!picture) return {.problem = fmt::format("{}: {}", name, text::message(picture.error()))};
    const auto& made = *picture;
    const auto bytes = storage::picture_file(made);
    if (!bytes) return {.problem = fmt::format("{}: {}", name, text::message(bytes.error()))};
    fs::create_directories(job.to.parent_path(), failed);
    if (const auto written = storage::replace_file(job.to, *bytes); !written)
        return {.problem = text::message(written.error())};
    Delivered done{.width = made.width, .height = made.height, .problem = {}};
    const int shorter = std::min(made.width, made.height);
    if (job.least_short_px && shorter < *job.least_short_px - 0.5)
        done.problem = fmt::format("{}: written, but its shorter side has {} px where {:.0f} are wanted", name, shorter,
                                   *job.least_short_px);
    return done;
}

}  // namespace poquito::proof
