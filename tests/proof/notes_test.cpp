#include "proof/notes.hpp"

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
