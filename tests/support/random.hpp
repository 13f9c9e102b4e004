#pragma once

#include <cmath>
#include <random>

/// Generated input. Every case is made from its number, so a failure names the case that shows it.
namespace poquito::test {

class Random {
  public:
    explicit Random(unsigned seed) : engine_(seed) {}
    double between(double low, double high) { return std::uniform_real_distribution(low, high)(engine_); }
    /// Evenly over the orders of magnitude, as focal lengths and powers are.
    double log_between(double low, double high) { return std::exp(between(std::log(low), std::log(high))); }
    int whole(int low, int high) { return std::uniform_int_distribution(low, high)(engine_); }
    bool coin(double chance = 0.5) { return between(0, 1) < chance; }

  private:
    std::mt19937 engine_;
};

}  // namespace poquito::test
