#include "storage/picture_libraries.hpp"

#include "exif_tags.hpp"
#include "plan_tag.hpp"
#include "wrong_picture.hpp"

#include <libraw/libraw.h>
#include <tiffio.h>
#include <exiv2/exiv2.hpp>

#include <algorithm>
#include <array>
#include <cstring>
#include <memory>
#include <vector>

namespace poquito::storage {
namespace {

// ---- TIFF --------------------------------------------------------------------------------------------------------

/// A file in memory as libtiff asks for one.
struct MemoryFile {
    FileBytes bytes;
    toff_t at = 0;

    static MemoryFile& of(thandle_t handle) { return *static_cast<MemoryFile*>(handle); }
    static tmsize_t read(thandle_t handle, void* to, tmsize_t size) {
        auto& file = of(handle);
        const auto rest = file.at < file.bytes.size() ? file.bytes.size() - file.at : 0;
        const auto count = std::min<std::size_t>(rest, static_cast<std::size_t>(std::max<tmsize_t>(size, 0)));
        std::memcpy(to, file.bytes.data() + (count > 0 ? file.at : 0), count);
        file.at += count;
        return static_cast<tmsize_t>(count);
    }
    static tmsize_t write(thandle_t, void*, tmsize_t) { return 0; }
    static toff_t seek(thandle_t handle, toff_t to, int whence) {
        auto& file = of(handle);
        const toff_t from = whence == SEEK_CUR ? file.at : whence == SEEK_END ? file.bytes.size() : 0;
        return file.at = from + to;
    }
    static int close(thandle_t) { return 0; }
    static toff_t size(thandle_t handle) { return of(handle).bytes.size(); }
    static int map(thandle_t handle, void** base, toff_t* size) {
        auto& file = of(handle);
        *base = const_cast<std::uint8_t*>(file.bytes.data());  // libtiff only reads it
        *size = file.bytes.size();
        return 1;
    }
    static void unmap(thandle_t, void*, toff_t) {}
};

std::uint32_t rows_at_once(TIFF* tiff, std::uint32_t height) {
    std::uint32_t rows = 0;
    if (!TIFFGetField(tiff, TIFFIsTiled(tiff) ? TIFFTAG_TILELENGTH : TIFFTAG_ROWSPERSTRIP, &rows) || rows == 0)
        return height;
    return std::min(rows, height);
}

}  // namespace

void tiff_rows(FileBytes bytes, const RowSink& sink) {
    TIFFSetErrorHandler(nullptr);
    TIFFSetWarningHandler(nullptr);
    MemoryFile file{.bytes = bytes};
    const std::unique_ptr<TIFF, void (*)(TIFF*)> tiff(
        TIFFClientOpen("picture", "r", &file, MemoryFile::read, MemoryFile::write, MemoryFile::seek, MemoryFile::close,
                       MemoryFile::size, MemoryFile::map, MemoryFile::unmap),
        TIFFClose);
    if (!tiff) throw WrongPicture("not a TIFF that can be read");
    std::uint32_t width = 0, height = 0;
    TIFFGetField(tiff.get(), TIFFTAG_IMAGEWIDTH, &width);
    TIFFGetField(tiff.get(), TIFFTAG_IMAGELENGTH, &height);
    check_size(width, height);
    std::array<char, 1024> why{};
    if (!TIFFRGBAImageOK(tiff.get(), why.data())) throw WrongPicture(why.data());
    // As it lies, whatever its orientation says: that is for who looks at it.
    TIFFRGBAImage image{};
    if (!TIFFRGBAImageBegin(&image, tiff.get(), 1, why.data())) throw WrongPicture(why.data());
    const std::unique_ptr<TIFFRGBAImage, void (*)(TIFFRGBAImage*)> guard(&image, TIFFRGBAImageEnd);
    image.orientation = image.req_orientation = ORIENTATION_TOPLEFT;
    if (!sink.begin(static_cast<int>(width), static_cast<int>(height))) return;
    const std::uint32_t rows = rows_at_once(tiff.get(), height);
    std::vector<std::uint32_t> part(static_cast<std::size_t>(width) * rows);
    std::vector<std::uint8_t> line(static_cast<std::size_t>(width) * 3);
    for (std::uint32_t top = 0; top < height; top += rows) {
        const std::uint32_t count = std::min(rows, height - top);
        image.row_offset = static_cast<int>(top);
        if (TIFFRGBAImageGet(&image, part.data(), width, count) == 0) throw WrongPicture("damaged or cut off");
        for (std::size_t y = 0; y < count; ++y) {
            for (std::size_t x = 0; x < width; ++x) {
                const std::uint32_t pixel = part[y * width + x];
                line[3 * x] = static_cast<std::uint8_t>(TIFFGetR(pixel));
                line[3 * x + 1] = static_cast<std::uint8_t>(TIFFGetG(pixel));
                line[3 * x + 2] = static_cast<std::uint8_t>(TIFFGetB(pixel));
            }
            if (!sink.row(line.data())) return;
        }
    }
}

// ---- raw ---------------------------------------------------------------------------------------------------------

namespace {

/// LibRaw only reads it, and asks for more.
void* in_memory(FileBytes file) { return const_cast<std::uint8_t*>(file.data()); }

}  // namespace

void raw_rows(FileBytes file, const RowSink& sink) {
    const auto raw = std::make_unique<LibRaw>();  // large
    const auto done = [](int code) {
        if (code != LIBRAW_SUCCESS) throw WrongPicture(libraw_strerror(code));
    };
    auto& how = raw->imgdata.params;
    how.half_size = 1;
    how.user_flip = 0;  // as it lies too
    how.use_camera_wb = 1;
    how.no_auto_bright = 1;
    how.output_bps = 8;
    how.output_color = 1;                        // sRGB
    how.gamm[0] = 1 / 2.4, how.gamm[1] = 12.92;  // and its curve
    done(raw->open_buffer(in_memory(file), file.size()));
    check_size(raw->imgdata.sizes.raw_width, raw->imgdata.sizes.raw_height);
    done(raw->unpack());
    done(raw->dcraw_process());
    int error = LIBRAW_SUCCESS;
    const std::unique_ptr<libraw_processed_image_t, void (*)(libraw_processed_image_t*)> picture(
        raw->dcraw_make_mem_image(&error), LibRaw::dcraw_clear_mem);
    done(error);
    if (!picture || picture->type != LIBRAW_IMAGE_BITMAP || picture->colors != 3 || picture->bits != 8)
        throw WrongPicture("not a raw picture of three colours");
    if (!sink.begin(picture->width, picture->height)) return;
    for (std::size_t y = 0; y < picture->height; ++y)
        if (!sink.row(picture->data + y * picture->width * 3)) return;
}

std::string raw_preview(FileBytes file) {
    const auto raw = std::make_unique<LibRaw>();  // large
    if (raw->open_buffer(in_memory(file), file.size()) != LIBRAW_SUCCESS || raw->unpack_thumb() != LIBRAW_SUCCESS)
        return {};
    const auto& thumbnail = raw->imgdata.thumbnail;
    if (thumbnail.tformat != LIBRAW_THUMBNAIL_JPEG || !thumbnail.thumb) return {};
    return {thumbnail.thumb, thumbnail.tlength};
}

// ---- what stands beside the picture ------------------------------------------------------------------------------

FrameExif library_exif(FileBytes file) {
    auto image = Exiv2::ImageFactory::open(file.data(), static_cast<long>(file.size()));
    image->readMetadata();
    return exif_from(image->exifData());
}

std::string library_plan(FileBytes file) {
    const auto lock = xmp_toolkit();
    auto image = Exiv2::ImageFactory::open(file.data(), static_cast<long>(file.size()));
    image->readMetadata();
    const auto& xmp = image->xmpData();
    const auto found = xmp.findKey(Exiv2::XmpKey(plan_key));
    return found == xmp.end() ? std::string() : found->toString();
}

}  // namespace poquito::storage
