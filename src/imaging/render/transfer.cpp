#include "imaging/render/transfer.hpp"

#include "imaging/parallel.hpp"
#include "optics/diffraction.hpp"

#include <fftw3.h>
#include <boost/math/special_functions/sinc.hpp>

#include <boost/math/constants/constants.hpp>

#include <algorithm>
#include <cmath>
#include <complex>
#include <memory>
#include <mutex>

namespace poquito::imaging {
namespace {

using boost::math::double_constants::pi;

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
        for_rows(entries + 1, [&](int i) {
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

/// FFTW's planner is the one part of it that two threads may not enter at once.
std::mutex& planner() {
    static std::mutex mutex;
    return mutex;
}
struct EndPlan {
    void operator()(fftwf_plan_s* plan) const {
        const std::lock_guard lock(planner());
        fftwf_destroy_plan(plan);
    }
};
using Plan = std::unique_ptr<fftwf_plan_s, EndPlan>;

}  // namespace

void transfer(Raster& picture, const Transfer& by) {
    const int size[] = {picture.height, picture.width};
    const int columns = picture.width / 2 + 1;
    const auto spectrum_size = static_cast<std::size_t>(picture.height) * static_cast<std::size_t>(columns) * 4;
    std::vector<std::complex<float>> spectrum(spectrum_size);
    float* pixels = picture.pixels.data()->data();
    auto* bins = reinterpret_cast<fftwf_complex*>(spectrum.data());
    Plan forward, back;
    {
        const std::lock_guard lock(planner());
        forward.reset(fftwf_plan_many_dft_r2c(2, size, 4, pixels, nullptr, 4, 1, bins, nullptr, 4, 1, FFTW_ESTIMATE));
        back.reset(fftwf_plan_many_dft_c2r(2, size, 4, bins, nullptr, 4, 1, pixels, nullptr, 4, 1, FFTW_ESTIMATE));
    }
    fftwf_execute(forward.get());
    const double per_x = 1 / (picture.width * by.pitch), per_y = 1 / (picture.height * by.pitch);
    const Radial radial(by, std::hypot(per_x * columns, per_y * picture.height / 2.0));
    const float norm = 1.0f / static_cast<float>(picture.width * picture.height);
    std::vector<float> drawn(static_cast<std::size_t>(columns), norm);
    for (int x = 0; x < columns; ++x)
        drawn[static_cast<std::size_t>(x)] *= static_cast<float>(boost::math::sinc_pi(pi * x * per_x * by.motion));
    for_rows(picture.height, [&](int y) {
        const double fy = per_y * std::min(y, picture.height - y);
        std::complex<float>* row = spectrum.data() + static_cast<std::ptrdiff_t>(y) * columns * 4;
        for (int x = 0; x < columns; ++x) {
            const float factor = radial.at(std::hypot(per_x * x, fy)) * drawn[static_cast<std::size_t>(x)];
            for (int i = 0; i < 4; ++i) row[4 * x + i] *= factor;
        }
    });
    fftwf_execute(back.get());
}

int good_size(int least) {
    for (int size = std::max(least, 2);; ++size) {
        int rest = size;
        for (const int prime : {2, 3, 5})
            while (rest % prime == 0) rest /= prime;
        if (rest == 1) return size;
    }
}

}  // namespace poquito::imaging
