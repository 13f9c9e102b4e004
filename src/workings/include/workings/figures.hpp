#pragma once

#include "advice/advice.hpp"

#include <optional>
#include <string>
#include <vector>

/// The numbers of a shot as people read them, each with its working. Ledger and run sheet read these.
namespace poquito::workings {

/// How a number came about. `expression` and `substitution` are plain arithmetic (+ - * / ^, parentheses, log2, sqrt,
/// sin, min, max, ceil, pi) that any calculator takes; the substitution evaluates to `result`.
struct Working {
    std::string symbol;        // m
    std::string expression;    // m_s + T / f_s
    std::string substitution;  // 0.664 + 12 / 76.7
    double result = 0;         // in core units
    std::string unit;          // of the result: mm, stops, s; empty for a ratio
    std::string source;

    bool operator==(const Working&) const = default;
};

struct Figure {
    std::string key;  // as in the report's JSON: magnification
    advice::Station station = advice::Station::reach;
    std::string name;                            // Magnification
    std::string value;                           // 0.82
    std::string unit;                            // ×
    advice::Level weight = advice::Level::info;  // caution or stop: a note is about this figure
    std::optional<Working> working;

    bool operator==(const Figure&) const = default;
};

/// In the order of the stations. Values that do not exist are left out.
std::vector<Figure> figures(const advice::Assessment& assessment);

/// What a station comes to, in a line: "0.36×, 297 mm air, f/10.9".
std::string headline(const advice::Assessment& assessment, advice::Station station);

/// For people: × · − and real exponents in place of * and ^2.
std::string pretty(const std::string& expression);

}  // namespace poquito::workings
