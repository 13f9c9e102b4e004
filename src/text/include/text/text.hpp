#pragma once

#include "text/colour.hpp"

#include <functional>
#include <optional>
#include <string>
#include <string_view>

/// The one place where numbers become text for people, and what people type becomes numbers. Files do not pass here.
/// Core units everywhere: mm, s, stops, fractions. Nothing depends on the locale; a comma counts as a decimal point.
namespace poquito::text {

// ---- to text -----------------------------------------------------------------------------------------------------

/// `digits` significant digits, no trailing zeros, no exponent between 1e-6 and 1e9: 0.34, 156, 28.7, 1 200 000.
std::string number_text(double value, int digits = 3);
std::string f_number_text(double f_number);                              // f/5.6
std::string shutter_text(double seconds);                                // 1/200 s, 0.5 s, 2 s
std::string exposure_text(double f_number, double shutter, double iso);  // f/5.6 · 1/200 s · ISO 400
std::string power_text(double fraction);        // 1/1, 1/32, 1/32 +0.3 (stops above 1/32), 1/21.1, 1.4
std::string stops_text(double stops);           // +0.1, -7.2 (true minus sign), 0.0
std::string length_text(double mm);             // 12 µm, 3.4 mm, 65 cm, 2.3 m
std::string magnification_text(double m);       // 0.82×
std::string time_text(double seconds);          // 0.4 s, 22 s, 1 min 12 s, 2 h 5 min
std::string day_time_text(double seconds);      // 9:05, of s after midnight; past it 25:10
std::string colour_text(const Colour& colour);  // #7f9c8a
std::string data_text(double megabytes);        // 480 MB, 0.7 GB
std::string count_text(double count, const char* one, const char* many);  // 1 frame, 22 frames

/// Lower-case letters and digits of a name with hyphens between, that `taken` does not know: "Tide brooch" gives
/// "tide-brooch", then "tide-brooch-2". `otherwise` where nothing is left of the name.
std::string unique_id(const std::string& name, const std::string& otherwise,
                      const std::function<bool(const std::string&)>& taken);

// ---- from text; empty: not understood ----------------------------------------------------------------------------

/// 5.6, 5,6, .5, 1e-3, 3/4, 1 1/2.
std::optional<double> parse_number(std::string_view text);
std::optional<double> parse_f_number(std::string_view text);       // 5.6, f/5.6, F5.6
std::optional<double> parse_shutter(std::string_view text);        // 1/200, 1/200 s, 0.5, 2", 4 ms, 1 min
std::optional<double> parse_power(std::string_view text);          // 1/8, 1/8 +0.3, 0.125, 12.5 %
std::optional<double> parse_stops(std::string_view text);          // +0.3, -1 1/3, 2 EV, EV 8, 1 stop
std::optional<double> parse_length(std::string_view text);         // 12 (mm), 250 um, 3.5 cm, 0.3 m, 3/4", 2 in, 1 ft
std::optional<double> parse_magnification(std::string_view text);  // 0.5, 0.5x, 1:2, 2:1
std::optional<double> parse_percent(std::string_view text);        // 25, 25 %: both 0.25
std::optional<double> parse_speed(std::string_view text);          // 5 (mm/s), 2 cm/s, 1 m/s, 3 km/h
std::optional<Colour> parse_colour(std::string_view text);         // #7f9c8a
std::optional<double> parse_angle(std::string_view text);          // 30, 30°, 30 deg

/// "90", "90 s", "2 min", "1 h 5 min", "2.5 min"; s.
std::optional<double> parse_duration(std::string_view text);

/// "9:05", "9.05" or "9"; s after midnight.
std::optional<double> parse_day_time(std::string_view text);

}  // namespace poquito::text
