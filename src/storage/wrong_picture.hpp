#pragma once

#include <fmt/format.h>

#include <stdexcept>

namespace poquito::storage {

/// What is wrong with a picture's file; inside this room alone.
struct WrongPicture : std::runtime_error {
    using std::runtime_error::runtime_error;
};

/// A file that says more is damaged, or not meant for this. `most`: pixels.
inline void check_size(double width, double height, double most = 400e6) {
    if (!(width >= 1) || !(height >= 1) || width * height > most)
        throw WrongPicture(fmt::format("got a picture of {:.0f} by {:.0f} pixels, expected up to {:.0f} million", width,
                                       height, most / 1e6));
}

}  // namespace poquito::storage
