#include "proof/sequences.hpp"

#include "plan/assess.hpp"
#include "render/finder.hpp"
#include "render/scene.hpp"
#include "storage/shoot_file.hpp"
#include "support/stacks.hpp"

#include <algorithm>
#include <map>

using namespace poquito;
using namespace proof;
using test::Photographs;
using test::scene;

namespace {

/// A card of a day: files with times and settings, numbered by the camera.
struct Card {
    test::Folder folder;
    std::vector<std::filesystem::path> files;
    storage::FrameExif exif = {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 100, .focal_length = 90};
    double time = 9 * 3600;  // s

    void put(const Photographs& of, const Photographs::Frame& frame) {
        const auto whole = static_cast<int>(time);
        exif.time = fmt::format("2026-06-01T{:02}:{:02}:{:02}.{:02}", whole / 3600, whole / 60 % 60, whole % 60,
                                static_cast<int>((time - whole) * 100));
        const auto path = folder.path() / fmt::format("IMG_{:04}.jpg", files.size() + 1);
        const auto bytes = storage::frame_file(of.picture(frame, static_cast<int>(files.size())), exif).value();
        REQUIRE(storage::replace_file(path, bytes));
        files.push_back(path);
    }
    void stack(const Photographs& of, int from, int to, double pace = 1) {
        for (int i = from; i < to; ++i, time += pace) put(of, {.focus = static_cast<double>(i)});
    }
};

std::vector<std::size_t> sizes(const std::vector<Sequence>& sequences) {
    std::vector<std::size_t> all;
    for (const auto& one : sequences) all.push_back(one.files.size());
    return all;
}

const Photographs& other_scene() {
    static const Photographs made({.seed = 77});
    return made;
}

}  // namespace

TEST_CASE("a day is taken apart by its pauses, its stops and its folders", "[proof][sequences]") {
    Card card;
    card.stack(scene(), 0, 5);
    card.time += 40;
    card.stack(scene(), 0, 4);
    card.exif.f_number = 11;  // at once, at another stop
    card.stack(scene(), 0, 3);
    CHECK(sizes(sequences_of(card.files)) == std::vector<std::size_t>{5, 4, 3});
    auto shuffled = card.files;
    std::ranges::reverse(shuffled);
    CHECK(sizes(sequences_of(shuffled)) == std::vector<std::size_t>{5, 4, 3});
    CHECK(sequences_of({}).empty());
}

TEST_CASE("a slow run is one sequence, and so is one with a dial turned in its middle", "[proof][sequences]") {
    Card card;
    for (int i = 0; i < 4; ++i, card.time += 3) card.put(scene(), {.focus = static_cast<double>(i)});
    for (int i = 4; i < 7; ++i, card.time += 9) card.put(scene(), {.focus = static_cast<double>(i)});
    CHECK(sizes(sequences_of(card.files)) == std::vector<std::size_t>{7});  // 9 s after a pace of 3 is no pause
    Card turned;
    turned.stack(scene(), 0, 3);
    turned.exif.f_number = 8;
    turned.stack(scene(), 3, 4);
    turned.exif.f_number = 5.6;
    turned.stack(scene(), 4, 7);
    CHECK(sizes(sequences_of(turned.files)) == std::vector<std::size_t>{7});
}

TEST_CASE("files without times are one sequence by their names", "[proof][sequences]") {
    test::Stack stack(scene());
    stack.put(test::whole());
    CHECK(sizes(sequences_of(stack.files())) == std::vector<std::size_t>{14});
}

TEST_CASE("a day's folder is sorted: whole, to be mended, hopeless, bursts by their sharpest", "[proof][sequences]") {
    Card card;
    card.stack(scene(), 0, 14);  // whole
    card.time += 60;
    card.stack(scene(), 0, 5);  // a gap of two
    card.stack(scene(), 7, 14);
    card.time += 60;
    for (int i = 0; i < 5; ++i, card.time += 0.2)  // a burst by hand: all but the fourth shaken
        card.put(scene(), {.focus = 6, .drawn_out = i == 3 ? 0.0 : 9.0});
    card.time += 1;
    card.stack(other_scene(), 0, 14);  // another thing at once
    std::vector<Sorted> found;
    std::size_t told = 0;
    look_through(
        card.files, nullptr, [&](Sorted one) { return found.push_back(std::move(one)), true; },
        [&](std::size_t done, std::size_t all) { return told = done, all == card.files.size(); });
    CHECK(told == card.files.size());
    REQUIRE(found.size() == 4);
    CHECK(found[0].kind == Kind::stack);
    CHECK(found[0].summary.outcome == Outcome::whole);
    CHECK(found[1].kind == Kind::stack);
    CHECK(found[1].summary.outcome == Outcome::mendable);
    CHECK(found[1].summary.why == "a gap");
    CHECK(found[2].kind == Kind::burst);
    CHECK(found[2].best == 3);
    CHECK(found[3].sequence.files.size() == 14);
    std::ranges::stable_sort(found, comes_before);
    CHECK(found.back().summary.outcome >= Outcome::mendable);
    CHECK(std::ranges::is_sorted(found, {}, [](const Sorted& one) { return one.summary.outcome; }));
    // Told to end, it ends.
    int given = 0;
    look_through(card.files, nullptr, [&](Sorted) { return ++given < 2; });
    CHECK(given == 2);
}

TEST_CASE("rocking to and fro through focus makes a burst, going through it once a stack", "[proof][sequences]") {
    const auto kind = [](const std::vector<double>& focus) {
        Card card;
        for (const double at : focus) card.put(scene(), {.focus = at}), card.time += 0.3;
        std::vector<Sorted> found;
        look_through(card.files, nullptr, [&](Sorted one) { return found.push_back(std::move(one)), true; });
        REQUIRE(found.size() == 1);
        return found[0].kind;
    };
    CHECK(kind({1, 2, 3, 4, 5, 6, 7, 8}) == Kind::stack);
    CHECK(kind({8, 7, 6, 5, 4, 3, 2, 1}) == Kind::stack);
    CHECK(kind({4, 7, 2, 5, 8, 3, 6, 1}) == Kind::burst);
}

TEST_CASE("of a burst the frame is kept that is sharpest where the plan has its focus, not anywhere",
          "[proof][sequences]") {
    auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    auto shot = *std::ranges::find(shoot.shots, "fossil-urchin", &shoot::Shot::id);
    shot.capture.mode = shoot::CaptureMode::single;
    shot.exposure.f_number = 5.6;
    shoot.shots = {shot};
    shoot.runs.clear();
    const test::Folder folder;
    // Rocking through focus, mm behind where it has to be.
    const auto burst = [&](const std::string& name, const std::vector<double>& focus, std::size_t blown) {
        std::vector<std::filesystem::path> files;
        for (std::size_t i = 0; i < focus.size(); ++i) {
            auto taken = shot;
            taken.sharpness.focus_offset += focus[i];
            const auto plan = plan::plan_of(shoot.kit, taken, {});
            const auto report = plan::assess(plan);
            const auto scene = *render::scene_of(plan, report);
            auto light = render::Finder().render(scene, {.width = 1200, .height = 800})->light;
            if (i == blown)
                for (auto& pixel : light.pixels) pixel *= 12;
            const auto developed = render::develop(light);
            files.push_back(folder.path() / fmt::format("{}{}.jpg", name, i));
            REQUIRE(storage::replace_file(
                files.back(),
                storage::frame_file({.width = developed.width, .height = developed.height, .rgb = developed.rgb},
                                    {.time = fmt::format("2026-06-01T09:00:00.{}", i + 1),
                                     .f_number = report.optics.displayed_f_number,
                                     .shutter = shot.exposure.shutter,
                                     .iso = shot.exposure.iso,
                                     .focal_length = shot.rig.focal_length.value_or(plan.lens.optics.focal_length)})
                    .value()));
        }
        std::vector<Sorted> found;
        look_through(files, &shoot, [&](Sorted one) { return found.push_back(std::move(one)), true; });
        REQUIRE(found.size() == 1);
        CHECK(found[0].kind == Kind::burst);
        CHECK(found[0].shot);
        return found[0];
    };
    const auto none = std::size_t(-1);
    const auto one = burst("a", {-5, 4, 0.2, 7, -3}, none);
    CHECK(one.best == 2);
    CHECK(one.summary.outcome <= Outcome::look);
    // Anywhere, another of them is sharper.
    std::vector<double> anywhere;
    for (const auto& file : one.sequence.files) anywhere.push_back(look_at(file).sharpness);
    CHECK(std::ranges::max_element(anywhere) - anywhere.begin() != 2);
    // The best of them burnt out: then the next.
    CHECK(burst("b", {-5, 1.2, 0.2, 7}, 2).best == 1);
}

TEST_CASE("frames are matched to the shot that was planned so, or to none", "[proof][sequences]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    std::map<std::string, int> right;
    int matched = 0;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const auto& shot = shoot.shots[i];
        const auto plan = plan::plan_of(shoot.kit, shot, {});
        const auto report = plan::assess(plan);
        Sequence sequence;
        for (int f = 0; f < static_cast<int>(std::min(report.capture.frames, 300.0)); ++f) {
            sequence.files.emplace_back(fmt::format("/card/{}.jpg", f));
            sequence.exif.push_back({.f_number = report.optics.displayed_f_number,
                                     .shutter = shot.exposure.shutter,
                                     .iso = shot.exposure.iso,
                                     .focal_length = shot.rig.focal_length.value_or(plan.lens.optics.focal_length)});
        }
        const auto found = shot_of(sequence, shoot);
        if (!found) continue;  // another has the same
        CHECK(*found == i);
        ++matched;
        // With another ISO it is none of them, or at least not this one.
        for (auto& exif : sequence.exif) exif.iso *= 64;
        CHECK(shot_of(sequence, shoot) != std::optional(i));
    }
    CHECK(matched >= static_cast<int>(shoot.shots.size()) / 2);
    CHECK_FALSE(shot_of({.files = {"/a.jpg"}, .exif = {{.known = false}}}, shoot));
}
