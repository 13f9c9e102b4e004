#include "optics/aperture.hpp"

#include <cmath>

namespace poquito::optics {

double working_factor(const Train& train, const FocusedTrain& at) {
    const double to_pupil = at.focal_length * (train.lens.pupil_magnification + at.lens_magnification);
    const double tubes = (to_pupil + train.tubes) / to_pupil;  // exit pupil to image, after over before the tubes
    return own_f_number(train, at, 1) * tubes * (train.converter ? train.converter->factor : 1);
}

double own_f_number(const Train& train, const FocusedTrain& at, double marked_f_number) {
    const Lens& lens = train.lens;
    if (lens.closest_working_f_number)
        return marked_f_number * (1 + at.ring * (*lens.closest_working_f_number / lens.max_aperture - 1));
    return marked_f_number * (1 + at.lens_magnification / lens.pupil_magnification);
}

double working_f_number(const Train& train, const FocusedTrain& at, double marked_f_number) {
    return marked_f_number * working_factor(train, at);
}

double exposure_loss(const Train& train, const FocusedTrain& at) { return 2 * std::log2(working_factor(train, at)); }

EntrancePupil entrance_pupil(const Train& train, const FocusedTrain& at, double marked_f_number) {
    const double p = train.lens.pupil_magnification;
    return {.diameter = at.focal_length * (1 + at.lens_magnification / p) / own_f_number(train, at, marked_f_number),
            .behind_rim = at.principal - at.focal_length * (1 - 1 / p)};
}

}  // namespace poquito::optics
