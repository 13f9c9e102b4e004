// Time of assess() a shot, of its worth, of all whole plans of one, of the choice of one frame or a stack and of notes
// with their remedies, over the shots of the demo.
#include "advice/advice.hpp"
#include "advice/judgement.hpp"
#include "advice/plans.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
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
        for (const auto& shot : shoot.shots) frames += plan::assess(shoot.kit, shot, {}).capture.frames;
        times.push_back(std::chrono::duration<double>(Clock::now() - from).count() /
                        static_cast<double>(shoot.shots.size()));
    }
    std::ranges::sort(times);
    const double each = times[times.size() / 2];
    constexpr double frame = 0.016;
    std::printf("evaluate: %.1f us a shot (slowest round %.0f us); 50 shots take %.3f of a 16 ms frame [%g]\n",
                each * 1e6, times.back() * 1e6, 50 * each / frame, frames);

    // s of the shot of which it takes longest.
    const auto hardest = [&](const auto& work) {
        double longest = 0;
        for (const auto& shot : shoot.shots) {
            std::vector<double> tries;
            for (int round = 0; round < 5; ++round) {
                const auto from = Clock::now();
                frames += work(shot);
                tries.push_back(std::chrono::duration<double>(Clock::now() - from).count());
            }
            std::ranges::sort(tries);
            longest = std::max(longest, tries[tries.size() / 2]);
        }
        return longest;
    };
    const auto limits = shoot::usual_limits();
    constexpr int many = 100;
    const double worth = hardest([&](const auto& shot) {
        const auto plan = plan::plan_of(shoot.kit, shot, {limits});
        const auto report = plan::assess(plan);
        double sum = 0;
        for (int i = 0; i < many; ++i) sum += advice::worth_of(plan, report).worth;
        return sum;
    });
    std::printf("worth: %.1f us of the demo's hardest shot\n", worth / many * 1e6);
    const double plans = hardest(
        [&](const auto& shot) { return static_cast<double>(advice::whole_plans(shoot.kit, shot, {limits}).size()); });
    std::printf("whole plans: all ways of the demo's hardest shot take %.2f of 100 ms [%g]\n", plans / 0.1, frames);
    const double judged = hardest([&](const auto& shot) {
        const auto judgement = advice::judge(shoot.kit, shot, {limits});
        return judgement ? static_cast<double>(judgement->best) : 0;
    });
    const double notes = hardest([&](const auto& shot) {
        return static_cast<double>(advice::assessment_of(shoot.kit, shot, {limits}).advice.notes.size());
    });
    std::printf("one frame or a stack takes %.2f of a 16 ms frame, notes with their remedies %.2f [%g]\n",
                judged / frame, notes / frame, frames);
}
