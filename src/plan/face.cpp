#include "plan/face.hpp"

#include "light/direction.hpp"
#include "light/space.hpp"
#include "shoot/form.hpp"
#include "shoot/last_few.hpp"

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
constexpr double nothing = 1e6;  // mm behind: beside the form

}  // namespace

/// Points of the face, evenly as the camera sees them.
struct Face::Net {
    struct Sample {
        double x = 0, y = 0, z = 0;
        shoot::Point3 normal;
    };
    double half_width = 1, half_height = 1;
    std::vector<Sample> samples;
    std::vector<double> depths;  // cells x cells, `nothing` beside the form
    double from_camera = 1;      // mean light of the same form, untilted and lit from the camera

    FaceLight lit_from(const light::Position& place, double softness) const;

  private:
    struct Known {
        double azimuth = 0, elevation = 0, softness = -1;
        FaceLight light;
    };
    double clear(std::size_t sample, const Way& way, double softness) const;
    double depth_at(double x, double y) const;
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
    static shoot::LastFew<shoot::Subject, Face::Net, 64> kept;
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
            net->depths[static_cast<std::size_t>(j) * cells + static_cast<std::size_t>(i)] = hit->z;
            net->samples.push_back({.x = x, .y = y, .z = hit->z, .normal = hit->normal});
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

double Face::Net::depth_at(double x, double y) const {
    const auto grid = [](double value, double half) {
        return std::clamp((value / half + 1) / 2 * cells - 0.5, 0.0, cells - 1.001);
    };
    const double u = grid(x, half_width), v = grid(y, half_height);
    const int i = static_cast<int>(u), j = static_cast<int>(v);
    const double fx = u - i, fy = v - j;
    const double* low = depths.data() + static_cast<std::size_t>(j) * cells + static_cast<std::size_t>(i);
    return (low[0] * (1 - fx) + low[1] * fx) * (1 - fy) + (low[cells] * (1 - fx) + low[cells + 1] * fx) * fy;
}

void Face::Net::see_horizons() const {
    horizons_.resize(samples.size() * bearings);
    for (std::size_t i = 0; i < samples.size(); ++i)
        for (int k = 0; k < bearings; ++k) {
            const double bearing = k * 2 * pi / bearings, dx = std::cos(bearing), dy = std::sin(bearing);
            // A cell of the net at a time, whatever the subject's shape.
            const double cell = 2.0 / cells / std::max(std::abs(dx) / half_width, std::abs(dy) / half_height);
            const Sample& from = samples[i];
            double steepest = -1e9;
            for (double far = cell;; far += cell) {
                const double x = from.x + far * dx, y = from.y + far * dy;
                if (std::abs(x) > half_width || std::abs(y) > half_height) break;
                steepest = std::max(steepest, (from.z - depth_at(x, y)) / far);
            }
            horizons_[i * bearings + static_cast<std::size_t>(k)] = static_cast<float>(std::atan(steepest));
        }
}

/// The share of the source that a point of the face sees over the rest of the subject.
double Face::Net::clear(std::size_t sample, const Way& way, double softness) const {
    const double across = std::hypot(way.x, way.y);
    if (across < 1e-6) return 1;
    constexpr double least_half = 0.02;  // rad: a shadow's edge is as soft as the net is coarse
    const double half = std::max(std::asin(std::clamp(softness, 0.0, 1.0)), least_half);
    const double place = (std::atan2(way.y, way.x) / (2 * pi) + 1) * bearings;
    const auto before = static_cast<std::size_t>(place);
    const auto share_past = static_cast<float>(place - static_cast<double>(before));
    const float* all_round = horizons_.data() + sample * bearings;
    const float horizon =
        all_round[before % bearings] * (1 - share_past) + all_round[(before + 1) % bearings] * share_past;
    const double share = std::clamp((std::atan2(-way.z, across) - horizon) / (2 * half) + 0.5, 0.0, 1.0);
    return share * share * (3 - 2 * share);
}

FaceLight Face::Net::looked_up(const light::Position& place, double softness) const {
    const Way way = way_to(place);
    std::call_once(seen_, [this] { see_horizons(); });
    double sum = 0, reached = 0;
    for (std::size_t i = 0; i < samples.size(); ++i) {
        const double lit = std::max(0.0, dot(samples[i].normal, way) + softness) / (1 + softness);
        if (!(lit > 0)) continue;
        const double seen = clear(i, way, softness);
        sum += lit * seen;
        reached += seen;
    }
    if (samples.empty()) return {};
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
