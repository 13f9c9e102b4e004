// Frames beside the plan of their shot, and the runs that took them.
#include "proof/notes.hpp"

#include "plan/assess.hpp"
#include "proof/taken.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"
#include "support/stacks.hpp"

#include <algorithm>

using namespace poquito;
using namespace proof;
using test::codes;
using test::nothing;
using test::Photographs;
using test::Stack;
using test::WithinAbs;

TEST_CASE("single frames: sharp or not, clipped or not, against the plan", "[proof][single]") {
    const Photographs without_glints({.glints = 0});  // the rims of their discs would be sharp
    Stack singles(without_glints);
    singles.put({.focus = 6}, 1);
    singles.put({.focus = -14}, 2);  // far in front of it all
    singles.put({.focus = 6, .stops = 2}, 3);
    const auto inspection = singles.look(true);
    CHECK_FALSE(inspection.stack);
    CHECK(codes(inspection.frames[0].findings) == nothing);
    CHECK(codes(inspection.frames[1].findings) == std::vector{Code::blurred});
    CHECK(inspection.frames[0].sharpness > 2 * inspection.frames[1].sharpness);
    CHECK(codes(inspection.frames[2].findings) == std::vector{Code::clipped});
    CHECK(inspection.frames[2].scan->clipped_share > 0.01);
    CHECK(inspection.frames[2].findings[0].place);
    CHECK_THAT(inspection.frames[2].scan->median_stops - inspection.frames[0].scan->median_stops, WithinAbs(2, 0.1));

    // Against a plan: the stop as its camera shows it, the shutter, the ISO; and a black ground that is not.
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure = {.f_number = 8, .shutter = 1.0 / 160, .iso = 100};
    const auto planned = *inspect({.files = {singles.files()[0]}, .kit = &shoot.kit, .shot = &shot});
    REQUIRE(codes(planned.frames[0].findings) == std::vector{Code::settings});
    CHECK(planned.frames[0].findings[0].text.find("f/5.6 where the plan has f/8") != std::string::npos);
    shot.exposure.f_number = 5.6;
    shoot.kit.lenses[0].optics.focal_length = 90;
    CHECK(codes(*inspect({.files = {singles.files()[0]}, .kit = &shoot.kit, .shot = &shot})) == nothing);
}

TEST_CASE("tries that miss are told and not taken again, unless luck does not explain that all of them do",
          "[proof][single][chance]") {
    const Photographs without_glints({.glints = 0});
    Stack singles(without_glints);
    singles.put({.focus = 6}, 1);
    singles.put({.focus = -14}, 2);
    singles.put({.focus = -14}, 3);
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.exposure = {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 100};
    shoot.kit.lenses[0].optics.focal_length = 90;
    shot.subject.sway_amplitude = 1;
    const auto told = [&](std::vector<std::filesystem::path> files, int kept, bool tries = true) {
        auto& own = shot.tries.emplace();
        own.kept = kept, own.tried = 100;
        return *inspect({.files = std::move(files), .kit = &shoot.kit, .shot = &shot, .singles = true, .tries = tries});
    };
    const auto missed = [](const Inspection& inspection) {
        const auto notes = notes_of(inspection);
        const auto found = std::ranges::find(notes, std::optional(Code::blurred), &Note::code);
        REQUIRE(found != notes.end());
        return *found;
    };
    const auto all = singles.files();
    const auto one_hit = told(all, 33);
    CHECK(one_hit.verdict != Verdict::redo);
    CHECK(missed(one_hit).tone == Tone::info);
    CHECK_FALSE(missed(one_hit).again);
    CHECK(missed(one_hit).frames == std::vector<std::size_t>{1, 2});
    CHECK(missed(one_hit).text.find("33 of 100") != std::string::npos);
    CHECK(missed(told(all, 33, false)).again);  // of frames that all are wanted
    const std::vector<std::filesystem::path> both{all[1], all[2]};
    CHECK(missed(told(both, 33)).text.find("go on") != std::string::npos);
    const auto no_luck = missed(told(both, 95));  // 1 of 400
    CHECK(no_luck.tone == Tone::stop);
    CHECK(no_luck.text.find("focus, support and shutter") != std::string::npos);
}

TEST_CASE("a ground that is planned white tells what colour the light is", "[proof][single]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    auto shot = *std::ranges::find(shoot.shots, "satchel-back", &shoot::Shot::id);
    for (int i = 0; i < 8 && plan::assess(shoot.kit, shot, {}).light.background_look != light::BackgroundLook::white;
         ++i)
        shot.exposure.iso *= 2, shot.lights.clear();
    REQUIRE(plan::assess(shoot.kit, shot, {}).light.background_look == light::BackgroundLook::white);
    const test::Folder folder;
    const auto told = [&](int red, int green, int blue) {
        storage::FramePicture picture{.width = 480, .height = 320, .rgb = {}};
        for (int y = 0; y < 320; ++y)
            for (int x = 0; x < 480; ++x) {
                const bool subject = x > 120 && x < 360 && y > 80 && y < 240;
                for (const int channel : {red, green, blue})
                    picture.rgb.push_back(static_cast<unsigned char>(subject ? 60 + (x * 7 + y * 13) % 90 : channel));
            }
        const auto path = folder / "a.jpg";
        REQUIRE(storage::replace_file(path, storage::frame_file(picture, {}).value()));
        const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot, .singles = true});
        for (const auto& finding : inspection.frames[0].findings)
            if (finding.code == Code::colour) return finding.text;
        return std::string();
    };
    CHECK(told(244, 244, 244).empty());
    CHECK(told(250, 240, 215).starts_with("The white ground came out warm: against green, red is +0.1"));
    CHECK(told(220, 235, 250).starts_with("The white ground came out cold"));
    CHECK(told(225, 248, 226).starts_with("The white ground came out green"));
}

TEST_CASE("a single frame that is focused elsewhere is told by how much and which way", "[proof][single]") {
    auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    auto shot = *std::ranges::find(shoot.shots, "fossil-urchin", &shoot::Shot::id);
    shot.capture.mode = shoot::CaptureMode::single;
    shot.exposure.f_number = 5.6;
    const test::Folder folder;
    const auto told = [&](double behind) {
        auto taken = shot;
        taken.sharpness.focus_offset += behind;
        const auto plan = plan::plan_of(shoot.kit, taken, {});
        const auto scene = *render::scene_of(plan, plan::assess(plan));
        const auto developed = render::develop(render::Finder().render(scene, {.width = 1500, .height = 1000})->light);
        const auto path = folder.path() / fmt::format("{}.png", behind);
        REQUIRE(storage::replace_file(
            path, storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb}, {})
                      .value()));
        const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot});
        for (const auto& finding : inspection.frames[0].findings)
            if (finding.code == Code::blurred) return finding.text;
        return std::string();
    };
    CHECK(told(0).empty());
    CHECK(told(6).find(" behind where it has to be") != std::string::npos);
    CHECK(told(-6).find("in front of where") != std::string::npos);
}

TEST_CASE("a subject that came out lighter or darker than the plan's picture is told so", "[proof][notes]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    const auto& shot = *std::ranges::find(shoot.shots, "toffee-tin", &shoot::Shot::id);
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto report = plan::assess(plan);
    const auto scene = *render::scene_of(plan, report);
    auto light = render::Finder().render(scene, {.width = 480, .height = 320})->light;
    const test::Folder folder;
    const auto told = [&](float factor) {
        auto other = light;
        for (auto& pixel : other.pixels) pixel *= factor;
        const auto developed = render::develop(other);
        const auto path = folder.path() / fmt::format("{}.jpg", factor);
        REQUIRE(storage::replace_file(
            path, storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb},
                                      {.f_number = report.optics.displayed_f_number,
                                       .shutter = shot.exposure.shutter,
                                       .iso = shot.exposure.iso,
                                       .focal_length = shot.rig.focal_length.value_or(plan.lens.optics.focal_length)})
                      .value()));
        const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot});
        REQUIRE(inspection.frames.front().over_plan);
        return std::pair(*inspection.frames.front().over_plan, notes_of(inspection));
    };
    const auto has = [](const std::vector<Note>& notes, const char* words) {
        return std::ranges::any_of(notes, [&](const Note& one) { return one.text.find(words) != std::string::npos; });
    };
    const auto [same, well] = told(1);
    CHECK_THAT(same, WithinAbs(0, 0.15));
    CHECK(has(well, "as light as planned"));
    const auto [under, dark] = told(0.35f);  // 1.5 stops
    CHECK_THAT(under, WithinAbs(-1.5, 0.2));
    CHECK(has(dark, "stops darker than in the plan's picture"));
    CHECK_FALSE(has(dark, "as light as planned"));
}

TEST_CASE("a subject that is smaller in the frame than planned is told so, and where it is sharp", "[proof][notes]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    const auto& shot = *std::ranges::find(shoot.shots, "tide-brooch", &shoot::Shot::id);
    const test::Folder folder;
    const auto framing = [&](double size) {
        auto other = shot;
        other.subject.width *= size, other.subject.height *= size;
        const auto plan = plan::plan_of(shoot.kit, other, {});
        const auto report = plan::assess(plan);
        const auto developed = render::develop(
            render::Finder().render(*render::scene_of(plan, report), {.width = 480, .height = 320})->light);
        const auto path = folder.path() / fmt::format("{}.jpg", size);
        REQUIRE(storage::replace_file(
            path, storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb}, {})
                      .value()));
        const auto inspection = *inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot});
        const auto sharpest = sharpest_areas(inspection.frames.front());
        CHECK_FALSE(sharpest.empty());
        for (const auto& area : sharpest) {  // on the brooch, not on the velvet about it
            CHECK(area.x + area.width > 480 * (0.5 - 0.5 * size));
            CHECK(area.x < 480 * (0.5 + 0.5 * size));
        }
        for (const auto& note : notes_of(inspection))
            if (note.text.find("of the frame where") != std::string::npos) return note.text;
        return std::string();
    };
    CHECK(framing(1).empty());
    CHECK(framing(0.7).find("go nearer") != std::string::npos);
}

TEST_CASE("a subject that stands aside or leans against the plan is told so", "[proof][notes]") {
    auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    auto shot = *std::ranges::find(shoot.shots, "tide-brooch", &shoot::Shot::id);
    shot.subject.height = shot.subject.width / 2.2;  // long enough to lean
    const auto plan = plan::plan_of(shoot.kit, shot, {});
    const auto developed = render::develop(
        render::Finder().render(*render::scene_of(plan, plan::assess(plan)), {.width = 480, .height = 320})->light);
    const test::Folder folder;
    // The plan's own picture, moved and turned about its middle.
    const auto told = [&](int right, double degrees) {
        storage::FramePicture picture{.width = 480, .height = 320, .rgb = {}};
        const double c = std::cos(degrees * 3.14159265 / 180), s = std::sin(degrees * 3.14159265 / 180);
        for (int y = 0; y < 320; ++y)
            for (int x = 0; x < 480; ++x) {
                const double u = x - right - 240, v = y - 160;
                const int from_x = std::clamp(static_cast<int>(std::lround(240 + c * u + s * v)), 0, 479);
                const int from_y = std::clamp(static_cast<int>(std::lround(160 - s * u + c * v)), 0, 319);
                for (int channel = 0; channel < 3; ++channel)
                    picture.rgb.push_back(
                        developed.rgb[static_cast<std::size_t>(3 * (480 * from_y + from_x) + channel)]);
            }
        const auto path = folder / "a.jpg";
        REQUIRE(storage::replace_file(path, storage::frame_file(picture, {}).value()));
        std::string all;
        for (const auto& note : notes_of(*inspect({.files = {path}, .kit = &shoot.kit, .shot = &shot})))
            if (note.tone == Tone::caution) all += note.text + "\n";
        return all;
    };
    const auto has = [](const std::string& text, const char* words) { return text.find(words) != std::string::npos; };
    const auto as_planned = told(0, 0), aside = told(40, 0), leaning = told(0, 7), other_way = told(0, -7);
    CHECK_FALSE(has(as_planned, "where it is planned"));
    CHECK_FALSE(has(as_planned, "leans"));
    CHECK(has(aside, "8 % of the frame's width right of where it is planned"));
    const auto degrees = [](const std::string& text) { return std::stod(text.substr(text.find("leans ") + 6)); };
    REQUIRE(has(leaning, "\u00b0 clockwise"));
    CHECK_THAT(degrees(leaning), WithinAbs(7, 1.5));
    REQUIRE(has(other_way, "\u00b0 counter-clockwise"));
    CHECK_THAT(degrees(other_way), WithinAbs(7, 1.5));
    // Delivered in a shape of its own, there is less room beside it.
    const double fill = *plan::assess(plan).optics.fill;
    CHECK_FALSE(has(aside, "Cut to its picture"));
    shot.picture_shape = 1.5 * std::min(0.99, fill + 0.05);
    CHECK_FALSE(has(told(0, 0), "Cut to its picture"));
    CHECK(has(told(40, 0), "Cut to its picture the subject loses its edge"));
    CHECK(has(told(-40, 0), "Cut to its picture the subject loses its edge"));
    // What the plan itself cuts is no fault of the frame.
    shot.picture_shape = 1.5 * fill * 0.7;
    CHECK_FALSE(has(told(40, 0), "Cut to its picture"));
}

TEST_CASE("the frames of a shot are those of its newest run, with what was taken again in their places",
          "[proof][taken]") {
    const auto run = [](const char* id, std::vector<double> planes) {
        shoot::RunRecord made{.id = id, .folder = text::StoredPath(std::string("/frames/") + id)};
        for (std::size_t i = 0; i < planes.size(); ++i)
            made.frames.push_back(
                {.index = static_cast<int>(i), .file = fmt::format("{}-{}.jpg", id, i), .plane = planes[i]});
        return shoot::CopyOnWrite<shoot::RunRecord>(made);
    };
    CHECK(taken_frames({}).files.empty());
    CHECK(taken_frames({run("one-1-test", {0, 1, 2})}).files.empty());
    const auto taken = taken_frames({run("one-1", {0, 1}), run("one-2", {0, 1, 2, 3}), run("one-3-test", {0, 1, 3}),
                                     run("one-4-retake", {1.1, 4, 5})});
    CHECK(taken.run == "one-2");
    CHECK(taken.planes == std::vector<double>{0, 1.1, 2, 3, 4, 5});
    REQUIRE(taken.files.size() == 6);
    CHECK(taken.files[1] == "/frames/one-4-retake/one-4-retake-0.jpg");
    CHECK(taken.files[2] == "/frames/one-2/one-2-2.jpg");
    // A frame that was exposed twice counts as it was the last time; hands have no planes.
    auto twice = *run("one-5", {2, 2});
    twice.frames.push_back({.index = 0, .file = "again.jpg", .plane = 2});
    const auto held = taken_frames({shoot::CopyOnWrite<shoot::RunRecord>(twice)});
    CHECK(held.planes.empty());
    CHECK(held.files == std::vector<std::filesystem::path>{"/frames/one-5/again.jpg", "/frames/one-5/one-5-1.jpg"});
}
