#include "optics/train.hpp"

#include "optics/chain.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::optics {
namespace {

/// Sensor to subject over focal length of a thin lens at magnification M.
double conjugate_sum(double magnification) { return 2 + magnification + 1 / magnification; }

double principal_separation(const Lens& lens) {
    if (lens.focusing == Focusing::internal) return lens.hiatus;
    return lens.closest_focus - lens.focal_length * conjugate_sum(lens_magnification(lens, 1));
}

double focal_length_at(const Lens& lens, double ring) {
    if (lens.focusing == Focusing::unit) return lens.focal_length;
    const double closest = (lens.closest_focus - lens.hiatus) / conjugate_sum(lens_magnification(lens, 1));
    return lens.focal_length + ring * (closest - lens.focal_length);
}

/// From the place where the image would be without converter to the sensor, the converter and the tubes behind it in
/// between: gap(k a + T) * lens * gap(-a), a = E/(k - 1), with what would cancel for E = 0 and k = 1 left out.
RayMatrix converter_matrix(const Converter& converter, double rear_tubes) {
    const double k = converter.factor;
    const double bend = converter.has_length() ? (k - 1) * (k - 1) / (k * converter.length) : 0;
    return {.a = k + rear_tubes * bend, .b = rear_tubes / k, .c = bend, .d = 1 / k};
}

/// Mount to mount: a lens made for a shorter flange distance stands too far from the sensor, one for a longer has an
/// adapter of the difference.
double mount_face(const Train& train) {
    return train.facing == Facing::forward ? std::max(train.flange, own_flange(train)) : train.flange;
}

StopSight sight(const RayMatrix& before, const Pupil& pupil) {
    const RayMatrix to_pupil = gap(pupil.distance) * before;
    return {.scale = to_pupil.a, .offset = to_pupil.b, .diameter = pupil.diameter};
}

StopSight front_sight(const FrontLens& front) {
    const auto state = lens_state(front.lens, front.ring, front.own_flange);
    auto pupil = front_pupil(state, front.lens.pupil_magnification, Facing::reversed);
    pupil.diameter /= front.f_number;
    return sight({}, pupil);
}

}  // namespace

double lens_magnification(const Lens& lens, double ring) {
    RingReading below{.ring = 0, .magnification = 0};
    for (const RingReading& reading : lens.readings) {
        if (ring <= reading.ring)
            return below.magnification +
                   (ring - below.ring) * (reading.magnification - below.magnification) / (reading.ring - below.ring);
        below = reading;
    }
    if (below.ring == 0) return ring * lens.max_magnification;
    return below.magnification +
           (ring - below.ring) * (lens.max_magnification - below.magnification) / (1 - below.ring);
}

// ---- chain.hpp ---------------------------------------------------------------------------------------------------

LensState lens_state(const Lens& lens, double ring, double own_flange) {
    LensState state{.focal_length = focal_length_at(lens, ring), .magnification = lens_magnification(lens, ring)};
    const double image_distance = state.focal_length * (1 + state.magnification);
    state.length = lens.length + (lens.focusing == Focusing::unit ? lens.focal_length * state.magnification : 0);
    state.from_principal = image_distance - own_flange;
    state.to_principal = state.length + own_flange - image_distance - principal_separation(lens);
    const double opened = lens.closest_working_f_number
                              ? 1 + ring * (*lens.closest_working_f_number / lens.max_aperture - 1)
                              : 1 + state.magnification / lens.pupil_magnification;
    state.pupil = state.focal_length * (1 + state.magnification / lens.pupil_magnification) / opened;
    return state;
}

RayMatrix lens_matrix(const LensState& state, Facing facing) {
    const bool forward = facing == Facing::forward;
    return gap(forward ? state.from_principal : state.to_principal) * thin_lens(1 / state.focal_length) *
           gap(forward ? state.to_principal : state.from_principal);
}

Pupil front_pupil(const LensState& state, double pupil_magnification, Facing facing) {
    // The entrance pupil stands f (1 - 1/P) in front of the front principal plane, the exit pupil f (1 - P) behind the
    // rear one.
    if (facing == Facing::forward)
        return {.distance = state.to_principal - state.focal_length * (1 - 1 / pupil_magnification),
                .diameter = state.pupil};
    return {.distance = state.from_principal - state.focal_length * (1 - pupil_magnification),
            .diameter = state.pupil * pupil_magnification};
}

double own_flange(const Train& train) { return train.lens.flange.value_or(train.flange); }

RayMatrix behind_lens(const Train& train) {
    return behind_extension(train.converter, train.tubes, train.rear_tubes) * gap(to_mount(train));
}

double to_mount(const Train& train) {
    return train.facing == Facing::forward ? mount_face(train) : train.flange + train.reversing_ring;
}

RayMatrix behind_extension(const std::optional<Converter>& converter, double tubes, double rear_tubes) {
    return converter ? converter_matrix(*converter, rear_tubes) * gap(tubes) : gap(tubes);
}

RayMatrix before_lens(const Train& train) {
    RayMatrix before = thin_lens(train.closeup_power);
    if (const auto& front = train.front_lens)
        before = before * gap(front->coupling) *
                 lens_matrix(lens_state(front->lens, front->ring, front->own_flange), Facing::reversed);
    return before;
}

double length_behind(const Train& train) {
    return mount_face(train) + train.tubes + train.rear_tubes + (train.converter ? train.converter->length : 0) +
           (train.facing == Facing::reversed ? train.reversing_ring : 0);
}

double length_before(const Train& train) {
    if (!train.front_lens) return 0;
    const auto& front = *train.front_lens;
    return front.coupling + lens_state(front.lens, front.ring, front.own_flange).length;
}

// ------------------------------------------------------------------------------------------------------------------

FocusedTrain focus_at_ring(const Train& train, double ring) {
    const auto state = lens_state(train.lens, ring, own_flange(train));
    const bool forward = train.facing == Facing::forward;
    const RayMatrix before = before_lens(train);

    FocusedTrain at;
    at.ring = ring;
    at.focal_length = state.focal_length;
    at.lens_magnification = state.magnification;
    at.image_distance = (forward ? state.from_principal + mount_face(train)
                                 : state.to_principal + train.flange + train.reversing_ring) +
                        train.tubes;
    at.extended_magnification = at.image_distance / at.focal_length - 1;
    at.front = length_behind(train) + state.length + length_before(train);
    at.principal = (forward ? state.to_principal : state.from_principal) + length_before(train);
    at.whole = behind_lens(train) * lens_matrix(state, train.facing) * before;
    at.stop = sight(before, front_pupil(state, train.lens.pupil_magnification, train.facing));
    if (train.front_lens) at.front_stop = front_sight(*train.front_lens);

    // At infinity the parallel bundle meets at the sensor; roundings of the sums above stay far below 1e-13.
    const bool at_infinity = std::abs(at.whole.a) < 1e-13;
    at.magnification = at_infinity ? 0 : -at.whole.a;
    if (std::abs(at.extended_magnification) < 1e-13) at.extended_magnification = 0;
    if (at_infinity) return at;
    at.working_distance = at.whole.b / at.magnification;
    at.subject_to_sensor = at.front + *at.working_distance;
    return at;
}

bool has_infinity(const Train& train) {
    return train.facing == Facing::forward && train.tubes == 0 && train.rear_tubes == 0 && train.closeup_power == 0 &&
           !train.front_lens && own_flange(train) >= train.flange;
}

bool is_plain(const Train& train) {
    return train.facing == Facing::forward && train.rear_tubes == 0 && !train.front_lens &&
           own_flange(train) == train.flange;
}

}  // namespace poquito::optics

template class std::vector<poquito::optics::RingReading>;
