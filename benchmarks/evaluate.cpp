// Time of assess() a shot, over the shots of the demo.
#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"

#include <chrono>
#include <cstdio>

int main() {
    using namespace poquito;
    using Clock = std::chrono::steady_clock;
    const auto shoot = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    constexpr int rounds = 200;
    double frames = 0;  // read, so that nothing is left out
    double slowest = 0;
    const auto begin = Clock::now();
    for (int round = 0; round < rounds; ++round)
        for (const auto& shot : shoot.shots) {
            const auto from = Clock::now();
            frames += plan::assess(shoot.kit, shot).capture.frames;
            slowest = std::max(slowest, std::chrono::duration<double>(Clock::now() - from).count());
        }
    const double each = std::chrono::duration<double>(Clock::now() - begin).count() /
                        (rounds * static_cast<double>(shoot.shots.size()));
    constexpr double frame = 0.016;
    std::printf("evaluate: %.1f us a shot (slowest %.0f us); 50 shots take %.3f of a 16 ms frame [%g]\n", each * 1e6,
                slowest * 1e6, 50 * each / frame, frames);
}
