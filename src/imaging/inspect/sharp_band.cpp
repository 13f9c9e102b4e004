#include "imaging/inspect/sharp_band.hpp"
#include "light/angle.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace poquito::imaging {

std::optional<SharpBand> sharp_band(const GreyImage& image) {
    if (image.width < 8 || image.height < 40) return std::nullopt;
    const auto height = static_cast<std::size_t>(image.height);
    std::vector<double> detail(height, 0);
    for (int y = 1; y + 1 < image.height; ++y)
        for (int x = 1; x + 1 < image.width; ++x) {
            const double across = image.at(x + 1, y) - image.at(x - 1, y);
            const double down = image.at(x, y + 1) - image.at(x, y - 1);
            detail[static_cast<std::size_t>(y)] += across * across + down * down;
        }
    // Ticks come and go from row to row; a band is what stays when that is smoothed.
    const int reach = std::max(2, image.height / 40);
    std::vector<double> smooth(height, 0);
    for (int pass = 0; pass < 2; ++pass) {
        for (int y = 0; y < image.height; ++y) {
            const int from = std::max(0, y - reach), to = std::min(image.height - 1, y + reach);
            double sum = 0;
            for (int k = from; k <= to; ++k) sum += detail[static_cast<std::size_t>(k)];
            smooth[static_cast<std::size_t>(y)] = sum / (to - from + 1);
        }
        detail = smooth;
    }
    const auto top = std::max_element(smooth.begin(), smooth.end());
    auto sorted = smooth;
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(height / 2), sorted.end());
    if (*top <= 0 || *top < 1.5 * sorted[height / 2]) return std::nullopt;
    // The middle of what is at least half as detailed, weighted by what it is above that.
    const double half = *top / 2;
    auto low = top, high = top;
    while (low != smooth.begin() && *(low - 1) > half) --low;
    while (high + 1 != smooth.end() && *(high + 1) > half) ++high;
    double sum = 0, weight = 0;
    for (auto at = low; at <= high; ++at) {
        sum += (*at - half) * static_cast<double>(at - smooth.begin());
        weight += *at - half;
    }
    return SharpBand{.row = weight > 0 ? sum / weight : static_cast<double>(top - smooth.begin()),
                     .uncertainty = static_cast<double>(high - low + 1) / 20};
}

double travel_along_axis(double rows, double pixel_pitch, double magnification, double tilt) {
    return rows * pixel_pitch / magnification * std::tan(tilt * light::degree);
}

}  // namespace poquito::imaging
