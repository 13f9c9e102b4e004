// Time of the search through a bag of 5 lenses, 3 tubes, 3 close-up lenses, 2 converters, bellows and both rings on one
// camera: combinations a second, against a frame, and against focusing each of them on its own.
#include "optics/focus.hpp"
#include "search/reach_search.hpp"

#include <sys/resource.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <string>
#include <vector>

namespace {

using namespace poquito;

gear::Kit bag() {
    gear::Kit kit;
    kit.cameras = {{.id = "body", .name = "Body", .sensor = {.width = 23.5, .height = 15.6}}};
    for (int i = 0; i < 5; ++i) {
        const double f = 24 + 30.0 * i, m = 0.2 + 0.2 * i;
        gear::Lens lens{.id = "lens" + std::to_string(i), .name = "Lens"};
        lens.optics = {.focal_length = f,
                       .closest_focus = f * (2 + m + 1 / m) * (i % 2 ? 0.8 : 1.0),
                       .max_magnification = m,
                       .focusing = i % 2 ? optics::Focusing::internal : optics::Focusing::unit,
                       .length = f};
        kit.lenses.push_back(lens);
    }
    for (const double length : {12.0, 20.0, 36.0})
        kit.tubes.push_back({.id = "t" + std::to_string(length), .name = "Tube", .length = length});
    for (const double power : {2.0, 4.0, 8.0})
        kit.closeup_lenses.push_back({.id = "c" + std::to_string(power), .name = "Close-up lens", .power_dpt = power});
    for (const double factor : {1.4, 2.0})
        kit.teleconverters.push_back({.id = "x" + std::to_string(factor),
                                      .name = "Converter",
                                      .optics = {.factor = factor, .length = 20 * factor}});
    kit.bellows = {{.id = "bellows", .name = "Bellows", .least = 40, .greatest = 160}};
    kit.reversing_rings = {{.id = "reversing", .name = "Reversing ring"}};
    kit.coupling_rings = {{.id = "coupling", .name = "Coupling ring"}};
    return kit;
}

template <typename Work>
double median_seconds(int rounds, Work work) {
    std::vector<double> times;
    for (int i = 0; i < rounds; ++i) {
        const auto from = std::chrono::steady_clock::now();
        work();
        times.push_back(std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count());
    }
    std::ranges::nth_element(times, times.begin() + rounds / 2);
    return times[static_cast<std::size_t>(rounds / 2)];
}

}  // namespace

int main() {
    const auto kit = bag();
    const search::ReachWish wish{.field_width = 24, .least_working_distance = 60};
    const double count = search::combination_count(kit, wish);
    std::size_t found = 0;
    const double search = median_seconds(21, [&] { found = search::search_reach(kit, wish).found.size(); });
    const auto result = search::search_reach(kit, wish);
    double sum = 0;
    const double one_by_one = median_seconds(5, [&] {
        for (const auto& one : result.found) {
            const auto train = shoot::train_of(kit, search::rig_of(kit, one, {}));
            sum += optics::focus_at_ring(train, optics::find_focus(train, one.magnification).ring).magnification;
        }
    });
    const double greatest = median_seconds(5, [&] { sum += search::greatest_reach(kit, wish)->magnification; });
    const double per_rig = one_by_one / static_cast<double>(result.found.size());
    std::printf(
        "search: %.0f combinations, %zu kept, %.2f of a 16 ms frame, %.1f million a second, %.3f of focusing each "
        "by itself; greatest magnification %.2f of a frame [%g]\n",
        count, found, search / 0.016, count / search / 1e6, search / (per_rig * count), greatest / 0.016, sum);

    // Every tube doubles what there is to try; what is remembered of it has a bound.
    const auto peak = [] {
        rusage usage{};
        getrusage(RUSAGE_SELF, &usage);
        return static_cast<double>(usage.ru_maxrss) / 1024;
    };
    auto many = kit;
    for (int i = 0; i < 7; ++i)
        many.tubes.push_back({.id = "m" + std::to_string(i), .name = "m", .length = 5.0 + 1.7 * i});
    const double before = peak();
    const auto large = search::search_reach(many, {.magnification = 0.9});
    std::printf(
        "search with 7 tubes more: %zu tried, %zu reach it, %zu kept, which takes %.1f MB more than the program did "
        "(all of them would be %.0f MB)\n",
        large.tried, large.reached, large.found.size(), peak() - before,
        static_cast<double>(large.reached * sizeof(search::ReachFound)) / 1e6);
}
