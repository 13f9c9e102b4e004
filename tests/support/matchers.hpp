#pragma once

#include <catch2/catch.hpp>

#include <cmath>

namespace poquito::test {

using Catch::WithinAbs;
using Catch::WithinRel;

/// Two ways to compute one number differ only by rounding: a relative 1e-9, or an absolute 1e-12 about zero.
class Same : public Catch::MatcherBase<double> {
  public:
    explicit Same(double expected) : expected_(expected) {}
    bool match(const double& value) const override {
        const double scale = std::max(std::abs(value), std::abs(expected_));
        return std::abs(value - expected_) <= std::max(1e-12, 1e-9 * scale);
    }
    std::string describe() const override { return "is " + Catch::StringMaker<double>::convert(expected_); }

  private:
    double expected_;
};
inline Same same(double expected) { return Same(expected); }

}  // namespace poquito::test
