#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"

#include <cstdint>
#include <memory>

/// One frame after the other as chance would have it: the causes of a ChanceReport drawn, each by its own law. mm.
namespace poquito::plan {

/// What one frame came to.
struct FrameDraw {
    double smear = 0;    // at the sensor, that the subject is drawn out by
    double through = 0;  // that the subject lies behind where it was to be, along the axis
    double aside = 0;    // to the right of it
    double up = 0;
    bool fired = true;  // the trigger answered it, and nothing else before
    bool sharp = true;  // where it has to be, and in the frame
};

/// mm at the sensor that the subject of such a frame is drawn out by: as chance had it, and by what goes across
/// without.
double smear_of(const FrameDraw& luck, const Report& report);

class FrameDraws {
  public:
    /// The same seed draws the same frames. Plan and report are read now and not needed afterwards.
    FrameDraws(const Plan& plan, const Report& report, std::uint64_t seed);
    ~FrameDraws();
    FrameDraws(FrameDraws&&) noexcept;
    FrameDraws& operator=(FrameDraws&&) noexcept;

    FrameDraw draw();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace poquito::plan
