#include "render/transfer.hpp"

#include "imaging/parallel.hpp"
#include "optics/diffraction.hpp"

#include <boost/math/special_functions/sinc.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

namespace poquito::render {
namespace {

using std::numbers::pi;

/// The transfer function over frequency, which it depends on alone: a table fine enough to go straight between entries.
class Radial {
  public:
    Radial(const Transfer& by, double greatest) {
        const double n = by.lens.imaging.working_f_number;
        const double end = std::min(greatest, 1 / (by.lens.wavelength * n));
        // It swings once in 1/disc; 48 entries a swing leave an error below 0.003.
        const int entries = 96 + static_cast<int>(48 * end * by.disc);
        step_ = end / entries;
        values_.resize(static_cast<std::size_t>(entries) + 2, 0.0f);
        imaging::for_rows(entries + 1, [&](int i) {
            values_[static_cast<std::size_t>(i)] =
                static_cast<float>(optics::optical_transfer({.frequency = i * step_,
                                                             .working_f_number = n,
                                                             .wavelength = by.lens.wavelength,
                                                             .image_defocus = by.disc * n}));
        });
    }
    float at(double frequency) const {
        const double place = frequency / step_;
        const auto i = static_cast<std::size_t>(place);
        if (i + 1 >= values_.size()) return 0;
        const auto part = static_cast<float>(place - static_cast<double>(i));
        return values_[i] + part * (values_[i + 1] - values_[i]);
    }

  private:
    double step_ = 1;
    std::vector<float> values_;
};

}  // namespace

/// One picture behind the other: by itself it is transformed in half the time of one among others.
void take_apart(const imaging::Raster& picture, Spectrum& spectrum) {
    const auto count = picture.pixels.size();
    spectrum.width = picture.width;
    spectrum.height = picture.height;
    spectrum.red_green.resize(count);
    spectrum.blue_cover.resize(count);
    auto *first = spectrum.red_green.data(), *second = spectrum.blue_cover.data();
    for (std::size_t i = 0; i < count; ++i) {
        const imaging::Rgba& pixel = picture.pixels[i];
        first[i] = {pixel[0], pixel[1]};
        second[i] = {pixel[2], pixel[3]};
    }
    imaging::transform({&spectrum.red_green, &spectrum.blue_cover}, picture.width, picture.height,
                       imaging::Direction::to_frequencies);
}

void transfer(const Spectrum& spectrum, const Transfer& by, imaging::Raster& out) {
    const int width = spectrum.width, height = spectrum.height;
    const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    thread_local imaging::Plane first, second;  // a frame transfers many sheets of one size
    first.resize(count);
    second.resize(count);
    const double per_x = 1 / (width * by.pitch), per_y = 1 / (height * by.pitch);
    const int columns = width / 2 + 1;
    const Radial radial(by, std::hypot(per_x * columns, per_y * height / 2.0));
    const float norm = 1.0f / static_cast<float>(count);
    std::vector<float> drawn(static_cast<std::size_t>(columns), norm);
    // A square takes sinc, going straight between pixels its square.
    const auto made_up = [&](int index, int length) {
        if (!by.coarse) return 1.0f;
        const double taken = boost::math::sinc_pi(pi * index / length);
        return static_cast<float>(1 / (taken * taken * taken));
    };
    for (int x = 0; x < columns; ++x)
        drawn[static_cast<std::size_t>(x)] *=
            static_cast<float>(boost::math::sinc_pi(pi * x * per_x * by.motion)) * made_up(x, width);
    // The names above would mean another thread's inside for_rows.
    auto *red_green = first.data(), *blue_cover = second.data();
    imaging::for_rows(height, [&](int y) {
        const int up = std::min(y, height - y);
        const double fy = per_y * up;
        const float upright = static_cast<float>(boost::math::sinc_pi(pi * fy * by.fall)) * made_up(up, height);
        const auto row = static_cast<std::size_t>(y) * static_cast<std::size_t>(width);
        const auto multiply = [&](int x, float factor) {
            const auto i = row + static_cast<std::size_t>(x);
            red_green[i] = factor * spectrum.red_green.data()[i];
            blue_cover[i] = factor * spectrum.blue_cover.data()[i];
        };
        for (int x = 0; x < columns; ++x) {
            const double fx = per_x * x;
            const float factor = radial.at(std::sqrt(fx * fx + fy * fy)) * drawn[static_cast<std::size_t>(x)] * upright;
            multiply(x, factor);
            if (x > 0 && 2 * x < width) multiply(width - x, factor);
        }
    });
    imaging::transform({&first, &second}, width, height, imaging::Direction::back);
    out.resize(width, height);
    for (std::size_t i = 0; i < count; ++i)
        out.pixels[i] = {red_green[i].real(), red_green[i].imag(), blue_cover[i].real(), blue_cover[i].imag()};
}

void transfer(imaging::Raster& picture, const Transfer& by) {
    thread_local Spectrum spectrum;
    take_apart(picture, spectrum);
    transfer(spectrum, by, picture);
}

int good_size(int least) {
    for (int size = std::max(least, 2);; ++size) {
        int rest = size;
        for (const int prime : {2, 3, 5})
            while (rest % prime == 0) rest /= prime;
        if (rest == 1) return size;
    }
}

}  // namespace poquito::render
