#pragma once

#include "devices/sim/world.hpp"
#include "plan/motion/frame_draws.hpp"
#include "plan/report.hpp"
#include "render/finder.hpp"

#include <deque>
#include <filesystem>
#include <memory>

namespace poquito::devices {

/// A camera that photographs the plan: its frames show what a real one would see from where rail and ring really stand,
/// with the light the flashes really gave. It has a buffer and a card; a frame is written after the one before it.
class SimulatedCamera final : public CameraPort {
  public:
    struct Setup {
        gear::Kit kit;  // what stands on the bench, copied: the shoot may change meanwhile
        shoot::Shot shot;
        std::optional<double> rail_reference;  // carriage where the planned plane is in focus; empty: no rail
        std::filesystem::path folder;
        int width = 960;                       // px of its pictures; the height follows from the sensor
        std::vector<SimulatedFlash*> flashes;  // one a light of the shot, null where it is a lamp
        std::uint64_t seed = 1;                // of what chance makes of each frame
    };
    SimulatedCamera(World& world, Setup setup);
    ~SimulatedCamera() override;

    Done connect() override;
    void disconnect() override { connected_ = false; }
    std::string name() const override { return "camera"; }
    Capabilities capabilities() const override;
    Done set(const Settings& settings) override;
    Outcome<Settings> settings() override;
    Done focus_to(double ring) override;
    Done expect(const std::string& name) override;
    std::vector<Saved> saved() override;
    Outcome<std::size_t> unsaved() override;
    Outcome<double> card_space() override;

    /// The release is pressed.
    Done released();

  private:
    /// What was true when the shutter opened.
    struct Exposure {
        std::string name;
        std::string time;
        Settings settings;
        double displayed_f_number = 8;
        double carriage = 0;
        double sway = 0;  // mm towards the subject, by hand
        std::optional<double> ring;
        std::vector<double> shares;
        double moved = 0;    // mm the subject stood to the side
        double slipped = 0;  // mm the rig stood nearer
        double dimmed = 0;   // stops that were missing of all light
        double hours = 0;    // since the first frame
        plan::FrameDraw draw;
        double written_at = 0;
    };
    std::optional<Saved> write(const Exposure& exposure);
    shoot::Shot true_shot(const Exposure& exposure) const;
    double sway() const;

    World& world_;
    Setup setup_;
    plan::Report report_;
    plan::FrameDraws draws_;
    Settings settings_;
    std::optional<double> began_;  // its first frame, by the clock
    double write_time_;            // s a frame
    std::size_t room_;             // frames of buffer
    double card_space_;            // MB
    std::string expected_;
    double moved_ = 0;
    double slipped_ = 0;
    double dimmed_ = 0;
    double card_free_at_ = 0;  // when all before is written
    std::deque<Exposure> buffer_;
    std::unique_ptr<render::Finder> finder_;
    bool connected_ = false;
};

}  // namespace poquito::devices
