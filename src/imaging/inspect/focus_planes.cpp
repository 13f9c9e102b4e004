#include "imaging/inspect/focus_planes.hpp"

#include "imaging/inspect/median.hpp"
#include "imaging/parallel.hpp"
#include "imaging/wide.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace poquito::imaging {
namespace {

/// Logarithm of the strength of fine detail `u` widths off focus, 0 in focus: as of a disc, whose spectrum falls with
/// the third power. From a table, for it is asked for a hundred million times; past its end all is drowned anyway.
class OffFocus {
  public:
    static constexpr float steps = 64, far = 24;  // to a width; widths
    OffFocus() {
        for (std::size_t i = 0; i < values_.size(); ++i) {
            const double at = static_cast<double>(i) / static_cast<double>(steps);
            values_[i] = static_cast<float>(-1.5 * std::log1p(at * at));
        }
    }
    const float* values() const { return values_.data(); }

  private:
    std::array<float, static_cast<std::size_t>(steps* far) + 2> values_{};
};
const OffFocus off_focus;

/// A tile's course through the frames: what it has above noise, as logarithms, and how much each tells.
struct Course {
    std::size_t tile = 0;
    double noise = 1;
    std::vector<float> log_detail;  // of detail above noise
    std::vector<float> weight;      // 0: drowned in noise there
    std::vector<float> told;        // `weight`, 0 where it was not seen
    std::vector<float> drowned;     // how much it tells that it drowned; 0 where it did not
    std::size_t peak = 0;           // frame in which it has most
    double depth = 0;               // as fitted
    float drowned_at = 0;           // logarithm of what drowns
    double spread = 0;              // steps that a slope within the tile widens its course by
    std::vector<float> fineness;    // logarithm of detail over that twice as wide, above noise; where both tell
};

constexpr float untold = std::numeric_limits<float>::quiet_NaN();

constexpr float not_seen = -1;  // weight

constexpr double stands_out = 2.5;  // times noise, in the frame that shows a tile best

struct Fit {
    double cost = 0;
    double depth = 0;
};

constexpr std::size_t most_told = 16;  // frames of a course that are looked at at once

/// A course about its peak; past the end of the run nothing tells anything, so that all are looked at at once.
struct Told {
    std::array<float, most_told> frames{};  // their places
    std::array<float, most_told> log_detail{};
    std::array<float, most_told> told{};
    std::array<float, most_told> drowned{};
};

/// How badly a tile explains its course, its strength chosen best. What drowned must be explained too. `per_step`:
/// frames' places to places of the table.
POQUITO_WIDE float cost_of_course(const Told& course, float depth, float per_step, float drowned_at) {
    float places[most_told], logs[most_told];
    const float* table = off_focus.values();
    constexpr float last = OffFocus::steps * OffFocus::far;
    // By themselves: a bound beside what is looked up by it would be a branch, and each place one by one.
    for (std::size_t f = 0; f < most_told; ++f)
        places[f] = std::min(last, std::abs(course.frames[f] - depth) * per_step);
    float sum = 0, weights = 0;
    POQUITO_SUMS(sum, weights)
    for (std::size_t f = 0; f < most_told; ++f) {
        const int i = static_cast<int>(places[f]);
        logs[f] = table[i] + (places[f] - static_cast<float>(i)) * (table[i + 1] - table[i]);
        sum += course.told[f] * (course.log_detail[f] - logs[f]);
        weights += course.told[f];
    }
    if (!(weights > 0)) return 0;
    const float strength = sum / weights;
    float cost = 0;
    POQUITO_SUMS(cost)
    for (std::size_t f = 0; f < most_told; ++f) {
        const float predicted = strength + logs[f];
        const float off = course.log_detail[f] - predicted, above = predicted - drowned_at;
        const float over = (above + std::abs(above)) / 2;  // never below 0
        cost += course.told[f] * off * off / (1 + off * off) + course.drowned[f] * over * over / (1 + over * over);
    }
    return cost;
}

/// A course beside the frames about its peak, at one width of the common curve.
class Window {
  public:
    Window(const Course& course, const std::vector<double>& frames, double width) : drowned_at_(course.drowned_at) {
        constexpr std::size_t reach = 7;  // frames to either side that tell
        const std::size_t from = course.peak > reach ? course.peak - reach : 0;
        const std::size_t count = std::min(frames.size(), course.peak + reach + 1) - from;
        for (std::size_t f = 0; f < count; ++f) told_.frames[f] = static_cast<float>(frames[from + f]);
        const auto copy = [&](const std::vector<float>& all, std::array<float, most_told>& to) {
            std::copy_n(all.begin() + static_cast<std::ptrdiff_t>(from), count, to.begin());
        };
        copy(course.log_detail, told_.log_detail);
        copy(course.told, told_.told);
        copy(course.drowned, told_.drowned);
        per_step_ = OffFocus::steps / static_cast<float>(std::hypot(width, course.spread));
    }
    /// Of the tile at that depth.
    double cost(double depth) const {
        return static_cast<double>(cost_of_course(told_, static_cast<float>(depth), per_step_, drowned_at_));
    }

  private:
    Told told_;
    float per_step_ = 1;
    float drowned_at_;
};

/// The best of the depths tried near where the course has its peak; `apart`: how finely.
struct Tried {
    Fit best{.cost = std::numeric_limits<double>::infinity()};
    double apart = 0;
};
Tried tried_near_peak(const Window& window, std::size_t peak, const std::vector<double>& frames, bool to_the_ends) {
    double low = frames[peak > 0 ? peak - 1 : 0], high = frames[std::min(peak + 1, frames.size() - 1)];
    // At an end of the run the peak may lie outside.
    const double outside = to_the_ends ? 6 : 1.2;
    if (peak == 0) low -= outside;
    if (peak + 1 == frames.size()) high += outside;
    const int steps = peak == 0 || peak + 1 == frames.size() ? 36 : 16;
    Tried tried{.apart = (high - low) / steps};
    // Every fourth, then halves about the best: the cost falls to both sides of it.
    constexpr int coarse = 4, half = coarse / 2;
    const auto look_at = [&](double depth) {
        const double cost = window.cost(depth);
        if (cost < tried.best.cost) tried.best = {.cost = cost, .depth = depth};
    };
    for (int i = 0; i <= steps; i += coarse) look_at(low + i * tried.apart);
    for (double way = half * tried.apart; way > 0.75 * tried.apart; way /= 2) {
        const double middle = tried.best.depth;
        if (middle - way >= low) look_at(middle - way);
        if (middle + way <= high) look_at(middle + way);
    }
    return tried;
}

double least_cost(const Course& course, const std::vector<double>& frames, double width) {
    return tried_near_peak(Window(course, frames, width), course.peak, frames, false).best.cost;
}

/// And between them, by the parabola through the best and its neighbours.
double fitted_depth(const Course& course, const std::vector<double>& frames, double width, bool to_the_ends) {
    const Window window(course, frames, width);
    const auto [best, apart] = tried_near_peak(window, course.peak, frames, to_the_ends);
    const double left = window.cost(best.depth - apart), right = window.cost(best.depth + apart);
    const double bend = left - 2 * best.cost + right;
    return bend > 1e-12 ? best.depth + std::clamp(0.5 * (left - right) / bend, -0.5, 0.5) * apart : best.depth;
}

class Fitter {
  public:
    Fitter(const DetailSeen& seen, const DetailSeen& wider) : seen_(seen), frames_(seen.frames.size()) {
        for (std::size_t f = 0; f < frames_.size(); ++f) frames_[f] = static_cast<double>(f);
        take_courses(wider);
    }

    bool has_enough() const { return courses_.size() >= 24 && frames_.size() >= 3; }

    FocusPlanes run() {
        find_width();
        constexpr int rough = 3, fine = 4;  // rounds
        for (int round = 0; round < rough + fine; ++round) {
            find_steps(round == 0 ? Tries::all : round < rough ? Tries::wide : Tries::near_by);
            if (round < rough) {
                find_spreads();
                find_width();
            }
        }
        FocusPlanes planes;
        in_median_steps();
        planes.frames = frames_;
        planes.width = width_;
        const auto& first = seen_.frames.front();
        planes.depth = CellMap(first.columns, first.rows);
        std::ranges::fill(planes.depth.values, std::numeric_limits<float>::quiet_NaN());
        planes.sharpest.assign(first.values.size(), frames_.size());
        const double usual_cost = cost_of(width_, 300) / looked_at(300);
        for_rows(static_cast<int>(courses_.size()), [&](int i) {
            Course& course = courses_[static_cast<std::size_t>(i)];
            course.depth = fitted_depth(course, frames_, width_, true);
        });
        learn_fineness();
        for_rows(static_cast<int>(courses_.size()), [&](int i) {
            Course& course = courses_[static_cast<std::size_t>(i)];
            course.depth = settled_depth(course, usual_cost);
        });
        weigh_steps(planes);
        for (const Course& course : courses_) {
            // Past the edge of the end frame nothing tells that the run should have gone on.
            const bool out_before = course.depth < frames_.front() && course.weight.front() == not_seen;
            const bool out_behind = course.depth > frames_.back() && course.weight.back() == not_seen;
            if (out_before || out_behind) continue;
            planes.depth.values[course.tile] = static_cast<float>(course.depth);
            planes.sharpest[course.tile] = course.peak;
        }
        planes.textured_share = static_cast<double>(courses_.size()) / static_cast<double>(first.values.size());
        return planes;
    }

  private:
    void take_courses(const DetailSeen& wider) {
        constexpr double drowned = 1.6;  // times noise
        const std::size_t tiles = seen_.noise.values.size();
        for (std::size_t tile = 0; tile < tiles; ++tile) {
            Course course{.tile = tile, .noise = std::max(0.02, static_cast<double>(seen_.noise.values[tile]))};
            double most = 0;
            for (std::size_t f = 0; f < frames_.size(); ++f) {
                const double detail = seen_.frames[f].values[tile];
                if (detail > most) most = detail, course.peak = f;
            }
            if (most < stands_out * course.noise) continue;
            for (std::size_t f = 0; f < frames_.size(); ++f) {
                const double detail = seen_.frames[f].values[tile];
                if (detail == unseen) {
                    course.log_detail.push_back(0);
                    course.weight.push_back(not_seen);
                    course.told.push_back(0);
                    course.drowned.push_back(0);
                    continue;
                }
                const bool tells = detail > drowned * course.noise;
                const double own = std::max(detail - course.noise, 1e-6);
                course.log_detail.push_back(static_cast<float>(std::log(own)));
                const double share = own / detail;
                course.weight.push_back(static_cast<float>(tells ? share * share : 0));
                course.told.push_back(course.weight.back());
                course.drowned.push_back(tells ? 0.0f : 0.5f);
            }
            course.drowned_at = static_cast<float>(std::log(0.5 * course.noise));
            const double wide_noise = std::max(0.02, static_cast<double>(wider.noise.values[tile]));
            for (std::size_t f = 0; f < frames_.size(); ++f) {
                const double wide = wider.frames[f].values[tile];
                const bool tells = course.weight[f] > 0 && wide > drowned * wide_noise;
                course.fineness.push_back(tells ? course.log_detail[f] - static_cast<float>(std::log(wide - wide_noise))
                                                : untold);
            }
            courses_.push_back(std::move(course));
        }
    }

    /// How much finer than coarse detail is, that far off focus: from those tiles that show both sides of their course.
    void learn_fineness() {
        std::vector<std::vector<double>> seen(fineness_.size());
        for (const Course& course : courses_) {
            if (course.depth < frames_.front() || course.depth > frames_.back()) continue;
            for (std::size_t f = 0; f < frames_.size(); ++f) {
                const auto bin =
                    static_cast<std::size_t>(std::lround(std::abs(frames_[f] - course.depth) * bins_a_step));
                if (bin < seen.size() && !std::isnan(course.fineness[f])) seen[bin].push_back(course.fineness[f]);
            }
        }
        constexpr std::size_t enough = 20;
        if (seen[0].size() < enough) return;
        fineness_[0] = median(seen[0]);
        for (std::size_t bin = 1; bin < seen.size(); ++bin)
            fineness_[bin] = seen[bin].size() < enough ? fineness_[bin - 1]
                                                       : std::min(fineness_[bin - 1], median(std::move(seen[bin])));
        for (double& value : seen[0]) value = std::abs(value - fineness_[0]);
        fineness_spread_ = std::max(0.05, 1.48 * median(std::move(seen[0])));
    }

    double fineness_at(double off) const {
        const double place = std::min(std::abs(off) * bins_a_step, static_cast<double>(fineness_.size()) - 1.001);
        const auto bin = static_cast<std::size_t>(place);
        return fineness_[bin] + (place - static_cast<double>(bin)) * (fineness_[bin + 1] - fineness_[bin]);
    }

    /// At an end only one side of a tile's course shows, which many depths explain about as well. How fine its detail
    /// is there, of what is usual in focus, tells them apart; within the run unless that and the course say otherwise.
    double settled_depth(const Course& course, double usual_cost) const {
        const bool at_first = course.peak == 0, at_last = course.peak + 1 == frames_.size();
        if (!at_first && !at_last) return course.depth;
        const double end = at_first ? frames_.front() : frames_.back(), outwards = at_first ? -1 : 1;
        const Window window(course, frames_, width_);
        const float fineness = course.fineness[course.peak];
        constexpr double clearly = 0.08;  // of what a tile costs
        const auto cost_beyond = [&](double steps) {
            const double depth = end + outwards * steps;
            double cost = window.cost(depth);
            if (fineness_spread_ > 0 && !std::isnan(fineness)) {
                const double off = (fineness - fineness_at(steps)) / fineness_spread_;
                cost += usual_cost * off * off / (1 + off * off);
            }
            return cost;
        };
        Fit inside{.cost = std::numeric_limits<double>::infinity()}, best;
        for (double steps = 1; steps > -0.01; steps -= 0.125)
            if (const double cost = cost_beyond(-steps); cost < inside.cost)
                inside = {.cost = cost, .depth = end - outwards * steps};
        best = inside;
        for (double steps = 0.25; steps < 6.01; steps += 0.25)
            if (const double cost = cost_beyond(steps); cost < best.cost)
                best = {.cost = cost, .depth = end + outwards * steps};
        return inside.cost - best.cost < clearly * usual_cost ? inside.depth : best.depth;
    }

    /// Of every so-and-so-manieth tile, which is enough for what all have in common.
    double cost_of(double width, std::size_t most) const {
        const std::size_t stride = std::max<std::size_t>(1, courses_.size() / most);
        double sum = 0;
        for (std::size_t i = 0; i < courses_.size(); i += stride) sum += least_cost(courses_[i], frames_, width);
        return sum;
    }

    /// A tile on a slope holds many depths at once: its course is the wider.
    void find_spreads() {
        const auto& first = seen_.frames.front();
        CellMap depth(first.columns, first.rows);
        std::ranges::fill(depth.values, std::numeric_limits<float>::quiet_NaN());
        for_rows(static_cast<int>(courses_.size()), [&](int i) {
            const Course& course = courses_[static_cast<std::size_t>(i)];
            depth.values[course.tile] = static_cast<float>(fitted_depth(course, frames_, width_, false));
        });
        for (Course& course : courses_) {
            const int x = static_cast<int>(course.tile) % depth.columns,
                      y = static_cast<int>(course.tile) / depth.columns;
            const auto slope = [&](int dx, int dy) {
                const int left = std::clamp(x - dx, 0, depth.columns - 1),
                          right = std::clamp(x + dx, 0, depth.columns - 1);
                const int top = std::clamp(y - dy, 0, depth.rows - 1), bottom = std::clamp(y + dy, 0, depth.rows - 1);
                const double change = depth.at(right, bottom) - depth.at(left, top);
                const int over = std::max(1, right - left + bottom - top);
                return std::isnan(change) ? 0.0 : change / over;
            };
            // Of an even spread over a tile, its deviation and half as much again (tried on made-up slopes).
            course.spread = 1.5 * std::hypot(slope(1, 0), slope(0, 1)) / std::sqrt(12.0);
        }
    }

    double looked_at(std::size_t most) const {
        const std::size_t stride = std::max<std::size_t>(1, courses_.size() / most);
        const std::size_t looked = (courses_.size() + stride - 1) / stride;
        return static_cast<double>(looked);
    }

    void find_width() {
        double best = std::numeric_limits<double>::infinity();
        for (double width = 0.25; width < 12; width *= 1.19) {
            const double cost = cost_of(width, 120);
            if (cost < best) best = cost, width_ = width;
        }
    }

    /// A step as all the others, 1, unless the tiles gain more by another than this many of them cost anyway: what few
    /// or noisy tiles say of it counts little. Frames are left out or lost, but hardly ever taken where one was before.
    static double doubt(double step) {
        constexpr double wide = 0.45, few = 4;
        const double off = std::log(step) / wide;
        return few * (off < 0 ? off * off : std::min(1.0, off * off));
    }

    /// Each distance between two frames by those tiles that are sharpest about it, all other distances as they are.
    enum class Tries { all, wide, near_by };
    void find_steps(Tries tries) {
        const std::size_t steps = frames_.size() - 1;
        std::vector<double> found(steps), now_steps;
        for (std::size_t f = 0; f < steps; ++f) now_steps.push_back(frames_[f + 1] - frames_[f]);
        const double unit = median(std::move(now_steps));
        const double usual_cost = cost_of(width_, 300) / looked_at(300);
        for_each_of(static_cast<int>(steps), [&](int i) {
            const auto after = static_cast<std::size_t>(i);
            const auto near = near_step(after);
            const double now = frames_[after + 1] - frames_[after];
            found[after] = now;
            if (near.size() < 6) return;
            const std::size_t stride = std::max<std::size_t>(1, near.size() / 64);
            double best = std::numeric_limits<double>::infinity();
            std::vector<double> tried = frames_;
            // Once from end to end, then about what was found.
            const double about = tries == Tries::wide ? 1.5 : 1.18, factor = tries == Tries::near_by ? 1.05
                                                                             : tries == Tries::wide  ? 1.13
                                                                                                     : 1.22;
            const double first = tries == Tries::all ? 0.2 : now / about, last = tries == Tries::all ? 6 : now * about;
            for (double step = first; step < last; step *= factor) {
                for (std::size_t f = after + 1; f < tried.size(); ++f) tried[f] = frames_[f] + step - now;
                double cost = 0;
                for (std::size_t k = 0; k < near.size(); k += stride)
                    cost += least_cost(courses_[near[k]], tried, width_);
                cost += usual_cost * doubt(step / unit) / static_cast<double>(stride);
                if (cost < best) best = cost, found[after] = step;
            }
        });
        // Half way, as neighbours were sought for each other's old places.
        std::vector<double> before = frames_;
        for (std::size_t f = 0; f < steps; ++f)
            frames_[f + 1] = frames_[f] + std::sqrt(found[f] * (before[f + 1] - before[f]));
    }

    /// Those courses that are sharpest about a step.
    std::vector<std::size_t> near_step(std::size_t after) const {
        std::vector<std::size_t> near;
        constexpr std::size_t about = 2;  // frames
        for (std::size_t k = 0; k < courses_.size(); ++k)
            if (courses_[k].peak + about > after && courses_[k].peak <= after + about) near.push_back(k);
        return near;
    }

    /// What each step would be by its tiles alone, whatever the others are, and what they gain by that.
    void weigh_steps(FocusPlanes& planes) const {
        const std::size_t steps = frames_.size() - 1;
        planes.free_steps.assign(steps, 1);
        planes.gains.assign(steps, 0);
        const double usual_cost = cost_of(width_, 300) / looked_at(300);
        for_each_of(static_cast<int>(steps), [&](int i) {
            const auto after = static_cast<std::size_t>(i);
            auto near = near_step(after);
            // What lies outside the run says nothing of its end steps.
            std::erase_if(near, [&](std::size_t k) {
                return courses_[k].depth < frames_.front() || courses_[k].depth > frames_.back();
            });
            // A step is told by what lies to both sides of it.
            const auto before = static_cast<std::size_t>(
                std::ranges::count_if(near, [&](std::size_t k) { return courses_[k].peak <= after; }));
            constexpr std::size_t enough = 5;
            if (before < enough || near.size() - before < enough) return;
            const std::size_t stride = std::max<std::size_t>(1, near.size() / 160);
            std::vector<double> tried = frames_;
            const auto cost_by = [&](double step) {
                const double more = step - (frames_[after + 1] - frames_[after]);
                for (std::size_t f = after + 1; f < tried.size(); ++f) tried[f] = frames_[f] + more;
                double cost = 0;
                for (std::size_t k = 0; k < near.size(); k += stride)
                    cost += least_cost(courses_[near[k]], tried, width_);
                return cost;
            };
            const double as_usual = cost_by(1);
            double best = as_usual, at = 1;
            const auto look_at = [&](double step) {
                if (const double cost = cost_by(step); cost < best) best = cost, at = step;
            };
            constexpr double apart = 1.17;
            for (double step = 0.3; step < 6; step *= apart) look_at(step);
            for (const double step : {at / std::sqrt(apart), at * std::sqrt(apart)}) look_at(step);
            planes.free_steps[after] = at;
            const std::size_t looked = (near.size() + stride - 1) / stride;
            const auto tiles = static_cast<double>(looked);
            const double doubted = doubt(planes.free_steps[after]) / static_cast<double>(stride);
            planes.gains[after] = ((as_usual - best) / std::max(usual_cost, 1e-9) - doubted) / tiles;
        });
    }

    void in_median_steps() {
        std::vector<double> steps;
        for (std::size_t f = 0; f + 1 < frames_.size(); ++f) steps.push_back(frames_[f + 1] - frames_[f]);
        const double unit = median(std::move(steps));
        for (double& frame : frames_) frame /= unit;
        for (Course& course : courses_) course.spread /= unit;
        width_ /= unit;
    }

    const DetailSeen& seen_;
    std::vector<double> frames_;
    double width_ = 1;
    std::vector<Course> courses_;
    static constexpr int bins_a_step = 2;
    std::array<double, 6 * bins_a_step + 2> fineness_{};  // by steps off focus
    double fineness_spread_ = 0;                          // from tile to tile; 0: not known
};

/// Those that lie outside by more than `least` steps and hang together with the run: nowhere a hole of more than this.
template <typename Beyond>
double open_share(const CellMap& depth, double least, const Beyond& beyond) {
    constexpr double hole = 4;  // steps
    std::vector<double> sorted;
    std::size_t all = 0;
    for (const float at : depth.values) {
        if (std::isnan(at)) continue;
        ++all;
        if (const double by = beyond(at); by > 0) sorted.push_back(by);
    }
    std::ranges::sort(sorted);
    double reached = 0;
    std::size_t open = 0;
    for (const double by : sorted) {
        if (by - reached > hole) break;
        reached = by;
        if (by > least) ++open;
    }
    return all > 0 ? static_cast<double>(open) / static_cast<double>(all) : 0;
}

}  // namespace

double FocusPlanes::lost() const { return 1.3 * width - 1.6; }

double FocusPlanes::open_before() const {
    return open_share(depth, std::max(1.0, lost() / 2), [first = frames.front()](double at) { return first - at; });
}

double FocusPlanes::open_behind() const {
    return open_share(depth, std::max(1.0, lost() / 2), [last = frames.back()](double at) { return at - last; });
}

double disc_at_width(double detail, double cutoff) {
    constexpr double sharp = 3, diffraction = 1.55;  // px; fitted to the integral, within 3 %
    return std::hypot(sharp * detail, diffraction / cutoff);
}

double told_share(const DetailSeen& seen) {
    std::size_t told = 0;
    for (std::size_t tile = 0; tile < seen.noise.values.size(); ++tile)
        told += std::ranges::any_of(seen.frames, [&](const CellMap& frame) {
            return frame.values[tile] > stands_out * std::max(0.02f, seen.noise.values[tile]);
        });
    return static_cast<double>(told) / static_cast<double>(std::max<std::size_t>(1, seen.noise.values.size()));
}

std::optional<FocusPlanes> focus_planes(const DetailSeen& seen, const DetailSeen& wider) {
    if (seen.frames.size() < 3) return std::nullopt;
    Fitter fitter(seen, wider);
    if (!fitter.has_enough()) return std::nullopt;
    return fitter.run();
}

}  // namespace poquito::imaging
