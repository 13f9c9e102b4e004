#include "storage/plans_json.hpp"

#include "shoot/names.hpp"
#include "storage/json_number.hpp"
#include "worth_json.hpp"

#include <nlohmann/json.hpp>

namespace poquito::storage {

using Json = nlohmann::ordered_json;

std::string write_plans(const std::vector<advice::Proposal>& plans) {
    Json list = Json::array();
    for (const auto& plan : plans) {
        Json powers = Json::array(), gives_up = Json::array();
        for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
            const auto& source = plan.report.light.sources[i];
            powers.push_back(source.continuous || source.aimless ? Json(nullptr) : json_number(source.power));
        }
        for (const auto& given : plan.gives_up)
            gives_up.push_back({{"what", given.what}, {"by", json_number(given.by)}, {"unit", given.unit}});
        const auto& exposure = plan.shot.exposure;
        Json worth = write_worth(plan.worth);
        list.push_back({{"school", advice::school_id(plan.school)},
                        {"name", advice::plan_name(plan)},
                        {"support", shoot::name_of(plan.shot.rig.support)},
                        {"light", advice::lit_id(plan.lit)},
                        {"worth", std::move(worth["worth"])},
                        {"parts", std::move(worth["parts"])},
                        {"minutes", json_number(plan.worth.minutes)},
                        {"f_number", json_number(exposure.f_number)},
                        {"shutter_s", json_number(exposure.shutter)},
                        {"iso", json_number(exposure.iso)},
                        {"frames", json_number(plan.report.capture.frames)},
                        {"power", std::move(powers)},
                        {"front_total_stops", json_number(plan.report.light.front_total)},
                        {"gives_up", std::move(gives_up)},
                        {"keeps_limits", plan.keeps_limits},
                        {"stopped", plan.stopped},
                        {"rig", plan.changes.empty() ? Json(nullptr) : Json(plan.changes)},
                        {"sentence", plan.sentence},
                        {"why", plan.why.empty() ? Json(nullptr) : Json(plan.why)}});
    }
    const Json document = {{"format", "poquito-plans"}, {"version", 1}, {"plans", std::move(list)}};
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace poquito::storage
