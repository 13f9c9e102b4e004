// What frames teach of flash and camera, offered and taken.
#include "proof/notes.hpp"

#include "plan/assess.hpp"
#include "plan/stack/stack_plan.hpp"
#include "plan/stack/step_sizes.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/stacks.hpp"

#include <algorithm>
#include <utility>

using namespace poquito;
using namespace proof;
using test::WithinAbs;
using test::WithinRel;

namespace {

shoot::Shoot demo() { return storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value(); }
shoot::Shot& shot_of(shoot::Shoot& shoot, const char* id) {
    const auto found = std::ranges::find(std::as_const(shoot.shots), id, &shoot::Shot::id);
    return shoot.shots[static_cast<std::size_t>(found - std::as_const(shoot.shots).begin())];
}

/// The plan's own picture with so many times the light, as its camera would have written it.
Inspection taken_with(const shoot::Shoot& shoot, const shoot::Shot& shot, float light, std::string time = {}) {
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    auto picture = render::Finder().render(*render::scene_of(plan, report), {.width = 480, .height = 320})->light;
    for (auto& pixel : picture.pixels) pixel *= light;
    const auto developed = render::develop(picture);
    const test::Folder folder;
    const auto path = folder.path() / "a.jpg";
    REQUIRE(storage::replace_file(
        path, storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb},
                                  {.time = std::move(time),
                                   .f_number = report.optics.displayed_f_number,
                                   .shutter = shot.exposure.shutter,
                                   .iso = shot.exposure.iso,
                                   .focal_length = shot.rig.focal_length.value_or(plan.lens.optics.focal_length)})
                  .value()));
    return *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot});
}

gear::Kit learned(shoot::Shoot shoot, const shoot::Shot& shot, const Offer& offer) {
    learn(shoot, shot.id, offer, "2026-11-25T11:00:00");
    return shoot.kit;
}

}  // namespace

TEST_CASE("a flash that gives less than its number is offered to be remembered, and the plan counts with it",
          "[proof][offers]") {
    auto shoot = demo();
    auto& shot = shot_of(shoot, "tide-brooch");
    shot.lights.erase(shot.lights.begin() + 1, shot.lights.end());
    shot.ambient.reset();
    CHECK(offers_of(taken_with(shoot, shot, 1), plan::plan_of(shoot.kit, shot, {})).empty());
    const auto dark = taken_with(shoot, shot, 0.66f, "2026-11-25T10:00:00");  // 0.6 stops
    const auto offers = offers_of(dark, plan::plan_of(shoot.kit, shot, {}));
    REQUIRE(offers.size() == 1);
    CHECK(offers[0].teaches == Teaches::light);
    const auto flash = std::ranges::find(shoot.kit.flashes, shot.lights[0].flash, &gear::Flash::id);
    CHECK(offers[0].action == "Remember it for " + flash->name);
    const auto before = flash->corrections.size();
    const auto kit = learned(shoot, shot, offers[0]);
    const auto& after = std::ranges::find(kit.flashes, shot.lights[0].flash, &gear::Flash::id)->corrections;
    REQUIRE(after.size() == before + 1);
    CHECK_THAT(after.back().stops, WithinAbs(-0.6, 0.15));
    // The note carries it, in the place of what was only said; and learned since, it is not offered again.
    const auto notes = notes_of(dark, offers);
    CHECK(std::ranges::count_if(notes, [](const Note& note) { return note.offer.has_value(); }) == 1);
    CHECK(offers_of(dark, plan::plan_of(kit, shot, {})).empty());
    CHECK(offers_of(taken_with(shoot, shot, 0.05f), plan::plan_of(shoot.kit, shot, {}))
              .empty());  // that is no unit, but a fault
}

TEST_CASE("steps far from those that were planned are seen by how soon sharpness goes, within a third",
          "[proof][offers]") {
    auto shoot = demo();
    auto& shot = shot_of(shoot, "fossil-urchin");  // by the camera's own bracket
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    const test::Photographs made({.disc = 1.6});
    test::Stack stack(made);
    stack.put(test::whole());
    // The disc that one step makes on such a file is known: so the step is, by this shot's optics.
    const double pixel = plan.sensor.width / 480;
    const double real = 1.6 * pixel * report.optics.working_f_number / std::pow(plan.at.magnification, 2);
    const auto told = [&](double believed) {
        std::vector<double> planes;
        for (int i = 0; i < test::frames_of_scene; ++i) planes.push_back(i * believed);
        auto inspection = *inspect({.files = stack.files(), .planes = planes});
        return offers_of(inspection, plan::plan_of(shoot.kit, shot, {}));
    };
    CHECK(told(real).empty());
    const auto offers = told(real / 2.2);
    REQUIRE(offers.size() == 1);
    CHECK(offers[0].teaches == Teaches::steps);
    CHECK_THAT(offers[0].reading.travel / (test::frames_of_scene - 1), WithinRel(real, 0.35));
    CHECK_FALSE(offers[0].action.empty());
    const auto kit = learned(shoot, shot, offers[0]);
    const auto& camera = *std::ranges::find(kit.cameras, shot.rig.camera, &gear::Camera::id);
    CHECK(camera.step_readings.size() == plan.camera.step_readings.size() + 1);
    CHECK(camera.step_readings.back().lens == shot.rig.lens);
    CHECK(camera.step_readings.back().ring_step > 0);
}

TEST_CASE("a subject that is less deep than planned is offered as deep as it is", "[proof][offers]") {
    auto shoot = demo();
    auto& shot = shot_of(shoot, "fossil-urchin");
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    const auto frames = plan::stack_frames(plan, report);
    const auto offers = [&](double real) {
        const test::Folder folder;
        std::vector<std::filesystem::path> files;
        std::vector<double> planes;
        for (const auto& frame : frames) {
            auto taken = shot;
            taken.capture.mode = shoot::CaptureMode::single;
            taken.subject.depth = real;
            taken.sharpness.focus_offset = frame.plane - real / 2;  // its nearest point where it is planned
            const auto as_taken = plan::plan_of(shoot.kit, taken, {});
            const auto developed = render::develop(
                render::Finder()
                    .render(*render::scene_of(as_taken, plan::assess(as_taken)), {.width = 960, .height = 640})
                    ->light);
            files.push_back(folder.path() / fmt::format("{:03}.jpg", files.size()));
            planes.push_back(frame.plane);
            REQUIRE(storage::replace_file(
                files.back(),
                storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb}, {})
                    .value()));
        }
        const auto inspection = *inspect({.files = files, .kit = &shoot.kit, .shot = &shot, .planes = planes});
        REQUIRE(inspection.stack->seen_depth);
        return offers_of(inspection, plan::plan_of(shoot.kit, shot, {}));
    };
    const double planned = shot.subject.depth;
    CHECK(offers(planned).empty());
    const auto shallow = offers(0.6 * planned);
    REQUIRE(shallow.size() == 1);
    CHECK(shallow[0].teaches == Teaches::depth);
    CHECK_THAT(shallow[0].depth, WithinRel(0.6 * planned, 0.12));
    CHECK(shallow[0].text.find("the next stack of it takes") != std::string::npos);
    learn(shoot, shot.id, shallow[0], "2026-11-25T11:00:00");
    CHECK(shot_of(shoot, "fossil-urchin").subject.depth == shallow[0].depth);
}

TEST_CASE("what can be said early names the right frames, and nothing that only a whole stack can tell",
          "[proof][notes]") {
    const test::Photographs made({.glints = 0});
    test::Stack stack(made);
    stack.put({.focus = 3}, 1);
    stack.put({.focus = 4}, 2);
    auto other = stack.exif;
    other.f_number = 16;
    stack.put({.focus = 5}, 3);
    stack.put({.focus = 6, .stops = 3}, 4, other);
    std::vector<std::shared_ptr<const FrameFacts>> facts;
    for (const auto& file : stack.files()) facts.push_back(std::make_shared<FrameFacts>(look_at(file)));
    CHECK(notes_so_far({nullptr, nullptr}, {}).empty());
    facts[1] = nullptr;  // not read yet
    const auto notes = notes_so_far(facts, {.files = stack.files()});
    const auto of = [&](Code code) {
        const auto found = std::ranges::find(notes, std::optional(code), &Note::code);
        return found == notes.end() ? std::vector<std::size_t>() : found->frames;
    };
    CHECK(of(Code::settings) == std::vector<std::size_t>{3});
    CHECK(of(Code::clipped) == std::vector<std::size_t>{3});
    CHECK(std::ranges::none_of(notes, &Note::again));
}

TEST_CASE("single frames of what is left to chance are counted once, sharp ones as kept", "[proof][offers][chance]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.sway_amplitude = 1;
    proof::Inspection inspection;
    for (int i = 0; i < 12; ++i) {
        proof::FrameFacts frame;
        auto scan = std::make_shared<imaging::FrameScan>();
        scan->width = 6000;
        frame.scan = scan;
        frame.sharp_at_focus = -1.05;
        frame.exif.time = fmt::format("2026-06-01T10:00:{:02}", i);
        if (i % 3 != 0)
            frame.findings.push_back({.code = i % 2 ? proof::Code::blurred : proof::Code::shaken,
                                      .level = i % 2 ? proof::Level::stop : proof::Level::caution,
                                      .text = {},
                                      .place = {}});
        inspection.frames.push_back(frame);
    }
    const auto odds = [&]() -> std::optional<proof::Offer> {
        for (const auto& offer : proof::offers_of(inspection, plan::plan_of(shoot.kit, shoot.shots[0], {})))
            if (offer.teaches == proof::Teaches::odds) return offer;
        return std::nullopt;
    };
    REQUIRE(odds());
    CHECK(odds()->kept == 4);
    CHECK(odds()->tried == 12);
    proof::learn(shoot, shot.id, *odds(), {});
    CHECK(shoot::tries_of(shoot.shots[0]).kept == 4);
    CHECK(plan::assess(shoot.kit, shoot.shots[0], {}).chance->chance == 4.0 / 12);
    CHECK_FALSE(odds());  // not twice
    // Softer than the sharpest of them by more than the blur limit makes: missed, with no finding.
    shoot.shots[0].tries.reset();
    inspection.frames[0].sharp_at_focus = -1.5;
    CHECK(odds()->kept == 3);
    // Too small to tell by: nothing is counted.
    for (auto& frame : inspection.frames) {
        auto small = std::make_shared<imaging::FrameScan>();
        small->width = 960;
        frame.scan = small;
    }
    REQUIRE(odds());
    CHECK(odds()->action.empty());
    proof::learn(shoot, shot.id, *odds(), {});
    CHECK(shoot::tries_of(shoot.shots[0]).tried == 0);
    for (auto& frame : inspection.frames) {
        auto large = std::make_shared<imaging::FrameScan>();
        large->width = 6000;
        frame.scan = large;
    }
    proof::learn(shoot, shot.id, *odds(), {});
    inspection.frames.push_back(inspection.frames.front());
    inspection.frames.back().exif.time = "2026-06-01T10:05:00";
    REQUIRE(odds());
    CHECK(odds()->tried == 1);
    // Of what nothing is left to chance there is nothing to count.
    shoot.shots[0].subject.sway_amplitude = 0;
    shoot.shots[0].tries.reset();
    CHECK_FALSE(odds());
}
