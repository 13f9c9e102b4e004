#pragma once

#include <algorithm>
#include <cstddef>
#include <vector>

namespace poquito::imaging {

/// The middle one, of an even number the upper of the two; 0 of none.
inline double median(std::vector<double> values) {
    if (values.empty()) return 0;
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::ranges::nth_element(values, middle);
    return *middle;
}

}  // namespace poquito::imaging
