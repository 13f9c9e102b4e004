// A stack of 24-megapixel frames looked at, against decoding the same files with the same library on the same cores;
// and the memory it takes.
#include "imaging/inspect/median.hpp"
#include "photograph.hpp"
#include "proof/inspection.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_reader.hpp"
#include "support/folder.hpp"

#include <fmt/format.h>
#include <sys/resource.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <tbb/partitioner.h>

#include <algorithm>
#include <chrono>
#include <cmath>

using namespace poquito;

namespace {

constexpr int frames = 100;

double seconds_of(const std::function<void()>& work) {
    const auto begin = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

double peak_mb() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

}  // namespace

int main() {
    const test::Folder folder;
    std::vector<std::filesystem::path> files;
    for (int i = 0; i < frames; ++i) files.push_back(folder.path() / fmt::format("F{:04}.jpg", i));
    tbb::parallel_for(0, frames, [&](int i) {
        const auto bytes = storage::frame_file(bench::photograph(i, frames),
                                               {.f_number = 5.6, .shutter = 0.01, .iso = 100, .focal_length = 90});
        (void)storage::replace_file(files[static_cast<std::size_t>(i)], std::get<std::string>(bytes));
    });
    const auto decode = [&] {
        tbb::parallel_for(
            tbb::blocked_range<std::size_t>(0, files.size(), 1),
            [&](const tbb::blocked_range<std::size_t>& range) {
                for (std::size_t i = range.begin(); i < range.end(); ++i)
                    (void)storage::read_rows(files[i], {.begin = [](int, int) { return true; },
                                                        .row = [](const std::uint8_t*) { return true; }});
            },
            tbb::simple_partitioner());
    };
    decode();  // warms the cache of the disk
    const double before = peak_mb();
    std::size_t gaps = 0;
    // The median of rounds in which one follows the other: what else the machine does meanwhile slows both.
    constexpr int rounds = 9;
    std::vector<double> decoding, measuring, looking;
    for (int round = 0; round < rounds; ++round) {
        const double once = seconds_of(decode);
        decoding.push_back(once);
        measuring.push_back(
            seconds_of([&] { proof::look_at_all(files, [](std::size_t, const proof::FrameFacts&) { return true; }); }) /
            once);
        looking.push_back(seconds_of([&] { gaps = proof::inspect({.files = files})->stack->gaps.size(); }) / once);
    }
    const double looked = imaging::median(looking), seconds = imaging::median(decoding);
    fmt::print(
        "frames looked at: {} of 24 megapixels in {:.2f} times their decoding ({:.1f} s over {:.1f} s; {:.2f} without "
        "laying them on one another); peak {:.0f} MB, {:.2f} of 1 GiB [{} gaps]\n",
        frames, looked, looked * seconds, seconds, imaging::median(measuring), std::max(peak_mb(), before),
        peak_mb() / 1024, gaps);
}
