#pragma once

#include <cmath>
#include <cstdlib>
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

/// How many cases are made of a property that is tried on `count`: that many times what POQUITO_GENERATED says. Under
/// sanitizers, where each takes longer and none counts otherwise, ./test makes a part of them; for a change of how
/// things are judged, `POQUITO_GENERATED=10 build/release/bin/test_advice` makes thousands.
inline unsigned generated(unsigned count) {
    static const double share = [] {
        const char* said = std::getenv("POQUITO_GENERATED");
        return said ? std::strtod(said, nullptr) : 1.0;
    }();
    return static_cast<unsigned>(std::ceil(count * share));
}

}  // namespace poquito::test
