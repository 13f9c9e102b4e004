#include "render/loupe.hpp"

#include "imaging/parallel.hpp"
#include "render/disc_blur.hpp"
#include "render/layers.hpp"
#include "render/sight.hpp"
#include "render/transfer.hpp"

#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>

#include <map>
#include <set>
#include <span>

namespace poquito::render {
/// Named: the loupe keeps some of it, which in a file compiled together with others may not be without a name.
namespace loupe {

constexpr double layer_step = 2;  // pixels of the sensor
/// A wider blur is worked out on a coarser grid, half as many pixels each way, and so on.
constexpr double widest = 12;  // pixels of the grid

/// Blurs at one coarseness, on a grid with room for the disc about the window. Two levels at a time, 1 and 2, 4 and 8
/// and so on, share what was seen, on the grid of the first of them.
struct Level {
    int factor = 1;  // pixels of the finest grid to one here, each way
    int base = 1;    // and to one of what was seen
    Grid grid;
    Grid seen;
    int margin = 0;  // pixels
};

/// What two levels keep while only stop, shutter and light change.
struct Seen {
    Sight sight;
    Lights lights;
    std::map<int, Cells> cells;  // by the factor of the level
};
using Levels = std::map<int, Seen>;  // by their base

/// A layer: what it is by itself, and as the lens has it.
struct Blurred {
    double depth = 0, behind = 0;  // its own and the next farther layer's: they say what is in it
    Level level;
    Spectrum spectrum;
    imaging::Raster layer;

    bool holds(double own, double next, const Level& at) const {
        constexpr double same = 1e-9;
        return spectrum.width > 0 && level.grid == at.grid && level.factor == at.factor &&
               std::abs(depth - own) <= same * std::abs(own) && std::abs(behind - next) <= same * std::abs(next);
    }
};

/// The lens at the full stop that is next wider: layers for it serve all stops up to the next, so that a stop that is
/// dragged finds them as they were.
LensBlur at_full_stop(LensBlur lens) {
    const double stop = std::exp2(std::floor(2 * std::log2(lens.imaging.working_f_number) + 1e-6) / 2);
    lens.imaging.pupil_diameter *= lens.imaging.working_f_number / stop;
    lens.imaging.working_f_number = stop;
    return lens;
}

/// What all of `now` give more than `before`, times; empty where they changed in any other way that could be seen.
std::optional<float> brighter(const std::vector<SceneLight>& before, const std::vector<SceneLight>& now) {
    if (before.size() != now.size()) return std::nullopt;
    float sum_before = 0, sum_now = 0;
    for (std::size_t i = 0; i < now.size(); ++i) {
        const auto &a = before[i], &b = now[i];
        if (a.softness != b.softness || a.shadows != b.shadows || (a.towards != b.towards).any()) return std::nullopt;
        sum_before += a.amount;
        sum_now += b.amount;
    }
    if (!(sum_before > 0)) return sum_now == sum_before ? std::optional(1.0f) : std::nullopt;
    const float times = sum_now / sum_before;
    constexpr float unseen = 5e-4f;  // of a correct exposure: a third of one of 255 levels on mid grey, in the shadows
    for (std::size_t i = 0; i < now.size(); ++i)
        if (!(std::abs(now[i].amount - times * before[i].amount) <= unseen)) return std::nullopt;
    return times;
}

/// What a loupe keeps of the frame before.
struct Memory {
    std::vector<double> subject;     // the scene's key
    std::vector<SceneLight> lights;  // that the layers are lit by
    float gloss = 0;
    Levels levels;
    std::vector<Blurred> layers;

    /// Forgets what `scene` does not share; returns by how much it is brighter than what is kept.
    float keep_what_holds_for(const Scene& scene) {
        if (subject != scene.subject_key) {
            levels.clear();
            layers.clear();
        }
        subject = scene.subject_key;
        const auto more = gloss == scene.gloss ? brighter(lights, scene.lights) : std::nullopt;
        if (more) return *more;
        layers.clear();
        lights = scene.lights;
        gloss = scene.gloss;
        return 1;
    }
};

class Work {
  public:
    Work(const Scene& scene, const LoupeWindow& window, Memory& memory)
        : scene_(scene),
          window_(window),
          brighter_(memory.keep_what_holds_for(scene)),
          memory_(memory),
          levels_(memory.levels),
          pitch_(scene.pixel_pitch / window.rays) {}

    std::optional<imaging::Raster> run(const std::function<bool()>& go_on) {
        const auto stopped = [&] { return go_on && !go_on(); };
        imaging::Raster picture = background();
        if (stopped()) return std::nullopt;
        cover(picture, subject(stopped));
        if (stopped()) return std::nullopt;
        return to_pixels(picture);
    }

  private:
    /// The subject's layers about the window, blurred, the farthest first.
    std::span<const Blurred> subject(const std::function<bool()>& stopped) {
        const double widest_disc =
            std::max(blur_disc(scene_.lens, scene_.nearest), blur_disc(scene_.lens, scene_.farthest));
        const Sight& all = seen_at(level_for(widest_disc)).sight;
        if (all.box.empty()) return {};
        auto layers = layers_of(at_full_stop(scene_.lens), all.range, layer_step * scene_.pixel_pitch);
        for (Layer& layer : layers) layer.diameter = blur_disc(scene_.lens, layer.depth);
        std::vector<std::size_t> shown;
        for (std::size_t k = 0; k < layers.size(); ++k)
            if (!stopped() && shows(seen_at(level_for(layers[k].diameter)).sight, layers, k)) shown.push_back(k);
        const auto fresh = take_up(layers, shown);
        light_and_gather(fresh);
        auto& blurred = memory_.layers;
        imaging::for_each_of(static_cast<int>(shown.size()), [&](int index) {
            const auto i = static_cast<std::size_t>(index);
            if (stopped()) return;
            Blurred& one = blurred[i];
            if (one.spectrum.width == 0) {
                thread_local imaging::Raster layer;
                levels_.at(one.level.base)
                    .cells.at(one.level.factor)
                    .fill_layer(layer, {0, 0, one.level.seen.width, one.level.seen.height},
                                [&](float depth) { return share_in(layers, shown[i], depth); });
                take_apart(layer, one.spectrum);
            }
            transfer(one.spectrum,
                     {.lens = scene_.lens,
                      .disc = layers[shown[i]].diameter,
                      .motion = scene_.motion,
                      .fall = scene_.fall,
                      .pitch = one.level.grid.pitch,
                      .coarse = one.level.factor > 1},
                     one.layer);
        });
        if (stopped()) return {};
        return {blurred.data(), shown.size()};
    }

    /// Puts what is kept of the shown layers in their places; the others wait to be filled. Returns their levels.
    std::vector<Level> take_up(const std::vector<Layer>& layers, const std::vector<std::size_t>& shown) {
        std::vector<Blurred> taken;
        std::vector<Level> fresh;
        for (const auto k : shown) {
            const double own = layers[k].depth, behind = k > 0 ? layers[k - 1].depth : own;
            const Level level = level_for(layers[k].diameter);
            const auto kept =
                std::ranges::find_if(memory_.layers, [&](const Blurred& one) { return one.holds(own, behind, level); });
            if (kept != memory_.layers.end()) {
                taken.push_back(std::move(*kept));
                *kept = {};
            } else {
                taken.push_back({.depth = own, .behind = behind, .level = level, .spectrum = {}, .layer = {}});
                fresh.push_back(level);
            }
        }
        memory_.layers = std::move(taken);
        return fresh;
    }

    /// By the lights that the kept layers are lit by.
    void light_and_gather(const std::vector<Level>& fresh) {
        if (fresh.empty()) return;
        Scene lit_alike = scene_;
        lit_alike.lights = memory_.lights;
        std::set<int> lit, gathered;
        for (const Level& level : fresh) {
            Seen& seen = levels_.at(level.base);
            if (lit.insert(level.base).second) light_up(lit_alike, seen.sight, seen.lights);
            if (gathered.insert(level.factor).second)
                seen.cells[level.factor].gather(seen.sight, seen.lights, level.factor / level.base);
        }
    }

    static bool shows(const Sight& sight, const std::vector<Layer>& layers, std::size_t k) {
        for (std::size_t i = 0; i < sight.depths.size(); ++i) {
            const float depth = sight.depths[i];
            if (sight.coverage[i] > 0 && !is_hidden(layers, k, depth) && share_in(layers, k, depth) > 0) return true;
        }
        return false;
    }

    Level level_for(double disc) const {
        const double spread = std::min(disc + std::max(scene_.motion, scene_.fall), 4 * scene_.frame_width);
        int pair = 1;  // factor of the first of two levels
        while (spread / (pitch_ * pair) > 2 * widest) pair *= 4;
        const int coarser = 2 * pair;
        Level level{.factor = spread / (pitch_ * pair) > widest ? coarser : pair, .base = pair};
        // Room for the widest disc, for the Airy pattern's first rings, and for going between pixels; in steps, so that
        // what was looked at holds for the stops beside this one.
        constexpr double step = 4;
        const double rings = 2 * 2.44 * scene_.lens.wavelength * scene_.lens.imaging.working_f_number;
        const double room = std::min(std::ceil(rings / (pitch_ * coarser) / step) * step, 32.0);
        const int margin = static_cast<int>(widest / 2 + room) + 3;
        const auto size = [&](int pixels) {
            return good_size((pixels * window_.rays + coarser - 1) / coarser + 2 * margin);
        };
        // The window's corner lies on a corner of a coarse pixel.
        const double pitch = pitch_ * coarser;
        Grid grid{.width = size(window_.width), .height = size(window_.height), .pitch = pitch, .centre = {}};
        grid.centre = {
            .x = window_.centre.x - window_.width * scene_.pixel_pitch / 2 + (grid.width / 2.0 - margin) * pitch,
            .y = window_.centre.y + window_.height * scene_.pixel_pitch / 2 - (grid.height / 2.0 - margin) * pitch};
        level.margin = margin * (coarser / level.factor);
        level.grid = finer(grid, coarser / level.factor);
        level.seen = finer(grid, coarser / level.base);
        return level;
    }
    static Grid finer(const Grid& grid, int times) {
        return {.width = grid.width * times,
                .height = grid.height * times,
                .pitch = grid.pitch / times,
                .centre = grid.centre};
    }

    const Seen& seen_at(const Level& level) {
        Seen& seen = levels_[level.base];
        if (seen.sight.grid != level.seen) {
            look(scene_, level.seen, seen.sight);
            seen.lights = {};
        }
        return seen;
    }

    /// The window's part of a level, at the finest grid.
    FinePart in_window(const Level& level) const {
        return {.factor = level.factor,
                .left = level.margin * level.factor,
                .top = level.margin * level.factor,
                .width = window_.width * window_.rays,
                .height = window_.height * window_.rays};
    }

    imaging::Raster background() const {
        const double disc = blur_disc(scene_.lens, scene_.background_depth);
        const Level level = level_for(disc);
        imaging::Raster picture(level.grid.width, level.grid.height);
        imaging::for_rows(picture.height, [&](int y) {
            for (int x = 0; x < picture.width; ++x)
                picture.at(x, y) =
                    imaging::opaque(scene_.background ? scene_.background(level.grid.place(x + 0.5, y + 0.5))
                                                      : imaging::Rgba(0, 0, 0, 0));
        });
        const bool small = level.factor == 1;
        if (small) add_highlights(picture, level.grid, 0);
        transfer(picture, {.lens = scene_.lens, .disc = disc, .motion = 0, .fall = 0, .pitch = level.grid.pitch});
        imaging::Raster in;
        enlarge(picture, in_window(level), in);
        picture = std::move(in);
        const Grid fine{.width = picture.width, .height = picture.height, .pitch = pitch_, .centre = window_.centre};
        if (!small) add_highlights(picture, fine, disc);
        return picture;
    }

    /// A wide disc is drawn as such; a small one comes of a point by the lens.
    void add_highlights(imaging::Raster& picture, const Grid& grid, double disc) const {
        for (const Highlight& highlight : scene_.highlights) {
            const imaging::Place at = grid.pixel(highlight.place);
            imaging::Rgba flux = imaging::Rgba::Zero();
            flux = highlight.flux / static_cast<float>(grid.pitch * grid.pitch);
            add_disc(picture, {.x = at.x, .y = at.y, .diameter = disc / grid.pitch, .flux = flux});
        }
    }

    void cover(imaging::Raster& picture, std::span<const Blurred> layers) const {
        for (const Blurred& one : layers) lay_over(picture, 0, 0, one.layer, in_window(one.level), brighter_);
    }

    imaging::Raster to_pixels(const imaging::Raster& fine) const {
        imaging::Raster out(window_.width, window_.height);
        imaging::for_rows(out.height, [&](int y) {
            for (int x = 0; x < out.width; ++x) {
                for (int j = 0; j < window_.rays; ++j)
                    for (int i = 0; i < window_.rays; ++i)
                        out.at(x, y) += fine.at(window_.rays * x + i, window_.rays * y + j);
                out.at(x, y) /= static_cast<float>(window_.rays * window_.rays);
            }
        });
        return out;
    }

    const Scene& scene_;
    const LoupeWindow& window_;
    float brighter_;  // than what is kept
    Memory& memory_;
    Levels& levels_;
    double pitch_;
};

}  // namespace loupe

struct Loupe::Kept : loupe::Memory {};

Loupe::Loupe() : kept_(std::make_unique<Kept>()) {}
Loupe::~Loupe() = default;

std::optional<imaging::Raster> Loupe::render(const Scene& scene, const LoupeWindow& window,
                                             const std::function<bool()>& go_on) {
    return loupe::Work(scene, window, *kept_).run(go_on);
}

}  // namespace poquito::render
