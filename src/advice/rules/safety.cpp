#include "advice/rules/rules.hpp"
#include "plan/light/lighting.hpp"

#include <fmt/format.h>

#include <algorithm>

/// The usual cautions, each only where the plan makes it matter (BRIEF, safety). They defer to local codes, to licensed
/// practice and to the house rules of whoever is responsible for the place.
namespace poquito::advice {
namespace {

using Found = std::optional<Finding>;

bool has(const plan::Plan& plan, const char* trait) { return shoot::has_trait(plan.shot.subject, trait); }
bool flashed(const plan::Plan& plan) {
    return std::ranges::any_of(plan.sources, [](const plan::Source& source) { return source.is_flash(); });
}

bool any_light(const plan::Plan& plan, bool (*fits)(const plan::Source&)) {
    return std::ranges::any_of(plan.sources, fits);
}
bool fed_from_mains(const plan::Source& source) {
    return source.flash ? !source.flash->charge : source.lamp && source.lamp->mains;
}
bool is_hot(const plan::Source& source) { return source.lamp && source.lamp->hot; }

Found flash_at_person(const plan::Plan& plan, const plan::Report& report) {
    if (!has(plan, "person")) return {};
    // Teeth and skin, not a face or a hand (common practice).
    constexpr double of_a_part = 0.2;
    const bool part = report.optics.magnification >= of_a_part;
    if (!flashed(plan) && !part) return {};
    return Finding{
        fmt::format("{}{}{}",
                    flashed(plan) ? "Flash close to a person: eyes shut or turned away, and ask about "
                                    "photosensitive epilepsy first."
                                  : "",
                    flashed(plan) && part ? " " : "",
                    part ? "Dental and medical pictures follow the practice's own hygiene and consent rules." : "")};
}

Found flash_at_animal(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "living") || !flashed(plan)) return {};
    return Finding{
        "Flash close to an animal's eyes: as few flashes and as little power as the picture allows. "
        "Leave those alone that sleep, brood or feed; what is disturbed twice does not come back."};
}

Found liquid_near_mains(const plan::Plan& plan, const plan::Report&) {
    const bool splashes = plan.shot.freeze && plan.shot.freeze->act == shoot::Act::splash;
    if ((!has(plan, "liquid") && !splashes) || !any_light(plan, fed_from_mains)) return {};
    return Finding{
        "Liquid near mains-fed lights: residual-current protection, cables and sockets above the splash line, "
        "power off before wiping. Local electrical codes come first."};
}

Found food_is_eaten(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "food")) return {};
    return Finding{
        "Food that is to be eaten: clean glass and props, nothing inedible on it, lamps not left to warm it."};
}

Found breakable_near(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "breakable")) return {};
    return Finding{
        "Breakable subject: support it so that a knocked stand or a slipping rail cannot push it over the "
        "edge; splinters go into a closed bin."};
}

Found outdoors(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "outdoors")) return {};
    constexpr double sunlit = 13;  // EV at ISO 100; full sun is 15 (ISO 2720)
    if (plan.shot.ambient && plan.shot.ambient->ev100 >= sunlit)
        return Finding{
            "In sunlight never aim the lens at or near the sun, by eye or on the sensor. Mind stings, ticks and "
            "plants where you kneel."};
    return Finding{"Outdoors: mind stings, ticks and plants where you kneel, and the ground under the tripod."};
}

Found boom_over_subject(const plan::Plan& plan, const plan::Report&) {
    // With the camera in the hand its flash is on it.
    const bool by_hand = plan.shot.rig.support == shoot::Support::hand;
    for (const shoot::Light& light : plan.shot.lights)
        if (light.modifier && light.position.elevation >= 50 && !(by_hand && plan::is_flash(light)))
            return Finding{
                "A lamp hangs over the set: weigh the stand down and secure the head before anything valuable "
                "or anyone comes under it."};
    return {};
}

Found dye_stains(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "dye")) return {};
    return Finding{
        "Dyes and stains: gloves, the floor and the gear covered, a labelled vessel that nobody drinks from, "
        "and wash it off skin at once."};
}

Found electronics_near_water(const plan::Plan& plan, const plan::Report&) {
    if (!has(plan, "electronic") || !has(plan, "liquid")) return {};
    return Finding{
        "Electronics beside water: unplugged, batteries out, and dry for a day before they are switched on "
        "again."};
}

Found cells_in_cold(const plan::Plan& plan, const plan::Report&) {
    const auto on_cells = [](const plan::Source& source) { return source.flash && source.flash->charge; };
    // In the sun, or by day in bright shade, nobody's hands are cold (common practice).
    constexpr double bright = 10;  // EV at ISO 100
    if (!has(plan, "outdoors") || !any_light(plan, on_cells)) return {};
    if (plan.shot.ambient && plan.shot.ambient->ev100 >= bright) return {};
    return Finding{
        "Spare cells in an inner pocket, contacts covered: never in a closed car in the sun, and none that is "
        "swollen."};
}

Found night_and_wet(const plan::Plan& plan, const plan::Report&) {
    constexpr double dusk = 5;  // EV at ISO 100
    if (!has(plan, "outdoors") || (plan.shot.ambient && plan.shot.ambient->ev100 >= dusk)) return {};
    return Finding{
        "Out at night: a lamp for the way, the ground looked at before the tripod stands, mains units and "
        "cables off wet ground, and somebody knows where you are."};
}

Found staring_at_light(const plan::Plan& plan, const plan::Report& report) {
    const bool shines_back = std::ranges::any_of(report.light.sources, [](const auto& source) {
        constexpr double beside = 90;  // degrees
        return source.continuous && !source.reflector && source.fires && source.off_axis > beside;
    });
    constexpr double sun = 10;  // degrees
    const auto& ambient = plan.shot.ambient;
    const bool sun_behind = ambient && ambient->kind == shoot::AmbientKind::sky && ambient->size <= sun &&
                            light::towards_camera(ambient->position) < 0;
    if (!shines_back && !sun_behind) return {};
    return Finding{
        "A light shines towards the camera: compose on the screen and never stare into a lamp, or into the "
        "sun through any lens."};
}

Found gel_on_hot_lamp(const plan::Plan& plan, const plan::Report&) {
    const auto cooks = [](const plan::Source& source) { return is_hot(source) && source.set.gel != 0; };
    if (!any_light(plan, cooks)) return {};
    return Finding{"A gel before a hot lamp scorches: heat-proof gel in a frame, a hand's breadth from the glass."};
}

Found hot_lamp(const plan::Plan& plan, const plan::Report&) {
    if (!any_light(plan, is_hot)) return {};
    const bool near_food = has(plan, "food");
    return Finding{
        fmt::format("Hot lamp: keep cloth, paper and diffusers clear of it, never leave it on alone, let it "
                    "cool before it is moved.{}",
                    near_food ? " Food dries and spoils under it." : "")};
}

Found lethal_charge(const plan::Plan& plan, const plan::Report&) {
    const auto big = [](const plan::Source& source) {
        constexpr double studio = 100;  // watt-seconds, from which a unit is a studio head (common practice)
        return source.flash && source.flash->energy.value_or(0) >= studio;
    };
    if (!any_light(plan, big)) return {};
    return Finding{
        "Flash heads hold a lethal charge, unplugged too: never open one, change tubes only as its manual says, leave "
        "repairs to licensed practice."};
}

Found trigger_beam(const plan::Plan& plan, const plan::Report&) {
    if (!plan.shot.freeze || plan.shot.freeze->trigger != shoot::Trigger::beam) return {};
    return Finding{
        fmt::format("A laser trigger: never at eye height, never towards the lens (it burns sensors), no polished "
                    "thing in its way; "
                    "the weakest class that works, switched off while one sets up.{}",
                    has(plan, "polished") ? " This subject is polished." : "")};
}

Found flashing_light(const plan::Plan& plan, const plan::Report&) {
    constexpr double least = 3, greatest = 60;  // Hz that can set off a seizure (common practice)
    if (!plan.shot.freeze || !plan.shot.freeze->repeating) return {};
    const double frequency = plan.shot.freeze->repeating->burst.frequency;
    if (frequency < least || frequency > greatest) return {};
    return Finding{
        "Repeating flash can set off photosensitive epilepsy: ask everyone in the room, and warn before "
        "each burst."};
}

constexpr Rule safety_rows[] = {
    {"safety-person", Station::run, Level::caution, Concern::safety, flash_at_person},
    {"safety-animal", Station::run, Level::caution, Concern::safety, flash_at_animal},
    {"safety-liquid", Station::run, Level::caution, Concern::safety, liquid_near_mains},
    {"safety-hot-lamp", Station::run, Level::caution, Concern::safety, hot_lamp},
    {"safety-charge", Station::run, Level::info, Concern::safety, lethal_charge},
    {"safety-laser", Station::run, Level::caution, Concern::safety, trigger_beam},
    {"safety-flashing", Station::run, Level::caution, Concern::safety, flashing_light},
    {"safety-dye", Station::run, Level::caution, Concern::safety, dye_stains},
    {"safety-electronics", Station::run, Level::caution, Concern::safety, electronics_near_water},
    {"safety-gel", Station::run, Level::caution, Concern::safety, gel_on_hot_lamp},
    {"safety-glare", Station::run, Level::caution, Concern::safety, staring_at_light},
    {"safety-night", Station::run, Level::caution, Concern::safety, night_and_wet},
    {"safety-cells", Station::run, Level::info, Concern::safety, cells_in_cold},
    {"safety-food", Station::run, Level::caution, Concern::safety, food_is_eaten},
    {"safety-breakable", Station::run, Level::caution, Concern::safety, breakable_near},
    {"safety-outdoors", Station::run, Level::caution, Concern::safety, outdoors},
    {"safety-stand", Station::run, Level::caution, Concern::safety, boom_over_subject},
};

}  // namespace

std::span<const Rule> safety_rules() { return safety_rows; }

}  // namespace poquito::advice
