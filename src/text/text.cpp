#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

namespace poquito::text {
namespace {

std::string_view trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\u00a0");
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(" \t") - first + 1);
}

std::string without_trailing_zeros(std::string text) {
    if (text.find('.') == std::string::npos) return text;
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.') text.pop_back();
    return text;
}

}  // namespace

// ---- to text -----------------------------------------------------------------------------------------------------

std::string number_text(double value, int digits) {
    const double size = std::abs(value);
    if (size < 1e-12) return "0";  // what rounding leaves of nothing
    if (size < 1e-6 || !(size < 1e9)) return fmt::format("{:.{}g}", value, digits);
    const int before_point = static_cast<int>(std::floor(std::log10(size))) + 1;
    std::string text = without_trailing_zeros(fmt::format("{:.{}f}", value, std::max(0, digits - before_point)));
    return text == "-0" ? "0" : text;
}

std::string f_number_text(double f_number) { return "f/" + number_text(f_number, f_number < 100 ? 3 : 4); }

std::string shutter_text(double seconds) {
    const auto rounded = [](double value, int digits) {
        const double unit = std::pow(10.0, std::floor(std::log10(value)) + 1 - digits);
        return std::round(value / unit) * unit;
    };
    if (seconds <= 0) return "0 s";
    if (seconds < 0.3) return fmt::format("1/{} s", number_text(rounded(1 / seconds, 3)));
    return number_text(seconds, 3) + " s";
}

std::string exposure_text(double f_number, double shutter, double iso) {
    return fmt::format("{} \u00b7 {} \u00b7 ISO {}", f_number_text(f_number), shutter_text(shutter),
                       number_text(iso, 6));
}

std::string power_text(double fraction) {
    if (fraction <= 0) return "0";
    const double stops = std::log2(fraction);
    const double full = std::floor(stops + 1e-6);
    const double thirds = std::round((stops - full) * 3);
    if (fraction > 1.001) return number_text(fraction, 3);
    if (std::abs(stops - full - thirds / 3) > 0.02) return "1/" + number_text(1 / fraction, 3);
    const double whole = thirds == 3 ? full + 1 : full;
    const auto text = fmt::format("1/{:.0f}", std::exp2(-whole));
    if (thirds == 1) return text + " +0.3";
    return thirds == 2 ? text + " +0.7" : text;
}

std::string stops_text(double stops) {
    std::string size = fmt::format("{:.1f}", std::abs(stops));
    if (size == "0.0") return size;
    return (stops < 0 ? "\u2212" : "+") + size;
}

std::string length_text(double mm) {
    const double size = std::abs(mm);
    if (size == 0) return "0 mm";
    if (size < 0.1) return number_text(mm * 1000, 3) + " \u00b5m";
    if (size < 1000) return number_text(mm, 3) + " mm";
    return number_text(mm / 1000, 3) + " m";
}

std::string magnification_text(double m) { return number_text(m, 3) + "\u00d7"; }

std::string time_text(double seconds) {
    if (seconds > 0 && seconds < 0.3) return shutter_text(seconds);
    if (seconds < 9.95) return number_text(seconds, 2) + " s";
    const double whole = std::round(seconds);
    if (whole < 60) return fmt::format("{:.0f} s", whole);
    const double minutes = std::floor(whole / 60);
    const double rest = whole - minutes * 60;
    if (minutes < 60)
        return rest > 0 ? fmt::format("{:.0f} min {:.0f} s", minutes, rest) : fmt::format("{:.0f} min", minutes);
    const double hours = std::floor(minutes / 60);
    if (minutes == hours * 60) return number_text(hours, 6) + " h";
    return fmt::format("{} h {:.0f} min", number_text(hours, 6), minutes - hours * 60);
}

std::string day_time_text(double seconds) {
    const double minutes = std::round(seconds / 60);
    const double hours = std::floor(minutes / 60), days = std::floor(hours / 24);
    const auto clock = fmt::format("{:.0f}:{:02.0f}", hours - days * 24, minutes - hours * 60);
    return days > 0 ? fmt::format("{} on day {}", clock, number_text(days + 1, 6)) : clock;
}

std::string colour_text(const Colour& colour) {
    return fmt::format("#{:02x}{:02x}{:02x}", colour.red, colour.green, colour.blue);
}

std::string data_text(double megabytes) {
    if (megabytes < 950) return number_text(megabytes, 3) + " MB";
    return number_text(megabytes / 1000, 3) + " GB";
}

std::string count_text(double count, const char* one, const char* many) {
    return fmt::format("{} {}", number_text(count, 9), count == 1 ? one : many);
}

std::string unique_id(const std::string& name, const std::string& otherwise,
                      const std::function<bool(const std::string&)>& taken) {
    std::string stem;
    for (const char c : name) {
        const auto byte = static_cast<unsigned char>(c);
        if (std::isalnum(byte)) {
            stem += static_cast<char>(std::tolower(byte));
        } else if (!stem.empty() && stem.back() != '-') {
            stem += '-';
        }
    }
    while (stem.ends_with('-')) stem.pop_back();
    if (stem.empty()) stem = otherwise;
    if (!taken(stem)) return stem;
    for (int n = 2;; ++n)
        if (auto id = stem + "-" + std::to_string(n); !taken(id)) return id;
}

// ---- from text ---------------------------------------------------------------------------------------------------

namespace {

/// A plain decimal number that takes the whole of `text`.
std::optional<double> parse_decimal(std::string_view text) {
    std::string copy(trimmed(text));
    if (const auto comma = copy.find(','); comma != std::string::npos && copy.find(',', comma + 1) == std::string::npos)
        copy[comma] = '.';
    const char* first = copy.data();
    if (copy.size() > 1 && copy[0] == '+') ++first;
    double value = 0;
    const auto [end, error] = std::from_chars(first, copy.data() + copy.size(), value);
    if (error != std::errc() || end != copy.data() + copy.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

struct Unit {
    std::string_view name;
    double factor;
};

/// Number followed by one of the units, or by nothing.
template <std::size_t N>
std::optional<double> parse_with_unit(std::string_view text, const std::array<Unit, N>& units) {
    text = trimmed(text);
    for (const auto& [name, factor] : units) {
        if (!text.ends_with(name)) continue;
        if (const auto value = parse_number(text.substr(0, text.size() - name.size()))) return *value * factor;
    }
    return parse_number(text);
}

std::string with_hyphen_minus(std::string_view text) {
    std::string copy(text);
    constexpr std::string_view minus = "\u2212";
    for (auto at = copy.find(minus); at != std::string::npos; at = copy.find(minus))
        copy.replace(at, minus.size(), "-");
    return copy;
}

}  // namespace

std::optional<double> parse_number(std::string_view original) {
    const std::string copy = with_hyphen_minus(original);
    const std::string_view text = trimmed(copy);
    const auto slash = text.find('/');
    if (slash == std::string_view::npos) return parse_decimal(text);
    const auto below = parse_decimal(text.substr(slash + 1));
    if (!below || *below <= 0) return std::nullopt;
    const std::string_view before = trimmed(text.substr(0, slash));
    const auto space = before.find_last_of(' ');
    if (space == std::string_view::npos) {
        const auto above = parse_decimal(before);
        return above ? std::optional(*above / *below) : std::nullopt;
    }
    const auto whole = parse_decimal(before.substr(0, space));
    const auto above = parse_decimal(before.substr(space + 1));
    if (!whole || !above || *above < 0) return std::nullopt;
    return before.front() == '-' ? *whole - *above / *below : *whole + *above / *below;
}

std::optional<double> parse_f_number(std::string_view text) {
    text = trimmed(text);
    if (text.starts_with("f") || text.starts_with("F")) text.remove_prefix(1);
    text = trimmed(text);
    if (text.starts_with("/")) text.remove_prefix(1);
    return parse_number(text);
}

std::optional<double> parse_shutter(std::string_view text) {
    static constexpr std::array<Unit, 7> units = {
        {{"min", 60}, {"ms", 1e-3}, {"\u00b5s", 1e-6}, {"us", 1e-6}, {"sec", 1}, {"s", 1}, {"\"", 1}}};
    return parse_with_unit(text, units);
}

std::optional<double> parse_power(std::string_view original) {
    const std::string copy = with_hyphen_minus(original);
    const std::string_view text = trimmed(copy);
    static constexpr std::array<Unit, 1> percent = {{{"%", 0.01}}};
    const auto sign = text.find_last_of("+-");
    const bool exponent =
        sign != std::string_view::npos && sign > 0 && (text[sign - 1] == 'e' || text[sign - 1] == 'E');
    if (sign == std::string_view::npos || sign == 0 || exponent) return parse_with_unit(text, percent);
    const auto fraction = parse_number(text.substr(0, sign));
    const auto stops = parse_number(text.substr(sign));
    if (!fraction || !stops) return std::nullopt;
    // "+0.3" and "+0.7" are what displays print for thirds.
    return *fraction *
           std::exp2(std::abs(*stops * 3 - std::round(*stops * 3)) <= 0.11 ? std::round(*stops * 3) / 3 : *stops);
}

std::optional<double> parse_stops(std::string_view text) {
    text = trimmed(text);
    if (text.starts_with("EV") || text.starts_with("ev")) text.remove_prefix(2);
    static constexpr std::array<Unit, 4> units = {{{"stops", 1}, {"stop", 1}, {"EV", 1}, {"ev", 1}}};
    return parse_with_unit(text, units);
}

std::optional<double> parse_length(std::string_view text) {
    constexpr double inch = 25.4;
    static constexpr std::array<Unit, 10> units = {{{"\u00b5m", 1e-3},
                                                    {"\u03bcm", 1e-3},
                                                    {"um", 1e-3},
                                                    {"mm", 1},
                                                    {"cm", 10},
                                                    {"m", 1000},
                                                    {"\"", inch},
                                                    {"in", inch},
                                                    {"ft", 12 * inch},
                                                    {"'", 12 * inch}}};
    return parse_with_unit(text, units);
}

std::optional<double> parse_magnification(std::string_view text) {
    text = trimmed(text);
    if (const auto colon = text.find(':'); colon != std::string_view::npos) {
        const auto image = parse_number(text.substr(0, colon));
        const auto subject = parse_number(text.substr(colon + 1));
        if (!image || !subject || *subject <= 0) return std::nullopt;
        return *image / *subject;
    }
    static constexpr std::array<Unit, 3> units = {{{"\u00d7", 1}, {"x", 1}, {"X", 1}}};
    return parse_with_unit(text, units);
}

std::optional<double> parse_percent(std::string_view text) {
    static constexpr std::array<Unit, 1> units = {{{"%", 1}}};
    const auto value = parse_with_unit(text, units);
    return value ? std::optional(*value / 100) : std::nullopt;
}

std::optional<double> parse_speed(std::string_view text) {
    static constexpr std::array<Unit, 4> units = {{{"mm/s", 1}, {"cm/s", 10}, {"km/h", 1e6 / 3600}, {"m/s", 1000}}};
    return parse_with_unit(text, units);
}

std::optional<Colour> parse_colour(std::string_view text) {
    text = trimmed(text);
    if (text.size() != 7 || text.front() != '#') return std::nullopt;
    Colour colour;
    std::uint8_t* const parts[] = {&colour.red, &colour.green, &colour.blue};
    for (std::size_t i = 0; i < 3; ++i) {
        const char* end = text.data() + 3 + 2 * i;
        if (const auto read = std::from_chars(end - 2, end, *parts[i], 16); read.ptr != end || read.ec != std::errc())
            return std::nullopt;
    }
    return colour;
}

std::optional<double> parse_angle(std::string_view text) {
    static constexpr std::array<Unit, 2> units = {{{"\u00b0", 1}, {"deg", 1}}};
    return parse_with_unit(text, units);
}

std::optional<double> parse_duration(std::string_view text) {
    constexpr std::pair<std::string_view, double> units[] = {{"min", 60}, {"h", 3600}, {"s", 1}};
    double sum = 0;
    bool any = false;
    while (!text.empty()) {
        const auto begin = text.find_first_not_of(' ');
        if (begin == std::string_view::npos) break;
        text.remove_prefix(begin);
        const auto digits = std::min(text.find_first_not_of("0123456789.,"), text.size());
        const auto value = parse_number(text.substr(0, digits));
        if (!value) return std::nullopt;
        text.remove_prefix(digits);
        text.remove_prefix(std::min(text.find_first_not_of(' '), text.size()));
        if (text.empty()) {
            if (any) return std::nullopt;  // "2 min 30" of what?
            return *value;
        }
        const auto unit = std::find_if(std::begin(units), std::end(units),
                                       [&](const auto& entry) { return text.starts_with(entry.first); });
        if (unit == std::end(units)) return std::nullopt;
        sum += *value * unit->second;
        text.remove_prefix(unit->first.size());
        any = true;
    }
    return any ? std::optional(sum) : std::nullopt;
}

std::optional<double> parse_day_time(std::string_view text) {
    const auto colon = text.find_first_of(":.");
    const auto whole = [](std::string_view digits) -> std::optional<double> {
        while (!digits.empty() && digits.front() == ' ') digits.remove_prefix(1);
        while (!digits.empty() && digits.back() == ' ') digits.remove_suffix(1);
        if (digits.empty() || digits.size() > 2 || digits.find_first_not_of("0123456789") != std::string_view::npos)
            return std::nullopt;
        return parse_number(digits);
    };
    const auto hours = whole(text.substr(0, colon));
    const auto minutes = colon == std::string_view::npos ? std::optional(0.0) : whole(text.substr(colon + 1));
    if (!hours || !minutes || *hours > 24 || *minutes > 59) return std::nullopt;
    return (*hours * 60 + *minutes) * 60;
}

}  // namespace poquito::text
