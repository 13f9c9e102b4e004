#include "shoot/change/edit.hpp"

#include "optics/aperture.hpp"
#include "optics/focus.hpp"
#include "shoot/change/kit_edit.hpp"
#include "text/scales.hpp"
#include "text/text.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::shoot {

std::string unique_shot_id(const Shoot& shoot, const std::string& name) {
    return text::unique_id(name, "shot",
                           [&](const std::string& id) { return std::ranges::count(shoot.shots, id, &Shot::id) > 0; });
}

std::size_t add_shot(Shoot& shoot, std::size_t after) {
    Shot shot{.id = unique_shot_id(shoot, "New shot"), .name = "New shot"};
    shot.rig.camera = shoot.kit.cameras.front().id;
    shot.rig.lens = shoot.kit.lenses.front().id;
    const auto& lens = shoot.kit.lenses.front().optics;
    const double filling = magnification_for_fill(shoot.kit.cameras.front().sensor, shot.subject, 0.8);
    shot.rig.focus = {.by = FocusBy::magnification, .value = std::min(filling, lens.max_magnification)};
    shot.exposure.f_number = std::clamp(8.0, lens.max_aperture, lens.min_aperture);
    shot.ambient = Ambient{.ev100 = 8};  // a window, some way into a room (common practice)
    // Right from the start: nothing was said yet that could be wrong.
    const auto train = train_of(shoot.kit, shot.rig);
    const auto at = optics::focus_at_ring(train, optics::find_focus(train, shot.rig.focus.value).ring);
    const double working = optics::working_f_number(at, shot.exposure.f_number);
    shot.exposure.shutter = text::nearest_shutter(working * working / std::exp2(shot.ambient->ev100));
    shot.background = Background{};
    // What the pictures are for says what counts as sharp; where it is not said, the diagonal does (MODEL 7).
    shot.sharpness.rule = shoot.purpose ? BlurRule::output : BlurRule::diagonal;
    if (shoot.purpose) shot.sharpness.output = *shoot.purpose;
    const std::size_t index = std::min(after + 1, shoot.shots.size());
    shoot.shots.insert(index, std::move(shot));
    return index;
}

std::size_t duplicate_shot(Shoot& shoot, std::size_t index) {
    Shot copy = std::as_const(shoot.shots)[index];
    copy.id = unique_shot_id(shoot, copy.name);
    copy.name += " copy";
    copy.checked.clear();
    copy.proof.clear();
    for (Delivery& one : copy.deliveries) one.beside.reset();
    shoot.shots.insert(index + 1, std::move(copy));
    return index + 1;
}

void remove_shot(Shoot& shoot, std::size_t index) {
    const std::string id = std::as_const(shoot.shots)[index].id;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (std::ranges::count(std::as_const(shoot.shots)[i].timing.after, id) > 0)
            std::erase(shoot.shots[i].timing.after, id);
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const Shot& other = std::as_const(shoot.shots)[i];
        if (other.follows && other.follows->shot == id) shoot.shots[i].follows.reset();
        if (std::ranges::any_of(other.deliveries, [&](const Delivery& one) { return one.beside == id; }))
            for (Delivery& one : shoot.shots[i].deliveries)
                if (one.beside == id) one.beside.reset();
    }
    shoot.shots.erase(index);
    shoot.runs.erase(id);
}

void move_shot(Shoot& shoot, std::size_t from, std::size_t to) { shoot.shots.move(from, to); }

void log_run(Shoot& shoot, const std::string& shot, RunRecord run) {
    auto& runs = shoot.runs[shot];
    const auto same = std::ranges::find_if(runs, [&](const auto& one) { return one->id == run.id; });
    if (same != runs.end())
        *same = std::move(run);
    else
        runs.emplace_back(std::move(run));
}

Shoot alone(const Shoot& shoot, std::size_t index) {
    Shoot one{.title = shoot.title, .kit = shoot.kit, .shots = {shoot.shots[index]}};
    if (const auto runs = shoot.runs.find(one.shots.front().id); runs != shoot.runs.end()) one.runs.insert(*runs);
    auto& shot = one.shots.front();
    shot.timing.after.clear();
    shot.follows.reset();
    for (Delivery& delivery : shot.deliveries) {
        delivery.beside.reset();
        for (const Outlet& outlet : shoot.outlets)
            if (outlet.id == delivery.outlet) one.outlets.push_back(outlet);
    }
    for (const gear::GearKind& kind : gear::gear_kinds())
        for (std::size_t i = kind.count(one.kit); i-- > 0;)
            if (users_of(one, kind, kind.id(one.kit, i)).empty()) kind.remove(one.kit, i);
    return one;
}

Adopted adopt(Shoot& shoot, Shoot one, std::size_t after) {
    Adopted adopted;
    for (const gear::GearKind& kind : gear::gear_kinds())
        for (std::size_t i = 0; i < kind.count(one.kit); ++i) {
            const auto id = kind.id(one.kit, i);
            const auto there = gear::find_index(kind, shoot.kit, id);
            if (there && kind.equal(shoot.kit, *there, one.kit, i)) continue;
            const auto free = there ? unique_gear_id(kind, shoot.kit, kind.name(one.kit, i)) : id;
            if (there) {  // the shot follows its piece to the new id
                const std::size_t last = kind.count(one.kit);
                kind.insert_copy(one.kit, last, one.kit, i);
                kind.set_id(one.kit, last, free);
                remove_gear(one, kind, i, free);
                --i;
                continue;
            }
            kind.insert_copy(shoot.kit, kind.count(shoot.kit), one.kit, i);
            ++adopted.gear_added;
        }
    Shot& shot = one.shots.front();
    for (const auto& run : runs_of(one.runs, shot.id)) log_run(shoot, shot.id, *run);  // what happened here stays
    const auto same = std::ranges::find(shoot.shots, shot.id, &Shot::id);
    adopted.replaced = same != shoot.shots.end();
    for (Outlet& outlet : one.outlets)
        if (std::ranges::find(shoot.outlets, outlet.id, &Outlet::id) == shoot.outlets.end())
            shoot.outlets.push_back(std::move(outlet));
    adopted.index = adopted.replaced ? static_cast<std::size_t>(same - shoot.shots.begin())
                                     : std::min(after + 1, shoot.shots.size());
    if (adopted.replaced) {
        shot.timing.after = same->timing.after;
        shot.follows = same->follows;
        shoot.shots.replace(adopted.index, std::move(shot));
    } else {
        shoot.shots.insert(adopted.index, std::move(shot));
    }
    return adopted;
}

double magnification_for_fill(const optics::Sensor& sensor, const Subject& subject, double fill) {
    const Extent extent = presented_extent(subject);
    return fill * std::min(sensor.width / extent.width, sensor.height / extent.height);
}

Ambient ambient_at(Place place) {
    switch (place) {
        case Place::table:
            return {.ev100 = 6};
        case Place::window:
            return {.ev100 = 9, .kind = AmbientKind::window, .position = {.azimuth = -80, .elevation = 25}, .size = 60};
        case Place::field:
            break;
    }
    return {.ev100 = 13, .kind = AmbientKind::sky, .position = {.elevation = 60}, .size = 150};
}

void switch_light(Shot& shot) {
    if (!shot.ambient || !shot.other_light) return;
    std::swap(shot.ambient->ev100, shot.other_light->ev100);
    std::swap(shot.exposure, shot.other_light->exposure);
}

}  // namespace poquito::shoot
