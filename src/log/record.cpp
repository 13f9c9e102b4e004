#include "log/record.hpp"

#include "gear/rows.hpp"
#include "proof/cut_picture.hpp"
#include "shoot/change/kit_edit.hpp"
#include "shoot/form/form.hpp"
#include "storage/frame_file.hpp"
#include "storage/shoot_file.hpp"
#include "text/local_time.hpp"
#include "text/stored_path.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <boost/crc.hpp>

#include <algorithm>
#include <cstdint>
#include <filesystem>
#include <map>
#include <system_error>
#include <utility>

namespace poquito::log {
namespace {

/// The same for the same text with every library and on every machine: CRC-64 of ECMA-182, as archives use it.
std::uint64_t checksum(const std::string& text) {
    boost::crc_optimal<64, 0x42F0E1EBA9EA3693, 0xFFFFFFFFFFFFFFFF, 0xFFFFFFFFFFFFFFFF, true, true> sum;
    sum.process_bytes(text.data(), text.size());
    return sum.checksum();
}

using shoot::Shot;

std::string light_of(const Shot& shot) {
    const bool flash = std::ranges::any_of(
        shot.lights, [](const shoot::Light& light) { return !light.off && !light.reflector && !light.lamp; });
    const bool lamp =
        std::ranges::any_of(shot.lights, [](const shoot::Light& light) { return !light.off && light.lamp; });
    std::string text;
    const auto add = [&](const char* one) { text += fmt::format("{}{}", text.empty() ? "" : " and ", one); };
    if (flash) add("flash");
    if (lamp) add("lamp");
    if (shot.ambient && !flash)
        add(shot.ambient->kind == shoot::AmbientKind::window ? "window"
            : shot.ambient->kind == shoot::AmbientKind::sky  ? "sky"
                                                             : "room light");
    return text;
}

std::string support_of(const shoot::Shoot& shoot, const Shot& shot) {
    if (shot.rig.support == shoot::Support::hand || shot.capture.mover == shoot::Mover::hand) return "hand";
    if (shot.rig.stand)
        if (const auto* stand = gear::find_gear(shoot.kit.stands, *shot.rig.stand)) return stand->name;
    return shot.rig.support == shoot::Support::unstated ? "" : "tripod";
}

std::string wind_of(const Shot& shot) {
    const auto& subject = shot.subject;
    if (subject.sway_amplitude <= 0) return {};
    auto words = fmt::format("swings {}", text::length_text(subject.sway_amplitude));
    const auto& tries = shoot::tries_of(shot);
    if (tries.calm > 0) words += fmt::format(", calm {:.0f} % of the time", tries.calm * 100);
    return words;
}

/// From frame to frame on an average; empty: too few, or no times.
std::optional<double> cadence_of(const std::vector<shoot::ExposedFrame>& frames) {
    if (frames.size() < 2) return std::nullopt;
    const auto first = text::seconds_of(frames.front().time), last = text::seconds_of(frames.back().time);
    if (!first || !last) return std::nullopt;
    const double all = *last - *first;
    return all > 0 ? std::optional(all / static_cast<double>(frames.size() - 1)) : std::nullopt;
}

/// The median; empty: of nothing.
std::optional<double> middle_of(std::vector<double> values) {
    if (values.empty()) return std::nullopt;
    const auto half = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, half);
    return *half;
}

/// Power of the first flash and how many frames it kept up with.
void add_flash(Entry& entry, const Shot& shot, const shoot::RunRecord& run) {
    const auto flash =
        std::ranges::find_if(shot.lights, [](const auto& one) { return !one.off && !one.reflector && !one.lamp; });
    if (flash == shot.lights.end()) return;
    entry.power = flash->power;
    constexpr double whole = 0.9;  // of its light: a sixth of a stop is not seen from frame to frame (common practice)
    const auto weak = std::ranges::find_if(run.frames, [](const auto& frame) { return frame.flash < whole; });
    entry.held = static_cast<int>(weak - run.frames.begin());
}

/// That shot alone with the gear that it uses.
std::string plan_of(const shoot::Shoot& shoot, const Shot& shot) {
    shoot::Shoot alone;
    alone.title = shoot.title;
    alone.site = shoot.site;
    alone.kit = shoot.kit;
    Shot own = shot;
    own.follows.reset();  // the other one is not there
    own.timing.after.clear();
    own.deliveries.clear();
    alone.shots = shoot::Shots();
    alone.shots.push_back(std::move(own));
    for (const auto& kind : gear::gear_kinds())
        for (std::size_t i = kind.count(alone.kit); i-- > 0;)
            if (shoot::users_of(alone, kind, kind.id(alone.kit, i)).empty()) kind.remove(alone.kit, i);
    return storage::write_shoot(alone);
}

}  // namespace

std::string approach_of(const Shot& shot) {
    if (shot.capture.mode == shoot::CaptureMode::single)
        return shot.rig.support == shoot::Support::hand ? "single frames by hand" : "one frame";
    switch (shot.capture.mover) {
        case shoot::Mover::ring:
            return "stack by ring";
        case shoot::Mover::rail:
            return "stack by rail";
        case shoot::Mover::hand:
            break;
    }
    return "bursts by hand";
}

Entry entry_for(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class) {
    Entry entry;
    entry.shoot = shoot.title;
    entry.shot = shot.id;
    entry.name = shot.name;
    entry.subject_class = subject_class;
    if (subject_class.empty())
        for (const auto& form : shoot::forms())
            if (form.form == shot.subject.form) entry.subject_class = form.name;
    entry.words = shot.words.empty() && shot.view ? shot.view->thing : shot.words;
    entry.place = shoot.site.name;
    entry.wind = wind_of(shot);
    entry.light = light_of(shot);
    entry.support = support_of(shoot, shot);
    entry.camera = shoot::camera_of(shoot.kit, shot).name;
    entry.lens = shoot::lens_of(shoot.kit, shot).name;
    for (const auto& light : shot.lights) {
        if (light.off || light.reflector) continue;
        entry.unit = light.lamp ? shoot::lamp_of(shoot.kit, light).name : shoot::flash_of(shoot.kit, light).name;
        if (const auto* modifier = shoot::modifier_of(shoot.kit, light)) entry.modifier = modifier->name;
        break;
    }
    entry.approach = approach_of(shot);
    entry.planned_f_number = shot.exposure.f_number;
    if (shot.rig.focus.by == shoot::FocusBy::magnification) entry.magnification = shot.rig.focus.value;
    entry.plan = plan_of(shoot, shot);
    return entry;
}

Entry run_entry(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class,
                const shoot::RunRecord& run) {
    auto entry = entry_for(shoot, shot, subject_class);
    entry.kind = Kind::run;
    entry.uid = fmt::format("run:{}", run.id);
    entry.time = run.time;
    entry.remark = run.remark;
    entry.frames = static_cast<int>(run.frames.size());
    entry.what = run.end == shoot::RunEnd::complete ? "" : run.end == shoot::RunEnd::stopped ? "stopped" : "broken off";
    if (!run.frames.empty()) entry.f_number = run.frames.front().f_number;
    if (shoot::is_test_run(run.id)) return entry;
    entry.cadence = cadence_of(run.frames);
    if (entry.cadence) entry.minutes = *entry.cadence * static_cast<double>(run.frames.size()) / 60;
    entry.value = static_cast<double>(run.frames.size()), entry.planned = run.planned;
    add_flash(entry, shot, run);
    for (const auto& frame : run.frames)
        entry.exposed.push_back({.index = frame.index,
                                 .file = text::StoredPath(shoot::file_of(run, frame)),
                                 .plane = frame.plane,
                                 .f_number = frame.f_number,
                                 .shutter = frame.shutter,
                                 .iso = frame.iso,
                                 .time = frame.time,
                                 .picture = {}});
    return entry;
}

Entry proof_entry(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class,
                  const shoot::ProofEntry& proof) {
    auto entry = entry_for(shoot, shot, subject_class);
    entry.kind = Kind::proof;
    entry.uid = fmt::format("proof:{}:{}:{}", shoot.title, shot.id, proof.time);
    entry.time = proof.time;
    entry.frames = proof.frames;
    entry.verdict = proof.verdict == shoot::Verdict::keep ? "keep" : "redo";
    entry.f_number = shot.exposure.f_number;
    entry.remark = proof.remark;
    return entry;
}

Entry count_entry(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class, int kept, int tried,
                  const std::string& time) {
    auto entry = entry_for(shoot, shot, subject_class);
    entry.kind = Kind::count;
    entry.uid = fmt::format("count:{}:{}:{}", shoot.title, shot.id, time);
    entry.time = time;
    entry.kept = kept, entry.tried = tried;
    return entry;
}

Entry correction_entry(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class, std::size_t light,
                       double stops, const std::string& time) {
    auto entry = entry_for(shoot, shot, subject_class);
    entry.kind = Kind::correction;
    entry.uid = fmt::format("correction:{}:{}:{}:{}", shoot.title, shot.id, light, time);
    entry.time = time;
    entry.stops = stops;
    entry.unit.clear(), entry.modifier.clear();
    if (light < shot.lights.size()) {
        const auto& source = shot.lights[light];
        if (!source.reflector)
            entry.unit = source.lamp ? shoot::lamp_of(shoot.kit, source).name : shoot::flash_of(shoot.kit, source).name;
        if (const auto* modifier = shoot::modifier_of(shoot.kit, source)) entry.modifier = modifier->name;
    }
    return entry;
}

Entry inspection_entry(const shoot::Shoot& shoot, const Shot& shot, const std::string& subject_class,
                       const proof::Inspection& inspection, const std::string& time) {
    auto entry = entry_for(shoot, shot, subject_class);
    entry.kind = Kind::inspection;
    entry.time = time;
    entry.frames = static_cast<int>(inspection.frames.size());
    entry.verdict = proof::verdict_text(inspection.verdict);
    entry.f_number = shot.exposure.f_number;
    std::map<proof::Code, int> causes;
    const auto count = [&](const std::vector<proof::Finding>& findings) {
        for (const auto& finding : findings)
            if (finding.level != proof::Level::info) ++causes[finding.code];
    };
    std::vector<double> stops, scales, off;
    std::string files;
    for (const auto& frame : inspection.frames) {
        count(frame.findings);
        if (frame.over_plan) stops.push_back(*frame.over_plan);
        if (frame.scale) scales.push_back(*frame.scale);
        if (frame.off_right && frame.off_down) off.push_back(std::hypot(*frame.off_right, *frame.off_down));
        files += frame.file.string();
    }
    if (const auto& stack = inspection.stack) {
        count(stack->findings);
        if (stack->seen_depth && stack->planned_depth) {
            entry.what = "depth";
            entry.value = stack->seen_depth, entry.planned = stack->planned_depth;
        }
    }
    for (const auto& [code, often] : causes)
        entry.causes += fmt::format("{}{} {}", entry.causes.empty() ? "" : ", ", proof::code_text(code), often);
    entry.stops = middle_of(std::move(stops));
    entry.scale = middle_of(std::move(scales));
    entry.off = middle_of(std::move(off));
    entry.uid = fmt::format("inspection:{}:{}:{:x}", shoot.title, shot.id, checksum(files));
    return entry;
}

void add_thumbnails(Entry& entry) {
    constexpr std::size_t most = 12;
    const std::size_t all = entry.exposed.size(), shown = std::min(most, all);
    for (std::size_t k = 0; k < shown; ++k) {
        auto& frame = entry.exposed[shown > 1 ? k * (all - 1) / (shown - 1) : 0];
        const auto file = frame.file.path();
        std::error_code failed;
        if (!std::filesystem::is_regular_file(file, failed)) continue;
        constexpr double across = 120;  // px
        const auto small = proof::cut_picture({{.file = file}}, across);
        if (!small) continue;
        auto bytes = storage::picture_file(*small);
        if (bytes) frame.picture = std::move(*bytes);
    }
}

}  // namespace poquito::log
