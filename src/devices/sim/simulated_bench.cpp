#include "devices/sim/simulated_bench.hpp"

namespace poquito::devices {
namespace {

/// A rail that is real while the camera is simulated: the world follows where it was sent.
class Followed final : public RailPort {
  public:
    Followed(World& world, std::unique_ptr<RailPort> rail) : world_(world), rail_(std::move(rail)) {}
    Done connect() override { return rail_->connect(); }
    void disconnect() override { rail_->disconnect(); }
    std::string name() const override { return rail_->name(); }
    Capabilities capabilities() const override { return rail_->capabilities(); }
    Done home() override { return follow(rail_->home(), 0); }
    Done move_to(double position) override { return follow(rail_->move_to(position), position); }
    Outcome<double> position() override { return rail_->position(); }
    void halt() override { rail_->halt(); }

  private:
    Done follow(Done done, double position) {
        if (!done) world_.carriage = position;
        return done;
    }

    World& world_;
    std::unique_ptr<RailPort> rail_;
};

/// Another for each run, the same whenever that one is looked at again: by the name of its folder (FNV-1a).
std::uint64_t seed_of(const std::filesystem::path& folder) {
    std::uint64_t seed = 14695981039346656037U;
    for (const char c : folder.filename().string()) seed = (seed ^ static_cast<unsigned char>(c)) * 1099511628211U;
    return seed;
}

}  // namespace

SimulatedBench::SimulatedBench(Clock& clock, const BenchSetup& setup, Options options)
    : world_{.clock = clock, .mishaps = std::move(options.mishaps)} {
    const auto& [kit, shot, folder, powers, way] = setup;
    std::optional<double> reference;
    if (way) {
        const auto* found = shot.rig.rail ? gear::find_gear(kit.rails, *shot.rig.rail) : nullptr;
        gear::Rail rail = found ? *found : gear::Rail{.step = 0.001};
        const bool real = !options.device.empty();
        if (real) rail.travel = options.dialect.travel;
        reference = way->reference(rail.travel);
        if (real) {
            rail_ = std::make_unique<Followed>(world_, std::make_unique<SerialRail>(options.device, options.dialect));
        } else {
            rail_ = std::make_unique<SimulatedRail>(world_, rail);
        }
        if (options.serial && !real) {
            controller_ = std::make_unique<MotionController>(*rail_);
            auto dialect = options.dialect;
            dialect.travel = rail.travel;
            dialect.least_step = plan::least_step(rail);
            dialect.backlash = rail.backlash;
            dialect.speed = rail.speed;
            serial_ = std::make_unique<SerialRail>(controller_->device(), dialect);
        }
    }
    std::vector<SimulatedFlash*> by_light;
    std::size_t next_power = 0;
    for (const auto& light : shot.lights) {
        if (light.lamp || light.reflector) {
            by_light.push_back(nullptr);
            continue;
        }
        const double power = next_power < powers.size() ? powers[next_power++] : 1;
        flashes_.push_back(std::make_unique<SimulatedFlash>(world_, shoot::flash_of(kit, light), power));
        by_light.push_back(flashes_.back().get());
    }
    camera_ = std::make_unique<SimulatedCamera>(world_, SimulatedCamera::Setup{.kit = kit,
                                                                               .shot = shot,
                                                                               .rail_reference = reference,
                                                                               .folder = folder,
                                                                               .width = options.picture_width,
                                                                               .flashes = by_light,
                                                                               .seed = seed_of(folder)});
    trigger_ = std::make_unique<SimulatedTrigger>(*camera_);
}

SimulatedBench::~SimulatedBench() {
    serial_.reset();
    controller_.reset();
}

Bench SimulatedBench::bench() {
    Bench made{.rail = serial_ ? serial_.get() : rail_.get(), .camera = camera_.get(), .trigger = trigger_.get()};
    for (const auto& flash : flashes_) made.flashes.push_back(flash.get());
    return made;
}

}  // namespace poquito::devices
