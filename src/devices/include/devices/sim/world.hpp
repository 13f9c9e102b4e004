#pragma once

#include "devices/clock.hpp"
#include "devices/ports.hpp"
#include "shoot/shoot.hpp"

#include <atomic>
#include <mutex>
#include <optional>
#include <string>
#include <vector>

/// Stand-ins for rail, flash and trigger that behave like the real thing: time passes, screws have play, capacitors
/// charge. The camera has a file of its own: it renders the plan as it really was. A halt is latched in the rail's port
/// until it is connected again, so that a movement that was about to begin does not.
namespace poquito::devices {

/// What goes wrong on purpose. Frames are counted by exposures, from 0.
enum class MishapKind {
    camera_drops,     // its connection, before the exposure
    rail_drops,       // its connection, before the move to that frame
    card_full,        // no room for the frame
    flash_not_ready,  // says it is ready and gives a quarter of its light
    flash_dies,       // never gets ready again
    subject_moves,    // by `size` mm to the side, and stays there
    wrong_aperture,   // the stop of the camera is found changed by `size` stops
    rig_slips,        // in its clamp by `size` mm towards the subject, and stays there
    light_changes,    // from there on it is `size` stops less: a lamp was knocked, a cloud came
};
struct Mishap {
    MishapKind kind = MishapKind::camera_drops;
    std::size_t frame = 0;
    double size = 1;
};
/// "camera-drops@5", "subject-moves@5:0.4"; empty: not one.
std::optional<Mishap> parse_mishap(const std::string& text);
const char* mishap_id(MishapKind kind);

/// What is true on the simulated bench, whatever the devices say: all of them share it. A rail behind a serial line
/// moves on a thread of its own; the rest is the run's.
struct World {
    Clock& clock;
    std::vector<Mishap> mishaps = {};        // by `due` alone once there are devices
    std::atomic<std::size_t> exposures = 0;  // so far
    std::atomic<double> carriage = 0;        // mm from the home switch where the rail's carriage really stands
    std::optional<double> ring = {};         // of the lens; empty: as the plan has it
    std::vector<double> shares = {};         // of its light that each flash gave at the last exposure

    /// Whether that mishap is due at this exposure; it happens once.
    std::optional<Mishap> due(MishapKind kind);
    std::mutex mutex = {};  // of mishaps
};

class SimulatedRail final : public RailPort {
  public:
    SimulatedRail(World& world, const gear::Rail& rail);
    Done connect() override;
    void disconnect() override { connected_ = false; }
    std::string name() const override { return "rail"; }
    Capabilities capabilities() const override;
    Done home() override;
    Done move_to(double position) override;
    Outcome<double> position() override;
    void halt() override { halted_ = true; }

  private:
    Done go(double screw);

    World& world_;
    gear::Rail rail_;
    double unit_;
    double screw_ = 0;  // what the motor has turned, as mm
    bool connected_ = false;
    std::atomic<bool> halted_ = false;  // until the next connect
};

class SimulatedFlash final : public FlashPort {
  public:
    SimulatedFlash(World& world, const gear::Flash& flash, double power);
    Done connect() override;
    void disconnect() override { connected_ = false; }
    std::string name() const override { return flash_.name; }
    Done set_power(double power) override;
    Outcome<std::optional<double>> ready_in() override;
    std::optional<double> last_share() override { return share_; }

    /// The camera's contact closes: gives what light it has. Share of what was set.
    double flash();

  private:
    World& world_;
    gear::Flash flash_;
    double power_;
    double charge() const;  // full-power flashes that it holds now

    double held_ = 0;   // after the last flash, in full-power flashes
    double since_ = 0;  // when that was
    std::optional<double> share_;
    bool connected_ = false;
    bool dead_ = false;
};

class SimulatedCamera;

/// A remote release.
class SimulatedTrigger final : public TriggerPort {
  public:
    explicit SimulatedTrigger(SimulatedCamera& camera) : camera_(camera) {}
    Done connect() override;
    void disconnect() override { connected_ = false; }
    std::string name() const override { return "remote release"; }
    Done fire() override;

  private:
    SimulatedCamera& camera_;
    bool connected_ = false;
};

}  // namespace poquito::devices
