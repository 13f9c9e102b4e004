#include "imaging/render/loupe.hpp"

#include "imaging/parallel.hpp"
#include "imaging/render/disc_blur.hpp"
#include "imaging/render/layers.hpp"
#include "imaging/render/sight.hpp"
#include "imaging/render/transfer.hpp"

#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>

#include <map>
#include <set>
#include <span>

namespace poquito::imaging {
namespace {

constexpr double sheet_step = 2;  // pixels of the sensor
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

/// A sheet as the lens has it.
struct Blurred {
    Raster sheet;
    Level level;
};

class Work {
  public:
    Work(const Scene& scene, const LoupeWindow& window, Levels& levels, std::vector<Blurred>& blurred)
        : scene_(scene), window_(window), levels_(levels), blurred_(blurred), pitch_(scene.pixel_pitch / window.rays) {}

    std::optional<Raster> run(const std::function<bool()>& go_on) {
        const auto stopped = [&] { return go_on && !go_on(); };
        Raster picture = background();
        if (stopped()) return std::nullopt;
        cover(picture, subject(stopped));
        if (stopped()) return std::nullopt;
        return to_pixels(picture);
    }

  private:
    /// The subject's sheets about the window, blurred, the farthest first.
    std::span<const Blurred> subject(const std::function<bool()>& stopped) {
        const double widest_disc =
            std::max(blur_disc(scene_.lens, scene_.nearest), blur_disc(scene_.lens, scene_.farthest));
        const Sight& all = seen_at(level_for(widest_disc)).sight;
        if (all.box.empty()) return {};
        const auto sheets = sheets_of(scene_.lens, all.range, sheet_step * scene_.pixel_pitch);
        std::vector<std::size_t> shown;
        for (std::size_t k = 0; k < sheets.size(); ++k)
            if (!stopped() && shows(seen_at(level_for(sheets[k].diameter)).sight, sheets, k)) shown.push_back(k);
        std::set<int> lit, gathered;
        for (const auto k : shown) {
            const Level level = level_for(sheets[k].diameter);
            Seen& seen = levels_.at(level.base);
            if (lit.insert(level.base).second) light_up(scene_, seen.sight, seen.lights);
            if (gathered.insert(level.factor).second)
                seen.cells[level.factor].gather(seen.sight, seen.lights, level.factor / level.base);
        }
        if (blurred_.size() < shown.size()) blurred_.resize(shown.size());
        tbb::parallel_for(std::size_t{0}, shown.size(), [&](std::size_t i) {
            const auto k = shown[i];
            if (stopped()) return;
            const Level level = level_for(sheets[k].diameter);
            Raster& sheet = blurred_[i].sheet;
            levels_.at(level.base)
                .cells.at(level.factor)
                .fill_sheet(sheet, {0, 0, level.seen.width, level.seen.height},
                            [&](float depth) { return share_in(sheets, k, depth); });
            transfer(sheet, {.lens = scene_.lens,
                             .disc = sheets[k].diameter,
                             .motion = scene_.motion,
                             .pitch = level.grid.pitch,
                             .coarse = level.factor > 1});
            blurred_[i].level = level;
        });
        if (stopped()) return {};
        return {blurred_.data(), shown.size()};
    }

    static bool shows(const Sight& sight, const std::vector<Sheet>& sheets, std::size_t k) {
        for (std::size_t i = 0; i < sight.depths.size(); ++i) {
            const float depth = sight.depths[i];
            if (sight.coverage[i] > 0 && !is_hidden(sheets, k, depth) && share_in(sheets, k, depth) > 0) return true;
        }
        return false;
    }

    Level level_for(double disc) const {
        const double spread = std::min(disc + scene_.motion, 4 * scene_.frame_width);
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

    Raster background() const {
        const double disc = blur_disc(scene_.lens, scene_.background_depth);
        const Level level = level_for(disc);
        Raster picture(level.grid.width, level.grid.height);
        for_rows(picture.height, [&](int y) {
            for (int x = 0; x < picture.width; ++x)
                picture.at(x, y) = opaque(scene_.background ? scene_.background(level.grid.place(x + 0.5, y + 0.5))
                                                            : Rgba(0, 0, 0, 0));
        });
        const bool small = level.factor == 1;
        if (small) add_highlights(picture, level.grid, 0);
        transfer(picture, {.lens = scene_.lens, .disc = disc, .motion = 0, .pitch = level.grid.pitch});
        Raster in;
        enlarge(picture, in_window(level), in);
        picture = std::move(in);
        const Grid fine{.width = picture.width, .height = picture.height, .pitch = pitch_, .centre = window_.centre};
        if (!small) add_highlights(picture, fine, disc);
        return picture;
    }

    /// A wide disc is drawn as such; a small one comes of a point by the lens.
    void add_highlights(Raster& picture, const Grid& grid, double disc) const {
        for (const Highlight& highlight : scene_.highlights) {
            const Place at = grid.pixel(highlight.place);
            Rgba flux = Rgba::Zero();
            flux = highlight.flux / static_cast<float>(grid.pitch * grid.pitch);
            add_disc(picture, {.x = at.x, .y = at.y, .diameter = disc / grid.pitch, .flux = flux});
        }
    }

    void cover(Raster& picture, std::span<const Blurred> sheets) const {
        for (const auto& [sheet, level] : sheets) lay_over(picture, 0, 0, sheet, in_window(level));
    }

    Raster to_pixels(const Raster& fine) const {
        Raster out(window_.width, window_.height);
        for_rows(out.height, [&](int y) {
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
    Levels& levels_;
    std::vector<Blurred>& blurred_;
    double pitch_;
};

}  // namespace

struct Loupe::Kept {
    std::vector<double> key;
    Levels levels;
    std::vector<Blurred> blurred;  // memory that stays from one frame to the next
};

Loupe::Loupe() : kept_(std::make_unique<Kept>()) {}
Loupe::~Loupe() = default;

std::optional<Raster> Loupe::render(const Scene& scene, const LoupeWindow& window, const std::function<bool()>& go_on) {
    if (kept_->key != scene.subject_key) kept_->levels.clear();
    kept_->key = scene.subject_key;
    return Work(scene, window, kept_->levels, kept_->blurred).run(go_on);
}

}  // namespace poquito::imaging
