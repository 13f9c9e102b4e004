#include "devices/clock.hpp"

#include <algorithm>
#include <ctime>

namespace poquito::devices {

WallClock::WallClock(double speed) : speed_(speed), start_(std::chrono::steady_clock::now()) {}

double WallClock::now() const {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start_).count() * speed_ + ahead_;
}

namespace {

void add(std::atomic<double>& sum, double seconds) {
    double before = sum;
    while (!sum.compare_exchange_weak(before, before + seconds)) {
    }
}

}  // namespace

void WallClock::sleep(double seconds) {
    if (!(seconds > 0)) return;
    std::unique_lock lock(mutex_);
    const double begun = now();
    if (!wake_.wait_for(lock, std::chrono::duration<double>(seconds / speed_), [this] { return hurried_; })) return;
    add(ahead_, std::max(0.0, begun + seconds - now()));
}

void WallClock::hurry() {
    const std::lock_guard lock(mutex_);
    hurried_ = true;
    wake_.notify_all();
}

void InstantClock::sleep(double seconds) {
    if (seconds > 0) add(now_, seconds);
}

std::string local_time() {
    const std::time_t now = std::time(nullptr);
    std::tm parts{};
    localtime_r(&now, &parts);
    char text[32];
    return {text, std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%S", &parts)};
}

}  // namespace poquito::devices
