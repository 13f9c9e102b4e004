#include "plan/assess.hpp"

#include "advice/advice.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using namespace poquito::advice;
using test::same;

namespace {

Lens zoom() {
    Lens lens = test::plain_shoot().kit.lenses[0];
    lens.zoom = {
        {.focal_length = 20, .max_aperture = 3.5, .closest_focus = 300, .max_magnification = 0.1, .length = 80},
        {.focal_length = 40, .max_aperture = 4.5, .closest_focus = 400, .max_magnification = 0.2, .length = 90},
        {.focal_length = 60, .max_aperture = 5.6, .closest_focus = 400, .max_magnification = 0.3, .length = 110}};
    lens.optics.focal_length = 40;
    return lens;
}

}  // namespace

TEST_CASE("a zoom is linear between the focal lengths of its record, and exact at them", "[shoot][zoom]") {
    const Lens lens = zoom();
    for (const auto& entry : lens.zoom) {
        const auto at = optics_of(lens, entry.focal_length);
        CHECK(at.focal_length == entry.focal_length);
        CHECK(at.max_aperture == entry.max_aperture);
        CHECK(at.closest_focus == entry.closest_focus);
        CHECK(at.max_magnification == entry.max_magnification);
        CHECK(at.length == entry.length);
    }
    const auto between = optics_of(lens, 25);
    CHECK_THAT(between.max_aperture, same(3.75));
    CHECK_THAT(between.closest_focus, same(325));
    CHECK_THAT(between.max_magnification, same(0.125));
    CHECK_THAT(between.length, same(82.5));
    CHECK(between.pupil_magnification == lens.optics.pupil_magnification);
}

TEST_CASE("a zoom never extrapolates, and stands at its record's focal length unless told", "[shoot][zoom]") {
    CHECK(optics_of(zoom(), 10).focal_length == 20);
    CHECK(optics_of(zoom(), 200).focal_length == 60);
    CHECK(optics_of(zoom(), std::nullopt).focal_length == 40);
    CHECK_FALSE(zoom_position(test::plain_shoot().kit.lenses[0], 50).has_value());
}

TEST_CASE("a zoom's closest focus and magnification are what its record says there", "[shoot][zoom]") {
    auto shoot = test::plain_shoot();
    shoot.kit.lenses[0] = zoom();
    shoot.kit.lenses[0].optics.focusing = optics::Focusing::internal;
    auto& rig = shoot.shots[0].rig;
    rig.focal_length = 50;
    rig.focus = {.by = FocusBy::ring, .value = 1};
    const auto optics = assess(shoot.kit, shoot.shots[0], {}).optics;
    CHECK_THAT(optics.magnification, same(0.25));
    CHECK_THAT(optics.subject_to_sensor.value(), same(400));
}

TEST_CASE("a crop mode narrows the field and nothing else of the optics", "[shoot][crop]") {
    auto shoot = test::plain_shoot();
    shoot.kit.cameras[0].crop_modes = {
        {.name = "small", .sensor = {.width = 12, .height = 8, .width_px = 3000, .height_px = 2000}}};
    const auto whole = assess(shoot.kit, shoot.shots[0], {});
    shoot.shots[0].rig.crop_mode = "small";
    const auto cropped = assess(shoot.kit, shoot.shots[0], {});
    CHECK_THAT(cropped.optics.field_width.value(), same(*whole.optics.field_width / 2));
    CHECK(cropped.optics.magnification == whole.optics.magnification);
    CHECK_THAT(cropped.sharpness.blur_limit, same(whole.sharpness.blur_limit));  // the same pixels
    CHECK_THAT(cropped.optics.fill.value(), same(*whole.optics.fill * 2));
}

TEST_CASE("a macro lens that goes past 1:1 is planned like any other", "[shoot][reach]") {
    auto shoot = test::plain_shoot();
    auto& lens = shoot.kit.lenses[0].optics;
    lens = {.focal_length = 65,
            .max_aperture = 2.8,
            .min_aperture = 16,
            .closest_focus = 65 * 7.2,
            .max_magnification = 5,
            .length = 98,
            .front_diameter = 58};
    shoot.shots[0].rig.focus.value = 4;
    const auto optics = assess(shoot.kit, shoot.shots[0], {}).optics;
    CHECK(optics.reached);
    CHECK_THAT(optics.magnification, same(4));
    CHECK_THAT(optics.working_f_number, same(8 * 5));
}

TEST_CASE("what was measured of a lens is used, and said", "[shoot][calibration]") {
    auto shoot = test::plain_shoot();
    auto& lens = shoot.kit.lenses[0];
    lens.calibrations = {{.ring = 0.5, .value = 0.46, .uncertainty = 0.002, .believed = 0.5}};
    auto& rig = shoot.shots[0].rig;
    rig.focus = {.by = FocusBy::ring, .value = 0.5};
    const auto report = assess(shoot.kit, shoot.shots[0], {});
    CHECK_THAT(report.optics.magnification, same(0.46));
    CHECK(report.optics.measured == std::vector<Measured>{Measured::magnification});
    CHECK(std::ranges::count(advise(shoot.kit, shoot.shots[0], {}).notes, "measured-lens", &Note::code) == 1);
    // Asked for, it is found between the readings.
    rig.focus = {.by = FocusBy::magnification, .value = 0.73};
    CHECK_THAT(assess(shoot.kit, shoot.shots[0], {}).optics.ring, same(0.75));
    // A zoom's reading counts where it was taken.
    lens.zoom = zoom().zoom;
    lens.optics.focal_length = 40;
    lens.calibrations[0].focal_length = 60;
    rig.focus = {.by = FocusBy::ring, .value = 0.5};
    rig.focal_length = 40;
    CHECK_THAT(assess(shoot.kit, shoot.shots[0], {}).optics.magnification, same(0.1));
    CHECK(assess(shoot.kit, shoot.shots[0], {}).optics.measured.empty());
    rig.focal_length = 60;
    CHECK_THAT(assess(shoot.kit, shoot.shots[0], {}).optics.magnification, same(0.46));
    // A displayed aperture stands in the record and is used, and marked, at every focal length.
    lens.calibrations = {{.what = Measured::displayed_aperture, .value = 5.6}};
    CHECK(assess(shoot.kit, shoot.shots[0], {}).optics.measured == std::vector<Measured>{Measured::displayed_aperture});
}
