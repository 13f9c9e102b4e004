#pragma once

#include "render/scene.hpp"

/// A part of the frame at the sensor's own pixels, blurred by the exact transfer function of the report's model:
/// diffraction and defocus by Hopkins' overlap integral, movement as a line, the pixel as a square.
namespace poquito::render {

struct LoupeWindow {
    imaging::Place centre;  // mm at the sensor
    int width = 240;        // pixels of the sensor
    int height = 160;
    int rays = 2;  // to a pixel, each way: 2 misses nothing that the pixel itself could tell, 1 makes a draft

    bool operator==(const LoupeWindow&) const = default;
};

/// Renders windows, and keeps what the rays met while only stop, shutter and light change. One at a time; not to be
/// shared between threads.
class Loupe {
  public:
    Loupe();
    ~Loupe();

    /// `go_on` as in Finder; empty where it said no.
    std::optional<imaging::Raster> render(const Scene& scene, const LoupeWindow& window,
                                          const std::function<bool()>& go_on = {});

  private:
    struct Kept;
    std::unique_ptr<Kept> kept_;
};

}  // namespace poquito::render
