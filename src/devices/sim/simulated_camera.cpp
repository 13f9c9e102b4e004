#include "devices/sim/simulated_camera.hpp"

#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/plan.hpp"
#include "render/scene.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace poquito::devices {
namespace {

Fault dropped() { return {.kind = FaultKind::not_connected, .text = "The camera does not answer."}; }

// What cameras do of which the kit does not say otherwise (common practice).
constexpr double usual_write_speed = 80;  // MB/s
constexpr double usual_buffer = 30;       // frames
constexpr double usual_card = 64000;      // MB

}  // namespace

SimulatedCamera::SimulatedCamera(World& world, Setup setup)
    : world_(world),
      setup_(std::move(setup)),
      report_(plan::assess(setup_.kit, setup_.shot, {})),
      draws_(plan::plan_of(setup_.kit, setup_.shot, {}), report_, setup_.seed),
      finder_(std::make_unique<render::Finder>()) {
    const auto& exposure = setup_.shot.exposure;
    settings_ = {.f_number = exposure.f_number, .shutter = exposure.shutter, .iso = exposure.iso};
    const auto& camera = shoot::camera_of(setup_.kit, setup_.shot);
    write_time_ = camera.frame_mb / camera.write_speed.value_or(usual_write_speed);
    room_ = static_cast<std::size_t>(std::max(1.0, camera.buffer_frames.value_or(usual_buffer)));
    card_space_ = camera.card_space.value_or(usual_card);
}

SimulatedCamera::~SimulatedCamera() = default;

Done SimulatedCamera::connect() {
    connected_ = true;
    const auto& camera = shoot::camera_of(setup_.kit, setup_.shot);
    // Whoever connects it again has put in another card.
    if (card_space_ < camera.frame_mb) card_space_ = camera.card_space.value_or(usual_card);
    return std::nullopt;
}

CameraPort::Capabilities SimulatedCamera::capabilities() const {
    return {.sets_exposure = true, .drives_focus = shoot::lens_of(setup_.kit, setup_.shot).autofocus};
}

Done SimulatedCamera::set(const Settings& settings) {
    if (!connected_) return dropped();
    settings_ = settings;
    return std::nullopt;
}

Outcome<CameraPort::Settings> SimulatedCamera::settings() {
    if (!connected_) return dropped();
    if (const auto mishap = world_.due(MishapKind::wrong_aperture)) settings_.f_number *= std::exp2(mishap->size / 2);
    return settings_;
}

Done SimulatedCamera::focus_to(double ring) {
    if (!connected_) return dropped();
    constexpr double drive_time = 0.1;
    world_.clock.sleep(drive_time);
    world_.ring = std::clamp(ring, 0.0, 1.0);
    return std::nullopt;
}

Done SimulatedCamera::expect(const std::string& name) {
    if (world_.due(MishapKind::camera_drops)) connected_ = false;
    if (!connected_) return dropped();
    if (world_.due(MishapKind::card_full)) card_space_ = 0;
    const double needed = shoot::camera_of(setup_.kit, setup_.shot).frame_mb;
    if (card_space_ < needed)
        return Fault{.kind = FaultKind::card_full, .text = "The card is full. Put in another one."};
    const auto waiting = [&] {
        const double now = world_.clock.now();
        return std::count_if(buffer_.begin(), buffer_.end(), [&](const Exposure& e) { return e.written_at > now; });
    };
    if (static_cast<std::size_t>(waiting()) >= room_) tell("buffer full, the camera waits for its card");
    while (static_cast<std::size_t>(waiting()) >= room_) world_.clock.sleep(0.02);
    expected_ = name;
    return std::nullopt;
}

Done SimulatedCamera::released() {
    if (!connected_) return dropped();
    if (const auto mishap = world_.due(MishapKind::subject_moves)) moved_ = mishap->size;
    if (const auto mishap = world_.due(MishapKind::rig_slips)) slipped_ = mishap->size;
    if (const auto mishap = world_.due(MishapKind::light_changes)) dimmed_ = mishap->size;
    const double marked = settings_.f_number;
    if (!began_) began_ = world_.clock.now();
    Exposure exposure{.name = expected_,
                      .time = local_time(),
                      .settings = settings_,
                      .displayed_f_number = marked * report_.optics.displayed_f_number / setup_.shot.exposure.f_number,
                      .carriage = world_.carriage,
                      .sway = sway(),
                      .ring = world_.ring,
                      .moved = moved_,
                      .slipped = slipped_,
                      .dimmed = dimmed_,
                      .hours = (world_.clock.now() - *began_) / 3600,
                      .draw = draws_.draw()};
    world_.shares.clear();
    for (auto* flash : setup_.flashes) world_.shares.push_back(!flash ? 1 : exposure.draw.fired ? flash->flash() : 0);
    exposure.shares = world_.shares;
    world_.clock.sleep(settings_.shutter);
    ++world_.exposures;
    card_space_ -= shoot::camera_of(setup_.kit, setup_.shot).frame_mb;
    card_free_at_ = std::max(card_free_at_, world_.clock.now()) + write_time_;
    exposure.written_at = card_free_at_;
    buffer_.push_back(std::move(exposure));
    return std::nullopt;
}

/// Hands that go to and fro, evenly; in the middle when the clock starts.
double SimulatedCamera::sway() const {
    const auto& capture = setup_.shot.capture;
    if (capture.mover != shoot::Mover::hand || capture.mode != shoot::CaptureMode::stack) return 0;
    const double range = capture.hand.range;
    const double way = std::fmod(range / 2 + world_.clock.now() * capture.hand.speed, 2 * range);
    return (way < range ? way : 2 * range - way) - range / 2;
}

std::vector<CameraPort::Saved> SimulatedCamera::saved() {
    std::vector<Saved> list;
    while (connected_ && !buffer_.empty() && buffer_.front().written_at <= world_.clock.now()) {
        if (auto file = write(buffer_.front())) list.push_back(std::move(*file));
        buffer_.pop_front();
    }
    return list;
}

Outcome<std::size_t> SimulatedCamera::unsaved() {
    if (!connected_) return dropped();
    return buffer_.size();
}

Outcome<double> SimulatedCamera::card_space() {
    if (!connected_) return dropped();
    return card_space_;
}

/// The plan as it really was: where the plane of focus stood, and what light there was.
shoot::Shot SimulatedCamera::true_shot(const Exposure& exposure) const {
    shoot::Shot shot = setup_.shot;
    shot.exposure.f_number = exposure.settings.f_number;
    shot.exposure.shutter = exposure.settings.shutter;
    shot.exposure.iso = exposure.settings.iso;
    if (setup_.rail_reference) shot.sharpness.focus_offset += exposure.carriage - *setup_.rail_reference;
    shot.sharpness.focus_offset += exposure.sway + exposure.slipped - exposure.draw.through;
    if (exposure.ring) {
        // The sensor stays: the plane moves by as much as its distance from the sensor changes.
        const auto plan = plan::plan_of(setup_.kit, setup_.shot, {});
        const auto at = optics::focus_at_ring(plan.train, *exposure.ring);
        if (at.subject_to_sensor && plan.at.subject_to_sensor)
            shot.sharpness.focus_offset += *at.subject_to_sensor - *plan.at.subject_to_sensor;
        shot.rig.focus = {.by = shoot::FocusBy::ring, .value = *exposure.ring};
    }
    if (shot.lapse) {
        // It grows, about its middle and towards the camera from its back; and the day goes on.
        const auto& lapse = *shot.lapse;
        shot.subject.height += lapse.growth * exposure.hours;
        const double nearer = std::max(lapse.growth_depth * exposure.hours, -shot.subject.depth);
        shot.subject.depth += nearer;
        shot.sharpness.focus_offset += nearer / 2;
        if (shot.ambient) shot.ambient->ev100 += lapse.drift * exposure.hours;
    }
    for (std::size_t i = 0; i < shot.lights.size() && i < exposure.shares.size(); ++i) {
        // What the plan worked out for an automatic flash is what was set on the unit.
        if (plan::is_flash(shot.lights[i]))
            shot.lights[i].power = report_.light.sources[i].power * exposure.shares[i] * std::exp2(-exposure.dimmed);
        shot.lights[i].metered.reset();
    }
    if (shot.ambient) shot.ambient->ev100 -= exposure.dimmed;
    // One that gave nothing is not there: no power is none.
    std::erase_if(shot.lights, [](const shoot::Light& light) { return light.power && *light.power <= 0; });
    return shot;
}

std::optional<CameraPort::Saved> SimulatedCamera::write(const Exposure& exposure) {
    const auto shot = true_shot(exposure);
    const auto report = plan::assess(setup_.kit, shot, {});
    auto scene = render::scene_of(setup_.kit, shot, report);
    const auto& sensor = shoot::sensor_of(setup_.kit, shot.rig);
    const int height = std::max(1, static_cast<int>(std::lround(setup_.width * sensor.height / sensor.width)));
    imaging::Raster light(setup_.width, height);
    if (scene) {
        const double m = report.optics.magnification;
        render::put_aside(*scene, {.x = (exposure.moved + exposure.draw.aside) * m, .y = exposure.draw.up * m});
        scene->motion = plan::smear_of(exposure.draw, report_);
        if (auto frame = finder_->render(*scene, {.width = setup_.width, .height = height}))
            light = std::move(frame->light);
    }
    double sum = 0;
    for (const auto& pixel : light.pixels) sum += static_cast<double>(pixel[1]);
    const double mean = sum / static_cast<double>(light.pixels.size());
    constexpr double mid_grey = 0.18;
    const auto developed = render::develop(light);
    const auto& lens = shoot::lens_of(setup_.kit, shot);
    const auto bytes = storage::frame_file(
        {.width = developed.width, .height = developed.height, .rgb = developed.rgb},
        {.camera = shoot::camera_of(setup_.kit, shot).name,
         .lens = lens.contacts ? lens.name : std::string(),
         .time = exposure.time,
         .f_number = exposure.displayed_f_number,
         .shutter = exposure.settings.shutter,
         .iso = exposure.settings.iso,
         .focal_length = shot.rig.focal_length.value_or(lens.optics.focal_length),
         .flash = std::ranges::any_of(exposure.shares, [](double share) { return share > 0; }) &&
                  std::ranges::any_of(setup_.flashes, [](const auto* flash) { return flash != nullptr; }),
         .subject_distance = report.optics.subject_to_sensor.value_or(0)});
    const auto path = setup_.folder / exposure.name;
    if (!bytes || !storage::replace_file(path, *bytes)) {
        tell("the frame " + exposure.name + " cannot be written to " + setup_.folder.string());
        return std::nullopt;
    }
    return Saved{.name = exposure.name,
                 .file = path.string(),
                 .brightness = mean > 0 ? std::log2(mean / mid_grey) : -std::numeric_limits<double>::infinity()};
}

}  // namespace poquito::devices
