#include "render/finder.hpp"

#include "imaging/colour.hpp"
#include "imaging/parallel.hpp"
#include "render/disc_blur.hpp"
#include "render/layers.hpp"
#include "render/sight.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

namespace poquito::render {
namespace {

/// Between two layers blur is mixed: so many pixels of disc apart nobody sees it.
constexpr double layer_step = 1.5;

imaging::Raster background_of(const Scene& scene, const Grid& grid) {
    const double disc = blur_disc(scene.lens, scene.background_depth) / grid.pitch;
    // What is blurred over many pixels needs no more than a few of them to the disc.
    int factor = 1;
    while (disc / factor > 16 && factor < 32) factor *= 2;
    imaging::Raster picture((grid.width + factor - 1) / factor, (grid.height + factor - 1) / factor);
    if (scene.background)
        imaging::for_rows(picture.height, [&](int y) {
            for (int x = 0; x < picture.width; ++x)
                picture.at(x, y) =
                    imaging::opaque(scene.background(grid.place((x + 0.5) * factor, (y + 0.5) * factor)));
        });
    else
        std::ranges::fill(picture.pixels, imaging::Rgba(0, 0, 0, 1));
    blur_by_disc(picture, disc / factor);
    if (factor > 1) {
        const imaging::Raster coarse = std::move(picture);
        enlarge(coarse, {.factor = factor, .width = grid.width, .height = grid.height}, picture);
    }
    for (const Highlight& highlight : scene.highlights) {
        imaging::Rgba flux = imaging::Rgba::Zero();
        flux = highlight.flux / static_cast<float>(grid.pitch * grid.pitch);
        const imaging::Place at = grid.pixel(highlight.place);
        add_disc(picture, {.x = at.x, .y = at.y, .diameter = disc, .flux = flux});
    }
    return picture;
}

/// What is blurred widely is worked out on fewer pixels: so many of the picture's to one of its own, each way.
int coarseness(double disc, int least_size) {
    constexpr double fine = 7, wide = 14;  // pixels of disc
    int factor = disc > fine ? 2 : 1;
    while (disc / factor > wide && least_size / factor > 16) factor *= 2;
    return factor;
}

}  // namespace

struct Finder::Seen {
    std::vector<double> key;
    Sight sight;
    // Memory that stays from one frame to the next.
    Lights lights;
    std::map<int, Cells> cells;  // by their factor
    imaging::Raster layer;
};

Finder::Finder() : seen_(std::make_unique<Seen>()) {}
Finder::~Finder() = default;

std::optional<FinderFrame> Finder::render(const Scene& scene, Size size, const std::function<bool()>& go_on) {
    const auto stopped = [&] { return go_on && !go_on(); };
    const Grid grid{.width = size.width, .height = size.height, .pitch = scene.frame_width / size.width, .centre = {}};
    Sight& sight = seen_->sight;
    if (seen_->key != scene.subject_key || sight.grid.width != size.width || sight.grid.height != size.height) {
        look(scene, grid, sight);
        seen_->lights = {};
        seen_->key = scene.subject_key;
    }
    if (stopped()) return std::nullopt;

    FinderFrame frame{.light = background_of(scene, grid), .depth = std::vector<float>(sight.fragments.size())};
    for (std::size_t i = 0; i < frame.depth.size(); ++i)
        frame.depth[i] = sight.coverage[i] >= 0.5f ? sight.depths[i] : FinderFrame::no_subject;
    if (stopped()) return std::nullopt;
    light_up(scene, sight, seen_->lights);
    std::set<int> gathered;
    const auto cells_of = [&](int factor) -> const Cells& {
        Cells& cells = seen_->cells[factor];
        if (gathered.insert(factor).second) cells.gather(sight, seen_->lights, factor);
        return cells;
    };
    const auto layers = layers_of(scene.lens, sight.range, layer_step * grid.pitch);
    for (std::size_t k = 0; k < layers.size() && !sight.box.empty(); ++k) {
        if (stopped()) return std::nullopt;
        const double disc = layers[k].diameter / grid.pitch, drawn = scene.motion / grid.pitch,
                     fallen = scene.fall / grid.pitch;
        const auto reach = [](double pixels) { return static_cast<int>(std::min(pixels / 2 + 2, 1e5)); };
        const int factor = coarseness(disc, std::min(size.width, size.height));
        const auto whole = [factor](int pixels) { return std::max(0, pixels) / factor * factor; };
        const PixelBox part{whole(sight.box.left - reach(disc + drawn)), whole(sight.box.top - reach(disc + fallen)),
                            std::min(size.width, sight.box.right + reach(disc + drawn)),
                            std::min(size.height, sight.box.bottom + reach(disc + fallen))};
        imaging::Raster& layer = seen_->layer;
        cells_of(factor).fill_layer(layer, part, [&](float depth) { return share_in(layers, k, depth); });
        blur_by_disc(layer, disc / factor);
        draw_out(layer, drawn / factor);
        draw_out_upright(layer, fallen / factor);
        lay_over(frame.light, part.left, part.top, layer,
                 {.factor = factor, .width = part.right - part.left, .height = part.bottom - part.top});
    }
    // The Airy pattern's core is a bell of sigma 0.42 lambda N to within a few percent (least squares fit, from
    // memory); a finder's pixel is many times as wide, the loupe has the pattern itself.
    constexpr double bell = 0.42;
    const double sigma = bell * scene.lens.wavelength * scene.lens.imaging.working_f_number / grid.pitch;
    blur_by_bell(frame.light, std::min(sigma, 2.0));
    return frame;
}

// ---- development -------------------------------------------------------------------------------------------------

namespace {

/// The transfer curve in steps fine enough for 8 bits, dark end included.
const std::array<unsigned char, 4096>& codes() {
    static const auto table = [] {
        std::array<unsigned char, 4096> made{};
        for (std::size_t i = 0; i < made.size(); ++i) {
            const double root = static_cast<double>(i) / (made.size() - 1);
            made[i] = static_cast<unsigned char>(std::lround(imaging::to_encoded(root * root) * 255));
        }
        return made;
    }();
    return table;
}

unsigned char code(float linear) {
    const float root = std::sqrt(std::clamp(linear, 0.0f, 1.0f));
    return codes()[static_cast<std::size_t>(std::lround(root * 4095))];
}

/// White from a full channel on; black below the last step of 8 bits (IEC 61966-2-1).
float fullest(const imaging::Rgba& pixel) { return std::max({pixel[0], pixel[1], pixel[2]}); }
bool is_white(const imaging::Rgba& pixel) { return fullest(pixel) >= 1; }
bool is_black(const imaging::Rgba& pixel) { return fullest(pixel) < 0.5f / 255 / 12.92f; }

}  // namespace

Developed develop(const imaging::Raster& light, Clipping clipping) {
    Developed picture{.width = light.width, .height = light.height, .rgb = {}};
    picture.rgb.resize(light.pixels.size() * 3);
    imaging::for_rows(light.height, [&](int y) {
        unsigned char* to =
            picture.rgb.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(light.width) * 3;
        for (int x = 0; x < light.width; ++x, to += 3) {
            const imaging::Rgba& pixel = light.at(x, y);
            for (int i = 0; i < 3; ++i) to[i] = code(pixel[i]);
            if (clipping == Clipping::as_is) continue;
            if (is_white(pixel) && (x + y) % 6 < 3) {
                to[0] = to[1] = to[2] = 0;
            } else if (is_black(pixel) && x % 4 == 0 && y % 4 == 0) {
                to[0] = to[1] = to[2] = 150;
            }
        }
    });
    return picture;
}

Clipped clipped(const imaging::Raster& light) {
    const auto count = static_cast<double>(light.pixels.size());
    return {.white = static_cast<double>(std::ranges::count_if(light.pixels, is_white)) / count,
            .black = static_cast<double>(std::ranges::count_if(light.pixels, is_black)) / count};
}

}  // namespace poquito::render
