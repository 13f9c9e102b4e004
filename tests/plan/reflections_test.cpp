#include "plan/light/reflections.hpp"
#include "plan/assess.hpp"
#include "support/shoots.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace poquito;
using namespace poquito::plan;

namespace {

/// A polished round face before two lamps.
struct Polished {
    shoot::Shoot shoot = test::plain_shoot();
    Polished() {
        auto& shot = shoot.shots[0];
        shot.subject = {.width = 30, .height = 30, .depth = 8, .traits = {"polished"}};
        shot.rig.focus = {.by = shoot::FocusBy::magnification, .value = 0.5};
        for (const double azimuth : {-40.0, 40.0}) {
            shot.lights.push_back(test::plain_light());
            shot.lights.back().position = {.distance = 200, .azimuth = azimuth, .elevation = 20};
            shot.lights.back().power = 0.5;
        }
    }
    std::vector<Shown> map(std::size_t chosen, int across = 64) const {
        const auto& shot = shoot.shots[0];
        return face_map(plan_of(shoot.kit, shot, {}), assess(shoot.kit, shot, {}).light, chosen, across);
    }
};

}  // namespace

TEST_CASE("the map of a face shows each light where its mark lies, the chosen one as such", "[plan][reflections]") {
    Polished set;
    auto& shot = set.shoot.shots[0];
    for (auto& light : shot.lights) light.modifier = set.shoot.kit.modifiers.at(0).id;
    const auto report = assess(set.shoot.kit, shot, {});
    REQUIRE(report.reflections.size() == 2);
    constexpr int across = 64;
    for (const std::size_t chosen : {0u, 1u}) {
        const auto map = set.map(chosen, across);
        CHECK(map.front() == Shown::nothing);  // the corner of the box lies beside the ellipse
        for (std::size_t light = 0; light < 2; ++light) {
            const auto& mark = report.reflections[light].marks.at(0);
            const int i = static_cast<int>((mark.x / report.extent.width + 0.5) * across);
            const int j = static_cast<int>((0.5 - mark.y / report.extent.height) * across);
            INFO("light " << light << " of " << chosen << " at " << i << ", " << j);
            CHECK(map.at(static_cast<std::size_t>(j * across + i)) == (light == chosen ? Shown::chosen : Shown::other));
        }
        CHECK(std::ranges::count(map, Shown::room) > across * across / 4);
        // The face lies in the middle of its map.
        const auto beside = [&](int i, int j) {
            return map.at(static_cast<std::size_t>(j * across + i)) == Shown::nothing;
        };
        for (int j = 0; j < across; ++j)
            for (int i = 0; i < across / 2; ++i) {
                CHECK(beside(i, j) == beside(across - 1 - i, j));
                CHECK(beside(i, j) == beside(i, across - 1 - j));
            }
    }
}

TEST_CASE("the share that a map shows of a light is the one the report states", "[plan][reflections]") {
    Polished set;
    set.shoot.shots[0].lights[0].modifier = set.shoot.kit.modifiers.at(0).id;
    const auto report = assess(set.shoot.kit, set.shoot.shots[0], {});
    const auto map = set.map(0, 240);
    const auto seen =
        static_cast<double>(map.size() - static_cast<std::size_t>(std::ranges::count(map, Shown::nothing)));
    CHECK(std::abs(static_cast<double>(std::ranges::count(map, Shown::chosen)) / seen -
                   report.reflections[0].mirrored) < 0.01);
    // A light that gives nothing is not seen.
    set.shoot.shots[0].lights[0].power = 0;
    CHECK(std::ranges::count(set.map(0), Shown::chosen) == 0);
}
