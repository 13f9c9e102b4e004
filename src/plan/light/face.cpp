#include "plan/light/face.hpp"

#include "light/direction.hpp"
#include "light/space.hpp"
#include "shoot/form/form.hpp"
#include "shoot/values/lru_cache.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>
#include <numbers>
#include <vector>

namespace poquito::plan {

namespace {

using std::numbers::pi;

/// Towards the source as forms have it: z away from the camera.
struct Way {
    double x = 0, y = 0, z = -1;
};
Way way_to(const light::Position& place) {
    const auto at = light::place_of({.distance = 1, .azimuth = place.azimuth, .elevation = place.elevation});
    return {.x = at.x(), .y = at.y(), .z = -at.z()};
}

light::Position mirrored(const light::Position& place) {
    return {.distance = place.distance, .azimuth = 180 - place.azimuth, .elevation = place.elevation};
}

double dot(const shoot::Point3& normal, const Way& way) {
    return normal.x * way.x + normal.y * way.y + normal.z * way.z;
}

constexpr int cells = 48, bearings = 24;
constexpr float nothing = 1e6F;  // mm behind: beside the form

}  // namespace

/// Points of the face, evenly as the camera sees them.
struct Face::Net {
    struct Sample {
        std::size_t cell = 0;
        shoot::Point3 normal;
    };
    double half_width = 1, half_height = 1;
    std::vector<Sample> samples;
    std::vector<float> depths;  // cells x cells, `nothing` beside the form
    double from_camera = 1;     // mean light of the same form, untilted and lit from the camera

    FaceLight lit_from(const light::Position& place, double softness) const;

  private:
    struct Known {
        double azimuth = 0, elevation = 0, softness = -1;
        FaceLight light;
    };
    void see_horizons() const;
    FaceLight looked_up(const light::Position& place, double softness) const;

    // Of each sample, all round: how high above the face the rest of the subject stands in the way, rad.
    mutable std::once_flag seen_;
    mutable std::vector<float> horizons_;
    mutable std::mutex guard_;
    mutable std::array<Known, 24> known_;
    mutable std::size_t next_ = 0;
};

namespace {

double node(int i, double half) { return ((i + 0.5) / cells * 2 - 1) * half; }

std::shared_ptr<const Face::Net> made(const shoot::Subject& shape);

std::shared_ptr<const Face::Net> net_of(const shoot::Subject& subject) {
    static shoot::LruCache<shoot::Subject, Face::Net, 64> kept;
    const auto shape = shoot::shape_of(subject);
    return kept.of(shape, [&] { return made(shape); });
}

std::shared_ptr<const Face::Net> made(const shoot::Subject& shape) {
    const shoot::Surface surface(shape);
    auto net = std::make_shared<Face::Net>();
    net->half_width = surface.extent().width / 2;
    net->half_height = surface.extent().height / 2;
    net->depths.assign(std::size_t{cells} * cells, nothing);
    for (int j = 0; j < cells; ++j)
        for (int i = 0; i < cells; ++i) {
            const double x = node(i, net->half_width), y = node(j, net->half_height);
            const auto hit = surface.hit({.x = x, .y = y});
            if (!hit) continue;
            const auto cell = static_cast<std::size_t>(j) * cells + static_cast<std::size_t>(i);
            net->depths[cell] = static_cast<float>(hit->z);
            net->samples.push_back({.cell = cell, .normal = hit->normal});
        }
    if (shape.tilt != 0 || shape.turn != 0) {
        auto straight = shape;
        straight.tilt = straight.turn = 0;
        net->from_camera = net_of(straight)->from_camera;
    } else {
        double sum = 0;
        for (const auto& sample : net->samples) sum += std::max(0.0, -sample.normal.z);
        net->from_camera = net->samples.empty() ? 1 : sum / static_cast<double>(net->samples.size());
    }
    return net;
}

}  // namespace

namespace {

/// The depths of a net with room for a step of its length on every side, where the last cells go on.
class Ground {
  public:
    static constexpr int wide = 3 * cells;
    explicit Ground(const std::vector<float>& depths) {
        for (int j = 0; j < wide; ++j)
            for (int i = 0; i < wide; ++i) depths_[place(i, j)] = depths[inside(j - cells) * cells + inside(i - cells)];
    }
    const float* at(int i, int j) const { return depths_.data() + place(i + cells, j + cells); }

  private:
    static std::size_t inside(int at) { return static_cast<std::size_t>(std::clamp(at, 0, cells - 1)); }
    static std::size_t place(int i, int j) { return static_cast<std::size_t>(j) * wide + static_cast<std::size_t>(i); }
    std::vector<float> depths_ = std::vector<float>(std::size_t{wide} * wide);
};

/// Where a step of the net leads to from each cell: to a whole cell along one axis, between two cells along the other.
struct Step {
    int left = 0, above = 0;
    float share = 0;                                                     // of the second of the two cells
    std::ptrdiff_t second = 1;                                           // from the first to it
    int first_row = 0, past_row = 0, first_column = 0, past_column = 0;  // cells from which it stays on the net
};

Step step_of(double across, double down) {
    Step step;
    const bool sideways = std::abs(across) >= std::abs(down);
    const double between = sideways ? down : across;
    (sideways ? step.left : step.above) = static_cast<int>(std::lround(sideways ? across : down));
    (sideways ? step.above : step.left) = static_cast<int>(std::floor(between));
    step.share = static_cast<float>(between - std::floor(between));
    step.second = sideways ? Ground::wide : 1;
    // The net reaches half a cell beyond its last points.
    const auto first = [](double shift) { return std::max(0, static_cast<int>(std::ceil(-0.5 - shift))); };
    const auto past = [](double shift) {
        return std::min(cells, static_cast<int>(std::floor(cells - 0.5 - shift)) + 1);
    };
    step.first_row = first(down), step.past_row = past(down);
    step.first_column = first(across), step.past_column = past(across);
    return step;
}

/// Of each cell, the tangent of how high the rest of the face stands in that direction. A step of the net at a time for
/// all cells together: where it leads to lies alike between two cells, whatever the subject's shape.
std::vector<float> steepest_towards(double bearing, const Ground& ground, double half_width, double half_height) {
    const double dx = std::cos(bearing), dy = std::sin(bearing);
    const double length = 2.0 / cells / std::max(std::abs(dx) / half_width, std::abs(dy) / half_height);  // mm
    const double across = dx * length * cells / (2 * half_width), down = dy * length * cells / (2 * half_height);
    std::vector<float> steepest(std::size_t{cells} * cells, -1e9F);
    for (int n = 1; n < cells; ++n) {
        const Step step = step_of(across * n, down * n);
        std::array<float, cells> beside;
        for (int i = 0; i < cells; ++i)
            beside[static_cast<std::size_t>(i)] = i < step.first_column || i >= step.past_column ? nothing : 0;
        const auto per_mm = static_cast<float>(1 / (n * length));
        for (int j = step.first_row; j < step.past_row; ++j) {
            const float* from = ground.at(0, j);
            const float* to = ground.at(step.left, j + step.above);
            const float* also = to + step.second;
            float* most = steepest.data() + static_cast<std::ptrdiff_t>(j) * cells;
            for (std::size_t i = 0; i < cells; ++i) {
                const float there = to[i] + step.share * (also[i] - to[i]) + beside[i];
                const float slope = (from[i] - there) * per_mm;
                most[i] = most[i] < slope ? slope : most[i];
            }
        }
    }
    return steepest;
}

}  // namespace

void Face::Net::see_horizons() const {
    const Ground ground(depths);
    horizons_.resize(samples.size() * bearings);
    for (std::size_t k = 0; k < bearings; ++k) {
        const auto steepest =
            steepest_towards(static_cast<double>(k) * 2 * pi / bearings, ground, half_width, half_height);
        for (std::size_t i = 0; i < samples.size(); ++i)
            horizons_[i * bearings + k] = std::atan(steepest[samples[i].cell]);
    }
}

namespace {

/// What of the horizons counts for a source in that direction.
class Sight {
  public:
    Sight(const Way& way, double softness) {
        const double across = std::hypot(way.x, way.y);
        constexpr double straight_on = 1e-6;
        over_all_ = across < straight_on;
        constexpr double least_half = 0.02;  // rad: a shadow's edge is as soft as the net is coarse
        half_ = std::max(std::asin(std::clamp(softness, 0.0, 1.0)), least_half);
        height_ = std::atan2(-way.z, across);
        const double place = (std::atan2(way.y, way.x) / (2 * pi) + 1) * bearings;
        const auto before = static_cast<std::size_t>(place);
        before_ = before % bearings, after_ = (before + 1) % bearings;
        share_after_ = static_cast<float>(place - static_cast<double>(before));
    }
    /// The share of the source that a point with these horizons sees over the rest of the subject.
    double clear(const float* all_round) const {
        if (over_all_) return 1;
        const float horizon = all_round[before_] * (1 - share_after_) + all_round[after_] * share_after_;
        const double share = std::clamp((height_ - horizon) / (2 * half_) + 0.5, 0.0, 1.0);
        return share * share * (3 - 2 * share);
    }

  private:
    bool over_all_ = false;
    double half_ = 0, height_ = 0;
    std::size_t before_ = 0, after_ = 0;
    float share_after_ = 0;
};

}  // namespace

FaceLight Face::Net::looked_up(const light::Position& place, double softness) const {
    if (samples.empty()) return {};
    const Way way = way_to(place);
    const Sight sight(way, softness);
    std::call_once(seen_, [this] { see_horizons(); });
    double sum = 0, reached = 0;
    for (std::size_t i = 0; i < samples.size(); ++i) {
        const double lit = std::max(0.0, dot(samples[i].normal, way) + softness) / (1 + softness);
        if (!(lit > 0)) continue;
        const double seen = sight.clear(horizons_.data() + i * bearings);
        sum += lit * seen;
        reached += seen;
    }
    const auto count = static_cast<double>(samples.size());
    return {.front = sum / count / from_camera, .rim = reached / count};
}

FaceLight Face::Net::lit_from(const light::Position& place, double softness) const {
    const auto same = [&](const Known& known) {
        return known.azimuth == place.azimuth && known.elevation == place.elevation && known.softness == softness;
    };
    {
        const std::lock_guard lock(guard_);
        if (const auto found = std::ranges::find_if(known_, same); found != known_.end()) return found->light;
    }
    const auto light = looked_up(place, softness);
    const std::lock_guard lock(guard_);
    known_[next_++ % known_.size()] = {
        .azimuth = place.azimuth, .elevation = place.elevation, .softness = softness, .light = light};
    return light;
}

Face::Face(const shoot::Subject& subject) : subject_(subject) {
    if (subject.depth > 0) {
        if (subject.form == shoot::Form::ball) {
            kind_ = Kind::ball;
        } else {
            net_ = net_of(subject);
        }
        return;
    }
    kind_ = Kind::flat;
    const auto facing = shoot::facing_normal(subject);
    normal_[0] = facing.x, normal_[1] = facing.y, normal_[2] = facing.z;
}

FaceLight Face::lit_from(const light::Position& place) const {
    const double towards = light::towards_camera(place);
    if (kind_ == Kind::ball) return {.front = light::ball_share(towards), .rim = (1 + towards) / 2};
    if (kind_ == Kind::relief) return net_->lit_from(place, 0);
    const double cosine = dot({normal_[0], normal_[1], normal_[2]}, way_to(place));
    return {.front = std::max(0.0, cosine), .rim = cosine > 0 ? 1.0 : 0.0};
}

double Face::through_from(const light::Position& place) const {
    if (kind_ == Kind::flat) return std::max(0.0, -dot({normal_[0], normal_[1], normal_[2]}, way_to(place)));
    const double towards = light::towards_camera(place);
    if (!(towards < 0)) return 0;
    return kind_ == Kind::ball ? light::ball_share(-towards) : net_->lit_from(mirrored(place), 0).front;
}

double Face::softly_lit_from(const light::Position& place, double softness) const {
    if (kind_ != Kind::flat) return (net_ ? net_ : net_of(subject_))->lit_from(place, softness).front;
    return std::max(0.0, dot({normal_[0], normal_[1], normal_[2]}, way_to(place)) + softness) / (1 + softness);
}

}  // namespace poquito::plan
