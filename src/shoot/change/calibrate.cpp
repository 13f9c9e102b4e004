#include "shoot/change/calibrate.hpp"

#include "optics/train.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>

namespace poquito::shoot {
namespace {

template <typename Function>
std::optional<double> solve(const Function& excess, double low, double high) {
    const double at_low = excess(low), at_high = excess(high);
    if (!std::isfinite(at_low) || !std::isfinite(at_high) || at_low * at_high > 0) return std::nullopt;
    std::uintmax_t iterations = 200;
    const auto bracket = boost::math::tools::toms748_solve(excess, low, high, at_low, at_high,
                                                           boost::math::tools::eps_tolerance<double>(48), iterations);
    return (bracket.first + bracket.second) / 2;
}

/// The rig's magnification if the lens's own at that ring position were this.
double whole_with(optics::Train train, double ring, double own) {
    auto& readings = train.lens.readings;
    std::erase_if(readings, [&](const optics::RingReading& reading) { return reading.ring == ring; });
    readings.push_back({.ring = ring, .magnification = own});
    std::ranges::sort(readings, {}, &optics::RingReading::ring);
    return optics::focus_at_ring(train, ring).magnification;
}

void replace(gear::Lens& lens, gear::Calibration made) {
    std::erase_if(lens.calibrations, [&](const gear::Calibration& old) {
        return old.what == made.what && (made.what != gear::Measured::magnification || old.ring == made.ring) &&
               old.focal_length == made.focal_length;
    });
    lens.calibrations.push_back(std::move(made));
}

const gear::Calibration* find_calibration(const gear::Lens& lens, gear::Measured what) {
    const auto found = std::ranges::find(lens.calibrations, what, &gear::Calibration::what);
    return found == lens.calibrations.end() ? nullptr : &*found;
}

constexpr double least_own = 1e-5, greatest_own = 50;

}  // namespace

std::optional<Measurement> lens_part(const gear::Kit& kit, const Rig& rig, double ring, const Measurement& whole) {
    const auto train = train_of(kit, rig);
    const auto excess = [&](double own) { return whole_with(train, ring, own) - whole.value; };
    const auto own = solve(excess, least_own, greatest_own);
    if (!own) return std::nullopt;
    const double by = *own * 1e-4;
    const double slope = (excess(*own + by) - excess(*own - by)) / (2 * by);
    return Measurement{.value = *own, .uncertainty = whole.uncertainty / std::abs(slope)};
}

double believed_magnification(const gear::Kit& kit, const Rig& rig, double ring) {
    auto train = train_of(kit, rig);
    train.lens.readings.clear();
    return optics::focus_at_ring(train, ring).magnification;
}

void store_reading(gear::Lens& lens, const Reading& reading) {
    auto record = gear::optics_of(lens, reading.focal_length);
    record.readings.clear();
    replace(lens, {.what = gear::Measured::magnification,
                   .ring = reading.ring,
                   .value = reading.magnification.value,
                   .uncertainty = reading.magnification.uncertainty,
                   .believed = optics::lens_magnification(record, reading.ring),
                   .focal_length = reading.focal_length,
                   .time = reading.time});
}

void store_displayed_aperture(gear::Lens& lens, const Measurement& f_number, const std::string& time) {
    const auto* before = find_calibration(lens, gear::Measured::displayed_aperture);
    const auto believed = before ? before->believed : lens.optics.closest_working_f_number;
    replace(lens, {.what = gear::Measured::displayed_aperture,
                   .value = f_number.value,
                   .uncertainty = f_number.uncertainty,
                   .believed = believed,
                   .time = time});
    lens.optics.closest_working_f_number = f_number.value;
}

std::optional<SharpResult> from_sharp_distances(const optics::Lens& lens, const SharpDistances& measured) {
    const double m = optics::lens_magnification(lens, 1);
    const auto difference = [&](double f) {
        const double extended = m + measured.extension / f;
        return f * ((extended + 1 / extended) - (m + 1 / m));
    };
    const auto focal_for = [&](const SharpDistances& at) {
        return solve([&](double f) { return difference(f) - (at.extended - at.bare); }, 1, 2000);
    };
    const auto focal = focal_for(measured);
    if (!focal) return std::nullopt;
    const double sum = 2 + m + 1 / m;
    SharpResult result{.focal_length = {.value = *focal}, .hiatus = {.value = measured.bare - *focal * sum}};
    // How far the result moves when either distance is off by its uncertainty.
    const auto moved = [&](double bare, double extended) {
        SharpDistances off = measured;
        off.bare += bare;
        off.extended += extended;
        const auto other = focal_for(off).value_or(*focal);
        return std::pair(other - *focal, off.bare - other * sum - result.hiatus.value);
    };
    const auto [f_bare, h_bare] = moved(measured.uncertainty, 0);
    const auto [f_extended, h_extended] = moved(0, measured.uncertainty);
    result.focal_length.uncertainty = std::hypot(f_bare, f_extended);
    result.hiatus.uncertainty = std::hypot(h_bare, h_extended);
    return result;
}

void store_sharp_distances(gear::Lens& lens, const SharpDistances& measured, const SharpResult& result,
                           const std::string& time) {
    auto& optics = lens.optics;
    const bool unit = optics.focusing == optics::Focusing::unit;
    double& second = unit ? optics.focal_length : optics.hiatus;
    const auto* before = find_calibration(lens, gear::Measured::sharp_distances);
    gear::Calibration made{.what = gear::Measured::sharp_distances,
                           .value = measured.bare,
                           .uncertainty = measured.uncertainty,
                           .believed = before ? before->believed : optics.closest_focus,
                           .second_value = unit ? result.focal_length.value : result.hiatus.value,
                           .second_believed = before ? before->second_believed : second,
                           .time = time};
    optics.closest_focus = measured.bare;
    second = *made.second_value;
    replace(lens, std::move(made));
}

void forget_calibration(gear::Lens& lens, std::size_t index) {
    const gear::Calibration gone = lens.calibrations[index];
    lens.calibrations.erase(lens.calibrations.begin() + static_cast<std::ptrdiff_t>(index));
    auto& optics = lens.optics;
    if (gone.what == gear::Measured::displayed_aperture) optics.closest_working_f_number = gone.believed;
    if (gone.what != gear::Measured::sharp_distances) return;
    if (gone.believed) optics.closest_focus = *gone.believed;
    if (gone.second_believed)
        (optics.focusing == optics::Focusing::unit ? optics.focal_length : optics.hiatus) = *gone.second_believed;
}

std::string calibration_text(const gear::Lens& lens, const gear::Calibration& calibration) {
    const auto compared = [&](const std::string& unit) {
        if (!calibration.believed) return std::string("not in the record before");
        const double share = calibration.value / *calibration.believed - 1;
        return fmt::format("record {}{} ({} % {})", text::number_text(*calibration.believed), unit,
                           text::number_text(std::abs(share) * 100, 2), share < 0 ? "less" : "more");
    };
    const auto value = [&](const std::string& unit) {
        return fmt::format("{} \u00b1 {}{}", text::number_text(calibration.value, 4),
                           text::number_text(calibration.uncertainty, 2), unit);
    };
    switch (calibration.what) {
        case gear::Measured::magnification: {
            const auto at =
                calibration.focal_length ? fmt::format(", {} mm", text::number_text(*calibration.focal_length)) : "";
            return fmt::format("Magnification at ring {}{}: {}, {}", text::number_text(calibration.ring), at, value(""),
                               compared(""));
        }
        case gear::Measured::displayed_aperture:
            return fmt::format("Working aperture at closest focus: f/{}, {}", value(""), compared(""));
        case gear::Measured::sharp_distances:
            break;
    }
    const bool unit = lens.optics.focusing == optics::Focusing::unit;
    return fmt::format("Closest focus: {}, {}; {} {} mm, record {} mm", value(" mm"), compared(" mm"),
                       unit ? "focal length" : "hiatus", text::number_text(calibration.second_value.value_or(0), 4),
                       text::number_text(calibration.second_believed.value_or(0), 4));
}

}  // namespace poquito::shoot
