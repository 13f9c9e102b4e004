#include "render/loupe.hpp"

#include "optics/diffraction.hpp"
#include "plan/assess.hpp"
#include "storage/shoot_file.hpp"
#include "support/matchers.hpp"
#include "support/scenes.hpp"

#include <algorithm>
#include <complex>
#include <utility>
#include <vector>

using namespace poquito;
using namespace imaging;
using namespace render;
using test::WithinAbs;
using test::WithinRel;

namespace {

constexpr double pi = 3.14159265358979323846;

/// Contrast over spatial frequency of a slanted edge, by the method of ISO 12233: a line through the centroids of the
/// rows' derivatives, all pixels sorted along it into bins a quarter of a pixel wide, the derivative of that edge,
/// a Hamming window, the modulus of its Fourier transform, corrected for the difference over two bins.
class SlantedEdge {
  public:
    explicit SlantedEdge(const Raster& picture) {
        const auto value = [&](int x, int y) { return static_cast<double>(picture.at(x, y)[1]); };
        double n = 0, sy = 0, syy = 0, sx = 0, sxy = 0;
        for (int y = 0; y < picture.height; ++y) {
            double weight = 0, moment = 0;
            for (int x = 1; x + 1 < picture.width; ++x) {
                const double slope = value(x + 1, y) - value(x - 1, y);
                weight += slope;
                moment += slope * x;
            }
            const double at = moment / weight;
            ++n, sy += y, syy += double(y) * y, sx += at, sxy += at * y;
        }
        const double lean = (n * sxy - sx * sy) / (n * syy - sy * sy), foot = (sx - lean * sy) / n;
        const double upright = 1 / std::hypot(1, lean);  // across the edge, not along the row
        constexpr int per_pixel = 4;
        const int half = picture.width / 2 - 8;
        std::vector<double> sum(static_cast<std::size_t>(2 * half * per_pixel)), count(sum.size());
        for (int y = 0; y < picture.height; ++y)
            for (int x = 0; x < picture.width; ++x) {
                const double bin = std::floor(((x - foot - lean * y) * upright + half) * per_pixel);
                if (bin < 0 || bin >= static_cast<double>(sum.size())) continue;
                sum[static_cast<std::size_t>(bin)] += value(x, y);
                ++count[static_cast<std::size_t>(bin)];
            }
        for (std::size_t i = 0; i < sum.size(); ++i) sum[i] /= count[i];
        for (std::size_t i = 1; i + 1 < sum.size(); ++i) {
            const double place =
                (static_cast<double>(i) - static_cast<double>(sum.size()) / 2) / static_cast<double>(sum.size());
            line_.push_back((sum[i + 1] - sum[i - 1]) * (0.54 + 0.46 * std::cos(2 * pi * place)));
        }
    }
    /// `frequency` in cycles a pixel.
    double contrast(double frequency) const {
        std::complex<double> at, whole;
        for (std::size_t i = 0; i < line_.size(); ++i) {
            at += line_[i] * std::polar(1.0, -2 * pi * frequency * static_cast<double>(i) / 4);
            whole += line_[i];
        }
        const double over_two_bins = 2 * pi * frequency / 4;
        return std::abs(at / whole) * over_two_bins / std::sin(over_two_bins);
    }

  private:
    std::vector<double> line_;
};

Raster rendered(const Scene& scene, LoupeWindow window = {}) { return Loupe().render(scene, window).value(); }

double sinc(double x) { return x == 0 ? 1 : std::sin(pi * x) / (pi * x); }

}  // namespace

TEST_CASE("a slanted edge in the loupe has the contrast of the model at every frequency", "[imaging][loupe]") {
    // ISO 12233 against Hopkins 1955 times the square pixel; in focus, at a quarter wave, and well out of focus.
    for (const double f_number : {4.0, 8.0, 16.0, 32.0})
        for (const double disc : {0.0, 0.01, 0.03, 0.06}) {
            const auto lens = test::lens_at(f_number);
            const double depth = disc == 0 ? 0 : depth_of_disc(lens, disc, true).value();
            const auto scene = test::chart(lens, depth, test::slanted_edge);
            const SlantedEdge edge(rendered(scene, {.width = 160, .height = 120}));
            for (double frequency = 0.05; frequency < 0.5; frequency += 0.05) {
                const double expected = optics::modulation_transfer({.frequency = frequency / scene.pixel_pitch,
                                                                     .working_f_number = f_number,
                                                                     .image_defocus = disc * f_number}) *
                                        sinc(frequency);
                INFO("f/" << f_number << ", disc " << disc << ", " << frequency << " cycles a pixel");
                CHECK_THAT(edge.contrast(frequency), WithinAbs(expected, 0.03));  // the issue asks for 0.05
            }
        }
}

TEST_CASE("movement lowers the contrast across it as a line does", "[imaging][loupe]") {
    auto scene = test::chart(test::lens_at(8), 0, test::slanted_edge);
    scene.motion = 4 * scene.pixel_pitch;
    const SlantedEdge edge(rendered(scene, {.width = 160, .height = 120}));
    for (const double frequency : {0.05, 0.1, 0.2}) {
        const double expected =
            optics::modulation_transfer({.frequency = frequency / scene.pixel_pitch, .working_f_number = 8}) *
            sinc(frequency) * std::abs(sinc(4 * frequency));
        CHECK_THAT(edge.contrast(frequency), WithinAbs(expected, 0.03));
    }
}

TEST_CASE("a point out of focus becomes a disc of the geometric width, with all its light", "[imaging][loupe]") {
    for (const double pixels : {6.0, 15.0, 40.0, 90.0, 150.0})
        for (const bool behind : {true, false}) {
            const auto lens = test::lens_at(2.8);
            const double pitch = 0.005, depth = depth_of_disc(lens, pixels * pitch, behind).value();
            // A point: a patch of two pixels or a sixteenth of the disc; a smaller one would fall between the rays.
            const double half_patch = std::max(1.0, pixels / 32) * pitch;
            auto scene = test::chart(lens, depth, [half_patch](Place place, double) {
                return std::max(std::abs(place.x), std::abs(place.y)) <= half_patch ? 1000.0 : 0.0;
            });
            const auto picture = rendered(scene, {.width = 200, .height = 200});
            double sum = 0;
            for (const auto& pixel : picture.pixels) sum += pixel[1];
            INFO("disc of " << pixels << " pixels");
            // Two by two pixels of 1000; coarse grids see the patch by chance, so only its share is compared there.
            if (pixels <= 15) CHECK_THAT(sum, WithinRel(4 * 1000.0, 0.02));
            REQUIRE(sum > 0);
            // By waves the rim is soft and rippled (Fresnel); half the light lies within R / sqrt 2 all the same.
            std::vector<std::pair<double, double>> rings;
            for (int y = 0; y < 200; ++y)
                for (int x = 0; x < 200; ++x)
                    rings.emplace_back(std::hypot(x - 99.5, y - 99.5), double(picture.at(x, y)[1]));
            std::ranges::sort(rings);
            double inside = 0;
            const auto half =
                std::ranges::find_if(rings, [&](const auto& ring) { return (inside += ring.second) >= sum / 2; });
            CHECK_THAT(2 * std::sqrt(2.0) * half->first, WithinAbs(pixels, 1.0));
        }
}

TEST_CASE("an even face stays even however far out of focus, and at any size", "[imaging][loupe]") {
    for (const double f_number : {1.4, 8.0, 45.0})
        for (const double depth : {0.0, 0.5, -3.0, 40.0, -200.0}) {
            const auto picture =
                rendered(test::chart(test::lens_at(f_number), depth, [](Place, double) { return 0.5; }));
            for (const auto& pixel : picture.pixels) REQUIRE_THAT(double(pixel[0]), WithinAbs(0.5, 1e-3));
        }
}

TEST_CASE("a loupe that is told to stop gives nothing", "[imaging][loupe]") {
    const auto scene = test::chart(test::lens_at(8), 1, test::slanted_edge);
    CHECK_FALSE(Loupe().render(scene, {}, [] { return false; }).has_value());
}

TEST_CASE("what a loupe keeps from one frame to the next changes nothing that it shows", "[imaging][loupe]") {
    const auto shoot = storage::load_shoot(POQUITO_DATA "/winter-catalogue.poquito").value();
    for (const char* name : {"Ammonite, one saddle", "Salt on caramel", "Satchel, clasp"}) {
        auto shot = *std::ranges::find(shoot.shots, std::string(name), &shoot::Shot::name);
        Loupe used;
        const auto compare = [&](const LoupeWindow& window) {
            const auto scene = *scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
            const auto kept = used.render(scene, window).value(), fresh = rendered(scene, window);
            double worst = 0;
            for (std::size_t i = 0; i < fresh.pixels.size(); ++i)
                worst = std::max(worst, double((kept.pixels[i] - fresh.pixels[i]).abs().maxCoeff()));
            INFO(name << " at f/" << shot.exposure.f_number);
            CHECK(worst < 2e-3);
        };
        const double stop = shot.exposure.f_number;
        const LoupeWindow window{.width = 60, .height = 40};
        for (const double times : {1.0, 1.06, 1.2, 1.5, 1.06}) {
            shot.exposure.f_number = stop * times;
            compare(window);
        }
        for (auto& light : shot.lights) light.power = 0.125;  // now the whole picture follows the sensitivity
        compare(window);
        shot.exposure.iso *= 1.5;
        compare(window);
        if (!shot.lights.empty()) shot.lights[0].position.azimuth += 20;
        compare(window);
        if (shot.lights.size() > 1) shot.lights[1].position.distance *= 1.3;
        compare(window);
        shot.exposure.shutter *= 4;
        compare(window);
        shot.subject.turn += 5;
        compare(window);
        compare({.centre = {.x = 0.4, .y = 0.2}, .width = 60, .height = 40});
        compare({.width = 60, .height = 40, .rays = 1});
    }
}

TEST_CASE("the window in focus lies where the subject crosses the plane of focus", "[imaging][loupe]") {
    auto shoot = test::plain_shoot();
    auto& shot = shoot.shots[0];
    shot.subject.form = shoot::Form::ball;
    shot.subject.depth = 8;
    const auto depth_at = [&](const render::Scene& scene, imaging::Place place) {
        const auto seen = scene.subject(place, 0.05);
        return seen ? std::abs(static_cast<double>(seen->depth)) : 1e9;
    };
    for (const double offset : {-3.0, 0.0}) {
        shot.sharpness.focus_offset = offset;
        const auto scene = *render::scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
        const auto place = render::place_in_focus(scene, 0.3, 0.2);
        CHECK(depth_at(scene, place) < 0.6);
        CHECK(std::abs(place.x) < scene.frame_width / 2 - 0.15);
    }
    // Its middle, the nearest point of a ball, is far from there when the focus is in the middle of its depth.
    const auto scene = *render::scene_of(shoot.kit, shot, plan::assess(shoot.kit, shot, {}));
    CHECK(depth_at(scene, {}) > 3);
}
