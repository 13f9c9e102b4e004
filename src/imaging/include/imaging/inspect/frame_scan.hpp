#pragma once

#include "imaging/inspect/grey_image.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

/// What one frame shows of itself, gathered row by row as it is decoded: light, and detail in a net of cells. Source:
/// MODEL 11.
namespace poquito::imaging {

/// A number for each cell of a net over the frame, rows from the top.
struct CellMap {
    int columns = 0;
    int rows = 0;
    std::vector<float> values;

    CellMap() = default;
    CellMap(int across, int down)
        : columns(across),
          rows(down),
          values(static_cast<std::size_t>(across) * static_cast<std::size_t>(down), 0.0f) {}
    float& at(int column, int row) {
        return values[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                      static_cast<std::size_t>(column)];
    }
    float at(int column, int row) const { return const_cast<CellMap&>(*this).at(column, row); }
    bool empty() const { return values.empty(); }
};

/// Which way detail runs: mean products of the slopes across and down the frame.
struct Structure {
    double xx = 0, xy = 0, yy = 0;

    /// 0: as much every way; 1: one way only.
    double directed() const;
    /// Degrees, -90 to 90, from across the frame counted clockwise, of the way in which there is least detail: along a
    /// blur by movement.
    double least_along() const;
};

/// Shares of a frame's pixels by luminance, in halves of a stop; the first has all that is darker, the last all that is
/// lighter.
struct LightHistogram {
    static constexpr double from = -8, step = 0.5;  // stops of the lower edge of the first
    std::array<float, 22> shares = {};              // to 3 stops: full scale is 2.47
};

/// 0.18 of full scale is 0 stops; all of linear light.
struct FrameScan {
    int width = 0;  // pixels of the file
    int height = 0;
    int cell = 1;                // pixels across a cell
    double median_stops = 0;     // of luminance
    double brightest_stops = 0;  // 99 % are darker
    double clipped_share = 0;    // with a channel at 254 or above
    double black_share = 0;      // with all channels at 3 or below
    LightHistogram histogram;
    std::array<double, 3> border = {};  // mean red, green and blue of the outer sixteenth, linear, 1 full scale
    CellMap light;                      // mean luminance, linear, 1 full scale
    CellMap level;                      // mean code value, 0 to 255: what noise goes by
    CellMap detail;                     // mean square of second differences two pixels apart, of code values
    CellMap middling;                   // the same four pixels apart, of means of two by two: less of it is noise
    CellMap coarse;                     // and eight pixels apart, of means of four by four
    CellMap clipped;                    // share
    Structure structure;                // of what has detail
    GreyImage small;                    // code values, 0 to 1; a cell to a pixel
};

/// Takes rows of red, green and blue, 8 bits by the curve of sRGB, from the top.
class FrameScanner {
  public:
    FrameScanner(int width, int height);
    void row(const std::uint8_t* rgb);
    /// The same as a JPEG has it: luma, blue and red less luma about 128, of which one goes to 2^`shift` pixels; null:
    /// grey.
    void row(const std::uint8_t* luma, const std::uint8_t* blue, const std::uint8_t* red, int shift);
    /// Once all rows are in.
    FrameScan finish();

  private:
    /// The last five rows of luma, in quarters of a code value, of means of `factor` by `factor` pixels.
    struct Lines {
        int factor = 1;
        int spacing = 1;      // px of the file from one line to the next
        int apart = 2;        // lines between those that are compared
        bool single = false;  // of one line of the finer ones each, not of two
        int count = 0;        // lines so far
        std::array<std::vector<std::int16_t>, 5> last;
        std::vector<std::int16_t> sums;         // of the first of the two rows that make one
        std::vector<double> squares;            // of second differences, a cell
        int row = 0;                            // of cells, that the next are of
        std::vector<std::int32_t> row_squares;  // a place of the line, of that row so far: at most 64 of 2 * 1020^2
        std::vector<int> rows;                  // of lines that each row of cells had

        void start(int factor_of, int width, int columns, int down);
    };
    template <typename PixelAt>
    void measure_light(const PixelAt& pixel_at);
    void measure_level(const Lines& lines);
    template <typename ToLuma>
    void measure_detail(const ToLuma& to_luma);

    int width_, height_, cell_, columns_, rows_;
    int rows_apart_ = 1;  // of those whose detail is looked at
    int step_ = 1;        // of the pixels whose light is looked at
    int y_ = 0;
    FrameScan scan_;
    std::vector<std::uint32_t> histogram_;
    std::uint64_t clipped_ = 0, black_ = 0, looked_ = 0;
    std::array<double, 3> border_sum_ = {};
    double border_count_ = 0;
    static bool add_row(Lines& lines, const std::vector<std::int16_t>& finer, int of);
    CellMap mean_squares(const Lines& lines) const;
    void measure(Lines& lines);
    void sum_squares(Lines& lines);
    void measure_structure(const Lines& lines);
    CellMap map_of(const std::vector<double>& sums, const std::vector<double>& counts, double scale) const;

    std::array<Lines, 3> lines_;  // pixels, two by two, four by four
    std::vector<double> light_sum_, level_sum_, level_count_, clipped_sum_, light_count_;
};

}  // namespace poquito::imaging
