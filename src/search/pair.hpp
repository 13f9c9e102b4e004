#pragma once

#include "optics/aperture.hpp"
#include "optics/focus.hpp"
#include "parts.hpp"

#include <algorithm>
#include <cmath>

/// One combination: where it reaches the wanted size, and what it then is.
namespace poquito::search {

/// A front and a rear part on a body. The matrix behind the lens is affine in the extension.
struct Pair {
    const gear::Kit& kit;
    const Body& body;
    const FrontPart& front;
    const RearPart& rear;

    optics::Train train(double extension) const {
        optics::Train made = front.train;
        made.tubes = rear.tubes + extension;
        made.rear_tubes = rear.rear_tubes;
        if (rear.pieces.converter) made.converter = kit.teleconverters[*rear.pieces.converter].optics;
        return made;
    }
};

/// The smallest ring position that gives the wanted magnification.
inline std::optional<double> ring_for(const FrontPart& front, const optics::RayMatrix& behind, double wanted) {
    for (const auto& stretch : front.stretches) {
        const auto polynomial = optics::excess(stretch, behind, wanted);
        // An end that gives it but for rounding counts, as it does in find_focus.
        const double rounding = 1e-12 * std::max(1e-6, wanted) * stretch.focal_length[0];
        if (std::abs(polynomial[0]) <= rounding) return stretch.from;
        if (const auto roots = optics::unit_roots(polynomial); roots.count > 0) return stretch.ring(roots.at[0]);
        if (std::abs(optics::value_of(polynomial, 1)) <= rounding) return stretch.to;
    }
    return std::nullopt;
}

struct Setting {
    double ring = 0;
    double extension = 0;
};

/// Bellows: with the ring at infinity where they reach it alone; else at the nearer end and the ring turned. All that a
/// pair can reach is reached so, the magnification being monotonic in the extension.
inline std::optional<Setting> setting_for(const FrontPart& front, const RearPart& rear, const optics::RayMatrix& behind,
                                          double wanted) {
    if (!rear.pieces.bellows) {
        const auto ring = ring_for(front, behind, wanted);
        return ring ? std::optional(Setting{.ring = *ring}) : std::nullopt;
    }
    const auto with = [&](double extension) { return behind * optics::gap(extension); };
    const auto& stretch = front.stretches.front();
    const double at_none = optics::value_of(optics::excess(stretch, behind, wanted), 0);
    const double by_each = optics::value_of(optics::excess(stretch, with(1), wanted), 0) - at_none;
    if (by_each == 0) return std::nullopt;
    const double extension = -at_none / by_each;
    const double possible = std::clamp(extension, rear.least_extension, rear.greatest_extension);
    if (possible == extension) return Setting{.ring = 0, .extension = extension};
    const auto ring = ring_for(front, with(possible), wanted);
    return ring ? std::optional(Setting{.ring = *ring, .extension = possible}) : std::nullopt;
}

inline ReachFound assemble(const Pair& pair, const Setting& setting, const optics::FocusedTrain& at, double f_number) {
    ReachFound found = pair.front.pieces;
    found.camera = pair.body.camera;
    found.crop_mode = pair.body.crop_mode;
    found.converter = pair.rear.pieces.converter;
    found.bellows = pair.rear.pieces.bellows;
    found.tubes = pair.rear.pieces.tubes;
    found.tubes_behind = pair.rear.pieces.tubes_behind;
    found.extension = static_cast<float>(setting.extension);
    found.ring = at.ring;
    found.magnification = at.magnification;
    found.working_distance = at.working_distance.value_or(std::numeric_limits<double>::infinity()) - pair.front.hood;
    found.loss = optics::exposure_loss(at, f_number);
    found.length = at.front - pair.body.flange;
    found.optical_cost = pair.front.cost + pair.rear.cost;
    found.pieces = pair.front.count + pair.rear.count;
    found.autofocus = pair.front.contacts && pair.rear.contacts && pair.front.autofocus;
    return found;
}

inline bool within(const ReachFound& found, const ReachWish& wish, bool glass_in_front, ReachLeftOut& out) {
    if (!(found.working_distance > 0)) return ++out.inside, false;
    if (found.working_distance < wish.least_working_distance) return ++out.too_near, false;
    if (wish.most_loss && found.loss > *wish.most_loss + 1e-9) return ++out.too_dark, false;
    if (wish.autofocus && !found.autofocus) return ++out.without_autofocus, false;
    if (wish.infinity && !found.infinity) return ++out.without_infinity, false;
    if (wish.no_glass_in_front && glass_in_front) return ++out.glass_in_front, false;
    return true;
}

/// The largest magnification of one pair with the subject in front of it: at an end or turn of the ring with the
/// bellows racked out, or where the front comes to touch the subject.
class Greatest {
  public:
    Greatest(const Pair& pair, double f_number, std::optional<ReachFound>& best)
        : pair_(pair), f_number_(f_number), best_(best) {}

    void look() {
        look_over_ring(pair_.rear.greatest_extension);
        if (!pair_.rear.pieces.bellows) return;
        for (const auto* end : {&pair_.front.stretches.front(), &pair_.front.stretches.back()}) {
            const double t = end == &pair_.front.stretches.front() ? 0 : 1;
            if (const auto extension = extension_at_touch(*end, t)) look_at(end->ring(t), *extension);
        }
    }

  private:
    const Pair& pair_;
    double f_number_;
    std::optional<ReachFound>& best_;

    optics::RayMatrix behind(double extension) const {
        return pair_.rear.matrix * optics::gap(pair_.front.to_mount + extension);
    }

    void look_over_ring(double extension) {
        for (const auto& stretch : pair_.front.stretches) {
            // Greater than the best so far nowhere on this stretch, ends and turns included.
            if (best_) {
                const auto more = optics::excess(stretch, behind(extension), best_->magnification);
                if (optics::has_one_sign(more) && more[0] < 0) continue;
            }
            look_at(stretch.from, extension);
            look_at(stretch.to, extension);
            const auto train = pair_.train(extension);
            look_at(optics::find_focus(train, optics::magnification_range(train).greatest).ring, extension);
            for (const double t : optics::unit_roots(height_at_touch(stretch, behind(extension))))
                for (const double beside : {t - 1e-9, t + 1e-9})
                    look_at(stretch.ring(std::clamp(beside, 0.0, 1.0)), extension);
        }
    }

    /// The matrix entry b, times the focal length: 0 where the subject touches the front.
    static optics::Quartic height_at_touch(const optics::RingStretch& stretch, const optics::RayMatrix& behind) {
        optics::Quartic b;
        for (std::size_t i = 0; i < b.size(); ++i) b[i] = behind.a * stretch.b[i] + behind.b * stretch.d[i];
        return b;
    }

    /// A hair less than the extension at which the subject touches the front; empty where the bellows do not go there.
    std::optional<double> extension_at_touch(const optics::RingStretch& stretch, double t) const {
        const double at_none = optics::value_of(height_at_touch(stretch, behind(0)), t);
        const double by_each = optics::value_of(height_at_touch(stretch, behind(1)), t) - at_none;
        const double extension = -at_none / by_each * (1 - 1e-9);
        const bool possible = extension >= pair_.rear.least_extension && extension <= pair_.rear.greatest_extension;
        return possible ? std::optional(extension) : std::nullopt;
    }

    void look_at(double ring, double extension) {
        const auto at = optics::focus_at_ring(pair_.train(extension), ring);
        if (!at.working_distance || !(*at.working_distance > 0)) return;
        if (best_ && at.magnification <= best_->magnification) return;
        best_ = assemble(pair_, {.ring = ring, .extension = extension}, at, f_number_);
    }
};

}  // namespace poquito::search
