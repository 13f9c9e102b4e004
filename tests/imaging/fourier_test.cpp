#include "imaging/fourier.hpp"
#include "support/matchers.hpp"

#include <cmath>
#include <numbers>
#include <thread>
#include <vector>

using namespace poquito;
using test::WithinAbs;

TEST_CASE("a wave across a picture is one frequency, and there and back is the picture times its size",
          "[imaging][fourier]") {
    constexpr int width = 24, height = 10, waves = 5;
    imaging::Plane plane(std::size_t{width} * height);
    const auto at = [&](int x, int y) -> auto& { return plane.data()[y * width + x]; };
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            at(x, y) = std::polar(1.0f, static_cast<float>(2 * std::numbers::pi * waves * x / width));
    imaging::transform({&plane}, width, height, imaging::Direction::to_frequencies);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            CHECK_THAT(std::abs(at(x, y)), WithinAbs(x == waves && y == 0 ? width * height : 0, 1e-3));
    imaging::transform({&plane}, width, height, imaging::Direction::back);
    CHECK_THAT(at(3, 4).real(), WithinAbs(width * height * std::cos(2 * std::numbers::pi * waves * 3 / width), 1e-2));
}

TEST_CASE("pictures of many sizes are transformed on several threads at once", "[imaging][fourier]") {
    std::vector<double> worst(4, 0);
    std::vector<std::thread> threads;
    for (std::size_t t = 0; t < worst.size(); ++t)
        threads.emplace_back([&, t] {
            for (int size = 8; size < 160; ++size) {  // more than are kept: plans are made and ended all the time
                const int width = size + static_cast<int>(t), height = size;
                const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
                imaging::Plane plane(count);
                for (std::size_t i = 0; i < count; ++i) plane.data()[i] = static_cast<float>(i % 7);
                imaging::transform({&plane}, width, height, imaging::Direction::to_frequencies);
                imaging::transform({&plane}, width, height, imaging::Direction::back);
                for (std::size_t i = 0; i < count; ++i)
                    worst[t] = std::max(
                        worst[t], std::abs(static_cast<double>(plane.data()[i].real()) / static_cast<double>(count) -
                                           static_cast<double>(i % 7)));
            }
        });
    for (auto& thread : threads) thread.join();
    for (const double off : worst) CHECK(off < 1e-4);
}
