#include "gear/kit.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::gear {

std::optional<double> zoom_position(const Lens& lens, std::optional<double> focal_length) {
    if (lens.zoom.empty()) return std::nullopt;
    return std::clamp(focal_length.value_or(lens.optics.focal_length), lens.zoom.front().focal_length,
                      lens.zoom.back().focal_length);
}

optics::Lens optics_of(const Lens& lens, std::optional<double> focal_length) {
    optics::Lens optics = lens.optics;
    const auto position = zoom_position(lens, focal_length);
    if (position) {
        const auto above = std::ranges::lower_bound(lens.zoom, *position, {}, &ZoomSetting::focal_length);
        const ZoomSetting& high = *above;
        const ZoomSetting& low = above == lens.zoom.begin() ? high : *(above - 1);
        const double span = high.focal_length - low.focal_length;
        const double part = span > 0 ? (*position - low.focal_length) / span : 0;
        optics.focal_length = *position;
        optics.max_aperture = std::lerp(low.max_aperture, high.max_aperture, part);
        optics.closest_focus = std::lerp(low.closest_focus, high.closest_focus, part);
        optics.max_magnification = std::lerp(low.max_magnification, high.max_magnification, part);
        optics.length = std::lerp(low.length, high.length, part);
    }
    for (const Calibration& calibration : lens.calibrations)
        if (calibration.what == Measured::magnification && calibration.focal_length == position)
            optics.readings.push_back({.ring = calibration.ring, .magnification = calibration.value});
    std::ranges::sort(optics.readings, {}, &optics::RingReading::ring);
    return optics;
}

std::optional<FlashTime> flash_time(const Flash& flash, double power) {
    const auto stated = light::duration_at(flash.durations, power);
    if (!stated && flash.durations.empty()) {
        constexpr double at_full = 1.0 / 1000;  // s, in proportion to power below
        const double lasts = at_full * power;
        return FlashTime{.t05 = lasts / light::t01_from_t05(light::Discharge::decay, 1), .t01 = lasts, .assumed = true};
    }
    if (!stated) return std::nullopt;
    const double longer = light::t01_from_t05(flash.discharge, 1);
    switch (flash.durations_mean) {
        case DurationMeans::t01:
            return FlashTime{.t05 = *stated / longer, .t01 = *stated};
        case DurationMeans::unknown:
            return FlashTime{.t05 = *stated, .t01 = light::t01_from_t05(light::Discharge::decay, *stated)};
        case DurationMeans::t05:
            break;
    }
    return FlashTime{.t05 = *stated, .t01 = *stated * longer};
}

}  // namespace poquito::gear

template class std::vector<poquito::gear::CropMode>;
template class std::vector<poquito::gear::StepReading>;
template class std::vector<poquito::gear::ZoomSetting>;
template class std::vector<poquito::gear::Calibration>;
template class std::vector<poquito::gear::Camera>;
template class std::vector<poquito::gear::Lens>;
template class std::vector<poquito::gear::Tube>;
template class std::vector<poquito::gear::CloseupLens>;
template class std::vector<poquito::gear::Teleconverter>;
template class std::vector<poquito::gear::Bellows>;
template class std::vector<poquito::gear::ReversingRing>;
template class std::vector<poquito::gear::CouplingRing>;
template class std::vector<poquito::gear::StepRing>;
template class std::vector<poquito::gear::Rail>;
template class std::vector<poquito::gear::Stand>;
template class std::vector<poquito::gear::Flash>;
template class std::vector<poquito::gear::Lamp>;
template class std::vector<poquito::gear::Modifier>;
template class std::vector<poquito::gear::Filter>;
template class std::vector<poquito::gear::Card>;
template class std::vector<poquito::gear::Hold>;
