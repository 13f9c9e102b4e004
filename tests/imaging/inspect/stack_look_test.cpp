#include "imaging/inspect/stack_look.hpp"

#include "imaging/inspect/focus_planes.hpp"
#include "imaging/inspect/frame_scan.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

using namespace poquito::imaging;

namespace {

/// A slope of grey without any detail, as 8 bits round it.
FrameScan scan_of_slope(double across, double down) {
    constexpr int width = 480, height = 320;
    FrameScanner scanner(width, height);
    std::vector<std::uint8_t> row(3 * width);
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x)
            std::fill_n(row.begin() + 3 * x, 3, static_cast<std::uint8_t>(std::lround(60 + across * x + down * y)));
        scanner.row(row.data());
    }
    return scanner.finish();
}

FocusPlanes planes_of(double width, double before) {
    FocusPlanes planes{.frames = {0, 1, 2, 3, 4, 5}, .width = width, .depth = CellMap(10, 10)};
    std::ranges::fill(planes.depth.values, 2.0f);
    // A fifth lies nearer than the first frame.
    std::fill_n(planes.depth.values.begin(), 20, static_cast<float>(-before));
    return planes;
}

}  // namespace

TEST_CASE("what rounding makes of a plain slope is noise, and tells of no tile", "[imaging][inspect]") {
    for (const double across : {0.03, 0.11, 0.26}) {
        const auto scan = scan_of_slope(across, 0.02);
        INFO(across);
        const auto sees = [&](CellMap FrameScan::*of, double least) {
            const auto noise = noise_of({&scan}, scan.level, of);
            CHECK(*std::ranges::min_element(noise.values) >= least);
            return told_share({.frames = {spread_out(scan.*of)}, .noise = noise});
        };
        // Rounding is even over a code, 1/12 of it squared; a second difference has six parts of that, and there are
        // two.
        CHECK(sees(&FrameScan::detail, 12.0 / 12) == 0);
        CHECK(sees(&FrameScan::middling, 12.0 / 12 / 4) == 0);
        CHECK(sees(&FrameScan::coarse, 2 * 16.0 / 24 / 2.5) == 0);  // steps of a gentle slope one by one
    }
}

TEST_CASE("where sharpness carries over many steps no detail is lost between frames, or just past an end",
          "[imaging][inspect]") {
    for (const double width : {2.0, 4.0, 8.0, 12.0}) {
        // Detail off focus, MODEL 11's fit: half way between two frames that far apart.
        const double half_way = planes_of(width, 1.5).lost() / 2 / width;
        CHECK(std::pow(1 + half_way * half_way, -0.75) > 0.8);
    }
    CHECK(planes_of(1, 1.5).open_before() == Approx(0.2));
    CHECK(planes_of(1, 0.8).open_before() == 0);
    CHECK(planes_of(8, 1.5).open_before() == 0);
    CHECK(planes_of(4, 3).open_before() == Approx(0.2));
    CHECK(planes_of(1, 1.5).open_behind() == 0);
}
