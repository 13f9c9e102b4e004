// A camera that is held upright, and one that looks down: against the same frame turned, and rays to the table.
#include "advice/advice.hpp"
#include "plan/assess.hpp"
#include "search/reach_search.hpp"
#include "shoot/form/form.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "support/shoots.hpp"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <numbers>

using namespace poquito;
using test::same;
using test::WithinAbs;

TEST_CASE("upright, the field's narrow side is its width, and all that goes by distance stays", "[plan][held]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.background = shoot::Background{.distance = 200};
    const auto level = plan::assess(shoot.kit, shot, {});
    shot.rig.orientation = shoot::Orientation::portrait;
    const auto upright = plan::assess(shoot.kit, shot, {});
    CHECK(*upright.optics.field_width == *level.optics.field_height);
    CHECK(*upright.optics.field_height == *level.optics.field_width);
    CHECK(*upright.optics.field_behind_width == *level.optics.field_behind_height);
    CHECK(upright.optics.working_distance == level.optics.working_distance);
    CHECK(upright.sharpness.depth_of_field == level.sharpness.depth_of_field);  // by pixels, which stay as they are
    CHECK(upright.light.front_total == level.light.front_total);
    // A tall thing fills an upright frame as a wide one of the same measures fills a level one.
    std::swap(shot.subject.width, shot.subject.height);
    CHECK_THAT(*plan::assess(shoot.kit, shot, {}).optics.fill, same(*level.optics.fill));
}

TEST_CASE("a set-up for a field's width goes by how the camera is held", "[plan][held]") {
    auto shoot = test::plain_shoot();
    search::ReachWish wish{.field_width = 40};
    wish.upright = true;
    for (const auto& found : search::search_reach(shoot.kit, wish).found) {
        CHECK_THAT(found.magnification, WithinAbs(shoot.kit.cameras[0].sensor.height / 40, 1e-3));
    }
}

TEST_CASE("looking down, the table is the background where the axis meets it first", "[plan][held]") {
    test::Random random(14);
    for (int i = 0; i < 60; ++i) {
        auto shoot = test::plain_shoot();
        auto& shot = shoot.shots[0];
        shot.subject.height = random.between(5, 80);
        const double inclination = random.between(1, 90), card = random.between(1, 400);
        shot.background = shoot::Background{.distance = card};
        shot.ambient = shoot::Ambient{.ev100 = 9};
        shot.lights = {test::plain_light()};
        shot.rig.inclination = inclination;
        const auto report = plan::assess(shoot.kit, shot, {});
        // A ray from the subject's centre along the axis, to the plane under it.
        const double i_rad = inclination * std::numbers::pi / 180;
        const Eigen::Vector3d centre(0, 0, shot.subject.height / 2), along(0, std::cos(i_rad), -std::sin(i_rad));
        const auto axis = Eigen::ParametrizedLine<double, 3>(centre, along);
        const double meets = axis.intersectionParameter(Eigen::Hyperplane<double, 3>(Eigen::Vector3d::UnitZ(), 0));
        REQUIRE(report.optics.table_behind);
        CHECK_THAT(*report.optics.table_behind, same(meets));
        const Eigen::Vector3d camera = centre - along * *report.optics.subject_to_sensor;
        CHECK_THAT(*report.optics.camera_height, same(camera.z()));
        // All that is said of the background is as with a card that far behind.
        shot.rig.inclination = 0;
        shot.background->distance = std::min(card, meets);
        const auto as_card = plan::assess(shoot.kit, shot, {});
        CHECK_THAT(*report.sharpness.background_disc, same(*as_card.sharpness.background_disc));
        CHECK_THAT(*report.optics.field_behind_width, same(*as_card.optics.field_behind_width));
        REQUIRE(as_card.light.background);
        CHECK_THAT(*report.light.background, WithinAbs(*as_card.light.background, 1e-9));
        CHECK_FALSE(as_card.optics.table_behind);
        // A card that is too small is no fault where the table is what one sees.
        shot.background->width = 1;
        const auto small = [&] {
            const auto notes =
                advice::advise(plan::plan_of(shoot.kit, shot, {}), plan::assess(shoot.kit, shot, {})).notes;
            return std::ranges::count(notes, "background-small", &advice::Note::code) > 0;
        };
        shot.background->distance = card;
        CHECK(small());
        shot.rig.inclination = inclination;
        CHECK(small() == (card <= meets));
    }
}
