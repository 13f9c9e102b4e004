#pragma once

#include "shoot/shoot.hpp"

#include <optional>
#include <string>

/// What was measured, put into a lens's record in the place of what was believed; and taken back. mm.
namespace poquito::shoot {

/// A value with its standard deviation.
struct Measurement {
    double value = 0;
    double uncertainty = 0;
};

/// The lens's own magnification at a ring position, from that of the whole rig photographed there. Empty where no
/// magnification of the lens gives it (with this rig: say, less than its tubes alone make).
std::optional<Measurement> lens_part(const gear::Kit& kit, const Rig& rig, double ring, const Measurement& whole);

/// What the record alone says of the rig at that ring position: without any measured magnification.
double believed_magnification(const gear::Kit& kit, const Rig& rig, double ring);

/// (a) Stores the lens's own magnification at a ring position (above 0, at most 1); one measured there before gives
/// way. `focal_length`: of a zoom when it was measured; `time`: local, ISO 8601.
struct Reading {
    double ring = 1;
    Measurement magnification;
    std::optional<double> focal_length;
    std::string time;
};
void store_reading(gear::Lens& lens, const Reading& reading);

/// (b) The f-number a camera that shows working values shows for the widest stop at closest focus.
void store_displayed_aperture(gear::Lens& lens, const Measurement& f_number, const std::string& time);

/// (c) Sensor to subject, both with the ring at closest focus: bare, and with so much extension behind the lens.
struct SharpDistances {
    double bare = 290;
    double extended = 280;
    double extension = 12;
    double uncertainty = 1;  // of either distance
};
/// What follows: the focal length at closest focus and the distance between the principal planes, from
/// L = f (2 + M + 1/M) + h at M and at M + T/f. Empty where no focal length fits.
struct SharpResult {
    Measurement focal_length;
    Measurement hiatus;
};
std::optional<SharpResult> from_sharp_distances(const optics::Lens& lens, const SharpDistances& measured);
/// Into closest focus and, by the kind of focusing, hiatus or focal length. Not for zooms.
void store_sharp_distances(gear::Lens& lens, const SharpDistances& measured, const SharpResult& result,
                           const std::string& time);

/// Takes a measurement back: the record says again what it said before.
void forget_calibration(gear::Lens& lens, std::size_t index);

/// "Magnification at ring 0.5: 0.462 ± 0.002, record 0.5 (8 % less)".
std::string calibration_text(const gear::Lens& lens, const gear::Calibration& calibration);

}  // namespace poquito::shoot
