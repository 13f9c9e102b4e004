#include "shoot/advice.hpp"

/// The usual cautions, each only where the plan makes it matter (BRIEF, safety). They defer to local codes, to licensed
/// practice and to the house rules of whoever is responsible for the place.
namespace poquito::shoot {
namespace {

using Found = std::optional<Finding>;

bool has(const Plan& plan, const char* trait) { return has_trait(plan.shot.subject, trait); }
bool lit(const Plan& plan) { return !plan.shot.lights.empty(); }

Found flash_at_person(const Plan& plan, const Report&) {
    if (!has(plan, "person")) return {};
    return Finding{lit(plan)
                       ? "Flash close to a person: eyes shut or turned away, and ask about photosensitive epilepsy "
                         "first. Clinical pictures follow the clinic's own hygiene and consent rules."
                       : "Clinical pictures follow the clinic's own hygiene and consent rules."};
}

Found flash_at_animal(const Plan& plan, const Report&) {
    if (!has(plan, "living") || !lit(plan)) return {};
    return Finding{"Flash close to an animal's eyes: as few flashes and as little power as the picture allows."};
}

Found liquid_near_mains(const Plan& plan, const Report&) {
    if (!has(plan, "liquid") || !lit(plan)) return {};
    return Finding{
        "Liquid near mains-fed lights: residual-current protection, cables and sockets above the splash line, "
        "power off before wiping. Local wiring rules come first."};
}

Found food_is_eaten(const Plan& plan, const Report&) {
    if (!has(plan, "food")) return {};
    return Finding{
        "Food that is to be eaten: clean glass and props, nothing inedible on it, lamps not left to warm it."};
}

Found breakable_near(const Plan& plan, const Report&) {
    if (!has(plan, "breakable")) return {};
    return Finding{
        "Breakable subject: support it so that a knocked stand or a slipping rail cannot push it over the "
        "edge; splinters go into a closed bin."};
}

Found outdoors(const Plan& plan, const Report&) {
    if (!has(plan, "outdoors")) return {};
    constexpr double sunlit = 13;  // EV at ISO 100; full sun is 15 (ISO 2720)
    if (plan.shot.ambient && plan.shot.ambient->ev100 >= sunlit)
        return Finding{
            "In sunlight never aim the lens at or near the sun, by eye or on the sensor. Mind stings, ticks and "
            "plants where you kneel."};
    return Finding{"Outdoors: mind stings, ticks and plants where you kneel, and the ground under the tripod."};
}

Found boom_over_subject(const Plan& plan, const Report&) {
    for (const Light& light : plan.shot.lights)
        if (light.modifier && light.position.elevation >= 50)
            return Finding{
                "A lamp hangs over the set: weigh the stand down and secure the head before anything valuable "
                "or anyone comes under it."};
    return {};
}

constexpr Rule rules[] = {
    {"safety-person", Station::run, Level::caution, Concern::safety, flash_at_person},
    {"safety-animal", Station::run, Level::caution, Concern::safety, flash_at_animal},
    {"safety-liquid", Station::run, Level::caution, Concern::safety, liquid_near_mains},
    {"safety-food", Station::run, Level::caution, Concern::safety, food_is_eaten},
    {"safety-breakable", Station::run, Level::caution, Concern::safety, breakable_near},
    {"safety-outdoors", Station::run, Level::caution, Concern::safety, outdoors},
    {"safety-stand", Station::run, Level::caution, Concern::safety, boom_over_subject},
};

}  // namespace

std::span<const Rule> safety_rules() { return rules; }

}  // namespace poquito::shoot
