// Time to plan 1000 stacks, frames and all, and to order a day of 14 shots (exactly) and of 60, against a 16 ms frame
// and against each other.
#include "day/order.hpp"
#include "plan/assess.hpp"
#include "plan/plan.hpp"
#include "plan/stack/stack_plan.hpp"
#include "storage/shoot_file.hpp"

#include <chrono>
#include <cstdio>
#include <numeric>
#include <random>

namespace {

using namespace poquito;

double seconds_of(const auto& work) {
    const auto from = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
}

/// A day of shots that share parts of their set-ups, a fifth of them with fixed times or an order among them.
schedule::Problem made_up_day(std::size_t n, unsigned seed) {
    std::mt19937 random(seed);
    const auto whole = [&](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
    schedule::Problem problem{.change = std::vector(n, std::vector<double>(n)),
                              .after = std::vector<std::vector<std::size_t>>(n),
                              .not_before = std::vector<std::optional<double>>(n),
                              .done_by = std::vector<std::optional<double>>(n),
                              .begin = 32400,
                              .waiting_counts = true};
    std::vector<std::array<int, 5>> setups(n);
    for (auto& setup : setups)
        for (auto& part : setup) part = whole(0, 2);
    constexpr double prices[] = {180, 120, 90, 240, 90};
    for (std::size_t i = 0; i < n; ++i) {
        problem.duration.push_back(whole(120, 900));
        if (whole(0, 9) == 0) problem.not_before[i] = 32400 + whole(0, 7200);
        if (whole(0, 9) == 0) problem.done_by[i] = 32400 + 600.0 * static_cast<double>(n) + whole(0, 7200);
        if (i > 0 && whole(0, 9) == 0)
            problem.after[i].push_back(static_cast<std::size_t>(whole(0, static_cast<int>(i) - 1)));
        for (std::size_t j = 0; j < n; ++j)
            for (std::size_t p = 0; p < 5; ++p) problem.change[i][j] += setups[i][p] != setups[j][p] ? prices[p] : 0;
    }
    return problem;
}

}  // namespace

int main() {
    const auto demo = std::get<shoot::Shoot>(storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito"));
    double frames = 0;
    int stacks = 0;
    const double planning = seconds_of([&] {
        while (stacks < 1000)
            for (const auto& shot : demo.shots) {
                if (shot.capture.mode != shoot::CaptureMode::stack || stacks >= 1000) continue;
                const auto report = plan::assess(demo.kit, shot, {});
                frames += static_cast<double>(plan::stack_frames(plan::plan_of(demo.kit, shot, {}), report).size());
                ++stacks;
            }
    });
    std::printf("plan: 1000 stacks of %.0f frames in all in %.1f frames of 16 ms, %.0f us a stack\n", frames,
                planning / 0.016, planning / stacks * 1e6);
    const auto small = made_up_day(14, 2), large = made_up_day(60, 3);
    schedule::Day exact, searched, best;
    const double exactly = seconds_of([&] { exact = schedule::exact_order(small).value_or(schedule::Day{}); });
    const double searching = seconds_of([&] { searched = schedule::searched_order(small); });
    const double sixty = seconds_of([&] { best = schedule::best_order(large); });
    std::vector<std::size_t> given(60);
    std::iota(given.begin(), given.end(), std::size_t{0});
    const auto before = schedule::day_of(large, given);
    std::printf(
        "order: 14 shots exactly in %.1f frames of 16 ms, searched in %.2f of that time (finish %.3f of the exact "
        "one); 60 "
        "shots in %.1f frames, changes %.2f of the order given\n",
        exactly / 0.016, searching / exactly, exact.order.empty() ? 0 : searched.finish / exact.finish, sixty / 0.016,
        best.work / before.work);
}
