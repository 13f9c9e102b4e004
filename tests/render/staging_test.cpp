// A table with several things against each thing's own picture.
#include "plan/set/staging.hpp"
#include "plan/assess.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>

using namespace poquito;
using namespace imaging;
using namespace render;

namespace {

constexpr double half_a_level = 0.5 / 255;  // of 8 bits, on the mean

Raster picture_of(const Scene& scene) { return Finder().render(scene, {.width = 360, .height = 240})->light; }

/// Mean over the pixels: more depths make other sheets of blur, which shift an edge by a part of its own.
double difference(const Raster& one, const Raster& other, int from, int to) {
    double sum = 0;
    for (int y = 0; y < one.height; ++y)
        for (int x = from; x < to; ++x)
            sum += static_cast<double>((one.at(x, y) - other.at(x, y)).abs().head(3).maxCoeff());
    return sum / ((to - from) * one.height);
}

}  // namespace

TEST_CASE("where nothing overlaps each thing of a table is as in its own picture, and none without them",
          "[imaging][staging]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject = {.width = 14, .height = 14, .depth = 6, .reflectance = 0.3};
    shot.ambient = shoot::Ambient{.ev100 = 8};
    shot.background = shoot::Background{};
    for (const double behind : {0.0, 12.0, -6.0}) {
        shot.staging = {
            {.id = "side",
             .name = "Side",
             .subject = {.width = 8, .height = 14, .depth = 4, .reflectance = 0.6, .form = shoot::Form::box},
             .right = 17,
             .behind = behind,
             .unknown = {}}};
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto report = plan::assess(plan);
        const auto both = picture_of(*scene_of(plan, report));
        auto without = shot;
        without.staging.clear();
        const auto alone_plan = plan::plan_of(shoot.kit, without, {});
        const auto alone = picture_of(*scene_of(alone_plan, plan::assess(alone_plan)));
        // The subject's half is as it was, the other is not.
        CHECK(difference(both, alone, 0, 180) < half_a_level);
        CHECK(difference(both, alone, 240, 360) > 5 * half_a_level);
        // The thing by itself, as the subject of a shot that is focused as far from it, put where it stands.
        auto own = without;
        own.subject = shot.staging[0].subject;
        own.sharpness.focus_offset = plan.focus - report.staging[0].place.away;
        const auto own_plan = plan::plan_of(shoot.kit, own, {});
        auto scene = *scene_of(own_plan, plan::assess(own_plan));
        put_aside(scene,
                  {.x = plan.at.magnification * 17 * plan::scale_at(plan, report.staging[0].place.away), .y = 0});
        const auto by_itself = picture_of(scene);
        CAPTURE(behind);
        CHECK(difference(both, by_itself, 250, 360) < half_a_level);
    }
    // In front it hides, behind it is hidden.
    shot.staging[0].right = 0;
    shot.staging[0].behind = -20;
    const auto middle = [&] {
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto scene = *scene_of(plan, plan::assess(plan));
        return scene.subject({.x = 0, .y = 0}, 0.1)->thing;
    };
    CHECK(middle() == 1);
    shot.staging[0].behind = 20;
    CHECK(middle() == 0);
    // A clean plate shows the place without the subject.
    shot.staging.clear();
    shot.plate = shoot::Plate{.picture = "P", .role = shoot::PlateRole::clean, .unknown = {}};
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    CHECK_FALSE(scene_of(plan, plan::assess(plan))->subject({.x = 0, .y = 0}, 0.1));
}
