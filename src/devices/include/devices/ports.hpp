#pragma once

#include "text/error.hpp"

#include <functional>
#include <optional>
#include <string>
#include <vector>

/// What the application asks of the devices of a bench, and no more: as narrow as a real driver needs. mm, s. Calls
/// wait until they are done or have failed; each is made by one thread at a time, but for `halt`.
namespace poquito::devices {

enum class FaultKind {
    not_connected,  // never was, or the connection dropped; connect() may mend it
    timed_out,      // no answer within the device's time
    refused,        // the device answered that it cannot
    out_of_travel,  // beyond either end of the rail
    card_full,
    not_ready,  // the flash, within the time it was given
};
struct Fault {
    FaultKind kind = FaultKind::refused;
    std::string text;  // for people, names the device
};
/// Empty: it is done.
using Done = std::optional<Fault>;
template <typename Value>
using Outcome = text::Expected<Value, Fault>;

/// What all devices have in common. Events tell what happens by itself; they come on the thread that waits for the
/// device.
class Device {
  public:
    virtual ~Device() = default;
    virtual Done connect() = 0;  // again after a dropped connection too
    virtual void disconnect() = 0;
    virtual std::string name() const = 0;

    using Listener = std::function<void(const std::string& event)>;
    void listen(Listener listener) { listener_ = std::move(listener); }

  protected:
    void tell(const std::string& event) const {
        if (listener_) listener_(event);
    }

  private:
    Listener listener_;
};

/// Positions are mm from the home switch, growing towards the subject.
class RailPort : public Device {
  public:
    struct Capabilities {
        double travel = 100;
        double least_step = 0.001;
        double backlash = 0;
        bool has_home = true;
        double speed = 2;  // mm/s
        bool tells_position = true;
    };
    virtual Capabilities capabilities() const = 0;
    virtual Done home() = 0;                    // to its switch: position 0
    virtual Done move_to(double position) = 0;  // back when it stands still
    virtual Outcome<double> position() = 0;     // as the device counts, backlash not known to it
    /// At once, from any thread. It holds: until the next connect() every movement is refused, so that one that was
    /// about to begin does not.
    virtual void halt() = 0;
};

class CameraPort : public Device {
  public:
    struct Capabilities {
        bool sets_exposure = true;
        bool drives_focus = false;  // turns the ring of its lens
    };
    struct Settings {
        double f_number = 8;  // marked
        double shutter = 1.0 / 125;
        double iso = 100;
    };
    /// A frame that has reached the card.
    struct Saved {
        std::string name;       // as it was asked for
        std::string file;       // its path
        double brightness = 0;  // stops of the picture's mean over a mid grey, by the camera's own preview
    };
    virtual Capabilities capabilities() const = 0;
    virtual Done set(const Settings& settings) = 0;
    virtual Outcome<Settings> settings() = 0;
    virtual Done focus_to(double ring) = 0;            // 0 infinity to 1 closest
    virtual Done expect(const std::string& name) = 0;  // the next exposure is saved under this name; waits for room in
                                                       // the buffer
    virtual std::vector<Saved> saved() = 0;            // what has reached the card since the last call
    virtual Outcome<std::size_t> unsaved() = 0;        // frames still in the buffer
    virtual Outcome<double> card_space() = 0;          // MB free
};

class FlashPort : public Device {
  public:
    virtual Done set_power(double power) = 0;  // fraction of full
    /// s until it is charged for that power; 0: ready; empty: it does not say, or does not charge.
    virtual Outcome<std::optional<double>> ready_in() = 0;
    virtual std::optional<double> last_share() = 0;  // of its light that the last flash gave; empty: it cannot say
};

/// What releases the frame: a remote, a beam, the camera's own connection.
class TriggerPort : public Device {
  public:
    virtual Done fire() = 0;  // back when the exposure has ended
};

/// The devices of one bench. The rail may be missing where the focus ring moves.
struct Bench {
    RailPort* rail = nullptr;
    CameraPort* camera = nullptr;
    std::vector<FlashPort*> flashes;
    TriggerPort* trigger = nullptr;
};

}  // namespace poquito::devices
