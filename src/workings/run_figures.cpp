#include "plan/plan.hpp"
#include "sheet.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::workings {

void Sheet::run() {
    station_ = advice::Station::run;
    const auto& capture = report_.capture;
    const double shutter = plan_.shot.exposure.shutter;
    auto& duration = add("paced_duration_s", "Frames take", text::time_text(capture.paced_duration));
    weigh(duration, "recycle-slow");
    const auto& cost = capture.cost;
    const auto& cadence = cost.cadence;
    if (cost.stalls > 0)
        duration.working =
            working("time", "(n - 1) * frame + stalls + t",
                    {{"n", cost.exposures}, {"t", shutter}, {"frame", cadence.frame}, {"stalls", cost.stalls}},
                    capture.paced_duration, "s", "a full buffer waits for the card");
    else
        duration.working =
            working("time", "(n - 1) * frame + t", {{"n", cost.exposures}, {"t", shutter}, {"frame", cadence.frame}},
                    capture.paced_duration, "s", "from frame to frame as below");
    if (capture.frames > 1 && !capture.stack->hand())
        add("frame_s", "\u2026 from frame to frame", text::time_text(cadence.frame)).working =
            working("frame", "max(interval, t + max(move + settle, recycle))",
                    {{"interval", capture.interval},
                     {"t", shutter},
                     {"move", cadence.move},
                     {"settle", cadence.settle},
                     {"recycle", capture.recycle}},
                    cadence.frame, "s", "a frame every interval, later where mover or flash is not ready");
    add("data_mb", "Data", text::data_text(capture.data_mb)).working =
        working("data", "n * frame", {{"n", cost.exposures}, {"frame", plan_.camera.frame_mb}}, capture.data_mb, "MB",
                "size of one frame from the kit");
}

}  // namespace poquito::workings
