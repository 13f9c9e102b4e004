#include "job/packing.hpp"

#include "gear/rows.hpp"
#include "plan/light/charges.hpp"
#include "plan/motion/lapse.hpp"
#include "shoot/change/kit_edit.hpp"
#include "shoot/change/view_set.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace poquito::job {
namespace {

using shoot::Shot;

class List {
  public:
    List(const shoot::Shoot& shoot, const AllAssessed& shots) : shoot_(shoot), shots_(shots) {}

    std::vector<PackLine> all() {
        gear();
        power();
        things();
        props();
        supplies();
        for (const auto& own : shoot_.packing.own)
            add(PackKind::own, "own:" + own.id, own.text, 1, {}).container = own.container;
        for (PackLine& line : lines_) {
            line.going = std::ranges::count(shoot_.packing.going, line.id) > 0;
            line.home = std::ranges::count(shoot_.packing.home, line.id) > 0;
            for (const auto& place : shoot_.packing.places)
                if (place.item == line.id) line.container = place.container;
        }
        return std::move(lines_);
    }

  private:
    PackLine& add(PackKind kind, std::string id, std::string name, int count, std::string why) {
        PackLine& line = lines_.emplace_back();
        line.kind = kind, line.id = std::move(id), line.name = std::move(name), line.count = count;
        line.why = std::move(why);
        return line;
    }

    /// As many of a flash or a modifier as one shot has at once.
    int at_once(const std::string& list, const std::string& id) const {
        long most = 1;
        for (const Shot& shot : shoot_.shots) {
            const auto uses = [&](const shoot::Light& light) {
                return (list == "flashes" && light.flash == id) || (list == "lamps" && light.lamp == id) ||
                       (list == "modifiers" && light.modifier == id);
            };
            most = std::max(most, static_cast<long>(std::ranges::count_if(shot.lights, uses)));
        }
        return static_cast<int>(most);
    }

    void gear() {
        for (const gear::GearKind& kind : gear::gear_kinds()) {
            if (std::string_view(kind.list) == "holds") continue;  // ways of holding are no things
            for (std::size_t i = 0; i < kind.count(shoot_.kit); ++i) {
                const auto id = kind.id(shoot_.kit, i);
                const auto users = shoot::users_of(shoot_, kind, id);
                if (users.empty()) continue;
                add(PackKind::gear, fmt::format("{}:{}", kind.list, id), kind.name(shoot_.kit, i),
                    at_once(kind.list, id),
                    users.size() == 1 ? fmt::format("for {}", users.front())
                                      : fmt::format("for {} shots", users.size()));
            }
        }
        cards();
    }

    /// What sends light back or softens it stands in the shots by its size.
    void cards() {
        std::map<std::string, std::pair<int, std::string>> by_name;  // how many at once, and the shots
        for (const Shot& shot : shoot_.shots) {
            std::map<std::string, int> here;
            for (const auto& light : shot.lights)
                if (light.reflector && !light.off)
                    ++here[fmt::format("Card {}, sends back {} %", text::length_text(light.reflector->diameter),
                                       text::number_text(light.reflector->reflectance * 100, 3))];
            if (shot.ambient && shot.ambient->panel)
                ++here[fmt::format("Diffuser panel {}", text::length_text(shot.ambient->panel->width))];
            for (const auto& [name, count] : here) {
                auto& [most, shots] = by_name[name];
                most = std::max(most, count);
                shots += (shots.empty() ? "for " : ", ") + shot.name;
            }
        }
        for (const auto& [name, use] : by_name) add(PackKind::gear, "card:" + name, name, use.first, use.second);
    }

    /// Whole cells, and one to spare (common practice).
    void power() {
        std::map<std::string, double> charges;
        double megabytes = 0;
        for (std::size_t i = 0; i < shots_.size(); ++i) {
            const auto yield = plan::yield_of(*shots_[i].plan, *shots_[i].report);
            megabytes += yield.data_mb;
            if (yield.charge_share) charges[shots_[i].plan->camera.id] += *yield.charge_share;
        }
        const auto cells = [&](const std::string& id, const std::string& name, double share) {
            add(PackKind::power, "charge:" + id, "Charged, for " + name, static_cast<int>(std::ceil(share)) + 1,
                share <= 1 ? std::string("one lasts; one to spare")
                           : fmt::format("takes {} charges; one to spare", text::number_text(share, 2)));
        };
        for (const auto& camera : shoot_.kit.cameras)
            if (const auto share = charges.find(camera.id); share != charges.end())
                cells(camera.id, camera.name, share->second);
        std::vector<const plan::Report*> reports;
        for (const auto& one : shots_) reports.push_back(one.report);
        for (const auto& use : plan::charge_use(shoot_, reports)) {
            const auto* flash = gear::find_gear(shoot_.kit.flashes, use.flash);
            if (flash && use.share) cells(flash->id, flash->name, *use.share);
        }
        if (megabytes > 0)
            add(PackKind::power, "cards", "Cards, empty", 2,
                fmt::format("{} in all, and as much again", text::data_text(megabytes)));
    }

    void things() {
        std::vector<std::string> named;
        const auto once = [&](const std::string& thing, const std::string& why) {
            if (std::ranges::count(named, thing) > 0) return;
            named.push_back(thing);
            add(PackKind::thing, "thing:" + thing, thing, 1, why);
        };
        for (const Shot& shot : shoot_.shots) {
            // What lives outdoors is met there.
            if (shoot::has_trait(shot.subject, "outdoors")) continue;
            if (shot.view)
                once(shot.view->thing, fmt::format("{} views", shoot::shots_of_thing(shoot_, shot.view->thing).size()));
            else if (shot.plate)
                once(shot.plate->picture,
                     fmt::format("{} plates", shoot::plates_of(shoot_, shot.plate->picture).size()));
            else
                once(shot.name, {});
        }
    }

    /// Of each as many as one shot has at once.
    void props() {
        std::map<std::string, std::pair<int, int>> by_name;  // at once, and in how many shots
        for (const Shot& shot : shoot_.shots) {
            std::map<std::string, int> here;
            for (const auto& thing : shot.staging) ++here[thing.name];
            for (const auto& [name, count] : here) {
                auto& [most, shots] = by_name[name];
                most = std::max(most, count), ++shots;
            }
        }
        for (const auto& [name, use] : by_name)
            add(PackKind::thing, "prop:" + name, name, use.first,
                use.second == 1 ? std::string("on the table of one shot")
                                : fmt::format("on the table of {} shots", use.second));
    }

    bool any(const char* trait) const {
        return std::ranges::any_of(shoot_.shots, [&](const Shot& s) { return shoot::has_trait(s.subject, trait); });
    }
    template <typename Test>
    bool any_shot(const Test& test) const {
        return std::ranges::any_of(shoot_.shots, test);
    }

    void supplies() {
        const auto supply = [&](const char* id, const char* name, const char* why, bool stays = false) {
            add(PackKind::supply, std::string("supply:") + id, name, 1, why).stays = stays;
        };
        supply("blower", "Blower, soft brush, cloth", "dust shows larger than it is");
        supply("tape", "Tape, putty, pins, clamps", "to hold and to mark where feet stand");
        if (any("polished")) supply("gloves", "Cotton gloves, polishing cloth", "polished: fingers leave marks");
        if (any("breakable")) supply("foam", "Foam and a soft tray", "breakable");
        if (any("food"))
            supply("food", "Tweezers, oil, water spray, kitchen paper", "food: fresh under the lens, dry about it");
        if (any("food")) supply("portions", "A second portion of each", "food tires while light is set", true);
        if (any("liquid")) supply("towels", "Towels, tray, plastic sheet", "liquid near gear and mains");
        if (any("dye")) supply("dye", "Gloves, clean water, a bucket", "dye stains; water is changed between tries");
        if (any("electronic")) supply("strap", "Earthing strap", "electronics");
        if (any("outdoors")) supply("mat", "Kneeling mat, rain cover, plant clip", "outdoors");
        if (any("person")) supply("wipes", "Wipes for what touches skin", "a person");
        if (any_shot([](const Shot& s) { return s.background.has_value(); }))
            supply("ground", "Grounds: card, cloth, sweep", "behind what is photographed");
        if (any_shot([](const Shot& s) { return s.capture.mode == shoot::CaptureMode::stack; }))
            supply("rule", "A rule, to lean", "tells the steps of a stack");
        if (any_shot([](const Shot& s) { return s.freeze.has_value(); }))
            supply("catch", "Sheet and tray that catch", "what falls is used up", true);
    }

    const shoot::Shoot& shoot_;
    const AllAssessed& shots_;
    std::vector<PackLine> lines_;
};

}  // namespace

const char* pack_kind_name(PackKind kind) {
    constexpr const char* words[] = {"Gear", "Charged and empty", "What is photographed", "Supplies", "Own"};
    return words[static_cast<int>(kind)];
}

std::vector<PackLine> packing_list(const shoot::Shoot& shoot, const AllAssessed& shots) {
    return List(shoot, shots).all();
}

std::vector<std::string> cases_of(const std::vector<PackLine>& lines) {
    std::vector<std::string> cases;
    for (const PackLine& line : lines)
        if (std::ranges::count(cases, line.container) == 0) cases.push_back(line.container);
    return cases;
}

void tick(shoot::Packing& packing, const std::string& line, bool home, bool on) {
    auto& ticks = home ? packing.home : packing.going;
    std::erase(ticks, line);
    if (on) ticks.push_back(line);
}

void put_into(shoot::Packing& packing, const PackLine& line, const std::string& container) {
    std::erase_if(packing.places, [&](const shoot::PackedIn& one) { return one.item == line.id; });
    for (auto& own : packing.own)
        if ("own:" + own.id == line.id) {
            own.container = container;
            return;
        }
    if (!container.empty()) packing.places.push_back({.item = line.id, .container = container, .unknown = {}});
}

void add_own(shoot::Packing& packing, const std::string& text, const std::string& container) {
    if (text.find_first_not_of(' ') == std::string::npos) return;
    const auto id = text::unique_id(text, "item", [&](const std::string& taken) {
        return std::ranges::find(packing.own, taken, &shoot::PackedItem::id) != packing.own.end();
    });
    packing.own.push_back({.id = id, .text = text, .container = container, .unknown = {}});
}

void remove_own(shoot::Packing& packing, const std::string& line) {
    std::erase_if(packing.own, [&](const shoot::PackedItem& own) { return "own:" + own.id == line; });
    std::erase(packing.going, line);
    std::erase(packing.home, line);
}

}  // namespace poquito::job
