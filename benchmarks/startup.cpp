// startup PROGRAM BARE: runs both in turn, times each from start to end, and compares medians and peak memory.
#include <spawn.h>
#include <sys/resource.h>
#include <sys/wait.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <vector>

extern char** environ;

namespace {

struct Run {
    double seconds = 0;
    double megabytes = 0;
};

Run run(char* program) {
    char* arguments[] = {program, nullptr};
    const auto begin = std::chrono::steady_clock::now();
    pid_t child = 0;
    if (posix_spawn(&child, program, nullptr, nullptr, arguments, environ) != 0) return {};
    rusage usage{};
    int status = 0;
    wait4(child, &status, 0, &usage);
    return {.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count(),
            .megabytes = static_cast<double>(usage.ru_maxrss) / 1024};
}

double median(std::vector<double> values) {
    std::ranges::nth_element(values, values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2));
    return values[values.size() / 2];
}

}  // namespace

int main(int argc, char** argv) {
    if (argc != 3) return std::fprintf(stderr, "usage: startup PROGRAM BARE\n"), 2;
    constexpr int rounds = 15;
    std::vector<double> times[2], memory[2], ratios;
    for (int round = -2; round < rounds; ++round)  // two to warm up
        for (int which = 0; which < 2; ++which) {
            const auto result = run(argv[1 + which]);
            if (round < 0) continue;
            times[which].push_back(result.seconds);
            memory[which].push_back(result.megabytes);
            if (which == 1) ratios.push_back(times[0].back() / times[1].back());
        }
    std::printf("first painted window: %.0f ms, bare Qt window %.0f ms, ratio %.2f (median of %d pairs)\n",
                median(times[0]) * 1e3, median(times[1]) * 1e3, median(ratios), rounds);
    std::printf("peak memory: %.0f MB, bare Qt window %.0f MB, ratio %.2f\n", median(memory[0]), median(memory[1]),
                median(memory[0]) / median(memory[1]));
}
