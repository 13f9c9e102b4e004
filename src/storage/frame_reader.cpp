#include "storage/frame_reader.hpp"

#include <fmt/format.h>
#include <libraw/libraw.h>
#include <png.h>
#include <tiffio.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cstdio>
#include <memory>
#include <stdexcept>
#include <string>
#include <vector>

#include <jpeglib.h>  // behind <cstdio>: it names FILE without including it

namespace poquito::storage {
namespace {

constexpr double most_pixels = 400e6;  // a file that says more is damaged, or not meant for this

struct Wrong : std::runtime_error {
    using std::runtime_error::runtime_error;
};

void check_size(double width, double height) {
    if (!(width >= 1) || !(height >= 1) || width * height > most_pixels)
        throw Wrong(fmt::format("got a picture of {:.0f} by {:.0f} pixels, expected up to 400 million", width, height));
}

using File = std::unique_ptr<std::FILE, int (*)(std::FILE*)>;

// ---- JPEG --------------------------------------------------------------------------------------------------------

/// libjpeg ends the program on an error unless it is told otherwise.
[[noreturn]] void refuse(j_common_ptr info) {
    std::array<char, JMSG_LENGTH_MAX> text{};
    info->err->format_message(info, text.data());
    throw Wrong(text.data());
}
void keep_quiet(j_common_ptr) {}

struct Decompressor {
    jpeg_decompress_struct info{};
    jpeg_error_mgr errors{};
    explicit Decompressor(std::FILE* file) {
        info.err = jpeg_std_error(&errors);
        errors.error_exit = refuse;
        errors.output_message = keep_quiet;
        jpeg_create_decompress(&info);
        jpeg_stdio_src(&info, file);
    }
    ~Decompressor() { jpeg_destroy_decompress(&info); }
    Decompressor(const Decompressor&) = delete;
    Decompressor& operator=(const Decompressor&) = delete;
};

/// Luma of one sample a pixel, colours of one to one or two of them each way.
bool has_luma(const jpeg_decompress_struct& info) {
    if (info.num_components == 1) return info.jpeg_color_space == JCS_GRAYSCALE;
    if (info.jpeg_color_space != JCS_YCbCr) return false;
    const auto* all = info.comp_info;
    return all[0].h_samp_factor <= 2 && all[0].v_samp_factor <= 2 && all[1].h_samp_factor == 1 &&
           all[1].v_samp_factor == 1 && all[2].h_samp_factor == 1 && all[2].v_samp_factor == 1;
}

void read_luma(Decompressor& jpeg, const RowSink& sink) {
    auto& info = jpeg.info;
    info.raw_data_out = TRUE;
    info.out_color_space = info.jpeg_color_space;
    info.do_fancy_upsampling = FALSE;
    jpeg_start_decompress(&info);
    if (!sink.begin(static_cast<int>(info.output_width), static_cast<int>(info.output_height))) return;
    const bool grey = info.num_components == 1;
    const int down = grey ? 1 : info.max_v_samp_factor;  // rows of luma to one of colours
    // Whole blocks at a time, as the library gives them.
    std::array<std::vector<std::uint8_t>, 3> samples;
    std::array<std::vector<JSAMPROW>, 3> rows;
    std::array<JSAMPARRAY, 3> planes{};
    for (std::size_t c = 0; c < static_cast<std::size_t>(info.num_components); ++c) {
        const auto& one = info.comp_info[c];
        const std::size_t wide = std::size_t{one.width_in_blocks} * DCTSIZE;
        const auto high = static_cast<std::size_t>(one.v_samp_factor) * DCTSIZE;
        samples[c].resize(wide * high);
        for (std::size_t y = 0; y < high; ++y) rows[c].push_back(samples[c].data() + y * wide);
        planes[c] = rows[c].data();
    }
    const JDIMENSION each = static_cast<JDIMENSION>(info.max_v_samp_factor) * DCTSIZE;
    while (info.output_scanline < info.output_height) {
        const JDIMENSION before = info.output_scanline;
        jpeg_read_raw_data(&info, planes.data(), each);
        if (jpeg.errors.num_warnings > 0) throw Wrong("damaged or cut off");
        const auto got = std::min(info.output_height, before + each) - before;
        for (std::size_t y = 0; y < got; ++y) {
            LumaRow row{.luma = rows[0][y]};
            if (!grey) {
                const std::size_t at = y / static_cast<std::size_t>(down);
                row.blue = rows[1][at], row.red = rows[2][at];
                row.shift = info.max_h_samp_factor - 1;
            }
            if (!sink.luma(row)) return;
        }
    }
    jpeg_finish_decompress(&info);
    if (jpeg.errors.num_warnings > 0) throw Wrong("damaged or cut off");
}

void read_jpeg(std::FILE* file, const RowSink& sink) {
    Decompressor jpeg(file);
    auto& info = jpeg.info;
    jpeg_read_header(&info, TRUE);
    check_size(info.image_width, info.image_height);
    if (info.num_components != 1 && info.num_components != 3)
        throw Wrong(fmt::format("got {} colours, expected 1 or 3", info.num_components));
    if (sink.luma && has_luma(info)) return read_luma(jpeg, sink);
    info.out_color_space = JCS_RGB;
    jpeg_start_decompress(&info);
    if (!sink.begin(static_cast<int>(info.output_width), static_cast<int>(info.output_height))) return;
    std::vector<std::uint8_t> line(static_cast<std::size_t>(info.output_width) * 3);
    while (info.output_scanline < info.output_height) {
        JSAMPROW row = line.data();
        jpeg_read_scanlines(&info, &row, 1);
        if (jpeg.errors.num_warnings > 0) throw Wrong("damaged or cut off");
        if (!sink.row(line.data())) return;
    }
    jpeg_finish_decompress(&info);
    if (jpeg.errors.num_warnings > 0) throw Wrong("damaged or cut off");
}

// ---- the others --------------------------------------------------------------------------------------------------

struct PngPicture {
    png_image image{};
    PngPicture() { image.version = PNG_IMAGE_VERSION; }
    ~PngPicture() { png_image_free(&image); }
    PngPicture(const PngPicture&) = delete;
    PngPicture& operator=(const PngPicture&) = delete;
};

void read_png(std::FILE* file, const RowSink& sink) {
    PngPicture png;
    if (!png_image_begin_read_from_stdio(&png.image, file)) throw Wrong(png.image.message);
    check_size(png.image.width, png.image.height);
    png.image.format = PNG_FORMAT_RGB;
    std::vector<std::uint8_t> all(PNG_IMAGE_SIZE(png.image));
    const png_color black{};
    if (!png_image_finish_read(&png.image, &black, all.data(), 0, nullptr)) throw Wrong(png.image.message);
    if (!sink.begin(static_cast<int>(png.image.width), static_cast<int>(png.image.height))) return;
    const std::size_t stride = static_cast<std::size_t>(png.image.width) * 3;
    for (std::size_t y = 0; y < png.image.height; ++y)
        if (!sink.row(all.data() + y * stride)) return;
}

void read_tiff(const std::filesystem::path& path, const RowSink& sink) {
    TIFFSetErrorHandler(nullptr);
    TIFFSetWarningHandler(nullptr);
    const std::unique_ptr<TIFF, void (*)(TIFF*)> tiff(TIFFOpen(path.c_str(), "r"), TIFFClose);
    if (!tiff) throw Wrong("not a TIFF that can be read");
    std::uint32_t width = 0, height = 0;
    TIFFGetField(tiff.get(), TIFFTAG_IMAGEWIDTH, &width);
    TIFFGetField(tiff.get(), TIFFTAG_IMAGELENGTH, &height);
    check_size(width, height);
    std::array<char, 1024> why{};
    if (!TIFFRGBAImageOK(tiff.get(), why.data())) throw Wrong(why.data());
    std::vector<std::uint32_t> all(static_cast<std::size_t>(width) * height);
    // As it lies, whatever its orientation says: that is for who looks at it.
    TIFFRGBAImage image{};
    if (!TIFFRGBAImageBegin(&image, tiff.get(), 1, why.data())) throw Wrong(why.data());
    image.orientation = image.req_orientation = ORIENTATION_TOPLEFT;
    const bool whole = TIFFRGBAImageGet(&image, all.data(), width, height) != 0;
    TIFFRGBAImageEnd(&image);
    if (!whole) throw Wrong("damaged or cut off");
    if (!sink.begin(static_cast<int>(width), static_cast<int>(height))) return;
    std::vector<std::uint8_t> line(static_cast<std::size_t>(width) * 3);
    for (std::size_t y = 0; y < height; ++y) {
        for (std::size_t x = 0; x < width; ++x) {
            const std::uint32_t pixel = all[y * width + x];
            line[3 * x] = static_cast<std::uint8_t>(TIFFGetR(pixel));
            line[3 * x + 1] = static_cast<std::uint8_t>(TIFFGetG(pixel));
            line[3 * x + 2] = static_cast<std::uint8_t>(TIFFGetB(pixel));
        }
        if (!sink.row(line.data())) return;
    }
}

void read_raw(const std::filesystem::path& path, const RowSink& sink) {
    const auto raw = std::make_unique<LibRaw>();  // large
    const auto done = [](int code) {
        if (code != LIBRAW_SUCCESS) throw Wrong(libraw_strerror(code));
    };
    auto& how = raw->imgdata.params;
    how.half_size = 1;
    how.user_flip = 0;  // as it lies too
    how.use_camera_wb = 1;
    how.no_auto_bright = 1;
    how.output_bps = 8;
    how.output_color = 1;                        // sRGB
    how.gamm[0] = 1 / 2.4, how.gamm[1] = 12.92;  // and its curve
    done(raw->open_file(path.c_str()));
    check_size(raw->imgdata.sizes.raw_width, raw->imgdata.sizes.raw_height);
    done(raw->unpack());
    done(raw->dcraw_process());
    int error = LIBRAW_SUCCESS;
    const std::unique_ptr<libraw_processed_image_t, void (*)(libraw_processed_image_t*)> picture(
        raw->dcraw_make_mem_image(&error), LibRaw::dcraw_clear_mem);
    done(error);
    if (!picture || picture->type != LIBRAW_IMAGE_BITMAP || picture->colors != 3 || picture->bits != 8)
        throw Wrong("not a raw picture of three colours");
    if (!sink.begin(picture->width, picture->height)) return;
    for (std::size_t y = 0; y < picture->height; ++y)
        if (!sink.row(picture->data + y * picture->width * 3)) return;
}

std::string ending(const std::filesystem::path& path) {
    std::string end = path.extension().string();
    for (char& letter : end) letter = static_cast<char>(std::tolower(static_cast<unsigned char>(letter)));
    return end;
}

void read_any(const std::filesystem::path& path, const RowSink& sink) {
    std::error_code trouble;
    if (!std::filesystem::is_regular_file(path, trouble)) throw Wrong("no such file");
    const File file(std::fopen(path.c_str(), "rb"), std::fclose);
    if (!file) throw Wrong("cannot be opened");
    std::array<unsigned char, 8> head{};
    const std::size_t got = std::fread(head.data(), 1, head.size(), file.get());
    std::rewind(file.get());
    if (got < head.size()) throw Wrong("too short for a picture");
    if (head[0] == 0xFF && head[1] == 0xD8) return read_jpeg(file.get(), sink);
    if (png_sig_cmp(head.data(), 0, head.size()) == 0) return read_png(file.get(), sink);
    const std::string end = ending(path);
    if (end == ".tif" || end == ".tiff") return read_tiff(path, sink);
    read_raw(path, sink);
}

}  // namespace

std::optional<ReadError> read_rows(const std::filesystem::path& path, const RowSink& sink) {
    try {
        read_any(path, sink);
        return std::nullopt;
    } catch (const std::exception& error) {
        return ReadError{.place = path.filename().string(), .problem = error.what()};
    }
}

std::string embedded_preview(const std::filesystem::path& path) {
    const auto raw = std::make_unique<LibRaw>();  // large
    if (raw->open_file(path.c_str()) != LIBRAW_SUCCESS || raw->unpack_thumb() != LIBRAW_SUCCESS) return {};
    const auto& thumbnail = raw->imgdata.thumbnail;
    if (thumbnail.tformat != LIBRAW_THUMBNAIL_JPEG || !thumbnail.thumb) return {};
    return {thumbnail.thumb, thumbnail.tlength};
}

bool may_be_frame(const std::filesystem::path& path) {
    static const std::array<const char*, 16> ends = {".jpg", ".jpeg", ".png", ".tif", ".tiff", ".dng", ".nef", ".cr2",
                                                     ".cr3", ".arw",  ".raf", ".orf", ".rw2",  ".pef", ".srw", ".raw"};
    return std::ranges::find(ends, ending(path)) != ends.end();
}

}  // namespace poquito::storage
