#include "findings.hpp"
#include "imaging/inspect/registration.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <optional>
#include <utility>
#include <vector>

namespace poquito::proof {
namespace {

/// Of as many frames before it as behind it, itself among them: what changes slowly is in it, what flickers is not. At
/// the ends it is the frame's own.
double about(const std::vector<FrameFacts>& frames, const std::vector<std::size_t>& of, std::size_t place) {
    constexpr std::size_t most = 2;
    const auto reach = std::min({most, place, of.size() - 1 - place});
    std::vector<double> stops;
    stops.reserve(2 * reach + 1);
    for (std::size_t at = place - reach; at <= place + reach; ++at) stops.push_back(frames[of[at]].scan->median_stops);
    const auto half = stops.begin() + static_cast<std::ptrdiff_t>(stops.size() / 2);
    std::ranges::nth_element(stops, half);
    return *half;
}

}  // namespace

void judge_lapse(std::vector<FrameFacts>& frames, std::size_t each, const shoot::Lapse& lapse, double field_mm) {
    std::vector<std::size_t> first;  // of each moment
    for (std::size_t i = 0; i < frames.size(); i += std::max<std::size_t>(1, each))
        if (frames[i].scan) first.push_back(i);
    constexpr std::size_t few = 4;
    if (first.size() < few) return;
    const auto add = [&](std::size_t frame, Code code, std::string text) {
        frames[frame].findings.push_back({.code = code, .level = Level::caution, .text = std::move(text), .place = {}});
    };
    constexpr double seen = 0.1;  // stops from one picture to the next (common practice)
    for (std::size_t k = 0; k < first.size(); ++k) {
        const double off = frames[first[k]].scan->median_stops - about(frames, first, k);
        if (std::abs(off) > seen)
            add(first[k], Code::uneven,
                fmt::format("{} stops {} than those about it: shown fast it flickers. Leave it out, or bring it to its "
                            "neighbours; another time everything by hand, and no light but your own.",
                            text::number_text(std::abs(off), 2), off > 0 ? "lighter" : "darker"));
    }
    std::optional<imaging::Registrable> before;
    for (std::size_t k = 0; k < first.size(); ++k) {
        const auto& scan = *frames[first[k]].scan;
        auto now = imaging::registrable(scan.small);
        if (before) {
            constexpr double alike = 0.25;
            const auto found = imaging::registered(*before, now);
            const double shift = found ? std::hypot(found->similarity.dx, found->similarity.dy) * scan.cell : 0;
            // What grows takes some of the picture with it; a five hundredth of its width more is seen (common
            // practice).
            const double grows = field_mm > 0 ? lapse.growth * lapse.interval / 3600 / field_mm * scan.width : 0;
            const double may = std::max(2.0, scan.width / 500.0) + grows;
            if (found && found->likeness > alike && shift > may)
                add(first[k], Code::moved,
                    fmt::format("From here on all lies {:.0f} px aside: camera, table or pot was touched, and the film "
                                "jumps. Shift what follows back, and cut that much off all of it.",
                                shift));
        }
        before = std::move(now);
    }
}

}  // namespace poquito::proof
