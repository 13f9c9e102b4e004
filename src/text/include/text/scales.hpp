#pragma once

/// The nominal scales that cameras and flashes step through, in thirds of a stop. Sources: ISO 517 (f-numbers), ISO 516
/// (shutter times), ISO 5800 (speeds). Values are stepped, never snapped: a typed number stays as typed.
namespace poquito::text {

/// `steps` places along the scale, positive towards the larger number; from between two marks the first step goes to
/// the nearer neighbour in that direction. Past either end the end stays.
double step_f_number(double f_number, int steps);
double step_shutter(double seconds, int steps);
double step_iso(double iso, int steps);

/// The mark nearest in stops, for what is computed and then set by hand.
double nearest_f_number(double f_number);
double nearest_shutter(double seconds);
double nearest_iso(double iso);

/// Thirds of a stop exactly: 2^(n/3) of full power, at most 1.
double step_power(double fraction, int steps);

}  // namespace poquito::text
