#include "shoot/change/view_set.hpp"

#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::shoot {
namespace {

/// Across, up and behind as a face shows them.
struct Seen {
    double width, height, depth;
};

Seen seen_from(const Thing& thing, const SetView& view) {
    switch (view.face) {
        case Face::left:
        case Face::right:
            return {thing.depth, thing.height, thing.width};
        case Face::top:
        case Face::bottom:
            return {thing.width, thing.depth, thing.height};
        case Face::part: {
            // A part is as high as two thirds of its width, and stands out by a fifth (common practice).
            const double width = view.share * std::max(thing.width, thing.height);
            return {width, width * 2 / 3, std::min(width / 5, thing.depth)};
        }
        case Face::front:
        case Face::back:
            break;
    }
    return {thing.width, thing.height, thing.depth};
}

/// The newest view of that name, whatever it is of: its set-up is the one that is in use.
const Shot* taken_before(const Shoot& shoot, const std::string& name) {
    const Shot* found = nullptr;
    for (const Shot& shot : shoot.shots)
        if (shot.view && shot.view->name == name) found = &shot;
    return found;
}

bool has_view(const Shoot& shoot, const std::string& thing, const std::string& name) {
    return std::ranges::any_of(shoot.shots, [&](const Shot& shot) {
        return shot.view && shot.view->thing == thing && shot.view->name == name;
    });
}

/// A rule a quarter as long as the thing is wide, or the next shorter one, at its right where it does not cover it, in
/// the plane of its middle.
void lay_rule(Shot& shot) {
    if (rule_in(shot.staging)) return;
    const double room = shot.subject.width / 4;
    double length = 5;
    for (const double one : {10.0, 20.0, 50.0, 100.0, 200.0})
        if (one <= room) length = one;
    auto rule = rule_of(length);
    rule.id = text::unique_id(rule.name, "rule", [&](const std::string& id) {
        return std::ranges::find(shot.staging, id, &Staged::id) != shot.staging.end();
    });
    rule.right = std::round(shot.subject.width / 2 + length * 0.6);
    shot.staging.push_back(std::move(rule));
}

/// What is done and learned of one thing is not true of the next.
Shot fresh_copy(const Shot& of) {
    Shot shot = of;
    shot.checked.clear();
    shot.proof.clear();
    shot.deliveries.clear();
    shot.timing = {};
    shot.timing.handling = of.timing.handling;
    shot.held.reset();
    shot.follows.reset();
    shot.plate.reset();
    if (shot.tries) shot.tries->kept = shot.tries->tried = 0, shot.tries->counted_until.clear();
    return shot;
}

void size_for(Shot& shot, const Shoot& shoot, const Thing& thing, const SetView& view, const Seen& seen) {
    auto& subject = shot.subject;
    subject.width = seen.width, subject.height = seen.height, subject.depth = seen.depth;
    // A part that fits no map and no slice of another thing.
    if (subject.form == Form::height_map) subject.form = Form::box, subject.height_map.reset();
    subject.tilt = 0, subject.turn = view.turn;
    if (thing.colour) subject.colour = thing.colour;
    shot.capture.slice.reset();
    shot.capture.mode = view.stack ? CaptureMode::stack : CaptureMode::single;
    if (view.shape) shot.picture_shape = view.shape;
    // In the picture's own shape it fills as much as it says, not in the frame's; and each outlet's cut has room for
    // it.
    const auto sensor = sensor_of(shoot.kit, shot.rig);
    const double frame = sensor.width / sensor.height;
    auto room = sensor;
    double fill = view.fill;
    const auto cut_to = [&](std::optional<double> shape) {
        if (!shape) return;
        room.width = std::min(room.width, sensor.width * std::min(1.0, *shape / frame));
        room.height = std::min(room.height, sensor.height * std::min(1.0, frame / *shape));
    };
    cut_to(shot.picture_shape);
    for (const Outlet& outlet : shoot.outlets) cut_to(outlet.shape), fill = std::min(fill, 1 - 2 * outlet.margin);
    shot.rig.focus = {.by = FocusBy::magnification, .value = magnification_for_fill(room, subject, fill)};
}

struct Wanted {
    SetView view;
    std::string name;
};

/// Flaws one by one, each as large as it is.
std::vector<Wanted> wanted(const ViewSet& set, const Thing& thing) {
    std::vector<Wanted> all;
    for (const SetView& view : set.views) {
        if (!view.flaw) {
            all.push_back({view, view.name});
            continue;
        }
        for (const Flaw& flaw : thing.flaws) {
            SetView one = view;
            one.face = Face::part;
            one.share = flaw.size / std::max({thing.width, thing.height, flaw.size});
            all.push_back({one, flaw.name.empty() ? view.name : flaw.name});
        }
    }
    return all;
}

}  // namespace

std::size_t add_views(Shoot& shoot, const ViewSet& set, const Thing& thing, std::size_t pattern) {
    const Shot model = std::as_const(shoot.shots)[pattern];
    std::size_t at = pattern + 1, made = 0;
    // Behind those of it that are there.
    for (const auto there : shots_of_thing(shoot, thing.name)) at = std::max(at, there + 1);
    std::optional<std::string> first;
    for (const auto& [view, name] : wanted(set, thing)) {
        if (has_view(shoot, thing.name, name)) continue;
        const Shot* before = taken_before(shoot, name);
        Shot shot = fresh_copy(before ? *before : model);
        shot.name = fmt::format("{}, {}", thing.name, name);
        const auto number = thing.number.empty() ? thing.name : thing.number;
        shot.id = unique_shot_id(shoot, fmt::format("{} {}", number, name));
        shot.view = View{.thing = thing.name,
                         .name = name,
                         .proves = view.proves,
                         .worth = view.worth,
                         .must = view.must,
                         .half = view.half,
                         .also = view.also,
                         .unknown = {}};
        size_for(shot, shoot, thing, view, seen_from(thing, view));
        std::erase_if(shot.staging, [](const Staged& one) { return one.role == StagedRole::scale; });
        if (view.scale) lay_rule(shot);
        if (first && !view.locks.empty()) shot.follows = Follows{.shot = *first, .locks = view.locks, .unknown = {}};
        if (!first) first = shot.id;
        shoot.shots.insert(at++, std::move(shot));
        ++made;
    }
    return made;
}

std::vector<std::string> things_of(const Shoot& shoot) {
    std::vector<std::string> things;
    for (const Shot& shot : shoot.shots)
        if (shot.view && std::ranges::count(things, shot.view->thing) == 0) things.push_back(shot.view->thing);
    return things;
}

std::vector<std::size_t> shots_of_thing(const Shoot& shoot, const std::string& thing) {
    std::vector<std::size_t> shots;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (const auto& view = std::as_const(shoot.shots)[i].view; view && view->thing == thing) shots.push_back(i);
    return shots;
}

std::optional<Thing> thing_of(const Shoot& shoot, const Shot& shot) {
    if (!shot.view) return std::nullopt;
    Thing thing{.name = shot.view->thing, .number = {}, .colour = shot.subject.colour, .flaws = {}};
    // The largest of its views is the whole of it.
    double largest = 0;
    for (const auto i : shots_of_thing(shoot, thing.name)) {
        const auto& subject = std::as_const(shoot.shots)[i].subject;
        if (subject.width * subject.height <= largest) continue;
        largest = subject.width * subject.height;
        thing.width = subject.width, thing.height = subject.height, thing.depth = subject.depth;
    }
    return thing;
}

ViewSet set_of(const Shoot& shoot, const std::string& thing, const std::string& name) {
    ViewSet set{.id = "own-" + name, .name = name, .views = {}, .unknown = {}};
    const auto shots = shots_of_thing(shoot, thing);
    if (shots.empty()) return set;
    const auto whole = *thing_of(shoot, std::as_const(shoot.shots)[shots.front()]);
    const auto near = [](double a, double b) { return std::abs(a - b) < 0.05 * std::max(a, b); };
    for (const auto i : shots) {
        const Shot& shot = std::as_const(shoot.shots)[i];
        const auto& subject = shot.subject;
        SetView view{.name = shot.view->name,
                     .proves = shot.view->proves,
                     .worth = shot.view->worth,
                     .must = shot.view->must,
                     .half = shot.view->half,
                     .also = shot.view->also,
                     .turn = subject.turn,
                     .stack = shot.capture.mode == CaptureMode::stack,
                     .shape = shot.picture_shape,
                     .scale = rule_in(shot.staging) != nullptr,
                     .locks = shot.follows ? shot.follows->locks : std::vector<Lock>(),
                     .unknown = {}};
        if (near(subject.width, whole.width) && near(subject.height, whole.height))
            view.face = view.name == "back" ? Face::back : Face::front;
        else if (near(subject.width, whole.depth) && near(subject.height, whole.height))
            view.face = Face::left;
        else if (near(subject.width, whole.width) && near(subject.height, whole.depth))
            view.face = Face::top;
        else
            view.face = Face::part, view.share = std::min(1.0, subject.width / std::max(whole.width, whole.height));
        auto sensor = sensor_of(shoot.kit, shot.rig);
        if (shot.rig.focus.by == FocusBy::magnification && shot.rig.focus.value > 0) {
            const double whole_frame = magnification_for_fill(sensor, subject, 1);
            if (whole_frame > 0) view.fill = std::clamp(shot.rig.focus.value / whole_frame, 0.05, 1.0);
        }
        set.views.push_back(std::move(view));
    }
    return set;
}

std::vector<std::size_t> plates_of(const Shoot& shoot, const std::string& picture) {
    std::vector<std::size_t> shots;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i)
        if (const auto& plate = std::as_const(shoot.shots)[i].plate; plate && plate->picture == picture)
            shots.push_back(i);
    return shots;
}

}  // namespace poquito::shoot

template class std::vector<poquito::shoot::SetView>;
template class std::vector<poquito::shoot::ViewSet>;
