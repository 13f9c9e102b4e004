#include "shoot/change/calibrate.hpp"

#include "gear/rows.hpp"
#include "optics/focus.hpp"
#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using test::same;
using test::WithinRel;

TEST_CASE("what a rig shows at a ring position is what it gives once stored", "[shoot][calibration]") {
    int stored = 0;
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        Kit kit = test::random_bag(random);
        Rig rig{.camera = kit.cameras[0].id, .lens = kit.lenses[0].id};
        if (!kit.tubes.empty() && random.coin()) rig.tubes = {kit.tubes[0].id};
        if (!kit.closeup_lenses.empty() && random.coin(0.3)) rig.closeup_lenses = {kit.closeup_lenses[0].id};
        if (!kit.teleconverters.empty() && random.coin(0.3)) rig.teleconverter = kit.teleconverters[0].id;
        const double ring = random.coin(0.3) ? 1 : random.between(0.2, 0.95);
        const double shown = believed_magnification(kit, rig, ring) * random.between(0.95, 1.05);
        if (!(shown > 0)) continue;
        const auto own = lens_part(kit, rig, ring, {.value = shown, .uncertainty = 0.01});
        INFO("seed " << seed);
        if (!own) continue;  // less than the tubes alone make
        ++stored;
        Lens& lens = kit.lenses[0];
        store_reading(lens, {.ring = ring, .magnification = *own, .focal_length = zoom_position(lens, std::nullopt)});
        CHECK_THAT(optics::focus_at_ring(train_of(kit, rig), ring).magnification, WithinRel(shown, 1e-9));
        CHECK_FALSE(gear_kind("lenses").check(kit, 0).has_value());
        forget_calibration(lens, lens.calibrations.size() - 1);
    }
    CHECK(stored > 200);
}

TEST_CASE("a bare lens's own magnification is the one it shows", "[shoot][calibration]") {
    const auto shoot = test::plain_shoot();
    const auto& rig = shoot.shots[0].rig;
    const auto own = lens_part(shoot.kit, rig, 0.5, {.value = 0.47, .uncertainty = 0.002});
    REQUIRE(own);
    CHECK_THAT(own->value, WithinRel(0.47, 1e-9));
    CHECK_THAT(own->uncertainty, WithinRel(0.002, 1e-3));
    Rig extended = rig;
    extended.tubes = {"t20"};
    extended.teleconverter = "x2";
    // m = k (m_s + T/f).
    const auto behind = lens_part(shoot.kit, extended, 0.5, {.value = 1.3, .uncertainty = 0.002});
    CHECK_THAT(behind.value().value, WithinRel(1.3 / 2 - 0.2, 1e-9));
    CHECK_THAT(behind->uncertainty, WithinRel(0.001, 1e-3));
    CHECK_FALSE(lens_part(shoot.kit, extended, 0.5, {.value = 0.3}).has_value());  // less than tube and converter make
}

TEST_CASE("a reading gives way to another at its place, and goes when it is taken back", "[shoot][calibration]") {
    Lens lens = test::plain_shoot().kit.lenses[0];
    const Lens before = lens;
    store_reading(lens, {.ring = 0.5, .magnification = {.value = 0.46, .uncertainty = 0.01}});
    store_reading(lens, {.ring = 0.5, .magnification = {.value = 0.47, .uncertainty = 0.01}});
    store_reading(lens, {.ring = 1, .magnification = {.value = 1.02, .uncertainty = 0.01}});
    REQUIRE(lens.calibrations.size() == 2);
    CHECK(lens.calibrations[0].value == 0.47);
    CHECK(lens.calibrations[0].believed == 0.5);
    CHECK(calibration_text(lens, lens.calibrations[0]) ==
          "Magnification at ring 0.5: 0.47 \u00b1 0.01, record 0.5 (6 % less)");
    forget_calibration(lens, 0);
    forget_calibration(lens, 0);
    CHECK(lens == before);
}

TEST_CASE("a displayed aperture is stored, measured again and taken back", "[shoot][calibration]") {
    Lens lens = test::plain_shoot().kit.lenses[0];
    const Lens before = lens;
    store_displayed_aperture(lens, {.value = 5.6, .uncertainty = 0.2}, "2026-11-25T10:00:00");
    store_displayed_aperture(lens, {.value = 5.3, .uncertainty = 0.2}, "2026-11-25T10:00:00");
    CHECK(lens.optics.closest_working_f_number == 5.3);
    REQUIRE(lens.calibrations.size() == 1);
    CHECK_FALSE(lens.calibrations[0].believed.has_value());
    forget_calibration(lens, 0);
    CHECK(lens == before);
}

TEST_CASE("two sharp distances give back the focal length and hiatus they were made from", "[shoot][calibration]") {
    int solved = 0;
    for (unsigned seed = 0; seed < 300; ++seed) {
        test::Random random(seed);
        Lens lens = test::random_bag(random).lenses[0];
        lens.zoom.clear();
        lens.calibrations.clear();
        const double M = lens.optics.max_magnification;
        if (std::abs(M - 1) < 0.1) continue;
        // Through the model itself: the bare lens and the lens on a tube, ring at closest focus.
        optics::Train train{.lens = lens.optics};
        const double bare = *optics::focus_at_ring(train, 1).subject_to_sensor;
        train.tubes = 20;
        const auto extended = optics::focus_at_ring(train, 1);
        const auto result = from_sharp_distances(
            lens.optics, {.bare = bare, .extended = *extended.subject_to_sensor, .extension = 20, .uncertainty = 0.1});
        INFO("seed " << seed);
        if (!result) continue;
        ++solved;
        CHECK_THAT(result->focal_length.value, WithinRel(extended.focal_length, 1e-5));
        CHECK(result->focal_length.uncertainty > 0);
    }
    CHECK(solved > 200);
}

TEST_CASE("sharp distances go into the record and come out of it again", "[shoot][calibration]") {
    for (const auto focusing : {optics::Focusing::unit, optics::Focusing::internal}) {
        Lens lens = test::plain_shoot().kit.lenses[0];
        lens.optics.focusing = focusing;
        lens.optics.max_magnification = 0.5;
        lens.optics.closest_focus = 470;
        const Lens before = lens;
        const SharpDistances measured{.bare = 468, .extended = 437, .extension = 20, .uncertainty = 1};
        const auto result = from_sharp_distances(lens.optics, measured);
        REQUIRE(result);
        store_sharp_distances(lens, measured, *result, "2026-11-25T10:00:00");
        // The record now gives both distances.
        optics::Train train{.lens = lens.optics};
        CHECK_THAT(optics::focus_at_ring(train, 1).subject_to_sensor.value(), same(468));
        train.tubes = 20;
        CHECK_THAT(optics::focus_at_ring(train, 1).subject_to_sensor.value(), WithinRel(437, 1e-7));
        CHECK_FALSE(calibration_text(lens, lens.calibrations[0]).empty());
        forget_calibration(lens, 0);
        CHECK(lens == before);
    }
}
