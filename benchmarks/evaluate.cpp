// Time of assess() a shot, and of all whole plans of one, over the shots of the demo.
#include "advice/plans.hpp"
#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <vector>

int main() {
    using namespace poquito;
    using Clock = std::chrono::steady_clock;
    const auto shoot = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    constexpr int rounds = 200;
    double frames = 0;          // read, so that nothing is left out
    std::vector<double> times;  // s a shot, of each round: their median, so that a pause of the machine does not count
    for (int round = 0; round < rounds; ++round) {
        const auto from = Clock::now();
        for (const auto& shot : shoot.shots) frames += plan::assess(shoot.kit, shot).capture.frames;
        times.push_back(std::chrono::duration<double>(Clock::now() - from).count() /
                        static_cast<double>(shoot.shots.size()));
    }
    std::ranges::sort(times);
    const double each = times[times.size() / 2];
    constexpr double frame = 0.016;
    std::printf("evaluate: %.1f us a shot (slowest round %.0f us); 50 shots take %.3f of a 16 ms frame [%g]\n",
                each * 1e6, times.back() * 1e6, 50 * each / frame, frames);

    double hardest = 0;
    for (const auto& shot : shoot.shots) {
        std::vector<double> tries;
        for (int round = 0; round < 5; ++round) {
            const auto from = Clock::now();
            frames += static_cast<double>(advice::whole_plans(shoot.kit, shot, shoot::usual_limits()).size());
            tries.push_back(std::chrono::duration<double>(Clock::now() - from).count());
        }
        std::ranges::sort(tries);
        hardest = std::max(hardest, tries[tries.size() / 2]);
    }
    std::printf("whole plans: all schools of the demo's hardest shot take %.2f of 100 ms [%g]\n", hardest / 0.1,
                frames);
}
