// libFuzzer's target, the door of pictures: whatever stands in a file that calls itself a frame, it is looked at or
// refused: its rows by its own first bytes, as TIFF and as raw, what its EXIF says, the preview and the plan it may
// carry. What is read apart is read by the program as it ships (scripts/fuzz puts it beside this one).
#include "imaging/inspect/frame_scan.hpp"
#include "storage/frame_file.hpp"
#include "storage/frame_reader.hpp"
#include "storage/picture_plan.hpp"
#include "written_file.hpp"

#include <cmath>
#include <cstdlib>
#include <optional>
#include <string>

using namespace poquito;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const char* endings[] = {".jpg", ".tif", ".dng"};
    const auto path = fuzz::written_file(endings[size % 3], data, size);
    std::optional<imaging::FrameScanner> scanner;
    const auto begin = [&](int width, int height) {
        if (width < 1 || height < 1) std::abort();
        // What is large is only slow.
        constexpr double most = 4e6;
        if (static_cast<double>(width) * height > most) return false;
        scanner.emplace(width, height);
        return true;
    };
    const auto row = [&](const std::uint8_t* rgb) {
        scanner->row(rgb);
        return true;
    };
    const auto luma = [&](const storage::LumaRow& one) {
        scanner->row(one.luma, one.blue, one.red, one.shift);
        return true;
    };
    for (const bool by_luma : {false, true}) {
        scanner.reset();
        const auto error = storage::read_rows(
            path, {.begin = begin, .row = row, .luma = by_luma ? luma : decltype(storage::RowSink::luma){}});
        if (error || !scanner) continue;
        const auto scan = scanner->finish();
        if (!std::isfinite(scan.median_stops) || !std::isfinite(scan.structure.directed())) std::abort();
    }
    const auto exif = storage::exif_of_file(path);
    if (!std::isfinite(exif.f_number) || !std::isfinite(exif.shutter) || !std::isfinite(exif.iso)) std::abort();
    (void)storage::embedded_preview(path);
    (void)storage::plan_in_picture(std::string(reinterpret_cast<const char*>(data), size));
    return 0;
}
