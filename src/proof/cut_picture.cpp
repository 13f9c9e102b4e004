#include "proof/cut_picture.hpp"

#include "imaging/colour.hpp"
#include "imaging/parallel.hpp"
#include "storage/frame_reader.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <utility>

namespace poquito::proof {
namespace {

using storage::FramePicture;

/// Of rows of red, green, blue.
std::size_t place(int x, int y, int width) {
    return 3 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x));
}

/// How a file lies is turned to be looked at: 3, 6 and 8 of EXIF.
enum class Lies { upright, upside_down, on_its_left, on_its_right };
Lies lies_of(const std::filesystem::path& file) {
    switch (storage::exif_of_file(file).orientation) {
        case 3:
            return Lies::upside_down;
        case 6:
            return Lies::on_its_left;  // its top lies at the left: a quarter clockwise sets it up
        case 8:
            return Lies::on_its_right;
        default:
            return Lies::upright;
    }
}

/// The same part of the file as it lies.
PicturePart as_it_lies(const PicturePart& part, Lies lies) {
    const double right = 1 - part.left - part.width, below = 1 - part.top - part.height;
    switch (lies) {
        case Lies::upside_down:
            return {.file = part.file, .left = right, .top = below, .width = part.width, .height = part.height};
        case Lies::on_its_left:
            return {.file = part.file, .left = part.top, .top = right, .width = part.height, .height = part.width};
        case Lies::on_its_right:
            return {.file = part.file, .left = below, .top = part.left, .width = part.height, .height = part.width};
        case Lies::upright:
            break;
    }
    return part;
}

FramePicture set_up(FramePicture lying, Lies lies) {
    if (lies == Lies::upright) return lying;
    const bool quarter = lies != Lies::upside_down;
    FramePicture picture{.width = quarter ? lying.height : lying.width,
                         .height = quarter ? lying.width : lying.height,
                         .rgb = std::vector<unsigned char>(lying.rgb.size())};
    for (int y = 0; y < lying.height; ++y)
        for (int x = 0; x < lying.width; ++x) {
            const int to_x = lies == Lies::upside_down   ? lying.width - 1 - x
                             : lies == Lies::on_its_left ? lying.height - 1 - y
                                                         : y;
            const int to_y = lies == Lies::upside_down   ? lying.height - 1 - y
                             : lies == Lies::on_its_left ? x
                                                         : lying.width - 1 - x;
            std::copy_n(lying.rgb.begin() + static_cast<std::ptrdiff_t>(place(x, y, lying.width)), 3,
                        picture.rgb.begin() + static_cast<std::ptrdiff_t>(place(to_x, to_y, picture.width)));
        }
    return picture;
}

text::Expected<FramePicture> part_of(const PicturePart& wanted) {
    const auto lies = lies_of(wanted.file);
    const auto part = as_it_lies(wanted, lies);
    FramePicture picture;
    int x0 = 0, y0 = 0, y = 0;
    storage::RowSink sink;
    sink.begin = [&](int width, int height) {
        x0 = std::clamp(static_cast<int>(std::lround(part.left * width)), 0, width - 1);
        y0 = std::clamp(static_cast<int>(std::lround(part.top * height)), 0, height - 1);
        picture.width = std::clamp(static_cast<int>(std::lround(part.width * width)), 1, width - x0);
        picture.height = std::clamp(static_cast<int>(std::lround(part.height * height)), 1, height - y0);
        picture.rgb.reserve(place(0, picture.height, picture.width));
        return true;
    };
    sink.row = [&](const std::uint8_t* rgb) {
        if (y >= y0 && y < y0 + picture.height)
            picture.rgb.insert(picture.rgb.end(), rgb + place(x0, 0, 0), rgb + place(x0 + picture.width, 0, 0));
        return ++y < y0 + picture.height;
    };
    if (auto read = storage::read_rows(part.file, sink); !read) return std::move(read.error());
    if (picture.rgb.size() != place(0, picture.height, picture.width) || picture.rgb.empty())
        return text::Error{.place = part.file.filename().string(), .problem = "got no pixels, expected a picture"};
    return set_up(std::move(picture), lies);
}

const std::array<double, 256>& light_of_code() {
    static const auto table = [] {
        std::array<double, 256> made{};
        for (std::size_t i = 0; i < made.size(); ++i) made[i] = imaging::to_linear(static_cast<double>(i) / 255);
        return made;
    }();
    return table;
}

/// From one pixel's edge to another's, not whole ones.
struct Span {
    double from, to;

    int first() const { return static_cast<int>(from); }
    int end(int size) const { return std::min(static_cast<int>(std::ceil(to - 1e-9)), size); }
    double of(int pixel) const { return std::min(to, pixel + 1.0) - std::max(from, static_cast<double>(pixel)); }
};

std::array<double, 3> mean_light(const FramePicture& picture, const Span& across, const Span& down) {
    std::array<double, 3> sum{};
    double all = 0;
    for (int y = down.first(); y < down.end(picture.height); ++y)
        for (int x = across.first(); x < across.end(picture.width); ++x) {
            const double weight = down.of(y) * across.of(x);
            const auto at = place(x, y, picture.width);
            for (std::size_t c = 0; c < 3; ++c) sum[c] += weight * light_of_code()[picture.rgb[at + c]];
            all += weight;
        }
    for (double& one : sum) one /= all;
    return sum;
}

/// Into so many columns of `to` from `left` on, all of its rows.
void shrink_into(FramePicture& to, int left, int columns, const FramePicture& from) {
    const double across = static_cast<double>(from.width) / columns,
                 down = static_cast<double>(from.height) / to.height;
    imaging::for_rows(to.height, [&](int y) {
        for (int x = 0; x < columns; ++x) {
            const auto mean = mean_light(from, {x * across, (x + 1) * across}, {y * down, (y + 1) * down});
            const auto at = place(left + x, y, to.width);
            for (std::size_t c = 0; c < 3; ++c)
                to.rgb[at + c] =
                    static_cast<unsigned char>(std::lround(std::clamp(imaging::to_encoded(mean[c]), 0.0, 1.0) * 255));
        }
    });
}

}  // namespace

text::Expected<FramePicture> cut_picture(const std::vector<PicturePart>& parts, std::optional<double> most_long_px) {
    std::vector<FramePicture> read;
    int lowest = 0;
    for (const auto& part : parts) {
        auto picture = part_of(part);
        if (!picture) return std::move(picture.error());
        read.push_back(std::move(*picture));
        lowest = lowest == 0 ? read.back().height : std::min(lowest, read.back().height);
    }
    if (read.empty()) return text::Error{.place = {}, .problem = "got no part, expected one or two"};
    const double high = lowest;
    double wide = 0;
    for (const auto& one : read) wide += one.width * high / one.height;
    const double scale = most_long_px ? std::min(1.0, *most_long_px / std::max(wide, high)) : 1;
    FramePicture picture;
    picture.height = std::max(1, static_cast<int>(std::lround(high * scale)));
    std::vector<int> columns;
    for (const auto& one : read) {
        columns.push_back(std::max(1, static_cast<int>(std::lround(one.width * high / one.height * scale))));
        picture.width += columns.back();
    }
    picture.rgb.resize(place(0, picture.height, picture.width));
    int left = 0;
    for (std::size_t i = 0; i < read.size(); ++i) {
        shrink_into(picture, left, columns[i], read[i]);
        left += columns[i];
    }
    return picture;
}

}  // namespace poquito::proof
