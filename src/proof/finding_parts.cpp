#include "finding_parts.hpp"

#include "imaging/inspect/median.hpp"

#include <fmt/format.h>

#include <cmath>
#include <map>

namespace poquito::proof {

using imaging::median;

void add(std::vector<Finding>& to, Code code, Level level, std::string text, std::optional<PictureArea> place) {
    Finding& finding = to.emplace_back();
    finding.code = code;
    finding.level = level;
    finding.text = std::move(text);
    finding.place = place;
}

std::string list_text(const std::vector<int>& numbers) {
    std::string text;
    for (std::size_t i = 0; i < numbers.size();) {
        std::size_t last = i;
        while (last + 1 < numbers.size() && numbers[last + 1] == numbers[last] + 1) ++last;
        if (!text.empty()) text += ", ";
        text += last > i + 1    ? fmt::format("{} to {}", numbers[i], numbers[last])
                : last == i + 1 ? fmt::format("{}, {}", numbers[i], numbers[last])
                                : fmt::format("{}", numbers[i]);
        i = last + 1;
    }
    return text;
}

std::optional<double> usual(const std::vector<double>& values) {
    std::map<double, std::size_t> counts;
    for (const double value : values) ++counts[value];
    for (const auto& [value, count] : counts)
        if (2 * count > values.size()) return value;
    return std::nullopt;
}

double brighter_by_settings(const storage::FrameExif& frame, const storage::FrameExif& usual) {
    double stops = 0;
    const auto add = [&](double value, double wanted, double each) {
        if (value > 0 && wanted > 0) stops += each * std::log2(value / wanted);
    };
    add(frame.shutter, usual.shutter, 1);
    add(frame.iso, usual.iso, 1);
    add(frame.f_number, usual.f_number, -2);
    return stops;
}

storage::FrameExif usual_exif(const std::vector<FrameFacts>& frames) {
    storage::FrameExif most{.f_number = 0, .shutter = 0, .iso = 0, .focal_length = 0};
    const auto of = [&](auto member) {
        std::vector<double> values;
        for (const auto& frame : frames)
            if (frame.exif.*member > 0) values.push_back(frame.exif.*member);
        return values.empty() ? 0 : usual(values).value_or(median(values));
    };
    most.f_number = of(&storage::FrameExif::f_number);
    most.shutter = of(&storage::FrameExif::shutter);
    most.iso = of(&storage::FrameExif::iso);
    most.focal_length = of(&storage::FrameExif::focal_length);
    return most;
}

}  // namespace poquito::proof
