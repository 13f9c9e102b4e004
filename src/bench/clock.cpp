#include "bench/clock.hpp"

#include <ctime>
#include <thread>

namespace poquito::bench {

WallClock::WallClock(double speed) : speed_(speed), start_(std::chrono::steady_clock::now()) {}

double WallClock::now() const {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start_).count() * speed_;
}

void WallClock::sleep(double seconds) {
    if (seconds > 0) std::this_thread::sleep_for(std::chrono::duration<double>(seconds / speed_));
}

void InstantClock::sleep(double seconds) {
    if (seconds <= 0) return;
    double before = now_;
    while (!now_.compare_exchange_weak(before, before + seconds)) {
    }
}

std::string local_time() {
    const std::time_t now = std::time(nullptr);
    std::tm parts{};
    localtime_r(&now, &parts);
    char text[32];
    return {text, std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%S", &parts)};
}

}  // namespace poquito::bench
