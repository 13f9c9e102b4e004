#include "job/locks.hpp"

#include "shoot/change/edit.hpp"
#include "shoot/change/view_set.hpp"
#include "shoot/staging.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

namespace poquito::job {
namespace {

using shoot::Lock;
using shoot::PlateRole;
using shoot::Shot;

auto train_of(const shoot::Rig& rig) {
    return std::tie(rig.tubes_behind_converter, rig.teleconverter, rig.tubes, rig.bellows, rig.reversing_ring, rig.lens,
                    rig.focal_length, rig.closeup_lenses, rig.front_lens, rig.filters, rig.crop_mode);
}

const Shot* followed(const shoot::Shoot& shoot, const Shot& shot) {
    if (!shot.follows) return nullptr;
    for (const Shot& other : shoot.shots)
        if (other.id == shot.follows->shot) return &other;
    return nullptr;
}

/// The other one may be of another shoot, with a kit of its own.
struct Compared {
    const gear::Kit& kit;
    const Shot& shot;
    const gear::Kit& other_kit;
    const Shot& other;
};

std::string camera_differs(const Compared& both) {
    const auto& [kit, shot, other_kit, other] = both;
    const auto &camera = shoot::camera_of(kit, shot).name, &its_camera = shoot::camera_of(other_kit, other).name;
    if (camera != its_camera) return fmt::format("{} where {} has {}", camera, other.name, its_camera);
    const auto &lens = shoot::lens_of(kit, shot).name, &its_lens = shoot::lens_of(other_kit, other).name;
    if (lens != its_lens) return fmt::format("{} where {} has {}", lens, other.name, its_lens);
    if (train_of(shot.rig) != train_of(other.rig))
        return fmt::format("the lens is mounted otherwise than for {}", other.name);
    return {};
}

std::string framing_differs(const Shot& shot, const Shot& other) {
    const auto &own = shot.rig, &its = other.rig;
    if (own.orientation != its.orientation) return fmt::format("held another way up than for {}", other.name);
    constexpr double degree = 0.5;
    if (std::abs(own.inclination - its.inclination) > degree)
        return fmt::format("looks down by {}\u00b0 where {} has {}\u00b0", text::number_text(own.inclination, 3),
                           other.name, text::number_text(its.inclination, 3));
    if (own.focus.by == its.focus.by && own.focus.value != its.focus.value)
        return own.focus.by == shoot::FocusBy::magnification
                   ? fmt::format("{} where {} has {}", text::magnification_text(own.focus.value), other.name,
                                 text::magnification_text(its.focus.value))
                   : fmt::format("its ring stands elsewhere than for {}", other.name);
    if (own.focus.by != its.focus.by) return fmt::format("focused otherwise than {}", other.name);
    const bool measured = shoot::rule_in(shot.staging), its_measured = shoot::rule_in(other.staging);
    if (measured != its_measured)
        return measured ? fmt::format("a rule in the frame, which {} has not", other.name)
                        : fmt::format("no rule in the frame, which {} has", other.name);
    return {};
}

std::string stop_differs(const Shot& shot, const Shot& other) {
    const auto &own = shot.exposure, &its = other.exposure;
    if (own.f_number != its.f_number)
        return fmt::format("{} where {} has {}", text::f_number_text(own.f_number), other.name,
                           text::f_number_text(its.f_number));
    if (own.shutter != its.shutter)
        return fmt::format("{} where {} has {}", text::shutter_text(own.shutter), other.name,
                           text::shutter_text(its.shutter));
    if (own.iso != its.iso) return fmt::format("ISO {:g} where {} has ISO {:g}", own.iso, other.name, its.iso);
    return {};
}

std::string light_differs(const Shot& shot, const Shot& other) {
    if (shot.lights.size() != other.lights.size())
        return fmt::format("{} where {} has {}",
                           text::count_text(static_cast<double>(shot.lights.size()), "light", "lights"), other.name,
                           other.lights.size());
    for (std::size_t i = 0; i < shot.lights.size(); ++i)
        if (shot.lights[i] != other.lights[i])
            return fmt::format("light {} stands or is set otherwise than for {}", static_cast<char>('A' + i % 26),
                               other.name);
    if (shot.ambient != other.ambient) return fmt::format("the light that is there differs from {}", other.name);
    if (shot.wishes.lit_by != other.wishes.lit_by || shot.wishes.contrast != other.wishes.contrast)
        return fmt::format("its light is to look otherwise than that of {}", other.name);
    return {};
}

std::string differs(const Compared& both, Lock lock) {
    const auto &shot = both.shot, &other = both.other;
    switch (lock) {
        case Lock::camera:
            return camera_differs(both);
        case Lock::framing:
            return framing_differs(shot, other);
        case Lock::stop:
            return stop_differs(shot, other);
        case Lock::light:
            return light_differs(shot, other);
        case Lock::ground:
            if (shot.background != other.background) return fmt::format("another ground than {}", other.name);
            if (shot.wishes.ground != other.wishes.ground || shot.wishes.softness != other.wishes.softness)
                return fmt::format("its ground is to look otherwise than that of {}", other.name);
            return {};
    }
    return {};
}

std::vector<Deviation> deviations_of(const Compared& both, const std::vector<Lock>& locks) {
    std::vector<Deviation> all;
    for (const Lock lock : locks)
        if (auto text = differs(both, lock); !text.empty()) all.push_back({.lock = lock, .text = std::move(text)});
    return all;
}

/// The same shot of another session: the same view, of the same thing before one of another; else of the same name.
const Shot* same_place_in_series(const shoot::Shoot& shoot, const Shot& shot) {
    const Shot* found = nullptr;
    for (const Shot& other : shoot.shots) {
        if (shot.view && other.view && other.view->name == shot.view->name) {
            if (other.view->thing == shot.view->thing) return &other;
            if (!found) found = &other;
        }
        if (!shot.view && other.name == shot.name) return &other;
    }
    return found;
}

std::vector<Lock> locks_of(PlateRole role) {
    switch (role) {
        case PlateRole::hero:
            return {};
        case PlateRole::piece:
            return {Lock::camera, Lock::framing, Lock::stop};
        case PlateRole::support:
        case PlateRole::clean:
            return {Lock::camera, Lock::framing, Lock::stop, Lock::light, Lock::ground};
        case PlateRole::shadow:
        case PlateRole::flash:
        case PlateRole::ambient:
            return {Lock::camera, Lock::framing, Lock::ground};
    }
    return {};
}

/// What the plate has otherwise than the hero, to begin from.
void set_for(Shot& shot, PlateRole role) {
    if (role == PlateRole::flash) shot.ambient.reset();
    if (role == PlateRole::ambient)
        for (auto& light : shot.lights) light.off = true;
    if (role == PlateRole::clean || role == PlateRole::shadow || role == PlateRole::ambient)
        shot.capture.mode = shoot::CaptureMode::single;
}

}  // namespace

const char* lock_name(Lock lock) {
    constexpr const char* words[] = {"camera and lens", "framing", "stop, shutter, ISO", "light", "ground"};
    static_assert(std::size(words) == shoot::locks);
    return words[static_cast<int>(lock)];
}

const char* role_name(PlateRole role) {
    constexpr const char* words[] = {"hero",   "a piece more", "with its support", "clean",
                                     "shadow", "by flash",     "by ambient light"};
    return words[static_cast<int>(role)];
}

const char* role_work(PlateRole role) {
    switch (role) {
        case PlateRole::hero:
            return "the others are laid on it";
        case PlateRole::piece:
            return "put in where it stands; its light may be its own";
        case PlateRole::support:
            return "held as it has to be; the support is painted out with the clean plate";
        case PlateRole::clean:
            return "the same place without it: take everything away, touch nothing else";
        case PlateRole::shadow:
            return "what falls on the ground, laid under it";
        case PlateRole::flash:
            return "by flash alone: darken the room";
        case PlateRole::ambient:
            return "the lights off, the shutter longer";
    }
    return "";
}

std::vector<Deviation> deviations(const shoot::Shoot& shoot, const Shot& shot) {
    const Shot* other = followed(shoot, shot);
    return other ? deviations_of({shoot.kit, shot, shoot.kit, *other}, shot.follows->locks) : std::vector<Deviation>();
}

std::vector<Lock> series_locks(const shoot::Shoot& shoot, const Shot& shot) {
    if (shot.plate) return {};
    if (shot.follows) return shot.follows->locks;
    std::vector<Lock> locks;
    for (const Shot& other : shoot.shots)
        if (!other.plate && other.follows && other.follows->shot == shot.id)
            for (const Lock lock : other.follows->locks)
                if (std::ranges::count(locks, lock) == 0) locks.push_back(lock);
    std::ranges::sort(locks);
    return locks;
}

std::vector<Deviation> deviations_between(const gear::Kit& kit, const Shot& shot, const gear::Kit& other_kit,
                                          const Shot& other, const std::vector<Lock>& locks) {
    return deviations_of({kit, shot, other_kit, other}, locks);
}

SessionComparison compare_sessions(const shoot::Shoot& now, const shoot::Shoot& before) {
    SessionComparison comparison;
    for (std::size_t i = 0; i < now.shots.size(); ++i) {
        const Shot& shot = now.shots[i];
        const auto locks = series_locks(now, shot);
        if (locks.empty()) continue;
        const Shot* other = same_place_in_series(before, shot);
        if (!other) {
            comparison.without.push_back(i);
            continue;
        }
        comparison.compared += 1;
        if (auto what = deviations_of({now.kit, shot, before.kit, *other}, locks); !what.empty())
            comparison.shots.push_back({.shot = i, .what = std::move(what)});
    }
    return comparison;
}

void bring_in_line(shoot::Shoot& shoot, std::size_t index) {
    const Shot& now = std::as_const(shoot.shots)[index];
    const Shot* other = followed(shoot, now);
    if (!other) return;
    Shot shot = now;
    for (const Lock lock : now.follows->locks) switch (lock) {
            case Lock::camera: {
                auto rig = other->rig;
                rig.focus = shot.rig.focus;
                rig.orientation = shot.rig.orientation, rig.inclination = shot.rig.inclination;
                shot.rig = std::move(rig);
                break;
            }
            case Lock::framing:
                shot.rig.focus = other->rig.focus;
                shot.rig.orientation = other->rig.orientation, shot.rig.inclination = other->rig.inclination;
                break;
            case Lock::stop:
                shot.exposure.f_number = other->exposure.f_number;
                shot.exposure.shutter = other->exposure.shutter;
                shot.exposure.iso = other->exposure.iso;
                break;
            case Lock::light:
                shot.lights = other->lights, shot.ambient = other->ambient;
                shot.wishes.lit_by = other->wishes.lit_by, shot.wishes.contrast = other->wishes.contrast;
                break;
            case Lock::ground:
                shot.background = other->background;
                shot.wishes.ground = other->wishes.ground, shot.wishes.softness = other->wishes.softness;
                break;
        }
    if (shot != now) shoot.shots.replace(index, std::move(shot));
}

void make_plate(shoot::Shoot& shoot, std::size_t index, const std::string& picture, PlateRole role) {
    const auto others = shoot::plates_of(shoot, picture);
    std::optional<std::string> first;
    for (const auto i : others)
        if (i != index && (!first || std::as_const(shoot.shots)[i].plate->role == PlateRole::hero))
            first = std::as_const(shoot.shots)[i].id;
    Shot& shot = shoot.shots[index];
    shot.plate = shoot::Plate{.picture = picture, .role = role, .unknown = {}};
    if (first && role != PlateRole::hero)
        shot.follows = shoot::Follows{.shot = *first, .locks = locks_of(role), .unknown = {}};
}

std::size_t add_plates(shoot::Shoot& shoot, std::size_t hero, const std::vector<PlateRole>& roles) {
    std::string picture = std::as_const(shoot.shots)[hero].name;
    if (const auto& plate = std::as_const(shoot.shots)[hero].plate) picture = plate->picture;
    if (!std::as_const(shoot.shots)[hero].plate) make_plate(shoot, hero, picture, PlateRole::hero);
    const auto there = shoot::plates_of(shoot, picture);
    std::size_t at = there.back() + 1, made = 0;
    for (const PlateRole role : roles) {
        if (std::ranges::any_of(there,
                                [&](std::size_t i) { return std::as_const(shoot.shots)[i].plate->role == role; }) &&
            role != PlateRole::piece)
            continue;
        Shot shot = std::as_const(shoot.shots)[hero];
        shot.name = fmt::format("{}, {}", picture, role_name(role));
        shot.id = shoot::unique_shot_id(shoot, shot.name);
        shot.checked.clear(), shot.proof.clear(), shot.deliveries.clear();
        shot.view.reset();  // the picture is the view, not each of its plates
        shot.plate.reset(), shot.follows.reset();
        set_for(shot, role);
        shoot.shots.insert(at, std::move(shot));
        make_plate(shoot, at++, picture, role);
        ++made;
    }
    return made;
}

}  // namespace poquito::job
