#include "storage/frame_reader.hpp"

#include "exif_tags.hpp"
#include "picture_process.hpp"
#include "wrong_picture.hpp"

#include <fmt/format.h>
#include <png.h>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cstdio>
#include <memory>
#include <string>
#include <vector>

#include <jpeglib.h>  // behind <cstdio>: it names FILE without including it

namespace poquito::storage {
namespace {

constexpr double most_png_pixels = 100e6;  // read whole

using File = std::unique_ptr<std::FILE, int (*)(std::FILE*)>;

/// A regular file of this machine, opened by ourselves: no library is given a name to make something of.
File opened(const std::filesystem::path& path) {
    const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    File file(descriptor < 0 ? nullptr : ::fdopen(descriptor, "rb"), std::fclose);
    struct stat about {};
    if (!file) throw WrongPicture(errno == ENOENT ? "no such file" : "cannot be opened");
    if (::fstat(descriptor, &about) != 0 || !S_ISREG(about.st_mode)) throw WrongPicture("no such file");
    return file;
}

enum class Format { jpeg, png, other };

/// By its first bytes; back at its beginning.
Format format_of(std::FILE* file) {
    std::array<unsigned char, 8> head{};
    const std::size_t got = std::fread(head.data(), 1, head.size(), file);
    std::rewind(file);
    if (got < head.size()) throw WrongPicture("too short for a picture");
    if (head[0] == 0xFF && head[1] == 0xD8) return Format::jpeg;
    return png_sig_cmp(head.data(), 0, head.size()) == 0 ? Format::png : Format::other;
}

// ---- JPEG --------------------------------------------------------------------------------------------------------

/// libjpeg ends the program on an error unless it is told otherwise.
[[noreturn]] void refuse(j_common_ptr info) {
    std::array<char, JMSG_LENGTH_MAX> text{};
    info->err->format_message(info, text.data());
    throw WrongPicture(text.data());
}
void keep_quiet(j_common_ptr) {}

/// A file of many scans, each over the whole picture, would take for ever.
void count_scans(j_common_ptr info) {
    constexpr int most = 200;
    if (reinterpret_cast<j_decompress_ptr>(info)->input_scan_number > most) throw WrongPicture("more than 200 scans");
}

struct Decompressor {
    jpeg_decompress_struct info{};
    jpeg_error_mgr errors{};
    jpeg_progress_mgr progress{};
    explicit Decompressor(std::FILE* file) {
        info.err = jpeg_std_error(&errors);
        errors.error_exit = refuse;
        errors.output_message = keep_quiet;
        jpeg_create_decompress(&info);
        constexpr long most_memory = 800'000'000;  // of what it keeps of the whole picture, where it has several scans
        info.mem->max_memory_to_use = most_memory;
        progress.progress_monitor = count_scans;
        info.progress = &progress;
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
        if (jpeg.errors.num_warnings > 0) throw WrongPicture("damaged or cut off");
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
    if (jpeg.errors.num_warnings > 0) throw WrongPicture("damaged or cut off");
}

void read_jpeg(std::FILE* file, const RowSink& sink) {
    Decompressor jpeg(file);
    auto& info = jpeg.info;
    jpeg_read_header(&info, TRUE);
    check_size(info.image_width, info.image_height);
    if (info.num_components != 1 && info.num_components != 3)
        throw WrongPicture(fmt::format("got {} colours, expected 1 or 3", info.num_components));
    if (sink.luma && has_luma(info)) return read_luma(jpeg, sink);
    info.out_color_space = JCS_RGB;
    jpeg_start_decompress(&info);
    if (!sink.begin(static_cast<int>(info.output_width), static_cast<int>(info.output_height))) return;
    std::vector<std::uint8_t> line(static_cast<std::size_t>(info.output_width) * 3);
    while (info.output_scanline < info.output_height) {
        JSAMPROW row = line.data();
        jpeg_read_scanlines(&info, &row, 1);
        if (jpeg.errors.num_warnings > 0) throw WrongPicture("damaged or cut off");
        if (!sink.row(line.data())) return;
    }
    jpeg_finish_decompress(&info);
    if (jpeg.errors.num_warnings > 0) throw WrongPicture("damaged or cut off");
}

// ---- PNG ---------------------------------------------------------------------------------------------------------

struct PngPicture {
    png_image image{};
    PngPicture() { image.version = PNG_IMAGE_VERSION; }
    ~PngPicture() { png_image_free(&image); }
    PngPicture(const PngPicture&) = delete;
    PngPicture& operator=(const PngPicture&) = delete;
};

void read_png(std::FILE* file, const RowSink& sink) {
    PngPicture png;
    if (!png_image_begin_read_from_stdio(&png.image, file)) throw WrongPicture(png.image.message);
    check_size(png.image.width, png.image.height, most_png_pixels);
    png.image.format = PNG_FORMAT_RGB;
    std::vector<std::uint8_t> all(PNG_IMAGE_SIZE(png.image));
    const png_color black{};
    if (!png_image_finish_read(&png.image, &black, all.data(), 0, nullptr)) throw WrongPicture(png.image.message);
    if (!sink.begin(static_cast<int>(png.image.width), static_cast<int>(png.image.height))) return;
    const std::size_t stride = static_cast<std::size_t>(png.image.width) * 3;
    for (std::size_t y = 0; y < png.image.height; ++y)
        if (!sink.row(all.data() + y * stride)) return;
}

// ---- whatever it is ----------------------------------------------------------------------------------------------

std::string ending(const std::filesystem::path& path) {
    std::string end = path.extension().string();
    for (char& letter : end) letter = static_cast<char>(std::tolower(static_cast<unsigned char>(letter)));
    return end;
}

void read_any(const std::filesystem::path& path, const RowSink& sink) {
    const File file = opened(path);
    switch (format_of(file.get())) {
        case Format::jpeg:
            return read_jpeg(file.get(), sink);
        case Format::png:
            return read_png(file.get(), sink);
        case Format::other:
            break;
    }
    const std::string end = ending(path);
    rows_apart(::fileno(file.get()), end == ".tif" || end == ".tiff" ? RowsOf::tiff : RowsOf::raw, sink);
}

/// The segment of a JPEG that holds its EXIF, without its head "Exif\0\0"; empty: it has none. ISO/IEC 10918-1, B.1.1.
std::string exif_segment(std::FILE* file) {
    constexpr int soi = 0xD8, sos = 0xDA, eoi = 0xD9, app1 = 0xE1;
    const int first = std::fgetc(file), second = std::fgetc(file);
    if (first != 0xFF || second != soi) return {};
    for (;;) {
        int marker = std::fgetc(file);
        if (marker != 0xFF) return {};
        while (marker == 0xFF) marker = std::fgetc(file);  // they may be filled up
        if (marker == EOF || marker == sos || marker == eoi) return {};
        if (marker == 0x01 || (marker >= 0xD0 && marker <= 0xD7)) continue;  // stand alone
        const int high = std::fgetc(file), low = std::fgetc(file);
        if (low == EOF) return {};
        const int size = high * 256 + low - 2;
        if (size < 0) return {};
        if (marker != app1) {
            if (std::fseek(file, size, SEEK_CUR) != 0) return {};
            continue;
        }
        std::string segment(static_cast<std::size_t>(size), '\0');
        if (std::fread(segment.data(), 1, segment.size(), file) != segment.size()) return {};
        constexpr std::string_view head("Exif\0\0", 6);
        if (std::string_view(segment).starts_with(head)) return segment.substr(head.size());
    }
}

FrameExif exif_of_opened(std::FILE* file) {
    if (format_of(file) != Format::jpeg) return exif_apart(::fileno(file));
    const auto segment = exif_segment(file);
    if (segment.empty()) return no_exif();
    Exiv2::ExifData data;
    Exiv2::ExifParser::decode(data, reinterpret_cast<const Exiv2::byte*>(segment.data()),
                              static_cast<std::uint32_t>(segment.size()));
    return exif_from(data);
}

}  // namespace

text::Expected<void> read_rows(const std::filesystem::path& path, const RowSink& sink) {
    try {
        read_any(path, sink);
        return {};
    } catch (const std::exception& error) {
        return text::Error{.place = path.filename().string(), .problem = error.what()};
    } catch (...) {  // what a library throws is anybody's guess
        return text::Error{.place = path.filename().string(), .problem = "damaged"};
    }
}

FrameExif exif_of_file(const std::filesystem::path& path) {
    try {
        const File file = opened(path);
        return exif_of_opened(file.get());
    } catch (...) {
        return no_exif();
    }
}

text::Expected<FrameExif> exif_of(const std::string& bytes) {
    try {
        const File file(::fmemopen(const_cast<char*>(bytes.data()), bytes.size(), "rb"), std::fclose);  // only read
        if (file && format_of(file.get()) == Format::jpeg) {
            FrameExif exif = exif_of_opened(file.get());
            if (!exif.known) return text::Error{.place = {}, .problem = "no EXIF in this picture"};
            return exif;
        }
    } catch (...) {  // no picture
    }
    return text::Error{.place = {}, .problem = "not a picture that can be read, expected a JPEG"};
}

std::string embedded_preview(const std::filesystem::path& path) {
    try {
        const File file = opened(path);
        return format_of(file.get()) == Format::other ? preview_apart(::fileno(file.get())) : std::string();
    } catch (...) {
        return {};
    }
}

bool may_be_frame(const std::filesystem::path& path) {
    static const std::array<const char*, 16> ends = {".jpg", ".jpeg", ".png", ".tif", ".tiff", ".dng", ".nef", ".cr2",
                                                     ".cr3", ".arw",  ".raf", ".orf", ".rw2",  ".pef", ".srw", ".raw"};
    return std::ranges::find(ends, ending(path)) != ends.end();
}

}  // namespace poquito::storage
