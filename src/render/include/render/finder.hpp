#pragma once

#include "render/scene.hpp"

#include <functional>
#include <limits>
#include <memory>
#include <vector>

/// The frame as the camera will show it: seen once by rays (sight.hpp), taken apart into nested layers by blur
/// (layers.hpp), each blurred by its disc and laid over the next. Another stop or light needs no new rays; what each
/// source lights is kept while it stands where it is.
namespace poquito::render {

/// A whole frame before it is developed.
struct FinderFrame {
    imaging::Raster light;     // opaque
    std::vector<float> depth;  // of what each pixel's middle sees, mm behind the plane of focus; `no_subject` beside it

    static constexpr float no_subject = std::numeric_limits<float>::infinity();
    float depth_at(int x, int y) const {
        return depth[static_cast<std::size_t>(y) * static_cast<std::size_t>(light.width) + static_cast<std::size_t>(x)];
    }
};

/// Renders whole frames, and keeps what does not change from one to the next: another stop, shutter or light blurs and
/// lights the same subject anew. One at a time; not to be shared between threads.
class Finder {
  public:
    Finder();
    ~Finder();

    struct Size {
        int width = 960;
        int height = 640;
    };
    /// `go_on`, asked between parts of the work: false gives it up, and the frame comes back empty. The size should
    /// have the shape of the frame.
    std::optional<FinderFrame> render(const Scene& scene, Size size, const std::function<bool()>& go_on = {});

  private:
    struct Seen;
    std::unique_ptr<Seen> seen_;
};

/// A picture as a screen shows it: sRGB, 8 bits, rows of red, green, blue from the top.
struct Developed {
    int width = 0;
    int height = 0;
    std::vector<unsigned char> rgb;

    bool operator==(const Developed&) const = default;
};
/// Whether to mark what the camera clips: stripes where a channel is full, dots where nothing is left.
enum class Clipping { as_is, marked };
Developed develop(const imaging::Raster& light, Clipping clipping = Clipping::as_is);

/// Shares of the frame's pixels.
struct Clipped {
    double white = 0;
    double black = 0;
};
Clipped clipped(const imaging::Raster& light);

}  // namespace poquito::render
