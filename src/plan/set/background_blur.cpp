#include "plan/set/background_blur.hpp"

#include "plan/plan.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

namespace poquito::plan {

Recognition recognition(double blur_over_detail) {
    if (blur_over_detail < 0.25) return Recognition::sharp;
    if (blur_over_detail < 1) return Recognition::recognised;
    return blur_over_detail < melts_from ? Recognition::soft_shape : Recognition::melted;
}

const char* recognition_text(Recognition recognition) {
    constexpr const char* texts[] = {"is sharp", "is recognised", "is a soft shape", "melts away"};
    return texts[static_cast<int>(recognition)];
}

std::optional<double> melting_f_number(const Plan& plan) {
    if (!plan.shot.background) return std::nullopt;
    const double behind = background_behind_focus(plan);
    if (!(plan.at.magnification > 0) || behind <= 0) return std::nullopt;
    return plan.at.magnification * behind / (melts_from * plan.shot.background->detail) / plan.working_factor;
}

std::optional<double> melting_distance(const Plan& plan) {
    const shoot::Shot& shot = plan.shot;
    if (!shot.background) return std::nullopt;
    if (!(plan.at.magnification > 0)) return std::nullopt;
    return melts_from * shot.background->detail * working_f_number(plan, shot.exposure.f_number) /
               plan.at.magnification +
           plan.focus;
}

std::string background_sentence(const Plan& plan, const Report& report) {
    const shoot::Shot& shot = plan.shot;
    if (!shot.background) return "No background is planned: nothing is said about what stands behind.";
    const auto& sharpness = report.sharpness;
    if (!sharpness.background_disc) return "A point of the background makes no disc here.";
    const auto melting = melting_f_number(plan);
    const auto& lens = plan.lens.optics;
    std::string text = fmt::format("A point of it becomes a disc of {} % of the frame's width; a detail of {} {}.",
                                   text::number_text(*sharpness.background_disc_share * 100, 2),
                                   text::length_text(shot.background->detail),
                                   recognition_text(recognition(*sharpness.background_blur_over_detail)));
    if (!melting) return text + " It lies in the plane of focus.";
    if (*melting >= lens.max_aperture)
        return text +
               fmt::format(" It melts away from {} on.", text::f_number_text(std::min(*melting, lens.min_aperture)));
    return text + fmt::format(" No stop of this lens melts it at that distance; at {} it takes {} behind.",
                              text::f_number_text(shot.exposure.f_number), text::length_text(*melting_distance(plan)));
}

}  // namespace poquito::plan
