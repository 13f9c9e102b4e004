// What practice says of set-ups as people use them, row by row: each number and each piece of advice is common
// practice, and stands beside its check. What the model says more exactly, it says within the width of such a rule.
#include "advice/advice.hpp"
#include "advice/proposals/proposals.hpp"
#include "advice/worth/judgement.hpp"
#include "plan/assess.hpp"
#include "shoot/change/edit.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <fstream>
#include <sstream>

using namespace poquito;
using namespace poquito::shoot;
using namespace poquito::advice;
using test::WithinAbs;

namespace {

/// The plain shoot at a magnification and stop, without light.
struct Try {
    explicit Try(double magnification, double f_number = 8) {
        shot().rig.focus.value = magnification;
        shot().exposure.f_number = f_number;
    }
    Shot& shot() { return shoot.shots[0]; }
    gear::Camera& camera() { return shoot.kit.cameras.front(); }
    optics::Lens& lens() { return shoot.kit.lenses.front().optics; }
    plan::Report report() { return plan::assess(shoot.kit, shoot.shots[0], {}); }
    std::vector<Note> notes() { return advise(shoot.kit, shoot.shots[0], {}).notes; }
    Shoot shoot = test::plain_shoot();
};

const optics::Lens macro_60{.focal_length = 60,
                            .max_aperture = 2.8,
                            .min_aperture = 32,
                            .closest_focus = 240,
                            .max_magnification = 1,
                            .length = 70,
                            .front_diameter = 60};

bool has(const std::vector<Note>& notes, const char* code) { return std::ranges::count(notes, code, &Note::code) > 0; }

const ChecklistItem& item(const std::vector<ChecklistItem>& list, const char* id) {
    const auto found = std::ranges::find(list, id, &ChecklistItem::id);
    REQUIRE(found != list.end());
    return *found;
}

}  // namespace

TEST_CASE("a macro lens that shows its working stop goes from 3.8 over 4.2 to 4.5 as one comes nearer", "[practice]") {
    for (const auto& [magnification, shown] : {std::pair(0.36, 3.8), std::pair(0.50, 4.2), std::pair(0.61, 4.5)}) {
        Try at(magnification, 2.8);
        at.camera().aperture_display = gear::ApertureDisplay::working;
        CHECK_THAT(at.report().optics.displayed_f_number, WithinAbs(shown, 0.05));
    }
}

TEST_CASE("10, 16 and 26 mm of tube on a 55 mm lens lose infinity and come closer each time", "[practice]") {
    for (const auto& [length, magnification] : {std::pair(10, 0.33), std::pair(16, 0.44), std::pair(26, 0.62)}) {
        Try at(1);
        at.lens() = {.focal_length = 55,
                     .max_aperture = 5.6,
                     .min_aperture = 32,
                     .closest_focus = 490,
                     .max_magnification = 0.15,
                     .length = 80,
                     .front_diameter = 52};
        at.shoot.kit.tubes.front().length = length;
        at.shot().rig.tubes = {"t20"};
        at.shot().rig.focus = {.by = FocusBy::ring, .value = 1};
        CHECK_FALSE(at.report().optics.reaches_infinity);
        CHECK_THAT(at.report().optics.magnification, WithinAbs(magnification, 0.01));
        CHECK(has(at.notes(), "infinity-lost"));
    }
}

TEST_CASE("29 mm of tubes leave air at 60 mm and put the subject into the lens at 24 mm", "[practice]") {
    const auto at_focal = [](double focal) {
        Try at(1);
        at.lens() = {.focal_length = focal,
                     .max_aperture = 4,
                     .min_aperture = 22,
                     .closest_focus = 380,
                     .max_magnification = focal == 60 ? 0.26 : 0.11,
                     .focusing = optics::Focusing::internal,
                     .hiatus = 10,
                     .length = 95,
                     .front_diameter = 60};
        at.shoot.kit.tubes.front().length = 29;
        at.shot().rig.tubes = {"t20"};
        at.shot().rig.focus = {.by = FocusBy::ring, .value = 0};
        return at;
    };
    auto long_end = at_focal(60), short_end = at_focal(24);
    CHECK_THAT(long_end.report().optics.magnification, WithinAbs(0.48, 0.01));
    CHECK(long_end.report().optics.working_distance.value() > 40);
    CHECK(has(short_end.notes(), "focus-inside-lens"));
}

TEST_CASE("a kit zoom at its nearest shows 78 mm", "[practice]") {
    Try at(0.30);
    at.camera().sensor.width = 23.5;
    CHECK_THAT(at.report().optics.field_width.value(), WithinAbs(78, 1));
}

TEST_CASE("+8 on a 60 mm macro: less depth, less air, more shake", "[practice]") {
    Try bare(1), close(1);
    for (Try* at : {&bare, &close}) {
        at->lens() = macro_60;
        at->shot().rig.support = Support::hand;
        at->shot().rig.focus = {.by = FocusBy::ring, .value = 1};
    }
    close.shoot.kit.closeup_lenses.front().power_dpt = 8;
    close.shot().rig.closeup_lenses = {"c4"};
    const auto before = bare.report(), after = close.report();
    CHECK(after.optics.magnification > 1.5);
    CHECK(after.sharpness.depth_of_field.value() < before.sharpness.depth_of_field.value() / 2);
    CHECK(after.optics.working_distance.value() < before.optics.working_distance.value());
    CHECK(after.motion.hand_blur > before.motion.hand_blur);
}

TEST_CASE("2:1 is harder than 1:1: a third of the depth, a stop of light", "[practice]") {
    Try once(1), twice(2);
    twice.lens().max_magnification = 2;
    twice.lens().closest_focus = 460;
    const auto one = once.report(), two = twice.report();
    CHECK_THAT(one.sharpness.depth_of_field.value() / two.sharpness.depth_of_field.value(), WithinAbs(2.7, 0.1));
    CHECK_THAT(two.optics.exposure_loss - one.optics.exposure_loss, WithinAbs(1.1, 0.1));
}

TEST_CASE("a beetle is half sharp at f/11 and three quarters at f/16, by the diagonal and not by pixels",
          "[practice]") {
    const auto held = [](double f_number, BlurRule rule) {
        Try at(0.4, f_number);
        at.shot().sharpness.rule = rule;
        return at.report().sharpness.depth_of_field.value() / 7;  // mm deep
    };
    CHECK_THAT(held(11, BlurRule::diagonal), WithinAbs(0.5, 0.06));
    CHECK_THAT(held(16, BlurRule::diagonal), WithinAbs(0.75, 0.06));
    CHECK(held(16, BlurRule::pixel) < 0.5);
    // f/8 stands about halfway between f/2.8 and f/16.
    CHECK(held(8, BlurRule::diagonal) < held(16, BlurRule::diagonal) * 0.6);
    CHECK(held(8, BlurRule::diagonal) > held(2.8, BlurRule::diagonal) * 2);
}

TEST_CASE("four to six frames at f/4 stand in for one at f/11 to f/16", "[practice]") {
    for (const double f_number : {11.0, 16.0}) {
        Try one(0.4, f_number), stack(0.4, 4);
        for (Try* at : {&one, &stack}) at->shot().sharpness.rule = BlurRule::diagonal;
        stack.shot().subject.depth = one.report().sharpness.depth_of_field.value();
        stack.shot().capture = {.mode = CaptureMode::stack, .overlap = 0.3, .lead = 0, .tail = 0, .mover = Mover::rail};
        CHECK(stack.report().capture.frames >= 4);
        CHECK(stack.report().capture.frames <= 7);
    }
}

TEST_CASE("food at f/5.6 to f/8 has 7 to 10 mm, and f/3 is too thin, soft behind is no fault", "[practice]") {
    CHECK_THAT(Try(0.12, 5.6).report().sharpness.depth_of_field.value(), WithinAbs(7, 0.5));
    CHECK_THAT(Try(0.12, 8).report().sharpness.depth_of_field.value(), WithinAbs(10, 0.5));
    CHECK(Try(0.12, 3).report().sharpness.depth_of_field.value() < 4);
    Try plate(0.12, 5.6);
    plate.shot().subject = {.width = 150, .height = 100, .depth = 80};
    plate.shot().capture.slice = Slice{.from = 10, .to = 15, .rest_blur = 0.002};
    CHECK(plate.report().sharpness.zone_covered.value() == 1);
    for (const auto& note : plate.notes())
        if (note.station == Station::depth) CHECK(note.level == Level::info);
}

TEST_CASE("1/200 by hand at 1:2 is sharp by the diagonal and not by the pixel", "[practice]") {
    Try at(0.5);
    at.lens() = macro_60;
    at.shot().rig.support = Support::hand;
    at.shot().exposure.shutter = 1.0 / 200;
    at.shot().sharpness.rule = BlurRule::diagonal;
    const auto by_diagonal = at.report();
    CHECK(by_diagonal.motion.hand_blur < by_diagonal.sharpness.blur_limit);
    at.shot().sharpness.rule = BlurRule::pixel;
    CHECK(at.report().motion.hand_blur > at.report().sharpness.blur_limit);
}

TEST_CASE("flowers in wind want 1/1000", "[practice]") {
    Try at(0.3);
    at.shot().subject.sway_amplitude = 3;
    at.shot().subject.sway_frequency = 1.5;
    at.shot().exposure.shutter = 0.001;
    CHECK_THAT(at.report().motion.sway_blur, WithinAbs(0.0085, 1e-4));
    CHECK(at.report().motion.sway_blur < 0.0192);  // the diagonal of APS-C / 1500
    at.shot().exposure.shutter = 1.0 / 250;
    CHECK(at.report().motion.sway_blur > 0.0192);
}

TEST_CASE("clear sun: f/8, 1/300, ISO 250, cloud: f/5, 1/150, ISO 500, one key goes from one to the other",
          "[practice]") {
    Try at(0.5, 8);
    auto& shot = at.shot();
    shot.ambient = Ambient{.ev100 = 14};
    shot.exposure.shutter = 1.0 / 300;
    shot.exposure.iso = 250;
    CHECK_THAT(at.report().light.ambient.value(), WithinAbs(0, 0.5));
    shot.ambient->ev100 = 11;
    shot.exposure = {.f_number = 5, .shutter = 1.0 / 150, .iso = 500};
    CHECK_THAT(at.report().light.ambient.value(), WithinAbs(0, 0.5));
    // Prepared the other way round, it is right there too, and back is as it was.
    shot.rig.support = Support::hand;
    const auto before = shot;
    const auto limits = usual_limits();
    shot.other_light = prepare_other_light(at.shoot.kit, shot, {limits});
    REQUIRE(shot.other_light);
    CHECK(shot.other_light->ev100 == 14);
    switch_light(shot);
    CHECK_THAT(at.report().light.ambient.value(), WithinAbs(0, 0.2));
    CHECK(shot.exposure.iso <= limits.iso.value());
    CHECK(shot.exposure.shutter <= limits.shutter_by_hand.value() * 1.001);
    switch_light(shot);
    CHECK(shot.exposure == before.exposure);
    CHECK(shot.ambient == before.ambient);
}

TEST_CASE("f/4 and 1/250 in a lit room are black without flash, f/2.8 still dim", "[practice]") {
    for (const auto& [f_number, least, most] : {std::tuple(4.0, -6.1, -5.0), std::tuple(2.8, -5.1, -4.0)}) {
        Try at(0.05, f_number);
        at.shot().ambient = Ambient{.ev100 = 5.5};
        at.shot().exposure.shutter = 1.0 / 250;
        at.shot().exposure.iso = 200;
        const double dark = at.report().light.ambient.value();
        CHECK(dark >= least);
        CHECK(dark <= most);
    }
}

TEST_CASE("flash at f/16 leaves black behind, f/8 colour", "[practice]") {
    const auto behind = [](double f_number) {
        Try at(0.3, f_number);
        at.shot().lights = {test::plain_light()};
        at.shot().ambient = Ambient{.ev100 = 11};
        at.shot().exposure.shutter = 1.0 / 200;
        at.shot().background = Background{.distance = 3000, .reflectance = 0.18};
        return at.report().light.background.value();
    };
    CHECK(behind(16) < -4);
    CHECK(behind(8) > -4);
}

TEST_CASE("a twin light at one power is right at f/22 and a stop bright at f/16, over at f/2.8 is right at f/5.6",
          "[practice]") {
    const auto stops = [](double f_number) {
        Try at(0.8, f_number);
        auto light = test::plain_light();
        light.power = 1.0 / 8;
        at.shot().lights = {light};
        return at.report().light.sources.front().stops.value();
    };
    CHECK_THAT(stops(16) - stops(22), WithinAbs(0.9, 0.05));
    CHECK_THAT(stops(2.8) - stops(5.6), WithinAbs(2, 1e-9));
}

TEST_CASE("a low ceiling bounces, a hall's does not", "[practice]") {
    const auto stops = [](double path) {
        Try at(0.3);
        auto light = test::plain_light();
        light.power = 1;
        light.position.distance = path;
        at.shot().lights = {light};
        return at.report().light.sources.front().stops.value();
    };
    CHECK_THAT(stops(3000) - stops(10000), WithinAbs(3.4, 0.1));
}

TEST_CASE("a toss at 2 m/s is drawn 42 um long by a flash that is cut off, 141 by one left to decay", "[practice]") {
    for (const auto& [decays, blur] : {std::pair(false, 0.042), std::pair(true, 0.141)}) {
        Try at(0.106);
        auto& flash = at.shoot.kit.flashes.front();
        flash.discharge = decays ? light::Discharge::decay : light::Discharge::cut;
        flash.durations = {{.power = 1, .t05 = 1.0 / 5000}, {.power = 1.0 / 128, .t05 = 1.0 / 5000}};
        auto light = test::plain_light();
        light.power = 0.5;
        at.shot().lights = {light};
        at.shot().subject.speed = 2000;
        CHECK_THAT(at.report().motion.blur, WithinAbs(blur, 0.002));
    }
}

TEST_CASE("f/11 for thrown food: two and a half times as deep by the diagonal as by the pixel", "[practice]") {
    Try at(0.085, 11);
    at.shot().sharpness.rule = BlurRule::pixel;
    const double by_pixel = at.report().sharpness.depth_of_field.value();
    at.shot().sharpness.rule = BlurRule::diagonal;
    CHECK_THAT(by_pixel, WithinAbs(26, 1.5));
    CHECK_THAT(at.report().sharpness.depth_of_field.value(), WithinAbs(68, 6));
}

TEST_CASE("sixteen hundred frames take most of a day to sort and combine", "[practice]") {
    const Workday usual;
    const double hours = 1600 * (usual.sorting + usual.combining) / 3600;
    CHECK(hours > 5);
    CHECK(hours < 9);
}

TEST_CASE("of a live thing by hand a single frame comes first, a stack after it", "[practice]") {
    std::ifstream file(POQUITO_DATA "/subjects.json");
    std::stringstream text;
    text << file.rdbuf();
    const auto read = storage::read_subjects(text.str());
    const auto& library = read.value();
    int live = 0;
    for (const auto& subject : library) {
        if (!has_trait(subject.subject, "living")) continue;
        Try at(0.5);
        fill_from(at.shot(), at.shoot.kit, subject);
        if (at.shot().rig.focus.value > 0.9) continue;  // this lens does not come so near
        at.shot().rig.support = Support::hand;
        at.shot().ambient = Ambient{.ev100 = 13};
        at.shot().lights = {test::plain_light()};
        at.shot().sharpness.rule = BlurRule::diagonal;
        const auto plans = proposals_for(at.shoot.kit, at.shot(), {usual_limits()});
        REQUIRE_FALSE(plans.empty());
        INFO(subject.name);
        CHECK((plans.front().school == School::single_ambient || plans.front().school == School::single_flash));
        ++live;
    }
    CHECK(live >= 5);
}

TEST_CASE("autofocus for a large thing that moves, by hand close up, a stand has its feet wide", "[practice]") {
    Try far(0.2), near(0.8);
    for (Try* at : {&far, &near}) at->shot().subject.speed = 20;
    const auto list_of = [](Try& at) { return advise(at.shoot.kit, at.shot(), {}).checklist; };
    CHECK(item(list_of(far), "focus").text.starts_with("Autofocus"));
    CHECK(item(list_of(near), "focus").text.starts_with("Manual"));
    near.shot().rig.support = Support::sturdy_head;
    CHECK(item(list_of(near), "stand").text.find("one of them under the lens") != std::string::npos);
    near.shot().rig.support = Support::hand;
    CHECK(std::ranges::count(list_of(near), "stand", &ChecklistItem::id) == 0);
    CHECK(item(list_of(near), "brace").text.find("breathe out") != std::string::npos);
}

TEST_CASE("ISO limits are personal: the camera's ceiling and the purpose's both hold", "[practice]") {
    Try at(0.5);
    at.camera().iso_max = 800;
    const auto limit = [&](const Limits& limits) {
        return plan::plan_of(at.shoot.kit, at.shot(), {limits}).terms.limits.iso;
    };
    CHECK(limit({}) == 800);
    CHECK(limit({.iso = 500}) == 500);
    CHECK(limit({.iso = 2000}) == 800);
    at.shot().exposure.iso = 1600;
    CHECK(has(at.notes(), "iso-over-limit"));
}

TEST_CASE("own checks stand first in the list, once each, and come by class", "[practice]") {
    Try at(0.5);
    const std::vector<KindCheck> mine = {{.kind = "Insects", .text = "Leaf moved aside"},
                                         {.kind = "Coins", .text = "Fingerprints off"},
                                         {.kind = "", .text = "Second card in"}};
    add_checks(at.shot(), mine, "Insects");
    add_checks(at.shot(), mine, "Insects");
    const auto list = advise(at.shoot.kit, at.shot(), {}).checklist;
    REQUIRE(at.shot().own_checks.size() == 2);
    CHECK(list[0].text == "Leaf moved aside");
    CHECK(list[1].text == "Second card in");
    CHECK(list[0].id != list[1].id);
    // Through the file and back.
    const auto back = storage::read_shoot(storage::write_shoot(at.shoot)).value();
    CHECK(back.shots[0].own_checks == at.shot().own_checks);
    const test::Folder folder;
    REQUIRE(storage::save_checks(mine, folder / "checks.json"));
    CHECK(storage::load_checks(folder / "checks.json").value() == mine);
}

TEST_CASE("the judgement of one frame or a stack does not quarrel with the whole plans", "[practice]") {
    std::ifstream file(POQUITO_DATA "/subjects.json");
    std::stringstream text;
    text << file.rdbuf();
    const auto read = storage::read_subjects(text.str());
    int compared = 0;
    for (const auto& subject : read.value())
        for (const auto support : {Support::hand, Support::sturdy_head}) {
            Try at(0.5);
            fill_from(at.shot(), at.shoot.kit, subject);
            if (at.shot().rig.focus.value > 0.9) continue;
            at.shot().rig.support = support;
            if (support == Support::sturdy_head) at.shot().rig.rail = "rail";
            at.shot().ambient = Ambient{.ev100 = 13};
            at.shot().lights = {test::plain_light()};
            at.shot().sharpness.rule = BlurRule::diagonal;
            at.shot().capture.mover = support == Support::hand ? Mover::hand : Mover::rail;
            const auto plans = proposals_for(at.shoot.kit, at.shot(), {usual_limits()});
            const auto judgement = judge(plan::plan_of(at.shoot.kit, at.shot(), {usual_limits()}));
            REQUIRE_FALSE(plans.empty());
            REQUIRE(judgement);
            const auto& judged = judgement->approaches[judgement->best];
            // Of the plans that are carried and lit as the shot is now, moved as it is.
            const auto best = std::ranges::find_if(plans, [&](const Proposal& plan) {
                const bool as_now = plan.school == School::single_flash ||
                                    (is_stack(plan.school) && plan.shot.capture.mover == at.shot().capture.mover);
                return as_now && plan.lit != Lit::ambient && plan.lit != Lit::lamp &&
                       plan.in_hand() == (support == Support::hand) && plan.fits();
            });
            if (best == plans.end()) continue;
            INFO(subject.name << (support == Support::hand ? " by hand" : " on a stand") << ": " << judged.name << ", "
                              << plan_name(*best) << "; " << judgement->reason);
            CHECK((judged.report.capture.frames > 1) == (best->report.capture.frames > 1));
            ++compared;
        }
    CHECK(compared > 60);
}
