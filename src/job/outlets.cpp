#include "job/outlets.hpp"

#include "job/choose.hpp"
#include "shoot/change/edit.hpp"
#include "shoot/change/view_set.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace poquito::job {
namespace {

using shoot::Ground;
using shoot::Outlet;
using shoot::Shot;

constexpr double on_half = 0.75;  // of what a view is worth, on half a picture or at a slant

std::string slug(const std::string& name) {
    return text::unique_id(name, "view", [](const std::string&) { return false; });
}

bool shows(const shoot::View& view, const shoot::View& other) { return std::ranges::count(view.also, other.name) > 0; }

/// The largest part of that shape, its middle as far off the frame's as there is room for.
void place(OutletCut& cut, double shape, double frame, double right, double down) {
    cut.width = std::min(1.0, shape / frame);
    cut.height = std::min(1.0, frame / shape);
    cut.left = std::clamp((1 - cut.width) / 2 + right, 0.0, 1 - cut.width);
    cut.top = std::clamp((1 - cut.height) / 2 + down, 0.0, 1 - cut.height);
}

void judge_pixels(OutletCut& cut, const Outlet& outlet, double short_px, double long_px) {
    if (outlet.least_short_px && short_px < *outlet.least_short_px - 0.5)
        cut.problems.push_back(
            fmt::format("{:.0f} px are left of its shorter side, {:.0f} are wanted", short_px, *outlet.least_short_px));
    constexpr double too_much = 0.5;
    if (cut.kept < too_much && (!outlet.most_long_px || long_px < *outlet.most_long_px))
        cut.cautions.push_back(fmt::format("the cut costs {:.0f} % of the frame", (1 - cut.kept) * 100));
}

void judge_margin(OutletCut& cut, const Assessed& shot, const Outlet& outlet) {
    const auto& optics = shot.report->optics;
    if (!optics.field_width || !optics.field_height) return;
    const double half_width = shot.plan->extent.width / *optics.field_width / 2;
    const double half_height = shot.plan->extent.height / *optics.field_height / 2;
    cut.margin =
        std::min({(0.5 - half_width - cut.left) / cut.width, (cut.left + cut.width - 0.5 - half_width) / cut.width,
                  (0.5 - half_height - cut.top) / cut.height, (cut.top + cut.height - 0.5 - half_height) / cut.height});
    // A part of a thing fills its frame on purpose: nothing of it is cut that is not meant to be.
    const bool part = half_width > 0.5 || half_height > 0.5;
    constexpr double rounded = 1e-9;
    if (part) return;
    if (*cut.margin < -rounded)
        cut.problems.push_back("it is cut off");
    else if (*cut.margin < outlet.margin - rounded)
        cut.cautions.push_back(
            fmt::format("{:.0f} % free at its edge, {:.0f} % are wanted", *cut.margin * 100, outlet.margin * 100));
}

void judge_ground(OutletCut& cut, const Assessed& shot, const Outlet& outlet) {
    const auto& background = shot.plan->shot.background;
    const auto look = shot.report->light.background_look;
    if (outlet.ground == Ground::white && (!look || *look != light::BackgroundLook::white))
        cut.cautions.push_back("its ground is not white");
    if (outlet.ground == Ground::plain && background && background->kind != shoot::BackgroundKind::card)
        cut.cautions.push_back("its ground is not plain");
}

bool is_taken(const Assessed& shot, const Outlet& outlet, bool half) {
    shoot::Delivery delivery{.outlet = outlet.id, .beside = {}, .unknown = {}};
    if (half) delivery.beside = std::string();
    return cut_for(shot, outlet, delivery).problems.empty();
}

/// The view that an outlet wants first, then what is worth most.
void put_in_order(const shoot::Shoot& shoot, const Outlet& outlet, std::vector<OutletPicture>& pictures) {
    const auto is_first = [&](const OutletPicture& picture) {
        return outlet.first && std::ranges::any_of(picture.shots, [&](std::size_t i) {
                   return shoot.shots[i].view && shoot.shots[i].view->name == *outlet.first;
               });
    };
    std::ranges::stable_sort(pictures, {}, [](const OutletPicture& picture) { return picture.shots.front(); });
    std::stable_partition(pictures.begin(), pictures.end(), is_first);
}

}  // namespace

std::vector<Outlet> usual_outlets() {
    return {{.id = "shop-square",
             .name = "Shop, square",
             .most = 12,
             .shape = 1,
             .least_short_px = 2000,
             .most_long_px = 5000,
             .ground = Ground::white,
             .margin = 0.05,
             .first = "front",
             .unknown = {}},
            {.id = "shop-free",
             .name = "Shop, any shape",
             .most = 20,
             .shape = {},
             .least_short_px = 1000,
             .most_long_px = 3000,
             .ground = Ground::any,
             .margin = 0,
             .first = "front",
             .unknown = {}},
            {.id = "journal-column",
             .name = "Journal, a column wide",
             .most = 2,
             .shape = {},
             .least_short_px = 1050,  // 89 mm at 300 px an inch
             .most_long_px = {},
             .ground = Ground::plain,
             .margin = 0.03,
             .first = {},
             .unknown = {}},
            {.id = "archive",
             .name = "Archive",
             .most = 60,
             .shape = {},
             .least_short_px = 3000,
             .most_long_px = {},
             .ground = Ground::plain,
             .margin = 0.05,
             .first = {},
             .unknown = {}}};
}

const shoot::Delivery* delivery_of(const Shot& shot, const std::string& outlet) {
    const auto found = std::ranges::find(shot.deliveries, outlet, &shoot::Delivery::outlet);
    return found == shot.deliveries.end() ? nullptr : &*found;
}

OutletCut cut_for(const Assessed& shot, const Outlet& outlet, const shoot::Delivery& delivery) {
    const double wide = shot.plan->sensor.width_px, high = shot.plan->sensor.height_px, frame = wide / high;
    double shape = outlet.shape.value_or(shot.plan->shot.picture_shape.value_or(frame));
    OutletCut cut;
    if (delivery.beside) shape /= 2;
    place(cut, shape, frame, delivery.right, delivery.down);
    cut.kept = cut.width * cut.height;
    double width_px = cut.width * wide, height_px = cut.height * high;
    // Two halves make one picture: its sides count.
    const double picture_width = delivery.beside ? 2 * width_px : width_px;
    const double short_px = std::min(picture_width, height_px), long_px = std::max(picture_width, height_px);
    judge_pixels(cut, outlet, short_px, long_px);
    if (outlet.most_long_px && long_px > *outlet.most_long_px) {
        width_px *= *outlet.most_long_px / long_px;
        height_px *= *outlet.most_long_px / long_px;
    }
    cut.width_px = static_cast<int>(std::lround(width_px));
    cut.height_px = static_cast<int>(std::lround(height_px));
    judge_margin(cut, shot, outlet);
    judge_ground(cut, shot, outlet);
    return cut;
}

OutletChoice choose_pictures(const shoot::Shoot& shoot, const AllAssessed& shots, const Outlet& outlet,
                             const std::string& thing) {
    OutletChoice choice;
    Candidates views{.worth = {}, .must = {}, .pairs = {}, .half_worth = on_half};
    std::vector<std::size_t> of;
    // The view that an outlet wants first stands alone, and nothing stands for it.
    const auto is_first = [&](std::size_t i) { return outlet.first && shoot.shots[i].view->name == *outlet.first; };
    for (const auto i : shoot::shots_of_thing(shoot, thing)) {
        if (!is_taken(shots[i], outlet, false)) {
            choice.unfit.push_back(i);
            continue;
        }
        of.push_back(i);
        views.worth.push_back(shoot.shots[i].view->worth);
        views.must.push_back(shoot.shots[i].view->must || is_first(i));
    }
    const auto may_share = [&](std::size_t place) {
        const auto& view = *shoot.shots[of[place]].view;
        return view.half && view.also.empty() && !is_first(of[place]) && is_taken(shots[of[place]], outlet, true);
    };
    for (std::size_t one = 0; one < of.size(); ++one)
        for (std::size_t other = one + 1; other < of.size(); ++other)
            if (may_share(one) && may_share(other)) views.pairs.emplace_back(one, other);
    for (std::size_t one = 0; one < of.size(); ++one)
        for (std::size_t other = 0; other < of.size(); ++other)
            if (one != other && !is_first(of[other]) && shows(*shoot.shots[of[one]].view, *shoot.shots[of[other]].view))
                views.covers.emplace_back(one, other);
    const auto chosen = choose(views, static_cast<std::size_t>(outlet.most));
    for (const auto& picture : chosen.pictures) {
        auto& made = choice.pictures.emplace_back();
        for (const auto view : picture) made.shots.push_back(of[view]);
    }
    for (const auto view : chosen.covered) choice.covered.push_back(of[view]);
    for (const auto view : chosen.left_out) choice.left_out.push_back(of[view]);
    choice.musts_left_out = chosen.musts_left_out;
    for (const auto i : choice.unfit) choice.musts_left_out += shoot.shots[i].view->must;
    choice.worth = chosen.worth;
    choice.proven = chosen.proven;
    put_in_order(shoot, outlet, choice.pictures);
    return choice;
}

OutletChoice delivered(const shoot::Shoot& shoot, const AllAssessed& shots, const Outlet& outlet,
                       const std::string& thing) {
    OutletChoice now;
    const auto all = shoot::shots_of_thing(shoot, thing);
    const auto seen_elsewhere = [&](const shoot::View& view) {
        return std::ranges::any_of(all, [&](std::size_t other) {
            return delivery_of(shoot.shots[other], outlet.id) && shows(*shoot.shots[other].view, view);
        });
    };
    for (const auto i : all) {
        const Shot& shot = shoot.shots[i];
        const auto* delivery = delivery_of(shot, outlet.id);
        if (!delivery && seen_elsewhere(*shot.view)) {
            now.covered.push_back(i);
            now.worth += shot.view->worth * on_half;
            continue;
        }
        if (!delivery) {
            now.left_out.push_back(i);
            now.musts_left_out += shot.view->must;
            continue;
        }
        now.worth += shot.view->worth * (delivery->beside ? on_half : 1);
        if (!cut_for(shots[i], outlet, *delivery).problems.empty()) now.unfit.push_back(i);
        if (delivery->beside) {
            const auto shared = std::ranges::find_if(now.pictures, [&](const OutletPicture& picture) {
                return shoot.shots[picture.shots.front()].id == *delivery->beside;
            });
            if (shared != now.pictures.end()) {
                shared->shots.push_back(i);
                continue;
            }
        }
        now.pictures.push_back({.shots = {i}});
    }
    put_in_order(shoot, outlet, now.pictures);
    return now;
}

std::vector<OutletFile> files_for(const shoot::Shoot& shoot, const AllAssessed& shots, const Outlet& outlet,
                                  const std::string& thing) {
    std::vector<OutletFile> files;
    const auto pictures = delivered(shoot, shots, outlet, thing).pictures;
    for (std::size_t k = 0; k < pictures.size(); ++k) {
        auto& file = files.emplace_back();
        file.most_long_px = outlet.most_long_px;
        std::string views, number;
        for (const auto i : pictures[k].shots) {
            const Shot& shot = shoot.shots[i];
            const auto cut = cut_for(shots[i], outlet, *delivery_of(shot, outlet.id));
            file.parts.push_back(
                {.shot = i, .left = cut.left, .top = cut.top, .width = cut.width, .height = cut.height});
            const auto view = slug(shot.view->name);
            // Ids are made of the thing's number and the view.
            if (number.empty())
                number =
                    shot.id.ends_with("-" + view) ? shot.id.substr(0, shot.id.size() - view.size() - 1) : slug(thing);
            fmt::format_to(std::back_inserter(views), "-{}", view);
        }
        file.name = fmt::format("{}-{:02}{}", number, k + 1, views);
    }
    return files;
}

void frame_for(shoot::Shoot& shoot, std::size_t index, const Outlet& outlet) {
    const Shot& shot = std::as_const(shoot.shots)[index];
    const auto plan = plan::plan_of(shoot.kit, shot, shoot::terms_of(shoot, shot));
    const auto& sensor = plan.sensor;
    const double whole = shoot::magnification_for_fill(sensor, shot.subject, 1);
    const double m = plan.at.magnification;
    if (!(whole > 0) || !(m > 0)) return;
    const double frame = sensor.width / sensor.height;
    auto room = sensor;
    if (outlet.shape) {
        room.width *= std::min(1.0, *outlet.shape / frame);
        room.height *= std::min(1.0, frame / *outlet.shape);
    }
    const double fill = std::min(m / whole, 1 - 2 * outlet.margin);
    const double wanted = shoot::magnification_for_fill(room, shot.subject, fill);
    shoot.shots[index].rig.focus = {.by = shoot::FocusBy::magnification, .value = std::min(m, wanted)};
}

void deliver(shoot::Shoot& shoot, const std::string& outlet, const std::string& thing, const OutletChoice& choice) {
    const auto beside = [&](std::size_t shot) -> std::optional<std::optional<std::string>> {
        for (const OutletPicture& picture : choice.pictures) {
            if (std::ranges::count(picture.shots, shot) == 0) continue;
            if (picture.shots.size() < 2) return std::optional<std::string>();
            const auto other = picture.shots[picture.shots.front() == shot ? 1 : 0];
            return std::optional(std::as_const(shoot.shots)[other].id);
        }
        return std::nullopt;
    };
    for (const auto i : shoot::shots_of_thing(shoot, thing)) {
        const auto wanted = beside(i);
        auto deliveries = std::as_const(shoot.shots)[i].deliveries;
        const auto had = std::ranges::find(deliveries, outlet, &shoot::Delivery::outlet);
        if (!wanted) {
            if (had != deliveries.end()) deliveries.erase(had);
        } else if (had != deliveries.end()) {
            had->beside = *wanted;
        } else {
            deliveries.push_back({.outlet = outlet, .beside = *wanted, .unknown = {}});
        }
        if (deliveries != std::as_const(shoot.shots)[i].deliveries) shoot.shots[i].deliveries = std::move(deliveries);
    }
}

}  // namespace poquito::job
