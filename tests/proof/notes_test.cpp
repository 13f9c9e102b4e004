#include "proof/notes.hpp"

#include "imaging/render/finder.hpp"
#include "imaging/render/scene.hpp"
#include "plan/assess.hpp"
#include "proof/taken.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/stacks.hpp"

#include <fmt/format.h>

#include <algorithm>

using namespace poquito;
using namespace proof;
using test::Photographs;
using test::scene;
using test::Stack;
using test::whole;
using test::WithinAbs;

namespace {

/// Its frames are 0.2 mm apart, from 1 mm on.
Inspection looked_at(const std::vector<Photographs::Frame>& frames) {
    Stack stack(scene());
    stack.put(frames);
    std::vector<double> planes;
    for (const auto& frame : frames) planes.push_back(1 + 0.2 * frame.focus);
    return *inspect({.files = stack.files(), .planes = planes});
}

const Note* of(const std::vector<Note>& notes, Code code) {
    const auto found = std::ranges::find(notes, std::optional(code), &Note::code);
    return found == notes.end() ? nullptr : &*found;
}

}  // namespace

TEST_CASE("a whole stack is told to be whole, with what is well", "[proof][notes]") {
    const auto inspection = looked_at(whole());
    CHECK_THAT(inspection.step(), WithinAbs(0.2, 1e-9));
    const auto notes = notes_of(inspection);
    for (const auto& note : notes) CHECK(note.tone == Tone::well);
    CHECK(notes.size() >= 5);  // settings, clipping, light, movement, gaps, ends
    CHECK(planes_to_take(notes, inspection).empty());
    const auto summary = summary_of(inspection, notes);
    CHECK(summary.outcome == Outcome::whole);
    CHECK(summary.why.empty());
}

TEST_CASE("a gap, a dark frame and what lies beyond an end are to be taken where they are missing", "[proof][notes]") {
    auto frames = whole();
    frames[3].stops = -1.5;
    frames.erase(frames.begin() + 7, frames.begin() + 9);
    const auto inspection = looked_at(frames);
    const auto notes = notes_of(inspection);
    const auto* gap = of(notes, Code::gap);
    REQUIRE(gap);
    REQUIRE(gap->planes.size() == 2);
    CHECK_THAT(gap->planes[0], WithinAbs(2.4, 1e-6));  // the eighth and ninth plane
    CHECK_THAT(gap->planes[1], WithinAbs(2.6, 1e-6));
    CHECK(gap->action == "Take 2 frames, 2.4 mm to 2.6 mm");
    const auto* dark = of(notes, Code::uneven);
    REQUIRE(dark);
    CHECK(dark->text.starts_with("Frame 4: 1.5 stops darker"));
    CHECK(dark->action == "Take frame 4 again");
    const auto planes = planes_to_take(notes, inspection);
    REQUIRE(planes.size() == 3);
    CHECK_THAT(planes[0], WithinAbs(1.6, 1e-6));
    const auto summary = summary_of(inspection, notes);
    CHECK(summary.outcome == Outcome::mendable);
    CHECK(summary.to_take == 3);
}

TEST_CASE("an open end is taken from the end outwards", "[proof][notes]") {
    auto frames = whole();
    frames.erase(frames.begin(), frames.begin() + 5);
    const auto inspection = looked_at(frames);
    const auto notes = notes_of(inspection);
    const auto* end = of(notes, Code::end_open);
    REQUIRE(end);
    REQUIRE(end->planes.size() >= 2);
    CHECK_THAT(end->planes.back(), WithinAbs(1.8, 1e-6));  // next before the first that is there, 2 mm
    CHECK(std::ranges::is_sorted(end->planes));
    CHECK(end->frames == std::vector<std::size_t>{0});
}

TEST_CASE("those that stand elsewhere are the fewer, wherever the knock was", "[proof][notes]") {
    const auto knocked = [](std::size_t from, std::size_t to) {
        auto frames = whole();
        for (std::size_t i = from; i < to; ++i) frames[i].dx = 9;
        return frames;
    };
    const auto away = [](const std::vector<Photographs::Frame>& frames) {
        const auto inspection = looked_at(frames);
        const auto notes = notes_of(inspection);
        const auto* moved = of(notes, Code::moved);
        REQUIRE(moved);
        CHECK(moved->tone == Tone::stop);  // more than a hundredth of the frame
        CHECK(moved->planes.size() == moved->frames.size());
        return moved->frames;
    };
    CHECK(away(knocked(10, 14)) == std::vector<std::size_t>{10, 11, 12, 13});
    CHECK(away(knocked(3, 14)) == std::vector<std::size_t>{0, 1, 2});
    CHECK(away(knocked(6, 7)) == std::vector<std::size_t>{6});  // there and back
}

TEST_CASE("a knock so small that programs align it is no reason to take anything again", "[proof][notes]") {
    auto frames = whole();
    for (std::size_t i = 9; i < frames.size(); ++i) frames[i].dx = 3;
    const auto inspection = looked_at(frames);
    const auto notes = notes_of(inspection);
    const auto* moved = of(notes, Code::moved);
    REQUIRE(moved);
    CHECK(moved->tone == Tone::caution);
    CHECK_FALSE(moved->action.empty());  // one may
    CHECK(planes_to_take(notes, inspection).empty());
    CHECK(summary_of(inspection, notes).outcome == Outcome::look);
}

TEST_CASE("more wrong than right is taken all again", "[proof][notes]") {
    Stack stack(scene());
    stack.put(whole());
    for (std::size_t i = 0; i < 8; ++i) std::filesystem::resize_file(stack.files()[i], 3000);
    const auto inspection = stack.look();
    const auto notes = notes_of(inspection);
    const auto* cut = of(notes, Code::unreadable);
    REQUIRE(cut);
    CHECK(cut->frames.size() == 8);
    CHECK(summary_of(inspection, notes).outcome == Outcome::hopeless);
    CHECK(summary_of(inspection, notes).why == "files that cannot be read");
}

TEST_CASE("the same in many frames is one note, a dial turned for the whole run is not mended frame by frame",
          "[proof][notes]") {
    std::vector<FrameFacts> frames(5);
    for (auto& frame : frames) {
        frame.exif = {.f_number = 8, .shutter = 1.0 / 160, .iso = 100, .focal_length = 90};
        frame.scan = std::make_shared<const imaging::FrameScan>();
    }
    Inspection inspection{.frames = frames, .stack = StackFacts{}, .planes = {}};
    for (auto& frame : inspection.frames)
        frame.findings.push_back(
            {.code = Code::settings, .level = Level::caution, .text = "F/8 where the plan has f/5.6."});
    auto notes = notes_of(inspection);
    const auto* all = of(notes, Code::settings);
    REQUIRE(all);
    CHECK(all->text.starts_with("All 5 frames: "));
    CHECK(all->action.empty());
    for (const std::size_t i : {0, 2, 3}) inspection.frames[i].findings.clear();
    notes = notes_of(inspection);
    const auto* some = of(notes, Code::settings);
    CHECK(some->text.starts_with("Frames 2 and 5: "));
    CHECK(some->action == "Take the 2 frames again");
}

TEST_CASE("the frames of a shot are those of its newest run, with what was taken again in their places",
          "[proof][taken]") {
    const auto run = [](const char* id, std::vector<double> planes) {
        shoot::RunRecord made{.id = id, .folder = std::string("/frames/") + id};
        for (std::size_t i = 0; i < planes.size(); ++i)
            made.frames.push_back(
                {.index = static_cast<int>(i), .file = fmt::format("{}-{}.jpg", id, i), .plane = planes[i]});
        return shoot::Shared<shoot::RunRecord>(made);
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
    const auto held = taken_frames({shoot::Shared<shoot::RunRecord>(twice)});
    CHECK(held.planes.empty());
    CHECK(held.files == std::vector<std::filesystem::path>{"/frames/one-5/again.jpg", "/frames/one-5/one-5-1.jpg"});
}

TEST_CASE("a subject that came out lighter or darker than the plan's picture is told so", "[proof][notes]") {
    const auto shoot = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    const auto& shot = *std::ranges::find(shoot.shots, "toffee-tin", &shoot::Shot::id);
    const auto plan = plan::plan_of(shoot.kit, shot);
    const auto report = plan::assess(plan);
    const auto scene = *imaging::scene_of(plan, report);
    auto light = imaging::Finder().render(scene, {.width = 480, .height = 320})->light;
    const test::Folder folder;
    const auto told = [&](float factor) {
        auto other = light;
        for (auto& pixel : other.pixels) pixel *= factor;
        const auto developed = imaging::develop(other);
        const auto path = folder.path() / fmt::format("{}.jpg", factor);
        REQUIRE_FALSE(storage::replace_file(
            path, std::get<std::string>(storage::frame_file(
                      {.width = developed.width, .height = developed.height, .rgb = developed.rgb},
                      {.f_number = report.optics.displayed_f_number,
                       .shutter = shot.exposure.shutter,
                       .iso = shot.exposure.iso,
                       .focal_length = shot.rig.focal_length.value_or(plan.lens.optics.focal_length)}))));
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
    const auto shoot = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    const auto& shot = *std::ranges::find(shoot.shots, "tide-brooch", &shoot::Shot::id);
    const test::Folder folder;
    const auto framing = [&](double size) {
        auto other = shot;
        other.subject.width *= size, other.subject.height *= size;
        const auto plan = plan::plan_of(shoot.kit, other);
        const auto report = plan::assess(plan);
        const auto developed = imaging::develop(
            imaging::Finder().render(*imaging::scene_of(plan, report), {.width = 480, .height = 320})->light);
        const auto path = folder.path() / fmt::format("{}.jpg", size);
        REQUIRE_FALSE(storage::replace_file(
            path, std::get<std::string>(storage::frame_file(
                      {.width = developed.width, .height = developed.height, .rgb = developed.rgb}, {}))));
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
