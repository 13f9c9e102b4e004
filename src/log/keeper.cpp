#include "log/keeper.hpp"

#include "gear/rows.hpp"
#include "plan/plan.hpp"
#include "search/reach_search.hpp"
#include "shoot/change/kit_edit.hpp"
#include "shoot/change/mount.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::log {
namespace {

/// The id of the piece of today that is called so, or has that id; empty: none.
std::string same_piece(const gear::GearKind& kind, const gear::Kit& then, const std::string& id,
                       const gear::Kit& today) {
    const auto index = gear::find_index(kind, then, id);
    const auto name = index ? kind.name(then, *index) : std::string();
    std::string by_id;
    for (std::size_t i = 0; i < kind.count(today); ++i) {
        if (!name.empty() && kind.name(today, i) == name) return kind.id(today, i);
        if (kind.id(today, i) == id) by_id = id;
    }
    return by_id;
}

}  // namespace

text::Expected<FromKeeper> start_from(const Entry& entry, const shoot::Shoot& today) {
    if (entry.plan.empty()) return text::Error{.place = entry.name, .problem = "was logged without its plan"};
    auto read = storage::read_shoot(entry.plan);
    if (!read) return std::move(read.error());
    auto then = std::move(*read);
    if (then.shots.size() != 1) return text::Error{.place = entry.name, .problem = "has no plan of one shot"};
    if (today.kit.cameras.empty() || today.kit.lenses.empty())
        return text::Error{.place = today.title, .problem = "has no camera or no lens to take it with"};
    FromKeeper made;
    const auto was = plan::plan_of(then.kit, std::as_const(then.shots)[0], {});
    const double wanted = was.at.magnification;
    // Gear of then by today's ids; what is not there comes off, cameras and lenses are replaced.
    for (const auto& kind : gear::gear_kinds())
        for (std::size_t i = kind.count(then.kit); i-- > 0;) {
            const auto id = kind.id(then.kit, i), name = kind.name(then.kit, i);
            auto other = same_piece(kind, then.kit, id, today.kit);
            if (other == id) continue;
            const std::string list = kind.list;
            const bool needed = list == "cameras" || list == "lenses";
            if (other.empty()) {
                if (needed) other = kind.id(today.kit, 0);
                made.differs.push_back(
                    needed ? fmt::format("{} is not in today's bag: {} instead", name, kind.name(today.kit, 0))
                           : fmt::format("{} is not in today's bag", name));
            }
            if (!other.empty() && !gear::find_index(kind, then.kit, other))
                kind.insert_copy(then.kit, kind.count(then.kit), today.kit, *gear::find_index(kind, today.kit, other));
            shoot::remove_gear(then, kind, *gear::find_index(kind, then.kit, id), other);
        }
    made.shot = std::as_const(then.shots)[0];
    shoot::settle_rig(today.kit, made.shot.rig);
    made.shot.checked.clear(), made.shot.proof.clear(), made.shot.follows.reset(), made.shot.plate.reset();
    made.shot.view.reset(), made.shot.deliveries.clear(), made.shot.held.reset();
    if (made.shot.tries) made.shot.tries->kept = made.shot.tries->tried = 0, made.shot.tries->counted_until.clear();
    const auto now = plan::plan_of(today.kit, made.shot, {});
    constexpr double near = 0.01;
    if (wanted > 0 && std::abs(now.at.magnification / wanted - 1) > near) {
        const auto found = search::find_rig(today.kit, made.shot.rig, {.magnification = wanted});
        if (found) {
            made.shot.rig = *found;
            made.differs.push_back(fmt::format("for its {}: {}", text::magnification_text(wanted),
                                               search::pieces_text(today.kit, *found)));
        } else {
            made.differs.push_back(
                fmt::format("nothing in today's bag reaches its {}", text::magnification_text(wanted)));
        }
    }
    return made;
}

}  // namespace poquito::log
