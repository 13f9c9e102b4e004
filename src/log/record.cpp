#include "log/record.hpp"

#include "gear/rows.hpp"
#include "shoot/form.hpp"
#include "shoot/kit_edit.hpp"
#include "storage/shoot_file.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

namespace poquito::log {
namespace {

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

/// That shot alone with the gear that it uses.
std::string plan_of(const shoot::Shoot& shoot, const Shot& shot) {
    shoot::Shoot alone;
    alone.title = shoot.title;
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
    if (shot.view) entry.words = shot.view->thing;
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
    for (const auto& frame : run.frames)
        entry.exposed.push_back({.index = frame.index,
                                 .file = frame.file,
                                 .plane = frame.plane,
                                 .f_number = frame.f_number,
                                 .shutter = frame.shutter,
                                 .iso = frame.iso,
                                 .time = frame.time});
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

}  // namespace poquito::log
