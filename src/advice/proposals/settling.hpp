#pragma once

#include "advice/proposals/proposals.hpp"

#include <optional>
#include <unordered_map>
#include <vector>

/// The settings of one way to take a shot that are worth most.
namespace poquito::advice {

/// What of the settings stays, since the shot follows another one or its photographer works so.
struct Stays {
    bool stop = false;   // f-number
    bool times = false;  // shutter time and ISO
    bool power = false;  // of flashes
};

struct Settled {
    double worth = 0;
    double excess = 0;
    shoot::Shot shot;
};

class Settling {
  public:
    /// `change`: see worth_of.
    Settling(const gear::Kit& kit, const shoot::Shot& begun, const shoot::Terms& terms, Lit lit, const Stays& stays,
             double change);
    Settling(const Settling&) = delete;
    Settling& operator=(const Settling&) = delete;

    std::optional<Settled> best();
    /// Climbed from what is set, at another stop: sooner done, and as good where the shot is not far from it.
    std::optional<Settled> beside(double f_number);

  private:
    /// Places on the scales; `power` in thirds of a stop off what exposes.
    struct At {
        int stop = 0, time = 0, iso = 0, power = 0;
        bool operator==(const At&) const = default;
    };
    struct Hash {
        std::size_t operator()(const At& at) const;
    };
    struct Score {
        double excess = 0, worth = -1;  // worth below 0: cannot be had
        bool operator<(const Score& other) const;
    };

    void measure_light();
    bool flashes() const { return lit_ == Lit::flash || lit_ == Lit::fill; }
    int iso_for(int stop, int time) const;
    const Score& score(const At& at);
    void set(const At& at);
    void set_powers(double flash, double gain);
    bool can_be_lit() const;
    std::vector<At> coarse();
    std::optional<Settled> best_of(std::vector<At> tried, std::size_t hills);
    bool gains(const At& from, const At& to);
    At climbed(At from);
    At polished(At from);

    shoot::Shot shot_;  // the plan's own
    plan::Plan plan_;
    Lit lit_;
    Stays stays_;
    double change_;
    std::vector<double> stops_, times_, isos_;
    // At the first stop, sync and ISO 100: exposure ratios of what stays on, and of each flash at full power.
    double steady_ = 0;
    std::vector<double> full_, parts_;
    double high_speed_loss_ = 0;  // stops at sync
    bool high_speed_ = false;     // all flashes have it
    std::unordered_map<At, Score, Hash> scores_;
};

}  // namespace poquito::advice
