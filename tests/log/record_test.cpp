// What happens in a shoot as entries of the log.
#include "log/record.hpp"
#include "log/demo_year.hpp"
#include "log/diff.hpp"
#include "log/field_notes.hpp"
#include "log/keeper.hpp"
#include "log/lessons.hpp"

#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <set>

using namespace poquito;
using test::same;

TEST_CASE("an entry says with what and by what light, and brings the shot alone with the gear that it used",
          "[log][record]") {
    auto shoot = test::plain_shoot();
    shoot.title = "Saltmarsh";
    auto other = std::as_const(shoot.shots)[0];
    other.id = "two", other.rig.tubes = {"t20"};
    shoot.shots.push_back(other);
    auto& shot = shoot.shots[0];
    shot.lights = {test::plain_light()};
    shot.timing.after = {"two"};
    shot.rig.support = shoot::Support::hand;
    shot.exposure.f_number = 11;
    const auto entry = log::entry_for(shoot, shot, "coin");
    CHECK(entry.shoot == "Saltmarsh");
    CHECK(entry.subject_class == "coin");
    CHECK(entry.light == "flash");
    CHECK(entry.support == "hand");
    CHECK(entry.unit == "Compact flash");
    CHECK(entry.approach == "single frames by hand");
    CHECK_THAT(*entry.planned_f_number, same(11));
    const auto alone = storage::read_shoot(entry.plan).value();
    REQUIRE(alone.shots.size() == 1);
    CHECK(alone.shots[0].exposure.f_number == 11);
    CHECK(alone.kit.cameras.size() == 1);
    CHECK(alone.kit.flashes.size() == 1);
    CHECK(alone.kit.tubes.empty());
    // Without a class its form stands for it.
    CHECK_FALSE(log::entry_for(shoot, shot, "").subject_class.empty());

    shoot::RunRecord run{.id = "2026-one", .time = "2026-11-28T10:00:00", .planned = 2, .unknown = {}};
    run.frames = {{.index = 0, .file = "a.jpg", .plane = 0.5, .f_number = 11, .unknown = {}},
                  {.index = 1, .file = "b.jpg", .plane = 0.7, .f_number = 11, .unknown = {}}};
    const auto logged = log::run_entry(shoot, shot, "coin", run);
    CHECK(logged.uid == "run:2026-one");
    CHECK(*logged.frames == 2);
    CHECK(logged.exposed.size() == 2);
    CHECK(*logged.exposed[1].plane == 0.7);
    // Against the plan, with the pace of its frames and how long the flash kept up.
    run.folder = text::StoredPath("/frames"), run.planned = 3;
    run.frames[0].time = "2026-11-28T23:59:59.5", run.frames[1].time = "2026-11-29T00:00:02";
    run.frames[1].flash = 0.7;
    shot.lights[0].power = 0.125;
    const auto paced = log::run_entry(shoot, shot, "coin", run);
    CHECK_THAT(*paced.cadence, same(2.5));
    CHECK(*paced.held == 1);
    CHECK_THAT(*paced.power, same(0.125));
    CHECK(*paced.planned == 3);
    CHECK(paced.exposed[0].file.text() == "/frames/a.jpg");
    run.id = "2026-one-test";
    CHECK(log::run_entry(shoot, shot, "coin", run).exposed.empty());
    const auto proof = log::proof_entry(
        shoot, shot, "coin", {.time = "2026-11-28T11:00:00", .verdict = shoot::Verdict::redo, .unknown = {}});
    CHECK(proof.verdict == "redo");
    const auto corrected = log::correction_entry(shoot, shot, "coin", 0, 0.4, "2026-11-28T11:00:00");
    CHECK(corrected.unit == "Compact flash");
    CHECK_THAT(*corrected.stops, same(0.4));
    const auto counted = log::count_entry(shoot, shot, "insect", 3, 20, "2026-11-28T12:00:00");
    CHECK(*counted.tried == 20);
}

TEST_CASE("frames that were looked at are entered with what they showed, and small pictures of those that are there",
          "[log][record]") {
    auto shoot = test::plain_shoot();
    shoot.site.name = "Saltmarsh";
    auto& shot = shoot.shots[0];
    shot.words = "Xanthoria";
    shot.subject.sway_amplitude = 3;
    proof::Inspection inspection;
    inspection.verdict = proof::Verdict::redo;
    for (int i = 0; i < 3; ++i) {
        auto& frame = inspection.frames.emplace_back();
        frame.file = "f" + std::to_string(i) + ".jpg";
        frame.over_plan = 0.1 * (i + 1), frame.scale = 1.01, frame.off_right = 0.03, frame.off_down = 0.04;
        frame.findings = {{.code = proof::Code::shaken, .level = proof::Level::caution},
                          {.code = proof::Code::moved, .level = proof::Level::info}};
    }
    inspection.stack = proof::StackFacts{};
    inspection.stack->findings = {{.code = proof::Code::gap, .level = proof::Level::stop}};
    inspection.stack->seen_depth = 12, inspection.stack->planned_depth = 10;
    const auto entry = log::inspection_entry(shoot, shot, "lichen", inspection, "2026-11-28T10:00:00");
    CHECK(entry.kind == log::Kind::inspection);
    CHECK(entry.causes == "gap 1, shaken 3");  // an info is no fault
    CHECK(entry.verdict == "redo");
    CHECK_THAT(*entry.stops, same(0.2));
    CHECK_THAT(*entry.scale, same(1.01));
    CHECK_THAT(*entry.off, same(0.05));
    CHECK_THAT(*entry.value, same(12));
    CHECK(entry.words == "Xanthoria");
    CHECK(entry.place == "Saltmarsh");
    CHECK(entry.wind == "swings 3 mm");
    CHECK(entry.uid == log::inspection_entry(shoot, shot, "lichen", inspection, "later").uid);
    // The same on every machine: CRC-64 of ECMA-182 of the names, by a bitwise sum written elsewhere, which gives
    // 995dc9bbdf1939fa for "123456789" as the catalogues of such sums have it.
    CHECK(entry.uid.ends_with(":e4e1f81789cfdd0"));
    inspection.frames[1].file = "other.jpg";
    CHECK(entry.uid != log::inspection_entry(shoot, shot, "lichen", inspection, "later").uid);

    const test::Folder folder;
    const storage::FramePicture picture{
        .width = 300, .height = 200, .rgb = std::vector<unsigned char>(300 * 200 * 3, 128)};
    log::Entry run;
    for (int i = 0; i < 40; ++i) {
        const auto file = folder / ("f" + std::to_string(i) + ".jpg").c_str();
        if (i > 0) REQUIRE(storage::replace_file(file, storage::picture_file(picture).value()));
        run.exposed.push_back({.index = i, .file = text::StoredPath(file), .plane = {}, .time = {}, .picture = {}});
    }
    log::add_thumbnails(run);
    CHECK(run.exposed.front().picture.empty());  // is not there
    CHECK_FALSE(run.exposed.back().picture.empty());
    const auto shown = std::ranges::count_if(run.exposed, [](const auto& one) { return !one.picture.empty(); });
    CHECK(shown == 11);
    CHECK(run.exposed.back().picture.size() < 8000);
}

TEST_CASE("what happened between two states of a shoot is entered, and nothing else", "[log][record]") {
    auto before = test::plain_shoot();
    before.shots[0].lights = {test::plain_light()};
    const auto entries = [&](const shoot::Shoot& now) {
        return log::entries_between(before, now, "one", "2026-11-28T09:00:00",
                                    [](const shoot::Shot&) { return "coin"; });
    };
    CHECK(entries(before).empty());
    auto now = before;
    now.shots[0].exposure.f_number = 4;  // a plan is no event
    CHECK(entries(now).empty());
    now.shots[0].proof.push_back({.time = "2026-11-28T10:00:00", .verdict = shoot::Verdict::keep, .unknown = {}});
    now.runs["one"].push_back(shoot::CopyOnWrite<shoot::RunRecord>(shoot::RunRecord{
        .id = "r1", .time = "2026-11-28T09:50:00", .frames = {{.file = "a.jpg", .unknown = {}}}, .unknown = {}}));
    auto& tries = shoot::own_tries(now.shots[0]);
    tries.kept = 3, tries.tried = 20;
    now.kit.flashes[0].corrections.push_back({.stops = 0.3, .time = "2026-11-28T10:01:00"});
    now.kit.cameras[0].step_readings.push_back({.lens = "macro", .travel = 4, .time = "2026-11-28T10:02:00"});
    auto copy = std::as_const(now.shots)[0];
    copy.id = "copy";  // with a verdict that was given to the first one
    now.shots.push_back(copy);
    const auto found = entries(now);
    REQUIRE(found.size() == 5);
    const auto of = [&](log::Kind kind) { return *std::ranges::find(found, kind, &log::Entry::kind); };
    CHECK(of(log::Kind::run).uid == "run:r1");
    CHECK(of(log::Kind::proof).verdict == "keep");
    CHECK(*of(log::Kind::count).tried == 20);
    CHECK_THAT(*of(log::Kind::correction).stops, same(0.3));
    CHECK(of(log::Kind::calibration).what == "steps");
    for (const auto& entry : found) CHECK(entry.subject_class == "coin");
    // What was learned of a unit that the shot worked on does not have is entered of the first that has it.
    auto other = before;
    other.shots.push_back(std::as_const(before.shots)[0]);
    other.shots[1].id = "lit", other.shots[0].lights.clear();
    auto learned = other;
    learned.kit.flashes[0].corrections.push_back({.stops = -0.5, .time = "2026-11-28T11:00:00"});
    const auto told = log::entries_between(other, learned, "one", "2026-11-28T11:00:00",
                                           [](const shoot::Shot& shot) { return shot.id; });
    REQUIRE(told.size() == 1);
    CHECK(told[0].subject_class == "lit");
    other.shots[1].lights.clear(), learned.shots[1].lights.clear();
    CHECK(log::entries_between(other, learned, "one", "", [](const shoot::Shot&) { return ""; }).empty());
}

TEST_CASE("a keeper opens as a new shot on today's gear, and what differs is said and bridged", "[log][keeper]") {
    auto then = test::plain_shoot();
    then.shots[0].lights = {test::plain_light()};
    then.shots[0].rig.tubes = {"t20"};
    then.shots[0].rig.focus = {.by = shoot::FocusBy::magnification, .value = 0.9};
    then.shots[0].proof.push_back({.time = "t", .unknown = {}});
    const auto entry = log::proof_entry(then, std::as_const(then.shots)[0], "coin", {.time = "t", .unknown = {}});
    const auto made = [&](const shoot::Shoot& today) {
        auto result = log::start_from(entry, today);
        REQUIRE(result.has_value());
        auto from = std::move(result).value();
        // It is a shot of today: it can be written and read with it.
        auto with = today;
        with.shots.push_back(from.shot);
        CHECK(storage::read_shoot(storage::write_shoot(with)).has_value());
        return from;
    };
    const auto alike = made([&] {
        auto today = test::plain_shoot();
        today.shots.clear();
        return today;
    }());
    CHECK(alike.differs.empty());
    CHECK(alike.shot.rig == std::as_const(then.shots)[0].rig);
    CHECK(alike.shot.lights == std::as_const(then.shots)[0].lights);
    CHECK(alike.shot.proof.empty());
    // The same lens under another id, no tube, another flash.
    auto today = test::plain_shoot();
    today.shots.clear();
    today.kit.lenses[0].id = "my-macro";
    today.kit.tubes.clear();
    std::erase_if(today.kit.flashes, [](const gear::Flash& flash) { return flash.id == "flash"; });
    const auto bridged = made(today);
    CHECK(bridged.shot.rig.lens == "my-macro");
    CHECK(bridged.shot.rig.tubes.empty());
    REQUIRE(bridged.differs.size() >= 2);
    CHECK(std::ranges::count(bridged.differs, "Tube 20 mm is not in today's bag") == 1);
    CHECK(std::ranges::count(bridged.differs, "Compact flash is not in today's bag") == 1);
    // No lens of then at all.
    today.kit.lenses[0].name = "Another lens", today.kit.lenses[0].id = "other";
    CHECK(made(today).shot.rig.lens == "other");
    auto bare = test::plain_shoot();
    bare.kit.lenses.clear();
    bare.shots.clear();
    CHECK(!log::start_from(entry, bare));
    CHECK(!log::start_from({}, today));
}

TEST_CASE("a made-up year is the same each time, says what it is, and goes into a book whole", "[log][record]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    const auto year = log::demo_year(shoot, 2026);
    CHECK(year == log::demo_year(shoot, 2026));
    CHECK(year.size() > 300);
    std::set<std::string> uids;
    for (const auto& entry : year) {
        CHECK(entry.remark == "made up");
        CHECK(uids.insert(entry.uid).second);
        CHECK(entry.time.substr(0, 5) == "2026-");
    }
    CHECK(log::lessons_of(year).size() > 10);
    // The camera creeps nearer: what is seen grows, by two in a hundred and more towards the end of the year.
    double late = 0;
    int looked_at = 0;
    for (const auto& entry : year)
        if (entry.kind == log::Kind::inspection && entry.scale && entry.time >= "2026-10")
            late += *entry.scale, ++looked_at;
    REQUIRE(looked_at > 5);
    CHECK(late / looked_at > 1.02);
}

TEST_CASE("notes from the field are read however they are written, and each line that has no place is told",
          "[log][notes]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    const auto notes = log::read_field_notes(
        "\xEF\xBB\xBF# at the bank\r\n"
        "9:40 bee 3/20 gusty, sun behind\r\n"
        "10.15; flint lichen; 12 frames; keep; between showers\r\n"
        "\r\n"
        "bee 2 of 15\n"
        "11h05 dragonfly 1/9 \r\n"
        "salt\n"
        "12:10 flint lichen combined 40 frames 7 min\n"
        "29.11.2026\n"
        "brooch shadow redo, crooked label ;\r\n"
        "8:00 tide brooch again",
        shoot, "2026-11-28", [](const shoot::Shot&) { return "any"; });
    REQUIRE(notes.entries.size() == 6);
    CHECK(notes.entries[3].kind == log::Kind::change);
    CHECK(notes.entries[3].what == "combining");
    CHECK(*notes.entries[3].frames == 40);
    CHECK_THAT(*notes.entries[3].minutes, same(7));
    const auto& first = notes.entries[0];
    CHECK(first.name == "Bee on sea-lavender");
    CHECK(first.kind == log::Kind::count);
    CHECK(*first.kept == 3);
    CHECK(*first.tried == 20);
    CHECK(first.time == "2026-11-28T09:40:00");
    CHECK(first.remark == "gusty sun behind");
    const auto& lichen = notes.entries[1];
    CHECK(lichen.name == "Flint lichen");
    CHECK(lichen.verdict == "keep");
    CHECK(*lichen.frames == 12);
    CHECK(lichen.remark == "between showers");
    CHECK(notes.entries[2].time == "2026-11-28T10:15:00");  // as the line before
    CHECK(*notes.entries[2].tried == 15);
    CHECK(notes.entries[4].name == "Tide brooch, shadow");
    CHECK(notes.entries[4].time.substr(0, 10) == "2026-11-29");
    CHECK(notes.entries[4].verdict == "redo");
    CHECK(notes.entries[4].remark == "crooked label");
    CHECK(notes.entries[5].name == "Tide brooch");
    CHECK(notes.entries[5].verdict == "redo");
    CHECK(notes.entries[5].remark.empty());
    const auto windows = log::read_field_notes("flint lichen kept\r\nflint lichen bad\r\n", shoot, "2026-11-28",
                                               [](const shoot::Shot&) { return "any"; });
    REQUIRE(windows.entries.size() == 2);
    CHECK(windows.entries[0].verdict == "keep");
    CHECK(windows.entries[1].verdict == "redo");
    REQUIRE(notes.unplaced.size() == 2);
    CHECK(text::message(notes.unplaced[0]) == "line 6: got \"11h05 dragonfly 1/9\", expected words of one shot's name");
    CHECK(notes.unplaced[1].place == "line 7");  // two shots have salt in their names
    CHECK(log::read_field_notes("", shoot, "2026-11-28", [](const shoot::Shot&) { return ""; }).entries.empty());
}
