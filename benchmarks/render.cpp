// Finder and loupe of every demo shot, as shares of the time they may take: 33 ms for a frame while something is
// dragged, 100 ms for the loupe. Medians, so that a pause of the machine does not count.
#include "plan/assess.hpp"
#include "render/finder.hpp"
#include "render/loupe.hpp"
#include "storage/shoot_file.hpp"

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <functional>
#include <vector>

using namespace poquito;

namespace {

double median(std::vector<double> values) {
    std::ranges::sort(values);
    return values[values.size() / 2];
}

/// Milliseconds, the median of a few calls.
double timed(const std::function<void(int)>& work) {
    constexpr int calls = 7;
    std::vector<double> times;
    for (int i = 0; i < calls; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work(i);
        times.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
    }
    return median(times);
}

}  // namespace

int main() {
    const auto shoot = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    constexpr double frame = 33, loupe_time = 100;  // ms
    std::printf(
        "finder, shares of 33 ms: 960x640 and a draft of 320x213, the stop dragged; the same with the subject "
        "turned\n");
    std::printf("loupe, 240x160 sensor pixels, shares of 100 ms: the stop dragged, the loupe dragged, its draft\n");
    for (const auto& shot : shoot.shots) {
        const auto scene = [&](int i, bool turn) {
            auto dragged = shot;
            dragged.exposure.f_number *= 1 + 0.02 * i;
            if (turn) dragged.subject.turn = 3 * i;
            return *render::scene_of(shoot.kit, dragged, plan::assess(shoot.kit, dragged, {}));
        };
        render::Finder full, draft;
        render::Loupe loupe;
        full.render(scene(0, false), {.width = 960, .height = 640});
        draft.render(scene(0, false), {.width = 320, .height = 213});
        loupe.render(scene(0, false), {});
        const double fine = timed([&](int i) { full.render(scene(i, false), {.width = 960, .height = 640}); });
        const double coarse = timed([&](int i) { draft.render(scene(i, false), {.width = 320, .height = 213}); });
        const double turned = timed([&](int i) { draft.render(scene(i, true), {.width = 320, .height = 213}); });
        const double stopped = timed([&](int i) { loupe.render(scene(i, false), {}); });
        const double moved = timed([&](int i) { loupe.render(scene(0, false), {.centre = {.x = 0.3 * i, .y = 0.2}}); });
        const double first =
            timed([&](int i) { loupe.render(scene(0, false), {.centre = {.x = 0.3 * i, .y = 0.2}, .rays = 1}); });
        std::printf("  %-24s %5.2f %5.2f %5.2f   %5.2f %5.2f %5.2f\n", shot.name.c_str(), fine / frame, coarse / frame,
                    turned / frame, stopped / loupe_time, moved / loupe_time, first / loupe_time);
    }
}
