#pragma once

#include "plan/assess.hpp"
#include "support/shoots.hpp"

namespace poquito::test {

/// plain_shoot's shot with one flash at an angle to the camera.
struct Lit {
    shoot::Shoot shoot = plain_shoot();
    shoot::Shot& shot = shoot.shots[0];
    Lit() {
        shot.lights = {plain_light()};
        shot.lights[0].position = {.distance = 400};
        shot.lights[0].power = 0.25;
    }
    plan::LightReport light() { return plan::assess(shoot.kit, shot, {}).light; }
    plan::SourceReport source(std::size_t i = 0) { return light().sources[i]; }
};

}  // namespace poquito::test
