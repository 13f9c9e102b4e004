#include "support/shoots.hpp"

#include <cmath>

namespace poquito::test {

shoot::Shoot plain_shoot() {
    shoot::Shoot shoot{.title = "Test"};
    shoot.kit.cameras = {{.id = "body",
                          .name = "APS-C body",
                          .sensor = {.width = 24, .height = 16, .width_px = 6000, .height_px = 4000},
                          .flange = 44,
                          .sync = 0.005,
                          .frame_mb = 30,
                          .bracket = {.max_frames = 50}}};
    shoot.kit.lenses = {{.id = "macro",
                         .name = "100 mm macro 1:1",
                         .optics = {.focal_length = 100,
                                    .max_aperture = 2.8,
                                    .min_aperture = 32,
                                    .closest_focus = 410,
                                    .max_magnification = 1,
                                    .length = 110,
                                    .front_diameter = 60},
                         .filter_thread = 62}};
    shoot.kit.tubes = {{.id = "t20", .name = "Tube 20 mm", .length = 20},
                       {.id = "plain", .name = "Plain tube", .length = 25, .contacts = false}};
    shoot.kit.closeup_lenses = {{.id = "c4", .name = "Achromat +4", .power_dpt = 4, .thread = 62},
                                {.id = "c2", .name = "Close-up +2", .power_dpt = 2, .thread = 77},
                                {.id = "c3", .name = "Close-up +3", .power_dpt = 3, .thread = 49}};
    shoot.kit.teleconverters = {{.id = "x2", .name = "Converter 2x", .optics = {.factor = 2, .length = 40}}};
    shoot.kit.bellows = {{.id = "bellows", .name = "Bellows", .least = 40, .greatest = 140}};
    shoot.kit.reversing_rings = {{.id = "rev", .name = "Reversing ring", .length = 6, .thread = 62}};
    shoot.kit.coupling_rings = {{.id = "pair", .name = "Coupling ring", .length = 3, .thread = 62, .front_thread = 52}};
    shoot.kit.step_rings = {{.id = "s6277", .name = "Step ring 62 to 77", .from = 62, .to = 77}};
    shoot.kit.rails = {{.id = "rail", .name = "Rail", .travel = 100, .step = 0.01}};
    shoot.kit.flashes = {{.id = "flash",
                          .name = "Compact flash",
                          .guide_number = 32,
                          .scale = {.least = 1.0 / 128},
                          .durations = {{.power = 1, .t05 = 0.001}, {.power = 1.0 / 128, .t05 = 0.00004}},
                          .recycle_full = 4}};
    shoot.kit.flashes.push_back({.id = "twin",
                                 .name = "Twin light",
                                 .guide_number = 16,
                                 .durations = {{.power = 1, .t05 = 0.001}, {.power = 1.0 / 128, .t05 = 0.00003}},
                                 .front_thread = 62,
                                 .heads = gear::Heads::twin,
                                 .face = 30});
    shoot.kit.lamps = {{.id = "panel",
                        .name = "Panel",
                        .lux = 2000,
                        .lux_distance = 1000,
                        .face = 300,
                        .scale = {.least = 0.1},
                        .flicker = 100}};
    shoot.kit.modifiers = {{.id = "box", .name = "Softbox", .loss = 1, .diameter = 200},
                           {.id = "grid", .name = "Grid", .loss = 0.5, .diameter = 100, .grid = 20}};
    shoot::Shot shot{.id = "one", .name = "One"};
    shot.subject = {.width = 40, .height = 25, .depth = 2};
    shot.rig = {.camera = "body", .lens = "macro", .focus = {.by = shoot::FocusBy::magnification, .value = 0.5}};
    shot.exposure = {.f_number = 8, .shutter = 0.125, .iso = 100};
    shoot.shots = {shot};
    return shoot;
}

shoot::Light plain_light() {
    return {.flash = "flash", .position = {.distance = 500, .azimuth = -30, .elevation = 45}};
}

namespace {

/// What lights have besides their flash, distance and power; freeze plans.
void random_light(Random& random, const gear::Kit& kit, shoot::Shot& shot) {
    using namespace text;
    using namespace gear;
    using namespace shoot;
    shot.exposure.high_speed_sync = random.coin(0.3);
    shot.exposure.lever = static_cast<Lever>(random.whole(0, 3));
    if (shot.ambient && random.coin()) {
        shot.ambient->kind = static_cast<AmbientKind>(random.whole(0, 2));
        shot.ambient->position.azimuth = random.between(-180, 180);
        shot.ambient->position.elevation = random.between(0, 90);
        shot.ambient->size = random.between(0.5, 170);
    }
    for (Light& light : shot.lights) {
        if (random.coin(0.2)) {
            light.lamp = kit.lamps.front().id;
            light.flash.clear();
            light.power = random.between(0.1, 1);
        } else if (random.coin(0.2)) {
            light.flash = "twin";
            light.on_lens = random.coin();
            light.ratio = random.between(-3, 3);
        }
        if (random.coin(0.3)) light.aim = {.turn = random.between(-80, 80), .tip = random.between(-40, 40)};
        light.second_layer = random.coin(0.2);
        if (random.coin(0.2))
            light.bounce = Bounce{.from_lamp = random.log_between(50, 2000),
                                  .reflectance = random.between(0.1, 1),
                                  .diameter = random.log_between(50, 1000)};
        if (!light.power && random.coin(0.3)) light.metered = random.between(-3, 3);
        if (!light.power && !light.metered && random.coin(0.3)) {
            light.own_stops = random.between(-3, 2);
            light.own_at = static_cast<OwnAt>(random.whole(0, 1));
        }
        if (random.coin(0.2)) light.gel = random.between(-140, 160);
        if (random.coin(0.3)) light.group = random.coin() ? "A" : "C";
        if (random.coin(0.1))
            light = {
                .reflector = Reflector{.reflectance = random.between(0.1, 1), .diameter = random.log_between(30, 1000)},
                .position = light.position};
    }
    if (shot.ambient && random.coin(0.3)) shot.ambient->distance = random.log_between(200, 5000);
    if (shot.ambient && random.coin(0.2))
        shot.ambient->panel = Panel{.loss = random.between(0, 2), .width = random.log_between(100, 2000)};
    if (shot.ambient && random.coin(0.2)) shot.ambient->room = random.between(0, 1);
    if (random.coin(0.3)) shot.subject.transmittance = random.between(0, 1 - shot.subject.reflectance);
    if (random.coin(0.3)) shot.subject.highlight_reflectance = random.between(shot.subject.reflectance, 1);
    if (shot.background && random.coin(0.3)) shot.background->own_ev100 = random.between(2, 14);
    if (random.coin(0.2)) shot.exposure.kelvin = random.between(2500, 8000);
    if (random.coin(0.2)) shot.rig.orientation = Orientation::portrait;
    if (random.coin(0.2)) shot.rig.inclination = random.between(-90, 90);
    if (random.coin(0.2)) shot.subject.tank = InTank{.tank = {.water = random.between(0, 400)}};
    if (!random.coin(0.3)) return;
    Freeze freeze{.act = static_cast<Act>(random.whole(0, 3)),
                  .drop = random.between(0, 800),
                  .speed = random.between(0, 5000),
                  .wanted_blur = random.between(0.5, 20),
                  .trigger = static_cast<Trigger>(random.whole(0, 2)),
                  .beam_above = random.between(0, 500),
                  .sound_distance = random.between(0, 1000),
                  .lag = random.between(0, 0.2),
                  .scatter = random.between(0, 20)};
    if (random.coin()) freeze.second = TwoDrops{.rise = random.between(0, 0.1), .column = freeze.drop / 3};
    if (random.coin())
        freeze.repeating =
            RepeatingFlash{.burst = {.flashes = random.whole(1, 40), .frequency = random.between(1, 100)}};
    if (freeze.act == Act::thrown) {
        if (random.coin()) freeze.angle = random.between(-180, 180);
        freeze.moment = static_cast<Moment>(random.whole(0, 2));
        freeze.undelayed = random.coin(0.3);
        if (random.coin()) freeze.beam_rise = random.between(-300, 300);
        freeze.beam_coming_down = random.coin(0.3);
    }
    if (random.coin(0.3)) freeze.pieces = random.whole(1, 40), freeze.spread = random.between(0, 30);
    shot.freeze = freeze;
    if (random.coin(0.3)) shot.held = settings_of(shot);
}

/// How it is stacked and when; and what was exposed, oldest first.
std::vector<shoot::CopyOnWrite<shoot::RunRecord>> random_run(Random& random, shoot::Shot& shot) {
    using namespace text;
    using namespace gear;
    using namespace shoot;
    if (random.coin(0.3)) {
        const double from = random.between(0, shot.subject.depth);
        shot.capture.slice = Slice{.from = from, .to = from + random.between(0, shot.subject.depth)};
    }
    if (random.coin(0.2)) shot.capture.mover = Mover::hand;
    shot.capture.composite = random.coin(0.2);
    if (random.coin(0.3)) shot.capture.settle = random.between(0, 4);
    if (random.coin(0.3))
        shot.capture.hand = {.frames_per_second = random.between(1, 30),
                             .burst = random.between(0.1, 5),
                             .speed = random.log_between(0.5, 40),
                             .range = random.log_between(0.5, 40)};
    if (random.coin(0.3))
        shot.timing = {.not_before = random.between(0, 80000),
                       .done_by = random.between(0, 86400),
                       .handling = random.between(0, 900)};
    if (!random.coin(0.3)) return {};
    RunRecord run{.id = "shot-1",
                  .time = "2026-11-25T10:00:00",
                  .folder = text::StoredPath("/tmp/\u00fcber"),
                  .planned = 12,
                  .end = static_cast<RunEnd>(random.whole(0, 2)),
                  .remark = "the \"flash\" died"};
    for (int i = random.whole(0, 4); i > 0; --i)
        run.frames.push_back({.index = i,
                              .file = "shot-1-0001.jpg",
                              .plane = random.between(-2, 5),
                              .f_number = 5.6,
                              .shutter = 0.005,
                              .iso = 200,
                              .flash = random.coin() ? 1 : random.between(0, 1),
                              .time = "2026-11-25T10:00:01",
                              .remark = random.coin() ? "dim" : ""});
    return {run};
}

/// Every member of the document at random, optional ones there or not.
std::pair<shoot::Shot, std::vector<shoot::CopyOnWrite<shoot::RunRecord>>> random_shot(Random& random,
                                                                                      const gear::Kit& kit) {
    using namespace text;
    using namespace gear;
    using namespace shoot;
    Shot shot{.id = "shot", .name = "Shot \"\u00e9\" <1>"};
    shot.subject = {.width = random.log_between(1, 400),
                    .height = random.log_between(1, 400),
                    .depth = random.coin(0.1) ? 0 : random.log_between(0.1, 100),
                    .reflectance = random.between(0, 1),
                    .speed = random.coin() ? random.log_between(1, 2000) : 0};
    if (random.coin(0.3)) shot.subject.sway_amplitude = random.between(0.1, 5);
    if (random.coin(0.3)) shot.subject.traits = {"food", "polished"};
    shot.rig = {.camera = kit.cameras.front().id, .lens = kit.lenses.front().id};
    if (random.coin()) shot.rig.tubes = {kit.tubes.front().id};
    if (random.coin(0.3)) shot.rig.closeup_lenses = {kit.closeup_lenses.front().id};
    if (random.coin(0.3)) shot.rig.teleconverter = kit.teleconverters.front().id;
    if (shot.rig.teleconverter && random.coin()) shot.rig.tubes_behind_converter = {kit.tubes.back().id};
    if (random.coin(0.2)) shot.rig.bellows = BellowsSetting{.bellows = "bellows", .extension = random.between(40, 140)};
    if (shot.rig.closeup_lenses.empty() && random.coin(0.2)) {
        shot.rig.reversing_ring = "rev";
    } else if (random.coin(0.2)) {
        shot.rig.front_lens = FrontLens{.lens = kit.lenses.front().id, .f_number = random.log_between(2, 8)};
        if (random.coin()) shot.rig.front_lens->coupling_ring = "pair";
        if (random.coin()) shot.rig.front_lens->ring = random.between(0, 1);
    }
    if (random.coin(0.2)) shot.rig.rail = "rail";
    if (!kit.lenses.front().zoom.empty()) shot.rig.focal_length = random.between(60, 100);
    if (!kit.cameras.front().crop_modes.empty()) shot.rig.crop_mode = kit.cameras.front().crop_modes.front().name;
    shot.rig.support = static_cast<Support>(random.whole(0, 3));
    shot.rig.focus = random.coin() ? Focus{.by = FocusBy::ring, .value = random.between(0, 1)}
                                   : Focus{.by = FocusBy::magnification, .value = random.log_between(0.05, 3)};
    shot.exposure = {.f_number = random.log_between(2, 32),
                     .shutter = random.log_between(1e-4, 10),
                     .iso = random.log_between(50, 6400)};
    shot.sharpness.rule = static_cast<BlurRule>(random.whole(0, 3));
    shot.sharpness.pixels = random.between(1, 3);
    if (shot.sharpness.rule == BlurRule::stated) shot.sharpness.stated = random.log_between(0.002, 0.1);
    if (random.coin(0.3)) shot.sharpness.wavelength = random.between(400, 700) * 1e-6;
    if (random.coin(0.3)) shot.sharpness.output.kind = OutputKind::delivery;
    shot.capture = {.mode = static_cast<CaptureMode>(random.whole(0, 1)),
                    .depth_rule = static_cast<DepthRule>(random.whole(0, 2)),
                    .contrast_kept = random.between(0.1, 0.95),
                    .overlap = random.between(0, 0.8),
                    .lead = random.between(0, 1),
                    .tail = random.between(0, 1),
                    .mover = static_cast<Mover>(random.whole(0, 1))};
    if (random.coin(0.3)) shot.capture.interval = random.between(0.1, 5);
    if (random.coin(0.7)) shot.ambient = Ambient{.ev100 = random.between(-2, 15)};
    for (int i = random.whole(0, 3); i > 0; --i) {
        Light light{.flash = kit.flashes.front().id};
        if (random.coin()) light.modifier = kit.modifiers.front().id;
        light.position = {.distance = random.log_between(50, 2000),
                          .azimuth = random.between(-180, 180),
                          .elevation = random.between(-20, 90)};
        if (random.coin()) light.power = random.log_between(0.005, 1);
        shot.lights.push_back(light);
    }
    if (random.coin())
        shot.background = Background{.distance = random.log_between(1, 5000), .reflectance = random.between(0, 1)};
    if (random.coin(0.3)) shot.checked = {"settings", "card"};
    if (random.coin(0.3))
        shot.proof = {{.time = "2026-11-25T10:00:00",
                       .frames = 12,
                       .correction = -0.3,
                       .verdict = Verdict::redo,
                       .remark = "a bit soft"}};
    // Of its own numbers, so that the cases known by their seed stay what they were.
    Random extra(static_cast<unsigned>(shot.subject.width * 1000));
    if (extra.coin(0.5)) shot.subject.form = static_cast<Form>(extra.whole(0, static_cast<int>(Form::folds)));
    if (extra.coin(0.3)) shot.subject.tilt = extra.between(-60, 60);
    if (extra.coin(0.3)) shot.subject.turn = extra.between(-60, 60);
    if (extra.coin(0.3))
        shot.subject.colour =
            Colour{static_cast<std::uint8_t>(extra.whole(0, 255)), 7, static_cast<std::uint8_t>(extra.whole(0, 255))};
    if (extra.coin(0.2)) {
        shot.subject.form = Form::height_map;
        shot.subject.height_map = HeightMap{
            .width = 2, .height = 3, .heights = {0, 255, 17, 3, 128, static_cast<std::uint8_t>(extra.whole(0, 255))}};
    }
    if (extra.coin(0.3)) shot.sharpness.focus_offset = extra.between(-1, 1) * shot.subject.depth / 2;
    if (extra.coin(0.3)) shot.capture.approach = "stack-halo-safe";
    if (shot.background && extra.coin()) shot.background->kind = BackgroundKind::scene;
    if (shot.background && extra.coin()) shot.background->colour = Colour{1, 2, 250};
    random_light(extra, kit, shot);
    auto runs = random_run(extra, shot);
    return {std::move(shot), std::move(runs)};
}

}  // namespace

shoot::Wishes random_wishes(Random& random) {
    using namespace shoot;
    Wishes wishes{.ground = static_cast<WantedGround>(random.whole(0, 5)),
                  .lit_by = static_cast<WantedLight>(random.whole(0, 3)),
                  .movement = static_cast<WantedMovement>(random.whole(0, 2)),
                  .contrast = static_cast<WantedContrast>(random.whole(0, 2)),
                  .coloured_light = random.coin(),
                  .passes_frame = random.coin(),
                  .unknown = {}};
    if (random.coin()) wishes.softness = random.log_between(0.005, 0.5);
    if (random.coin()) wishes.brighter = random.between(-2, 2);
    return wishes;
}

shoot::Shoot random_shoot(unsigned seed) {
    Random random(seed);
    shoot::Shoot shoot = plain_shoot();
    shoot.kit.lenses.front().optics.focusing = random.coin() ? optics::Focusing::unit : optics::Focusing::internal;
    shoot.kit.lenses.front().optics.hiatus =
        shoot.kit.lenses.front().optics.focusing == optics::Focusing::internal ? 10 : 0;
    shoot.kit.lenses.front().optics.pupil_magnification = random.between(0.7, 1.5);
    if (random.coin()) shoot.kit.lenses.front().optics.closest_working_f_number = random.between(3, 6);
    if (random.coin(0.2))
        shoot.kit.cameras.front().crop_modes = {
            {.name = "small; \"1.6\" | x", .sensor = {.width = 15, .height = 10, .width_px = 3750, .height_px = 2500}}};
    if (random.coin(0.3))
        shoot.kit.lenses.front().zoom = {
            {.focal_length = 60, .max_aperture = 2.8, .closest_focus = 400, .max_magnification = 0.4, .length = 110},
            {.focal_length = 100, .max_aperture = 4, .closest_focus = 500, .max_magnification = 0.5, .length = 130}};
    if (random.coin(0.3)) {
        gear::Calibration reading{.ring = random.between(0.3, 1),
                                  .value = random.between(0.3, 0.5),
                                  .uncertainty = 0.003,
                                  .believed = 0.4,
                                  .time = "2026-11-25T10:00:00"};
        if (!shoot.kit.lenses.front().zoom.empty()) reading.focal_length = 60;
        shoot.kit.lenses.front().calibrations = {reading};
    }
    if (random.coin(0.3))
        shoot.kit.flashes.front().corrections = {{.stops = random.between(-1, 1), .time = "2026-11-25T10:00:00"}};
    if (random.coin(0.3)) shoot.power_sets = {{.name = "close \"up\"", .powers = {{"A", 0.125}, {"C", 1}}}};
    shoot.shots.clear();
    for (int i = 0; i < 3; ++i) {
        auto [shot, runs] = random_shot(random, shoot.kit);
        shot.id += std::to_string(i);
        if (!runs.empty()) shoot.runs[shot.id] = std::move(runs);
        shoot.shots.push_back(std::move(shot));
    }
    if (random.coin(0.4)) {
        using namespace shoot;
        shoot.outlets = {{.id = "shop",
                          .name = "Shop; \"square\"",
                          .most = random.whole(1, 20),
                          .shape = random.log_between(0.5, 2),
                          .least_short_px = 2000,
                          .most_long_px = random.log_between(2000, 9000),
                          .ground = static_cast<Ground>(random.whole(0, 2)),
                          .margin = random.between(0, 0.2),
                          .first = "front",
                          .unknown = {}}};
        shoot.packing = {.own = {{.id = "slate", .text = "Slate", .container = "Crate", .unknown = {}}},
                         .places = {{.item = "cameras:body", .container = "Rucksack", .unknown = {}}},
                         .going = {"own:slate", "cameras:body"},
                         .home = {"own:slate"},
                         .unknown = {}};
        shoot.shots[0].view = View{.thing = "Bag, \"old\"",
                                   .name = "front",
                                   .proves = "all of it",
                                   .worth = random.between(0, 10),
                                   .must = random.coin(),
                                   .half = random.coin(),
                                   .also = {"back; \"left\""},
                                   .unknown = {}};
        shoot.kit.stands = {{.id = "boom",
                             .name = "Boom",
                             .least = random.between(100, 800),
                             .greatest = random.between(900, 2500),
                             .arm = random.between(0, 900),
                             .feet = random.between(200, 600),
                             .carries = random.between(1, 10)}};
        shoot.kit.cameras.front().weight = random.between(200, 1500);
        shoot.kit.lenses.front().limiter = random.between(200, 900);
        shoot.shots[0].rig.stand = "boom";
        shoot.shots[0].table = Table{.height = random.between(0, 900),
                                     .before = random.between(0, 600),
                                     .behind = random.between(0, 900),
                                     .unknown = {}};
        shoot.shots[1].follows = Follows{
            .shot = shoot.shots[0].id, .locks = {Lock::stop, static_cast<Lock>(random.whole(3, 4))}, .unknown = {}};
        shoot.shots[2].plate =
            Plate{.picture = "Bag", .role = static_cast<PlateRole>(random.whole(0, 6)), .unknown = {}};
        shoot.shots[2].staging = {{.id = "cloth",
                                   .name = "Cloth; \"linen\"",
                                   .role = static_cast<StagedRole>(random.whole(0, 5)),
                                   .subject = {.width = random.log_between(5, 500), .height = 30, .depth = 2},
                                   .lies = random.coin(),
                                   .right = random.between(-300, 300),
                                   .behind = random.between(-300, 300),
                                   .unknown = {}}};
        shoot.shots[1].deliveries = {{.outlet = "shop",
                                      .right = random.between(-0.5, 0.5),
                                      .down = random.between(-0.5, 0.5),
                                      .beside = shoot.shots[0].id,
                                      .unknown = {}}};
    }
    if (random.coin(0.3))
        shoot.shots[0].lapse = shoot::Lapse{.length = random.between(60, 1e5),
                                            .interval = random.between(1, 60),
                                            .frames_per_second = 24,
                                            .drift = random.between(-1, 1),
                                            .follows = random.coin(),
                                            .growth = random.between(0, 2),
                                            .growth_depth = random.between(-1, 1),
                                            .lamps_rest = random.coin()};
    if (random.coin(0.3)) shoot.shots[1].words = "Xanthoria, on flint", shoot.shots[1].bearing = random.between(0, 360);
    if (random.coin(0.3)) shoot.shots[2].timing.after = {shoot.shots[0].id, shoot.shots[1].id};
    if (random.coin(0.3))
        shoot.workday = {.begin = random.between(0, 80000),
                         .prices = {.camera = random.between(0, 900), .subject = 0},
                         .sorting = random.between(0, 10),
                         .combining = random.between(0, 10),
                         .waiting_counts = random.coin()};
    if (random.coin(0.3))
        shoot.site = {.name = "Saltmarsh",
                      .latitude = random.between(-90, 90),
                      .longitude = random.between(-180, 180),
                      .zone = "Europe/Dublin",
                      .date = "2026-11-28",
                      .obstacles = {{.from = random.between(0, 360), .to = 90, .height = random.between(0, 60)}},
                      .sky = static_cast<shoot::Sky>(random.whole(0, 4)),
                      .reading = shoot::LightReading{.ev100 = random.between(0, 16), .clock = random.between(0, 80000)},
                      .window = shoot::SunWindow{.from = 90, .to = 200, .low = random.between(0, 20), .high = 50}};
    if (random.coin(0.3)) {
        auto& body = shoot.kit.cameras.front();
        body.bracket.step_settings = 10;
        body.buffer_frames = random.between(1, 100);
        body.write_speed = random.log_between(5, 300);
        body.card_space = random.log_between(100, 100000);
        body.charge = random.log_between(100, 1000);
        body.step_readings = {{.lens = "macro",
                               .setting = 5,
                               .f_number = 8,
                               .magnification = 0.5,
                               .frames = 20,
                               .travel = random.between(1, 10),
                               .ring_step = random.log_between(1e-4, 1e-2),
                               .time = "2026-11-25T10:00:00"}};
        auto& rail = shoot.kit.rails.front();
        rail.pitch = random.between(0.5, 2);
        rail.steps_per_turn = random.between(100, 6400);
        rail.backlash = random.between(0, 0.1);
        rail.speed = random.between(0.1, 10);
    }
    // Drawn apart, so that everything above stays as it was before there were wishes.
    Random wished(seed + 100000);
    if (wished.coin(0.2)) shoot.terms.wishes = random_wishes(wished);
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (wished.coin(0.3)) shoot.shots[i].wishes = random_wishes(wished);
    return shoot;
}

}  // namespace poquito::test
