#pragma once

#include "storage/frame_file.hpp"

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <functional>
#include <vector>

namespace poquito::test {

/// Made-up photographs of a relief, apart from the program's own renderer: a texture blurred by discs that are summed
/// up point by point, one for each distance off focus, with noise, breathing, plain areas and glints.
class Photographs {
  public:
    struct Scene {
        int width = 480;
        int height = 320;
        int seed = 1;
        /// In steps of the stack, over places from -1 to 1.
        std::function<double(double x, double y)> depth = [](double x, double y) {
            return 13 * std::clamp(0.5 + 0.36 * x + 0.2 * y + 0.1 * std::sin(5 * x) * std::cos(4 * y), 0.0, 1.0);
        };
        double disc = 1.6;         // px of diameter a step off focus
        double least_disc = 1.1;   // in focus
        double breathing = 0.001;  // a step
        double noise = 1.5;        // code values, one standard deviation
        double plain = 0.2;        // share without texture
        int glints = 6;
        double fineness = 0.62;  // strength of each octave of texture against the one twice as wide
    };
    struct Frame {
        double focus = 0;  // steps
        double stops = 0;
        double dx = 0, dy = 0;  // px
        double turn = 0;        // degrees
        double drawn_out = 0;   // px across, as a shake
    };

    explicit Photographs(Scene scene);

    /// `number` gives each its own noise.
    storage::FramePicture picture(const Frame& frame, int number = 0) const;

  private:
    std::size_t at(int x, int y) const;
    double smooth(double x, double y, int salt) const;
    double texture(int x, int y) const;
    std::vector<float> disc_mean(const std::vector<float>& in, double radius) const;
    double between(const std::vector<float>& in, double x, double y) const;
    double seen(double px, double py, double focus, double mid_x, double mid_y) const;

    Scene scene_;
    int wide_ = 0, high_ = 0;
    std::vector<std::vector<float>> blurred_;
};

}  // namespace poquito::test
