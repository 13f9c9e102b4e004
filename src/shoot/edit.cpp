#include "shoot/edit.hpp"

#include "shoot/text.hpp"

#include <algorithm>

namespace poquito::shoot {

std::string unique_shot_id(const Shoot& shoot, const std::string& name) {
    return unique_id(name, "shot",
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
    shot.exposure.shutter = 0.25;
    shot.ambient = Ambient{.ev100 = 8};  // a window, some way into a room (common practice)
    shot.background = Background{};
    const std::size_t index = std::min(after + 1, shoot.shots.size());
    shoot.shots.insert(shoot.shots.begin() + static_cast<std::ptrdiff_t>(index), std::move(shot));
    return index;
}

std::size_t duplicate_shot(Shoot& shoot, std::size_t index) {
    Shot copy = shoot.shots[index];
    copy.id = unique_shot_id(shoot, copy.name);
    copy.name += " copy";
    copy.checked.clear();
    copy.proof.clear();
    shoot.shots.insert(shoot.shots.begin() + static_cast<std::ptrdiff_t>(index) + 1, std::move(copy));
    return index + 1;
}

void remove_shot(Shoot& shoot, std::size_t index) {
    shoot.shots.erase(shoot.shots.begin() + static_cast<std::ptrdiff_t>(index));
}

void move_shot(Shoot& shoot, std::size_t from, std::size_t to) {
    const auto at = [&](std::size_t index) { return shoot.shots.begin() + static_cast<std::ptrdiff_t>(index); };
    if (from < to) {
        std::rotate(at(from), at(from + 1), at(to + 1));
    } else {
        std::rotate(at(to), at(from), at(from + 1));
    }
}

double magnification_for_fill(const optics::Sensor& sensor, const Subject& subject, double fill) {
    const Extent extent = presented_extent(subject);
    return fill * std::min(sensor.width / extent.width, sensor.height / extent.height);
}

}  // namespace poquito::shoot
