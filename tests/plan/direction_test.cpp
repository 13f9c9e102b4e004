// Light with a direction (MODEL 6): fronts, edges, what comes through, what shades and what sends back.
#include "light/direction.hpp"
#include "plan/assess.hpp"
#include "plan/light/ambient.hpp"
#include "plan/light/face.hpp"
#include "plan/light/lighting.hpp"
#include "support/lit_shot.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "whatif/grey_patch.hpp"

using namespace poquito;
using namespace poquito::shoot;
using plan::assess;
using test::Lit;
using test::same;
using test::WithinAbs;

namespace {

constexpr double degree = 3.14159265358979323846 / 180;

}  // namespace

TEST_CASE("a ball is lit by Lambert's law and a flat face by the cosine, whichever way they are turned",
          "[plan][light]") {
    Lit set;
    for (double azimuth = -180; azimuth <= 180; azimuth += 15)
        for (const double elevation : {-40.0, 0.0, 25.0, 80.0}) {
            set.shot.lights[0].position = {.distance = 400, .azimuth = azimuth, .elevation = elevation};
            const double towards = std::cos(azimuth * degree) * std::cos(elevation * degree);
            set.shot.subject.depth = 10;
            const auto ball = set.source();
            if (light::ball_share(towards) >= 1e-9)
                CHECK_THAT(*ball.front, same(*ball.stops + std::log2(light::ball_share(towards))));
            CHECK_THAT(ball.reaches, WithinAbs((1 + towards) / 2, 1e-12));
            set.shot.subject.depth = 0;
            const auto flat = set.source();
            CHECK(flat.front.has_value() == (towards > 1e-9));
            if (flat.front) CHECK_THAT(*flat.front, same(*flat.stops + std::log2(towards)));
        }
    // Turned towards the light, a flat face gets all of it again; away from it none.
    set.shot.lights[0].position = {.distance = 400, .azimuth = 60};
    set.shot.subject.depth = 0;
    set.shot.subject.turn = 60;
    CHECK_THAT(*set.source().front, same(*set.source().stops));
    set.shot.subject.turn = -60;
    CHECK_FALSE(set.source().front);
}

TEST_CASE("other forms get what their relief leaves them, as a sum over it says", "[plan][light]") {
    // A box with a corner towards the camera: two plane faces, of which one shades nothing of the other.
    Lit set;
    set.shot.subject = {.width = 40, .height = 30, .depth = 20, .form = Form::box};
    const auto share = [&](double azimuth) {
        return plan::Face(set.shot.subject).lit_from({.azimuth = azimuth}).front;
    };
    // The edge stands a quarter of the half width to the left: faces 15 and 25 mm wide, both 20 mm deep.
    const auto by_hand = [](double azimuth) {
        const double a = azimuth * degree;
        const auto face = [&](double width, double side) {
            const double length = std::hypot(width, 20);
            const double nx = side * 20 / length, nz = width / length;  // towards the camera counts up
            return width * std::max(0.0, nx * std::sin(a) + nz * std::cos(a));
        };
        const double left = face(15, -1), right = face(25, 1);
        const double front = 15 * 15 / std::hypot(15.0, 20.0) + 25 * 25 / std::hypot(25.0, 20.0);
        return (left + right) / front;
    };
    for (const double azimuth : {-60.0, -30.0, 0.0, 30.0, 60.0}) {
        INFO(azimuth);
        CHECK_THAT(share(azimuth), WithinAbs(by_hand(azimuth), 0.03));
    }
    // A bowl shades its own wall: it gets less from the side than a dome of that depth, which does not.
    const auto from_side = [&](Form form) {
        return plan::Face(Subject{.width = 40, .height = 40, .depth = 20, .form = form})
            .lit_from({.azimuth = 75})
            .front;
    };
    CHECK(from_side(Form::bowl) < 0.6 * from_side(Form::dome));
    // Front light is what every form is measured by.
    for (const auto& form : forms())
        if (form.form != Form::height_map)
            CHECK_THAT(plan::Face(Subject{.form = form.form}).lit_from({}).front, WithinAbs(1, 1e-6));
}

TEST_CASE("what comes through a petal counts for the exposure, and what only edges it does not", "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 0;
    set.shot.subject.reflectance = 0.2;
    set.shot.subject.transmittance = 0.4;
    set.shot.lights[0].position.azimuth = 120;
    const auto source = set.source();
    CHECK_FALSE(source.front);
    CHECK_THAT(*source.through, same(*source.stops + 1 - 1));  // twice as much sent through, half by the slant
    CHECK_THAT(*set.light().front_total, same(*source.through));
    // Automatic power brings it to a correct exposure, twice as high without the slant.
    set.shot.lights[0].power.reset();
    CHECK_THAT(*set.light().front_total, WithinAbs(0, 1e-9));
    const double slanted = set.source().power;
    set.shot.lights[0].position.azimuth = 180;
    CHECK_THAT(set.source().power, same(slanted / 2));
    // Nothing comes through: no front, no power, and it must be told what to give.
    set.shot.subject.transmittance = 0;
    CHECK(set.source().aimless);
    CHECK_FALSE(set.source().stops);
    set.shot.lights[0].own_stops = 1.5;
    CHECK_FALSE(set.source().aimless);
    CHECK_THAT(*set.source().stops, WithinAbs(1.5, 1e-9));
    CHECK_FALSE(set.light().front_total);
    // A ball from behind is edged, and how far over the front is said.
    set.shot.subject.depth = 20;
    set.shot.lights[0].position.azimuth = 120;
    CHECK_THAT(*set.source().rim, WithinAbs(1.5 + std::log2(std::sin(120 * degree)) - *set.light().front_total, 1e-9));
}

TEST_CASE("lights with stops of their own stand outside the sharing, at the subject or on the card", "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.background = Background{.distance = 300, .reflectance = 0.5};
    set.shot.lights = {test::plain_light(), test::plain_light(), test::plain_light()};
    for (auto& light : set.shot.lights) light.power.reset();
    set.shot.lights[1].own_stops = -2;
    set.shot.lights[1].position = {.distance = 300, .azimuth = 60};
    set.shot.lights[2].own_stops = 0.5;
    set.shot.lights[2].own_at = OwnAt::background;
    set.shot.lights[2].position = {.distance = 250, .azimuth = 150};
    set.shot.lights[2].aim = {.turn = 60};
    const auto light = set.light();
    CHECK_THAT(*light.sources[1].stops, WithinAbs(-2, 1e-9));
    CHECK_THAT(*light.sources[2].background, WithinAbs(0.5, 1e-9));
    CHECK_THAT(*light.front_total, WithinAbs(0, 1e-9));  // the first finds the rest
}

TEST_CASE("a card sends back what falls on it, and gives the backdrop nothing", "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.background = Background{};
    set.shot.ambient = Ambient{.ev100 = 9};
    set.shot.lights = {{.reflector = Reflector{.reflectance = 0.5, .diameter = 400}, .position = {.distance = 200}}};
    const auto light = set.light();
    CHECK_THAT(*light.sources[0].stops, same(*light.ambient - 2));  // half sent back, seen under a right angle: half
    CHECK(light.sources[0].reflector);
    CHECK_FALSE(light.sources[0].background);
    CHECK_THAT(*light.total, same(*light.ambient + std::log2(1.25)));
    set.shot.ambient.reset();
    CHECK_FALSE(set.light().sources[0].stops);
}

TEST_CASE("the light that is there is shaded by the lens, softened by a panel, and falls off from a window",
          "[plan][light]") {
    Lit set;
    set.shot.lights.clear();
    set.shot.subject.depth = 20;
    set.shot.ambient = Ambient{.ev100 = 9};
    const auto report = assess(set.shoot.kit, set.shot, {});
    const double cone = *report.optics.shaded_half_angle * degree;
    CHECK_THAT(*report.light.ambient_front, same(*report.light.ambient + 2 * std::log2(std::cos(cone))));
    // A hood comes nearer and covers more, and the working distance counts from it.
    set.shoot.kit.lenses[0].hood_length = 40;
    const auto hooded = assess(set.shoot.kit, set.shot, {});
    CHECK_THAT(*hooded.optics.working_distance, same(*report.optics.working_distance - 40));
    CHECK(*hooded.light.ambient_front < *report.light.ambient_front);
    set.shot.rig.hood_off = true;
    CHECK_THAT(*assess(set.shoot.kit, set.shot, {}).optics.working_distance, same(*report.optics.working_distance));
    // A window beside loses nothing to the lens; a panel its stops.
    set.shot.ambient->kind = AmbientKind::window;
    set.shot.ambient->position = {.azimuth = -80, .elevation = 20};
    CHECK_THAT(*set.light().ambient_front, same(*set.light().ambient));
    const double bare = *set.light().ambient;
    set.shot.ambient->panel = Panel{.loss = 1.5};
    CHECK_THAT(*set.light().ambient_front, same(bare - 1.5));
    set.shot.ambient->panel.reset();
    // A window of 60 degrees a metre away, in front: a disc of 1155 mm. A metre behind the subject it is two metres
    // off.
    set.shot.ambient->position = {.azimuth = 0, .elevation = 0};
    set.shot.ambient->distance = 1000;
    set.shot.background = Background{.distance = 1000, .reflectance = 0.18};
    const double radius = 1000 * std::tan(30 * degree);
    const double falls = std::log2((1e6 + radius * radius) / (4e6 + radius * radius));
    CHECK_THAT(*set.light().background, same(*set.light().ambient + falls));
}

TEST_CASE("a background that shines is as bright at every distance, and highlights clip where they should",
          "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.subject.highlight_reflectance = 0.72;
    set.shot.background = Background{.distance = 200, .reflectance = 0, .own_ev100 = light::ev100_of_luminance(100)};
    const double near = *set.light().background;
    set.shot.background->distance = 2000;
    CHECK_THAT(*set.light().background, same(near));
    set.shot.exposure.shutter *= 4;
    CHECK_THAT(*set.light().background, same(near + 2));
    const auto light = set.light();
    CHECK_THAT(*light.highlight, same(*light.front_total + 2));  // 0.72 is two stops over mid grey
    CHECK_THAT(light.highlight_room, same(std::log2(1 / 0.18) - *light.highlight));
    set.shot.sharpness.headroom = 1;
    CHECK_THAT(set.light().highlight_room, same(light.highlight_room + 1));
}

TEST_CASE("filters take from all light and leave depth alone", "[plan][light]") {
    Lit set;
    set.shot.ambient = Ambient{.ev100 = 8};
    set.shoot.kit.filters = {{.id = "nd", .name = "Neutral density", .thread = 62, .loss = 3}};
    const auto before = assess(set.shoot.kit, set.shot, {});
    set.shot.rig.filters = {"nd"};
    const auto after = assess(set.shoot.kit, set.shot, {});
    CHECK_THAT(*after.light.front_total, same(*before.light.front_total - 3));
    CHECK_THAT(*after.light.ambient, same(*before.light.ambient - 3));
    CHECK(after.sharpness.depth_of_field == before.sharpness.depth_of_field);
    CHECK(after.optics.fit.joints.back().outer == "Neutral density");
}

TEST_CASE("the field behind grows as from the entrance pupil, and is the field at the plane of focus", "[plan]") {
    Lit set;
    set.shot.subject.depth = 0;
    set.shot.background = Background{.distance = 0};
    auto optics = assess(set.shoot.kit, set.shot, {}).optics;
    CHECK_THAT(*optics.field_behind_width, same(*optics.field_width));
    set.shot.background->distance = 300;
    const double near = *assess(set.shoot.kit, set.shot, {}).optics.field_behind_width;
    set.shot.background->distance = 600;
    CHECK_THAT(*assess(set.shoot.kit, set.shot, {}).optics.field_behind_width - near, same(near - *optics.field_width));
    // A symmetrical lens of 100 mm as a thin one: pupil in the lens, 300 mm from a subject at half life size.
    CHECK_THAT(near, test::WithinRel(*optics.field_width * 2, 0.2));
}

TEST_CASE("a shot without lights or with cards alone can be assessed, turned and saved", "[plan][light]") {
    Lit set;
    set.shot.lights = {{.reflector = Reflector{}}};
    const auto light = set.light();
    CHECK_FALSE(light.total);
    CHECK_FALSE(light.front_total);
    CHECK_FALSE(light.tones.lit);
}

TEST_CASE("metered flash begins by what was learned, then by practice, then by the average", "[plan][light]") {
    using By = plan::MeteringReport::By;
    Lit set;
    set.shot.subject = {
        .width = 200, .height = 200, .depth = 0, .reflectance = 0.4, .form = Form::slab};  // fills the frame
    set.shot.lights[0].power.reset();
    set.shot.lights[0].metered = 0;
    const auto metering = [&] { return *set.source().metering; };
    // Grey that fills the frame: the average wants plus, and there is room for it.
    CHECK(metering().by == By::average);
    CHECK_THAT(metering().advised, WithinAbs(std::log2(0.4 / 0.18), 1.0 / 6 + 1e-9));
    // What it advises brings the front to correct, where not even paper white clips.
    set.shot.subject.highlight_reflectance = 0.59;
    set.shot.lights[0].metered = metering().advised;
    CHECK(set.light().highlight_room > 0);
    set.shot.lights[0].metered = 0;
    // White glaze and teeth: practice dials minus where the average would dial plus.
    set.shot.subject.highlight_reflectance.reset();
    set.shot.subject.reflectance = 0.85;
    CHECK(metering().by == By::practice);
    CHECK_THAT(metering().advised, WithinAbs(-1, 1e-9));
    CHECK(metering().error < -2);
    CHECK_THAT(*set.light().front_total, WithinAbs(1, 1e-9));  // so a stop too bright without it
    // Two test frames of this unit that came out half a stop over what the average said.
    const whatif::Lesson lesson{.frame_stops = *set.light().front_total + 0.5, .time = "t"};
    set.shoot.kit = whatif::taught(plan::plan_of(set.shoot.kit, set.shot, {}), lesson);
    REQUIRE(set.shoot.kit.flashes[0].metered_corrections.size() == 1);
    CHECK(set.shoot.kit.flashes[0].corrections.empty());  // the guide number is not touched
    CHECK(metering().by == By::learned);
    CHECK_THAT(metering().learned.stops, same(lesson.frame_stops - metering().error));
    CHECK_THAT(*set.light().front_total, same(lesson.frame_stops));
    // What it advises gives a correct exposure, to the dial's third, unless the highlight is in the way.
    set.shot.lights[0].metered = metering().advised;
    CHECK(*set.light().front_total < 1.0 / 6 + 1e-9);
}

TEST_CASE("a unit whose table states t0.1, or nobody knows what, is read on the cautious side", "[plan][light]") {
    gear::Flash flash{.discharge = light::Discharge::decay, .durations = {{.power = 1, .t05 = 0.001}}};
    CHECK_THAT(gear::flash_time(flash, 1)->t01, same(0.001 * std::log2(10)));
    flash.durations_mean = gear::DurationMeans::t01;
    CHECK_THAT(gear::flash_time(flash, 1)->t01, same(0.001));
    CHECK_THAT(gear::flash_time(flash, 1)->t05, same(0.001 / std::log2(10)));
    flash.discharge = light::Discharge::cut;
    CHECK_THAT(gear::flash_time(flash, 1)->t05, same(0.001));
    flash.durations_mean = gear::DurationMeans::unknown;
    CHECK_THAT(gear::flash_time(flash, 1)->t05, same(0.001));
    CHECK_THAT(gear::flash_time(flash, 1)->t01, same(0.001 * std::log2(10)));
}

TEST_CASE("a mended frame leaves a light of its own stops to find its power", "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.lights = {test::plain_light(), test::plain_light()};
    for (auto& light : set.shot.lights) light.power.reset();
    set.shot.lights[1].own_stops = 1;
    set.shot.lights[1].position = {.distance = 300, .azimuth = 120};
    for (const auto& fix : whatif::fixes(plan::plan_of(set.shoot.kit, set.shot, {}), 0.7)) {
        INFO(fix.label);
        for (const auto& light : fix.shot.lights) CHECK_FALSE((light.power && light.own_stops));
        CHECK(fix.shot.lights[0].power);
        CHECK_THAT(*assess(set.shoot.kit, fix.shot, {}).light.sources[1].stops, WithinAbs(1, 1e-9));
    }
}

TEST_CASE("high-speed sync moves the wall, and a ring has two halves", "[plan][light]") {
    Lit set;
    set.shot.exposure.shutter = set.shoot.kit.cameras[0].sync;
    CHECK(*set.light().shutter_room == 0);
    set.shot.exposure.high_speed_sync = true;
    CHECK(*set.light().shutter_room == 0);  // the unit does not have it
    set.shoot.kit.flashes[0].high_speed_sync = true;
    CHECK_THAT(*set.light().shutter_room, same(std::log2(8000 * set.shoot.kit.cameras[0].sync)));

    set.shoot.kit.flashes.push_back(
        {.id = "ring", .name = "Ring light", .front_thread = 62, .heads = gear::Heads::ring});
    set.shot.lights[0].flash = "ring";
    set.shot.lights[0].on_lens = true;
    CHECK(set.source().tubes.size() == 1);
    const double even = *set.light().tones.lit - *set.light().tones.shadow;
    CHECK_THAT(even, WithinAbs(0, 1e-9));
    set.shot.lights[0].ratio = 8;  // one tube off
    const auto tubes = set.source().tubes;
    REQUIRE(tubes.size() == 2);
    CHECK_THAT(tubes[0].share + tubes[1].share, same(1));
    CHECK(tubes[1].share < 0.005);
    CHECK(tubes[0].place.azimuth > 0);
    CHECK(*set.light().tones.lit > *set.light().tones.shadow + 0.1);
}

TEST_CASE("a window from behind draws an edge", "[plan][light]") {
    Lit set;
    set.shot.subject.depth = 20;
    set.shot.lights.clear();
    set.shot.ambient = Ambient{.ev100 = 8, .kind = AmbientKind::window, .position = {.azimuth = -60}, .size = 30};
    CHECK_FALSE(set.light().tones.rim);
    set.shot.ambient->position.azimuth = 110;
    const auto light = set.light();
    REQUIRE(light.tones.rim);
    // A dome reads what a ball's face gets: bare, the window gives so much more, and the edge its sine of that.
    const double bare = 0.85 / light::ball_share(std::cos(110 * degree));
    CHECK_THAT(*light.tones.rim, same(*light.ambient_front + std::log2(bare * std::sin(110 * degree))));
}

TEST_CASE("automatic exposure of what is there: learned before practice before the average", "[plan][light]") {
    Lit set;
    set.shot.lights.clear();
    set.shot.subject.form = shoot::Form::slab;
    set.shot.subject.reflectance = 0.3;
    set.shot.ambient = Ambient{.ev100 = 8};
    using By = MeteringReport::By;
    // Fills the frame: the average makes 30 % of it grey.
    set.shot.subject.width = 200, set.shot.subject.height = 200;
    auto light = set.light();
    REQUIRE(light.automatic);
    CHECK(light.automatic->by == By::average);
    CHECK_THAT(light.automatic->error, same(-std::log2(0.3 / 0.18)));
    CHECK_THAT(light.automatic->advised, WithinAbs(2.0 / 3, 1e-9));  // of 0.74, in thirds
    CHECK_THAT(*light.automatic_shutter, same(set.shot.exposure.shutter * std::exp2(-*light.front_total)));
    // White glaze: practice dials minus where an average asks for plus.
    set.shot.subject.reflectance = 0.75;
    light = set.light();
    CHECK(light.automatic->by == By::practice);
    CHECK(light.automatic->error < -2);
    CHECK(light.automatic->advised == -1);
    // A bright screen behind takes the average up: the thing before it comes out dark by it.
    set.shot.subject.reflectance = 0.2;
    set.shot.subject.width = 20, set.shot.subject.height = 10;
    set.shot.background = shoot::Background{.distance = 100, .reflectance = 0.05, .own_ev100 = 12};
    light = set.light();
    const double fill = light.automatic->fill, behind = std::exp2(*light.background - *light.front_total);
    CHECK_THAT(light.automatic->error, same(-std::log2((fill * 0.2 + (1 - fill) * 0.18 * behind) / 0.18)));
    CHECK(light.automatic->advised > 2);
    // What one frame in automatic showed holds from then on, kept in the camera.
    const whatif::Lesson lesson{.kept_in = whatif::KeptIn::camera, .frame_stops = 0.5, .time = "2026-11-29"};
    const double before = light.automatic->advised;
    set.shoot.kit = whatif::taught(plan::plan_of(set.shoot.kit, set.shot, {}), lesson);
    REQUIRE(set.shoot.kit.cameras[0].metered_corrections.size() == 1);
    light = set.light();
    CHECK(light.automatic->by == By::learned);
    CHECK_THAT(light.automatic->advised, WithinAbs(std::round(3 * (before - 0.5)) / 3, 1e-9));
    set.shoot.kit = whatif::untaught(set.shoot.kit, set.shot, lesson);
    CHECK(set.shoot.kit.cameras[0].metered_corrections.empty());
    // A flash that fires is metered by itself.
    set.shot.lights = {test::plain_light()};
    CHECK_FALSE(set.light().automatic);
}
