#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "shoot/limits.hpp"

#include <array>
#include <cmath>
#include <optional>
#include <vector>

/// The one measure of a plan, from which plans, notes and remedies all follow: what a photographer weighs when a shot
/// cannot have everything. Source: MODEL 13; the values are common practice, see docs/model.md.
namespace poquito::advice {

enum class Quality {
    sharp,       // what has to be sharp, and its detail
    noise,       // shadows without grain
    odds,        // that one good frame comes of it within patience
    time,        // patience
    exposure,    // as bright as it is wanted
    highlights,  // what is to keep its detail
    ghost,       // no second, drawn-out picture beside that of the flash
    sync,        // light that high-speed sync leaves
    softness,    // of what lies behind and of what may be soft
    ground,      // its tone
    contrast,    // from the lit side to the other
    bloom,       // no halos where bright stands before dark
    colour,      // one white
    lit,         // by flash or by what is there, as wished
    movement,    // drawn, as wished
    possible     // it can be taken at all; kept is 0 or 1: a real edge
};
inline constexpr int qualities = 16;

/// One row of the table of MODEL 13.
struct QualityRow {
    Quality quality;
    const char* id;                 // stable, for files and scripts: "sharp"
    const char* name;               // "Sharpness"
    const char* unit;               // of its measure
    double felt;                    // the measure of which nine tenths are kept
    double spoilt;                  // and a tenth
    std::optional<shoot::Loss> by;  // what of the order of giving up moves its weight
};
const std::array<QualityRow, qualities>& quality_rows();
const QualityRow& row_of(Quality quality);

struct WorthPart {
    Quality quality = Quality::possible;
    double measure = 0;  // 0 and more, in the row's unit; of odds the chance to have one within patience
    double kept = 1;     // 0 to 1
    double weight = 1;
    double felt = 0;        // the measure of which nine tenths are kept: the row's, or what a wish makes of it
    double spoilt = 0;      // and a tenth
    double factor() const;  // of worth: kept to the power of weight
};

struct Worth {
    double worth = 0;                        // product of the factors, 0 to 1
    std::array<WorthPart, qualities> parts;  // in the order of Quality
    double minutes = 0;                      // that it takes until there is a good one, see time
    double patience = 0;                     // minutes
    double tries = 1;                        // until there is one with a chance of 95 %, within patience
    double one_try = 1;                      // chance of one
    double most_tries = 1;                   // that there is patience for

    const WorthPart& part(Quality quality) const { return parts[static_cast<std::size_t>(quality)]; }
    double kept(Quality quality) const { return part(quality).kept; }
};

/// `change`: minutes that go by until it is set up so, besides what any such picture takes: a flash out of the bag, a
/// stand. Pure.
Worth worth_of(const plan::Plan& plan, const plan::Report& report, double change);
inline Worth worth_of(const plan::Plan& plan, const plan::Report& report) { return worth_of(plan, report, 0); }

/// Stops as an exposure ratio; 0 where there is no light.
inline double ratio_of(const std::optional<double>& stops) { return stops ? std::exp2(*stops) : 0; }

/// Of the light that is there what the picture shows of the subject, off its front and through it, as an exposure
/// ratio.
inline double ambient_shown(const plan::LightReport& light) {
    return ratio_of(light.ambient_front) + ratio_of(light.ambient_through);
}

/// Kept less than this is missed, and said.
inline constexpr double missed = 0.8;

/// Of two worths the difference that decides something: less is a tie (MODEL 13).
inline constexpr double tie = 0.03;

/// Stops that the front is brighter than it is to be: than a correct exposure, or than what is wished. Empty: no light.
std::optional<double> off_wanted(const plan::Plan& plan, const plan::Report& report);

/// What the person's order of giving up makes of the weight; 1 where none is stated.
double weight_of(const QualityRow& row, const shoot::Limits& limits);

/// Whether it can be taken at all; what cannot has no worth.
bool is_possible(const plan::Plan& plan, const plan::Report& report);

/// Minutes of the limits, else 30 on a stand and 5 by hand (common practice: ten make any odds good enough); no longer
/// than an animal stays.
double patience_of(const plan::Plan& plan);

/// ISO from which a camera's noise begins to count: three stops under what it takes clean, which is 800 on full frame,
/// 400 on APS-C and 200 on smaller sensors (common practice).
double noise_base(const optics::Sensor& sensor);

}  // namespace poquito::advice
