// The simulated devices behave like the real thing: time, play, charge, buffer, card, and pictures of what is true.
#include "devices/sim/simulated_camera.hpp"
#include "devices/sim/world.hpp"
#include "light/store.hpp"
#include "plan/assess.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "support/benches.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"

#include <cstdio>

#include <jpeglib.h>

using namespace poquito;
using namespace poquito::devices;
using namespace poquito::run;
using test::same;
using test::WithinAbs;

namespace {

struct Pixels {
    int width = 0, height = 0;
    std::vector<unsigned char> rgb;
    double at(int x, int y) const { return rgb[static_cast<std::size_t>(3 * (y * width + x) + 1)]; }
};

/// By libjpeg, whatever wrote it.
Pixels decoded(const std::filesystem::path& path) {
    const auto bytes = storage::read_file(path).value();
    jpeg_decompress_struct info{};
    jpeg_error_mgr errors{};
    info.err = jpeg_std_error(&errors);
    jpeg_create_decompress(&info);
    jpeg_mem_src(&info, reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size());
    jpeg_read_header(&info, TRUE);
    jpeg_start_decompress(&info);
    Pixels pixels{.width = static_cast<int>(info.output_width), .height = static_cast<int>(info.output_height)};
    pixels.rgb.resize(static_cast<std::size_t>(pixels.width * pixels.height * 3));
    while (info.output_scanline < info.output_height) {
        JSAMPROW row = pixels.rgb.data() + static_cast<std::ptrdiff_t>(info.output_scanline) * pixels.width * 3;
        jpeg_read_scanlines(&info, &row, 1);
    }
    jpeg_finish_decompress(&info);
    jpeg_destroy_decompress(&info);
    return pixels;
}

double mean(const Pixels& pixels) {
    double sum = 0;
    for (const auto value : pixels.rgb) sum += value;
    return sum / static_cast<double>(pixels.rgb.size());
}

/// Sum of differences between neighbours inside a box given as shares of the frame.
double sharpness(const Pixels& p, double left, double top, double right, double bottom) {
    double sum = 0;
    for (int y = static_cast<int>(top * p.height); y < static_cast<int>(bottom * p.height) - 1; ++y)
        for (int x = static_cast<int>(left * p.width); x < static_cast<int>(right * p.width) - 1; ++x)
            sum += std::abs(p.at(x + 1, y) - p.at(x, y)) + std::abs(p.at(x, y + 1) - p.at(x, y));
    return sum;
}

std::filesystem::path expose(test::BenchRun& run, const std::string& name) {
    auto bench = run.devices->bench();
    REQUIRE_FALSE(bench.camera->expect(name));
    REQUIRE_FALSE(bench.trigger->fire());
    run.clock.sleep(60);
    for (const auto& saved : bench.camera->saved())
        if (saved.name == name) return saved.file;
    FAIL("not saved");
    return {};
}

void connect(const Bench& bench) {
    REQUIRE_FALSE(bench.camera->connect());
    if (bench.rail) REQUIRE_FALSE(bench.rail->connect());
    for (auto* flash : bench.flashes) REQUIRE_FALSE(flash->connect());
    REQUIRE_FALSE(bench.trigger->connect());
}

}  // namespace

TEST_CASE("the rail takes its time, has play, and knows where it is from its switch", "[bench][rail]") {
    InstantClock clock;
    World world{.clock = clock};
    SimulatedRail rail(world, {.travel = 50, .step = 0.01, .backlash = 0.1, .speed = 2});
    CHECK(rail.move_to(1)->kind == FaultKind::not_connected);
    REQUIRE_FALSE(rail.connect());
    REQUIRE_FALSE(rail.home());
    CHECK_THAT(world.carriage, WithinAbs(0, 1e-9));
    const double begun = clock.now();
    REQUIRE_FALSE(rail.move_to(10));
    CHECK_THAT(clock.now() - begun, WithinAbs(5, 1e-6));  // 10 mm at 2 mm/s
    CHECK_THAT(world.carriage, WithinAbs(10, 1e-9));
    // Turned round, the first tenth of a millimetre moves the screw alone.
    REQUIRE_FALSE(rail.move_to(9.95));
    CHECK_THAT(world.carriage, WithinAbs(10, 1e-9));
    CHECK_THAT(rail.position().value(), WithinAbs(9.95, 1e-9));
    REQUIRE_FALSE(rail.move_to(9));
    CHECK_THAT(world.carriage, WithinAbs(9.1, 1e-9));
    // From behind it stands where it says again.
    REQUIRE_FALSE(rail.move_to(9.5));
    CHECK_THAT(world.carriage, WithinAbs(9.5, 1e-9));
    REQUIRE_FALSE(rail.move_to(9.5037));
    CHECK_THAT(rail.position().value(), WithinAbs(9.5, 1e-9));  // whole steps only
    CHECK(rail.move_to(50.2)->kind == FaultKind::out_of_travel);
    CHECK(rail.move_to(-1)->kind == FaultKind::out_of_travel);
}

TEST_CASE("a flash fired early gives less, and needs its time again", "[bench][flash]") {
    InstantClock clock;
    World world{.clock = clock};
    SimulatedFlash flash(world, {.recycle_full = 4}, 0.5);
    REQUIRE_FALSE(flash.connect());
    CHECK(flash.ready_in().value().value() == 0);
    CHECK(flash.flash() == 1);
    CHECK_THAT(flash.ready_in().value().value(), same(2));  // 4 s times a half
    CHECK(flash.flash() == 1);                              // the other half of its store
    clock.sleep(0.5);
    CHECK_THAT(flash.flash(), same(0.25));  // an eighth of the store, a quarter of what was asked
    CHECK_THAT(flash.last_share().value(), same(0.25));
    CHECK_THAT(flash.ready_in().value().value(), same(4));  // empty
    clock.sleep(4);
    CHECK(flash.ready_in().value().value() == 0);
    CHECK_THAT(flash.flash(), same(1));
}

TEST_CASE("a flash in a burst is whole for as long as the store says, frame by frame", "[bench][flash]") {
    // MODEL 12: 42 at 1/16 every 0.1 s with T 2.5 and U 1; 12 and 76 at 1/16 and 1/32 with T 4 and U 0.5.
    struct Burst {
        double power, every, recycle, store, whole;
    };
    std::vector<Burst> bursts = {{1.0 / 16, 0.1, 2.5, 1, 42}, {1.0 / 16, 0.1, 4, 0.5, 12}, {1.0 / 32, 0.1, 4, 0.5, 76}};
    test::Random random(17);
    for (int i = 0; i < 200; ++i)
        bursts.push_back(
            {random.between(0.02, 0.6), random.between(0.05, 1), random.between(0.5, 6), random.between(0.3, 2), -1});
    int starved = 0;
    for (const auto& burst : bursts) {
        InstantClock clock;
        World world{.clock = clock};
        SimulatedFlash flash(world,
                             {.scale = {.least = 1.0 / 256}, .recycle_full = burst.recycle, .burst_store = burst.store},
                             burst.power);
        REQUIRE_FALSE(flash.connect());
        const auto whole = light::whole_flashes(
            {.power = burst.power, .every = burst.every, .recycle = burst.recycle, .store = burst.store});
        if (burst.whole > 0) CHECK(whole == burst.whole);
        constexpr int most = 300;
        int fired = 0;
        while (fired < most && flash.flash() > 1 - 1e-9) {
            ++fired;
            clock.sleep(burst.every);
        }
        if (whole && *whole < most) {
            CHECK(fired == *whole);
            ++starved;
        } else {
            CHECK(fired == most);
        }
    }
    CHECK(starved > 60);
}

TEST_CASE("the camera waits when its buffer is full, and stops when its card is", "[bench][camera]") {
    auto shoot = test::twelve_frames();
    shoot.kit.cameras[0].card_space = 200;  // six frames of 30
    test::BenchRun run(shoot);
    const auto bench = run.devices->bench();
    connect(bench);
    const double begun = run.clock.now();
    for (int i = 0; i < 6; ++i) {
        REQUIRE_FALSE(bench.camera->expect("f" + std::to_string(i)));
        REQUIRE_FALSE(bench.trigger->fire());
        if (i == 3) CHECK_THAT(run.clock.now() - begun, WithinAbs(4 * 0.125, 0.01));  // four at full pace
    }
    // The fifth waited for the first to be written, half a second after its exposure; the sixth for the second.
    CHECK_THAT(run.clock.now() - begun, WithinAbs(0.125 + 2 * 0.5 + 0.125, 0.06));
    CHECK(bench.camera->card_space().value() == 20);
    const auto full = bench.camera->expect("f6");
    REQUIRE(full);
    CHECK(full->kind == FaultKind::card_full);
    run.clock.sleep(10);
    CHECK(bench.camera->saved().size() == 6);
    CHECK(bench.camera->unsaved().value() == 0);
}

TEST_CASE("frames show what was true: where the plane stood, how much light there was", "[bench][camera]") {
    auto open = test::twelve_frames();
    open.shots[0].exposure.f_number = 2.8;  // thin slices
    open.shots[0].exposure.iso = 12.5;
    // One flash is all that it holds.
    open.kit.flashes[0].burst_store = *plan::assess(open.kit, open.shots[0], {}).light.sources[0].suggested_power;
    test::BenchRun run(open, {.picture_width = 720});
    const auto bench = run.devices->bench();
    connect(bench);
    const double reference = rail_reference(run.plan, 100);
    REQUIRE_FALSE(bench.rail->home());
    // At the first plane the nearest point, the ball's middle, is sharp; at the middle plane its outline.
    REQUIRE_FALSE(bench.rail->move_to(reference + *run.plan.frames.front().rail));
    const auto near = decoded(expose(run, "near.jpg"));
    REQUIRE_FALSE(bench.rail->move_to(reference + *run.plan.frames[run.plan.frames.size() / 2].rail));
    const auto far = decoded(expose(run, "far.jpg"));
    CHECK(sharpness(near, 0.4, 0.4, 0.6, 0.6) > 1.15 * sharpness(far, 0.4, 0.4, 0.6, 0.6));
    CHECK(sharpness(far, 0.27, 0.3, 0.33, 0.7) > 1.15 * sharpness(near, 0.27, 0.3, 0.33, 0.7));

    // A flash that was not ready: the frame is as dark as it would be.
    const auto full = mean(far);
    REQUIRE_FALSE(bench.camera->expect("early.jpg"));
    REQUIRE_FALSE(bench.trigger->fire());
    REQUIRE_FALSE(bench.camera->expect("early2.jpg"));
    REQUIRE_FALSE(bench.trigger->fire());
    run.clock.sleep(20);
    const auto saved = bench.camera->saved();
    REQUIRE(saved.size() == 2);
    CHECK(mean(decoded(saved[0].file)) > 0.95 * full);
    CHECK(mean(decoded(saved[1].file)) < 0.7 * full);
    CHECK(saved[1].brightness < saved[0].brightness - 1);

    const auto exif = storage::exif_of(storage::read_file(run.folder.path() / "near.jpg").value()).value();
    CHECK_THAT(exif.f_number, WithinAbs(2.8, 0.001));
    CHECK_THAT(exif.shutter, WithinAbs(0.125, 1e-6));
    CHECK(exif.iso == 12);
    CHECK(exif.camera == "APS-C body");
    CHECK(exif.flash);
}

TEST_CASE("by ring the frame is as large as conjugates say", "[bench][camera]") {
    auto shoot = test::twelve_frames();
    shoot.shots[0].rig.rail.reset();
    shoot.shots[0].capture.mover = shoot::Mover::ring;
    test::BenchRun run(shoot, {.picture_width = 240});
    const auto bench = run.devices->bench();
    connect(bench);
    CHECK(bench.rail == nullptr);
    const auto width = [](const Pixels& p) {
        int first = p.width, last = 0;
        for (int x = 0; x < p.width; ++x)
            if (p.at(x, p.height / 2) > 60) first = std::min(first, x), last = x;
        return last - first;
    };
    REQUIRE_FALSE(bench.camera->focus_to(*run.plan.frames.front().ring));
    const int first = width(decoded(expose(run, "first.jpg")));
    REQUIRE_FALSE(bench.camera->focus_to(*run.plan.frames.back().ring));
    const int last = width(decoded(expose(run, "last.jpg")));
    CHECK(first > last);  // focusing further away makes all of it smaller
    CHECK(first < 1.25 * last);
}

TEST_CASE("a subject that moves stands elsewhere in all frames that follow", "[bench][camera]") {
    test::BenchRun run(test::twelve_frames(),
                       {.mishaps = {{.kind = MishapKind::subject_moves, .frame = 1, .size = 4}}, .picture_width = 240});
    connect(run.devices->bench());
    const auto centre = [](const Pixels& p) {
        double sum = 0, weight = 0;
        for (int x = 0; x < p.width; ++x) {
            const double light = std::max(0.0, p.at(x, p.height / 2) - 70);  // the card is darker
            sum += x * light;
            weight += light;
        }
        return sum / weight;
    };
    const double before = centre(decoded(expose(run, "a.jpg")));
    const double after = centre(decoded(expose(run, "b.jpg")));
    // 4 mm at half life size on 24 mm of sensor, 240 px: 20 px to the right.
    CHECK_THAT(after - before, WithinAbs(20, 3));
    CHECK_THAT(centre(decoded(expose(run, "c.jpg"))), WithinAbs(after, 0.5));
}

TEST_CASE("light that changes is less in all frames that follow, and a rig that slips focuses nearer to the end",
          "[bench][camera]") {
    const auto middle = [](const Pixels& p) { return p.at(p.width / 2, p.height / 2); };
    test::BenchRun dim(test::twelve_frames(),
                       {.mishaps = {{.kind = MishapKind::light_changes, .frame = 1, .size = 1}}, .picture_width = 240});
    connect(dim.devices->bench());
    const double before = middle(decoded(expose(dim, "a.jpg")));
    const double after = middle(decoded(expose(dim, "b.jpg")));
    CHECK(after < before * 0.85);  // a stop less, after the curve of the file
    CHECK_THAT(middle(decoded(expose(dim, "c.jpg"))), WithinAbs(after, 2));
    // The carriage is where it was: what has moved is the rig under it.
    test::BenchRun slipped(test::twelve_frames(),
                           {.mishaps = {{.kind = MishapKind::rig_slips, .frame = 1, .size = 8}}, .picture_width = 480});
    connect(slipped.devices->bench());
    const double carriage = slipped.devices->world().carriage;
    const auto first = decoded(expose(slipped, "a.jpg")), second = decoded(expose(slipped, "b.jpg")),
               third = decoded(expose(slipped, "c.jpg"));
    CHECK(slipped.devices->world().carriage == carriage);
    const auto apart = [](const Pixels& one, const Pixels& other) {
        double sum = 0;
        for (std::size_t k = 0; k < one.rgb.size(); ++k) sum += std::abs(one.rgb[k] - other.rgb[k]);
        return sum / static_cast<double>(one.rgb.size());
    };
    CHECK(apart(first, second) > 10 * apart(second, third));
    CHECK(apart(first, second) > 0.2);
}

TEST_CASE("by hand the camera sways through focus while it fires", "[bench][camera]") {
    auto shoot = test::twelve_frames();
    auto& shot = shoot.shots[0];
    shot.rig.rail.reset();
    shot.exposure.f_number = 2.8;
    shot.exposure.iso = 12.5;
    shot.exposure.shutter = 0.005;
    shot.capture.mover = shoot::Mover::hand;
    shot.subject.depth = 2;
    shot.capture.hand = {.frames_per_second = 8, .burst = 1, .speed = 8, .range = 12};
    test::BenchRun run(shoot, {.picture_width = 480});
    const auto report = plan::assess(shoot.kit, shot, {});
    CHECK(run.plan.frames.size() == static_cast<std::size_t>(report.capture.cost.exposures));
    CHECK_THAT(run.plan.interval, same(1.0 / 8));
    connect(run.devices->bench());
    // A sixteenth of a second apart the plane has gone half a millimetre; at the turning point it is 6 mm off.
    std::vector<double> sharp;
    for (int i = 0; i < 6; ++i) {
        const auto frame = decoded(expose(run, "h" + std::to_string(i) + ".jpg"));
        sharp.push_back(sharpness(frame, 0.4, 0.4, 0.6, 0.6));
        run.clock.sleep(0.35);
    }
    const auto [least, most] = std::minmax_element(sharp.begin(), sharp.end());
    CHECK(*most > 1.3 * *least);
}

TEST_CASE("troubles are read as they are written", "[bench]") {
    CHECK(parse_mishap("camera-drops@5")->frame == 5);
    const auto moves = parse_mishap("subject-moves@12:0.25").value();
    CHECK(moves.kind == MishapKind::subject_moves);
    CHECK(moves.size == 0.25);
    for (int kind = 0; kind <= static_cast<int>(MishapKind::light_changes); ++kind) {
        const auto one = parse_mishap(std::string(mishap_id(static_cast<MishapKind>(kind))) + "@3:2");
        REQUIRE(one);
        CHECK(static_cast<int>(one->kind) == kind);
    }
    for (const char* bad :
         {"", "camera-drops", "camera@5", "camera-drops@", "camera-drops@x", "card-full@3:", "card-full@3x"})
        CHECK_FALSE(parse_mishap(bad));
}
