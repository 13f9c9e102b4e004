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

namespace poquito::imaging {
namespace {

constexpr double sheet_step = 1.5;  // pixels of the sensor, as in the finder
/// A wider blur is worked out on a coarser grid, half as many pixels each way, and so on.
constexpr double widest = 24;  // pixels of the grid

/// Blurs at one coarseness, on a grid with room for the disc about the window.
struct Level {
    int factor = 1;  // pixels of the finest grid to one here, each way
    Grid grid;
    int margin = 0;  // pixels
};

using Sights = std::map<int, Sight>;  // by the factor of the level

class Work {
  public:
    Work(const Scene& scene, const LoupeWindow& window, Sights& sights)
        : scene_(scene), window_(window), sights_(sights), pitch_(scene.pixel_pitch / window.rays) {}

    std::optional<Raster> run(const std::function<bool()>& go_on) {
        const auto stopped = [&] { return go_on && !go_on(); };
        Raster picture = background();
        if (stopped()) return std::nullopt;
        for (const Raster& sheet : subject(stopped)) cover(picture, sheet);
        if (stopped()) return std::nullopt;
        return to_pixels(picture);
    }

  private:
    /// The subject's sheets in the window, blurred, the farthest first.
    std::vector<Raster> subject(const std::function<bool()>& stopped) {
        const double widest_disc =
            std::max(blur_disc(scene_.lens, scene_.nearest), blur_disc(scene_.lens, scene_.farthest));
        const Sight& all = sight_at(level_for(widest_disc));
        if (all.box.empty()) return {};
        const auto sheets = sheets_of(scene_.lens, all.range, sheet_step * scene_.pixel_pitch);
        std::vector<std::size_t> shown;
        for (std::size_t k = 0; k < sheets.size(); ++k)
            if (!stopped() && shows(sight_at(level_for(sheets[k].diameter)), sheets, k)) shown.push_back(k);
        std::map<int, std::vector<Rgba>> lights;
        for (const auto k : shown)
            if (const int factor = level_for(sheets[k].diameter).factor; !lights.contains(factor))
                light_up(scene_, sights_.at(factor), lights[factor]);
        std::vector<Raster> blurred(shown.size());
        tbb::parallel_for(std::size_t{0}, shown.size(), [&](std::size_t i) {
            const auto k = shown[i];
            if (stopped()) return;
            const Level level = level_for(sheets[k].diameter);
            Raster sheet;
            sights_.at(level.factor)
                .fill_sheet(sheet, {0, 0, level.grid.width, level.grid.height}, 1, lights.at(level.factor),
                            [&](float depth) { return share_in(sheets, k, depth); });
            transfer(
                sheet,
                {.lens = scene_.lens, .disc = sheets[k].diameter, .motion = scene_.motion, .pitch = level.grid.pitch});
            blurred[i] = in_window(sheet, level);
        });
        if (stopped()) return {};
        return blurred;
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
        Level level;
        while (spread / (pitch_ * level.factor) > widest) level.factor *= 2;
        const double pitch = pitch_ * level.factor;
        // Room for the widest disc of this level, for the Airy pattern's first rings, and for going between pixels.
        const double rings = 3 * 2.44 * scene_.lens.wavelength * scene_.lens.imaging.working_f_number;
        level.margin = static_cast<int>(std::ceil(widest / 2 + std::min(rings / pitch, 48.0))) + 3;
        const auto size = [&](int pixels) {
            return good_size((pixels * window_.rays + level.factor - 1) / level.factor + 2 * level.margin);
        };
        level.grid = {.width = size(window_.width), .height = size(window_.height), .pitch = pitch, .centre = {}};
        // The window's corner lies on a corner of a coarse pixel.
        level.grid.centre = {.x = window_.centre.x - window_.width * scene_.pixel_pitch / 2 +
                                  (level.grid.width / 2.0 - level.margin) * pitch,
                             .y = window_.centre.y + window_.height * scene_.pixel_pitch / 2 -
                                  (level.grid.height / 2.0 - level.margin) * pitch};
        return level;
    }

    const Sight& sight_at(const Level& level) {
        auto found = sights_.find(level.factor);
        if (found == sights_.end() || found->second.grid != level.grid) {
            found = sights_.try_emplace(level.factor).first;
            look(scene_, level.grid, found->second);
        }
        return found->second;
    }

    /// The window's part of a level, at the finest grid.
    Raster in_window(const Raster& picture, const Level& level) const {
        Raster out;
        enlarge(picture,
                {.factor = level.factor,
                 .left = level.margin * level.factor,
                 .top = level.margin * level.factor,
                 .width = window_.width * window_.rays,
                 .height = window_.height * window_.rays},
                out);
        return out;
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
        picture = in_window(picture, level);
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

    static void cover(Raster& picture, const Raster& sheet) {
        for_rows(picture.height, [&](int y) {
            for (int x = 0; x < picture.width; ++x) {
                const Rgba& front = sheet.at(x, y);
                picture.at(x, y) = front + (1 - front[3]) * picture.at(x, y);
            }
        });
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
    Sights& sights_;
    double pitch_;
};

}  // namespace

struct Loupe::Kept {
    std::vector<double> key;
    Sights sights;
};

Loupe::Loupe() : kept_(std::make_unique<Kept>()) {}
Loupe::~Loupe() = default;

std::optional<Raster> Loupe::render(const Scene& scene, const LoupeWindow& window, const std::function<bool()>& go_on) {
    if (kept_->key != scene.subject_key) kept_->sights.clear();
    kept_->key = scene.subject_key;
    return Work(scene, window, kept_->sights).run(go_on);
}

}  // namespace poquito::imaging
