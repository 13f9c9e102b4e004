#include "plan/light/lighting.hpp"
#include "plan/assess.hpp"
#include "plan/light/charges.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <cmath>

using namespace poquito;
using namespace poquito::gear;
using namespace poquito::shoot;
using namespace poquito::plan;
using test::same;
using test::WithinAbs;

namespace {

struct Set {
    Shoot shoot = test::plain_shoot();
    Shot& shot = shoot.shots[0];
    Light& light() {
        if (shot.lights.empty()) shot.lights = {test::plain_light()};
        return shot.lights[0];
    }
    Report report() { return assess(shoot.kit, shot, {}); }
    const SourceReport source(std::size_t i = 0) { return report().light.sources[i]; }
};

}  // namespace

TEST_CASE("the power that is suggested exposes correctly within half a step", "[shoot][light]") {
    // Whatever stands in the way: dialled as suggested, the exposure is 0 within half a step where power reaches.
    int seen = 0;
    for (unsigned seed = 0; seed < 400; ++seed) {
        auto shoot = test::random_shoot(seed);
        for (std::size_t shot_index = 0; shot_index < shoot.shots.size(); ++shot_index) {
            Shot& shot = shoot.shots[shot_index];
            std::erase_if(shot.lights,
                          [](const Light& light) { return !plan::shares_exposure(light) || light.metered; });
            if (shot.lights.empty()) continue;
            const auto wanted = assess(shoot.kit, shot, {}).light;
            bool within = true;
            double step = 0;
            for (std::size_t i = 0; i < shot.lights.size(); ++i) {
                const auto& source = wanted.sources[i];
                if (!source.suggested_power) {
                    within = false;
                    continue;
                }
                const auto& scale = power_scale(source_of(shoot.kit, shot.lights[i]));
                within = within && source.power <= 1 && source.power >= scale.least;
                step = std::max(step, scale.step);
                shot.lights[i].power = source.suggested_power;
            }
            if (!within) continue;
            ++seen;
            const auto dialled = assess(shoot.kit, shot, {}).light;
            // Or as much brighter as is wished.
            CHECK(std::abs(*dialled.front_total - shot.wishes.brighter.value_or(0)) <= step / 2 + 1e-9);
        }
    }
    CHECK(seen > 50);
}

TEST_CASE("a lamp is set by shutter and aperture like the light that is there", "[shoot][light]") {
    Set set;
    set.shot.lights = {{.lamp = "panel", .position = {.distance = 1000}, .power = 1}};
    // By head: at the measured distance 2000 lx are EV log2(2000 / 2.5) = 9.64.
    set.shot.ambient = Ambient{.ev100 = std::log2(800.0)};
    const auto light = set.report().light;
    CHECK_THAT(*light.sources[0].stops, same(*light.ambient));
    CHECK(light.sources[0].continuous);
    CHECK_THAT(*light.continuous, same(std::log2(std::exp2(*light.ambient_front) + std::exp2(*light.ambient))));
    CHECK_FALSE(light.flash);
    set.shot.exposure.shutter *= 2;
    CHECK_THAT(*set.report().light.sources[0].stops, same(*light.sources[0].stops + 1));
    set.shot.lights[0].power = 0.5;
    CHECK_THAT(*set.report().light.sources[0].stops, same(*light.sources[0].stops));
}

TEST_CASE("a softbox on a lamp takes its light and changes the size of what shines", "[shoot][light]") {
    Set set;
    set.shot.lights = {{.lamp = "panel", .modifier = "box", .position = {.distance = 500}, .power = 1}};
    // By the disc rule from the panel's face of 300 mm at a metre to the box's of 200 mm at half a metre, less a stop.
    const double lux = 2000 * (1000.0 * 1000 + 150.0 * 150) / (500.0 * 500 + 100.0 * 100) / 2;
    const double n = set.report().optics.working_f_number;
    CHECK_THAT(*set.source().stops, WithinAbs(std::log2(lux / 2.5 * 0.125 / (n * n)), 1e-9));
}

TEST_CASE("a screen lights as a disc of its luminance", "[shoot][light]") {
    Set set;
    set.shoot.kit.lamps[0] = {
        .id = "panel", .name = "Screen", .lux = std::nullopt, .luminance = 300, .face = 400, .scale = {.least = 1}};
    set.shot.lights = {{.lamp = "panel", .position = {.distance = 200, .azimuth = 180}, .power = 1}};
    // pi L (w/2)^2 / (d^2 + (w/2)^2) = pi 300 / 2 at a distance of half its width.
    const double ev = std::log2(M_PI * 300 / 2 / 2.5);
    const double n = set.report().optics.working_f_number;
    CHECK_THAT(*set.source().stops, WithinAbs(ev + std::log2(0.125 / (n * n)), 1e-9));
}

TEST_CASE("what stands in the way adds up: modifier, layer, bounce, calibration", "[shoot][light]") {
    Set set;
    set.light().power = 0.25;
    const double bare = *set.source().stops;
    set.light().modifier = "box";
    set.light().second_layer = true;
    set.shoot.kit.modifiers[0].layer_loss = 1.2;
    const double d = 500;
    const double face = std::log2((d * d + 100.0 * 100) / (d * d));
    CHECK_THAT(*set.source().stops, same(bare - 1 - 1.2 - face));
    CHECK_THAT(set.source().losses.total(), same(2.2));
    set.light().modifier.reset();
    // Off a card: the whole path, 300 + 500, and half a stop swallowed.
    set.light().bounce = Bounce{.from_lamp = 300, .reflectance = std::exp2(-0.5), .diameter = 400};
    CHECK_THAT(*set.source().stops, same(bare - 0.5 - 2 * std::log2(800.0 / 500)));
    CHECK(set.source().path == 800);
    CHECK(set.source().tubes[0].diameter == 400);
    set.light().bounce.reset();
    // Two frames that found the unit brighter: their mean counts, in guide number as in stops.
    set.shoot.kit.flashes[0].corrections = {{.stops = 0.2}, {.stops = 0.6}};
    CHECK_THAT(*set.source().stops, same(bare + 0.4));
    CHECK(set.source().calibration.count == 2);
    CHECK_THAT(flash_path(plan_of(set.shoot.kit, set.shot, {}), source_of(set.shoot.kit, set.light())).guide_number,
               same(32 * std::exp2(0.2)));
}

TEST_CASE("a light turned away gives the subject less and the card more", "[shoot][light]") {
    Set set;
    set.shot.background = Background{.distance = 400, .reflectance = 0.18};
    set.light() = {.flash = "flash", .modifier = "grid", .position = {.distance = 500, .azimuth = 90}, .power = 0.25};
    const auto straight = set.source();
    CHECK(straight.losses.aim == 0);
    set.light().aim.turn = 10;  // to its own right: behind the subject
    const auto turned = set.source();
    // Half of the light at half of the grid's angle, and the face's cosine.
    CHECK_THAT(*turned.stops, WithinAbs(*straight.stops - 1 + std::log2(std::cos(M_PI / 18)), 1e-9));
    CHECK(*turned.background > *straight.background);
    set.light().aim.turn = 120;
    const auto away = set.source();
    CHECK_FALSE(away.stops);
    CHECK(away.fires);  // it still lights what it looks at, takes its time and its charge
    CHECK(away.recycle > 0);
    set.light().aim.turn = -120;
    CHECK_FALSE(set.source().background);
}

TEST_CASE("a grid that looks at the subject takes from the card by its own angle alone", "[shoot][light]") {
    Set set;
    set.shot.background = Background{.distance = 400, .reflectance = 0.18};
    set.light() = {.flash = "flash", .modifier = "grid", .position = {.distance = 500, .azimuth = 90}, .power = 0.25};
    set.shoot.kit.modifiers[1].grid.reset();
    const double open = *set.source().background;
    set.shoot.kit.modifiers[1].grid = 120;
    const double aside = std::atan2(400, 500) * 180 / M_PI;
    CHECK_THAT(*set.source().background, same(open - std::pow(2 * aside / 120, 2)));
}

TEST_CASE("a flash that would need more than its full power recycles as from full", "[shoot][light]") {
    Set set;
    set.light().position.distance = 4000;
    set.shot.exposure.f_number = 16;
    CHECK(set.source().power > 1);
    CHECK(set.source().recycle == 4);
}

TEST_CASE("without a grid a light that looks at the subject lights the card as the model has it", "[shoot][light]") {
    Set set;
    set.shot.background = Background{.distance = 400, .reflectance = 0.18};
    set.light() = {.flash = "flash", .position = {.distance = 500, .azimuth = 40, .elevation = 30}, .power = 0.25};
    const double cosine = std::cos(40 * M_PI / 180) * std::cos(30 * M_PI / 180);
    const double squared = 500.0 * 500 + 400.0 * 400 + 2 * 400.0 * 500 * cosine;
    const double slant = (500 * cosine + 400) / std::sqrt(squared);
    const double expected = *set.source().stops + std::log2(250000 / squared * slant);
    CHECK_THAT(*set.report().light.background, WithinAbs(expected, 1e-9));
}

TEST_CASE("a twin light's tubes stand at the lens's rim and share its light by their ratio", "[shoot][light]") {
    Set set;
    set.light() = {.flash = "twin", .position = {.distance = 7}, .power = 0.125, .on_lens = true, .ratio = 1};
    const auto source = set.source();
    const double ahead = *set.report().optics.working_distance, aside = (60 + 30) / 2.0;
    CHECK_THAT(source.place.distance, same(std::hypot(ahead, aside)));
    CHECK_THAT(source.place.azimuth, same(std::atan2(aside, ahead) * 180 / M_PI));
    REQUIRE(source.tubes.size() == 2);
    CHECK_THAT(source.tubes[0].share, same(2.0 / 3));
    CHECK_THAT(source.tubes[0].place.azimuth, same(-source.tubes[1].place.azimuth));
    // Its guide number is of both together, so that the ratio moves light about and makes none.
    set.light().ratio = -2;
    CHECK_THAT(*set.source().stops, same(*source.stops));
    // Nearer to the subject it gives more, and its angle opens.
    set.shot.rig.focus.value = 1;
    CHECK(set.source().place.azimuth > source.place.azimuth);
    set.shoot.kit.flashes[1].spread = 200;
    CHECK_THAT(set.source().place.distance, same(std::hypot(*set.report().optics.working_distance, 100)));
    set.shoot.kit.flashes[1].heads = Heads::ring;
    CHECK(set.source().tubes.size() == 2);  // its half tubes at the ratio that stands: 2/pi of the rim aside
    CHECK_THAT(set.source().tubes[0].share, same(1 / (1 + std::exp2(2))));
    set.light().ratio = 0;
    REQUIRE(set.source().tubes.size() == 1);
    CHECK_THAT(set.source().tubes[0].diameter, same(230));
}

TEST_CASE("past sync a flash with high-speed sync loses light and no longer freezes", "[shoot][light]") {
    Set set;
    set.light().power = 0.25;
    set.shot.exposure.shutter = 0.005;
    const auto at_sync = set.source();
    set.shot.exposure.shutter = 0.00125;
    set.shot.exposure.high_speed_sync = true;
    set.shoot.kit.flashes[0].high_speed_sync = true;
    CHECK_THAT(*set.source().stops, same(*at_sync.stops - 2 - 2));
    CHECK(at_sync.t05);
    CHECK_FALSE(set.source().t05);
    CHECK_FALSE(set.report().motion.frozen_by_flash);
    set.shoot.kit.flashes[0].high_speed_sync = false;  // a unit that cannot is not helped by the switch
    CHECK_THAT(*set.source().stops, same(*at_sync.stops));
}

TEST_CASE("the camera's metering errs by what it sees, and compensation takes it back", "[shoot][light]") {
    Set set;
    set.shot.subject.form = Form::slab;
    set.shot.subject.width = 24;  // half of the field of 48 x 32
    set.shot.subject.height = 32;
    set.shot.subject.reflectance = 0.5;
    set.light().power.reset();
    set.light().metered = 0;
    auto source = set.source();
    REQUIRE(source.metering);
    CHECK_THAT(source.metering->fill, WithinAbs(0.5, 0.01));
    const double error = -std::log2(source.metering->fill * 0.5 / 0.18);
    CHECK_THAT(source.metering->error, same(error));
    CHECK_THAT(*set.report().light.front_total, same(error));
    set.light().metered = -error;
    CHECK_THAT(*set.report().light.front_total, WithinAbs(0, 1e-9));
    // It hides a changed stop: the exposure stays.
    set.shot.exposure.f_number = 16;
    CHECK_THAT(*set.report().light.front_total, WithinAbs(0, 1e-9));
}

TEST_CASE("shares add up, the key leads by its ratio, and light falls off from front to back", "[shoot][light]") {
    for (unsigned seed = 0; seed < 200; ++seed) {
        const auto shoot = test::random_shoot(seed);
        for (const Shot& shot : shoot.shots) {
            const auto light = assess(shoot.kit, shot, {}).light;
            if (!light.front_total) continue;
            double sum = light.ambient_front ? std::exp2(*light.ambient_front - *light.front_total) : 0;
            if (light.ambient_through) sum += std::exp2(*light.ambient_through - *light.front_total);
            for (const auto& source : light.sources) {
                sum += source.share.value_or(0);
                if (light.key && source.share) CHECK(*source.share <= *light.sources[*light.key].share);
            }
            CHECK_THAT(sum, WithinAbs(1, 1e-9));
        }
    }
    Set set;
    set.shot.subject.depth = 100;
    set.light() = {.flash = "flash", .position = {.distance = 500}, .power = 0.25};
    // From the camera's side: 450 against 550 mm.
    CHECK_THAT(*set.source().falloff, same(2 * std::log2(550.0 / 450)));
    CHECK_THAT(*set.report().light.nearest - *set.report().light.farthest, same(*set.source().falloff));
    set.shot.lights.push_back(set.shot.lights[0]);
    set.shot.lights[1].power = 0.0625;
    CHECK_THAT(*set.report().light.key_to_fill, same(2));
    CHECK(set.report().light.key == 0);
}

TEST_CASE("each way to a black frame makes it five stops dark", "[shoot][light]") {
    Set set;
    set.light().power = 0.25;
    set.shot.exposure.shutter = 0.125;
    set.shot.ambient = Ambient{.ev100 = 7};
    const auto black = set.report().light.black_frame;
    REQUIRE(black);
    CHECK(black->over > 0);
    const auto darkness = [&](auto change) {
        Set other = set;
        change(other.shoot.shots[0]);
        return *assess(other.shoot.kit, other.shoot.shots[0], {}).light.continuous;
    };
    CHECK_THAT(darkness([&](Shot& shot) { shot.exposure.f_number = black->f_number; }), WithinAbs(-5, 1e-9));
    CHECK_THAT(darkness([&](Shot& shot) { shot.exposure.iso = black->iso; }), WithinAbs(-5, 1e-9));
    REQUIRE(black->shutter);
    CHECK_THAT(darkness([&](Shot& shot) { shot.exposure.shutter = *black->shutter; }), WithinAbs(-5, 1e-9));
    set.shot.ambient->ev100 = 12;  // too bright for any shutter within sync
    CHECK_FALSE(set.report().light.black_frame->shutter);
}

TEST_CASE("the ISO that is named lets an automatic flash keep up with the frames", "[shoot][light]") {
    Set set;
    set.shot.capture.mode = CaptureMode::stack;
    set.light().position.distance = 900;
    set.light().power.reset();
    set.shot.exposure.f_number = 16;
    const auto iso = set.report().light.recycling_iso;
    REQUIRE(iso);
    CHECK(*iso > set.shot.exposure.iso);
    set.shot.exposure.iso = *iso;
    CHECK_THAT(set.report().capture.recycle, WithinAbs(set.report().capture.interval, 1e-9));
    CHECK_FALSE(set.report().light.recycling_iso);
    set.shot.exposure.iso /= 4;
    set.shot.capture.mode = CaptureMode::single;  // one frame waits for nothing
    CHECK_FALSE(set.report().light.recycling_iso);
}

TEST_CASE("by hand the smear grows with magnification and time, and ghosts show what ambient draws",
          "[shoot][motion]") {
    Set set;
    set.shot.ambient = Ambient{.ev100 = 8};
    CHECK(set.report().motion.hand_blur == 0);
    set.shot.rig.support = Support::hand;
    // By head: (0.03 * 100 * 1.5 + 2 * 0.5) mm/s for an eighth of a second.
    CHECK_THAT(set.report().motion.hand_blur, WithinAbs((0.03 * 100 * 1.5 + 1) / 8, 0.02));
    const double half = set.report().motion.hand_blur;
    set.shot.exposure.shutter /= 2;
    CHECK_THAT(set.report().motion.hand_blur, same(half / 2));
    set.light().power = 0.02;
    set.shot.subject.speed = 40;
    const auto motion = set.report().motion;
    CHECK_THAT(motion.ghost_blur, same(set.report().optics.magnification * 40 * set.shot.exposure.shutter));
    CHECK_THAT(motion.ghost_share, same(std::exp2(*set.report().light.continuous - *set.report().light.front_total)));
}

TEST_CASE("groups give lights their names", "[shoot][light]") {
    Set set;
    set.shot.lights = {test::plain_light(), test::plain_light(), test::plain_light()};
    CHECK(light_label(set.shot, 1) == "B");
    set.shot.lights[1].group = "A";
    CHECK(light_label(set.shot, 0) == "A1");
    CHECK(light_label(set.shot, 1) == "A2");
    CHECK(light_label(set.shot, 2) == "C");
}

TEST_CASE("a unit states and takes its power in its own way", "[shoot][light]") {
    Set set;
    const Light& light = set.light();
    auto& flash = set.shoot.kit.flashes[0];
    const auto& kit = set.shoot.kit;
    CHECK(setting_text(source_of(kit, light), 0.125) == "1/8");
    flash.energy = 400;
    flash.power_shown = PowerShown::watt_seconds;
    CHECK(setting_text(source_of(kit, light), 0.125) == "50 Ws");
    CHECK_THAT(parse_setting(source_of(kit, light), "50 Ws").value(), same(0.125));
    CHECK_THAT(parse_setting(source_of(kit, light), "100").value(), same(0.25));
    CHECK_THAT(parse_setting(source_of(kit, light), "1/8").value(), same(0.125));
    CHECK_FALSE(parse_setting(source_of(kit, light), "Ws"));
    flash.power_shown = PowerShown::stops;
    CHECK(setting_text(source_of(kit, light), 0.125) == "\u22123.0 stops");
    CHECK_THAT(parse_setting(source_of(kit, light), "-3").value(), same(0.125));
    set.shot.lights.push_back({.lamp = "panel", .power = 1});
    CHECK(setting_text(source_of(kit, set.shot.lights[1]), 0.4) == "40 %");
    CHECK(parse_setting(source_of(kit, set.shot.lights[1]), "full") == 1);
}

TEST_CASE("flashes of a shoot are counted by what they take of a charge", "[shoot][light]") {
    Set set;
    set.light().power = 0.25;
    set.shoot.kit.flashes[0].charge = 100;
    set.shoot.kit.flashes[0].per_minute = 10;
    set.shot.capture.mode = CaptureMode::stack;
    set.shoot.shots.push_back(set.shoot.shots[0]);
    const auto report = assess(set.shoot.kit, set.shoot.shots[0], {});
    const auto uses = charge_use(set.shoot, {&report, &report});
    REQUIRE(uses.size() == 1);
    CHECK(uses[0].flashes == 2 * report.capture.frames);
    CHECK_THAT(*uses[0].share, same(2 * report.capture.frames / 4 / 100));
    CHECK_THAT(flashes_a_minute(set.shoot.kit.flashes[0], 0.25).value(), same(40));
    CHECK_FALSE(flashes_a_minute(set.shoot.kit.flashes[1], 0.25));
}

TEST_CASE("a light put where a stop more is said to be gives a stop more", "[plan][light]") {
    Set set;
    set.light().power = 0.25;
    for (const bool softened : {false, true}) {
        if (softened) set.light().modifier = set.shoot.kit.modifiers.at(0).id;
        for (const double stops : {-2.0, -1.0, 0.0, 1.0, 2.0}) {
            const auto source = set.source();
            const auto plan = plan_of(set.shoot.kit, set.shot, {});
            const auto distance = distance_for(plan.sources[0], source, stops);
            REQUIRE(distance);
            auto moved = set.shot;
            moved.lights[0].position.distance = *distance;
            const auto there = assess(set.shoot.kit, moved, {}).light.sources[0];
            INFO(softened << ", " << stops << " stops, " << *distance << " mm");
            CHECK_THAT(*there.stops - *source.stops, WithinAbs(stops, 1e-6));
        }
    }
}
