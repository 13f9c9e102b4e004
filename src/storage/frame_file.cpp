#include "storage/frame_file.hpp"

#include "exif_tags.hpp"

#include <fmt/format.h>
#include <exiv2/exiv2.hpp>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <stdexcept>

#include <jpeglib.h>  // behind <cstdio>: it names FILE without including it

namespace poquito::storage {
namespace {

/// libjpeg ends the program on an error unless it is told otherwise.
[[noreturn]] void raise(j_common_ptr info) {
    char text[JMSG_LENGTH_MAX];
    info->err->format_message(info, text);
    throw std::runtime_error(text);
}

std::string compressed(const FramePicture& picture) {
    jpeg_compress_struct info{};
    jpeg_error_mgr errors{};
    info.err = jpeg_std_error(&errors);
    errors.error_exit = raise;
    unsigned char* bytes = nullptr;
    unsigned long size = 0;
    const auto release = [&] {
        jpeg_destroy_compress(&info);
        std::free(bytes);
    };
    try {
        jpeg_create_compress(&info);
        jpeg_mem_dest(&info, &bytes, &size);
        info.image_width = static_cast<JDIMENSION>(picture.width);
        info.image_height = static_cast<JDIMENSION>(picture.height);
        info.input_components = 3;
        info.in_color_space = JCS_RGB;
        jpeg_set_defaults(&info);
        constexpr int quality = 92;
        jpeg_set_quality(&info, quality, TRUE);
        jpeg_start_compress(&info, TRUE);
        std::vector<unsigned char> line(static_cast<std::size_t>(picture.width) * 3);
        while (info.next_scanline < info.image_height) {
            std::copy_n(picture.rgb.begin() + static_cast<std::ptrdiff_t>(line.size() * info.next_scanline),
                        line.size(), line.begin());
            JSAMPROW row = line.data();
            jpeg_write_scanlines(&info, &row, 1);
        }
        jpeg_finish_compress(&info);
    } catch (...) {
        release();
        throw;
    }
    std::string out(reinterpret_cast<const char*>(bytes), size);
    release();
    return out;
}

/// A rational that reads back as the value a person knows: 1/200 as such, 5.6 as 56/10.
Exiv2::URational rational(double value) {
    if (value > 0 && value < 0.4 && std::abs(1 / value - std::round(1 / value)) < 1e-6 / value)
        return {1, static_cast<std::uint32_t>(std::lround(1 / value))};
    constexpr double parts = 10000;
    return {static_cast<std::uint32_t>(std::lround(std::min(value, 4e5) * parts)), static_cast<std::uint32_t>(parts)};
}

double number(const Exiv2::ExifData& data, const char* key) {
    const auto found = data.findKey(Exiv2::ExifKey(key));
    if (found == data.end() || found->count() == 0) return 0;
    const auto value = found->toRational();
    return value.second == 0 ? 0 : static_cast<double>(value.first) / value.second;
}
std::string text(const Exiv2::ExifData& data, const char* key) {
    const auto found = data.findKey(Exiv2::ExifKey(key));
    return found == data.end() ? std::string() : found->toString();
}

}  // namespace

text::Expected<std::string> picture_file(const FramePicture& picture) {
    try {
        return compressed(picture);
    } catch (const std::exception& error) {
        return text::Error{.place = {}, .problem = fmt::format("the picture could not be written: {}", error.what())};
    }
}

text::Expected<std::string> frame_file(const FramePicture& picture, const FrameExif& exif) {
    try {
        const auto jpeg = compressed(picture);
        auto image = Exiv2::ImageFactory::open(reinterpret_cast<const Exiv2::byte*>(jpeg.data()),
                                               static_cast<long>(jpeg.size()));
        Exiv2::ExifData data;
        data["Exif.Image.Software"] = std::string("Poquito, simulated camera");
        data["Exif.Image.Model"] = exif.camera;
        data["Exif.Photo.LensModel"] = exif.lens;
        auto time = exif.time.substr(0, 19);  // EXIF writes 2026:11:25 09:30:00
        for (std::size_t i = 0; i < time.size() && i < 10; ++i)
            if (time[i] == '-') time[i] = ':';
        if (time.size() > 10) time[10] = ' ';
        data["Exif.Photo.DateTimeOriginal"] = time;
        data["Exif.Photo.FNumber"] = rational(exif.f_number);
        data["Exif.Photo.ExposureTime"] = rational(exif.shutter);
        data["Exif.Photo.ISOSpeedRatings"] = static_cast<std::uint16_t>(std::clamp(exif.iso, 1.0, 65535.0));
        data["Exif.Photo.FocalLength"] = rational(exif.focal_length);
        data["Exif.Photo.Flash"] = static_cast<std::uint16_t>(exif.flash ? 1 : 0);
        if (exif.orientation > 0) data["Exif.Image.Orientation"] = static_cast<std::uint16_t>(exif.orientation);
        if (exif.subject_distance > 0) data["Exif.Photo.SubjectDistance"] = rational(exif.subject_distance / 1000);
        if (!exif.remark.empty()) data["Exif.Photo.UserComment"] = "charset=Ascii " + exif.remark;
        image->setExifData(data);
        image->writeMetadata();
        Exiv2::BasicIo& io = image->io();
        if (io.open() != 0) return text::Error{.place = {}, .problem = "the frame could not be put together"};
        const Exiv2::DataBuf all = io.read(static_cast<long>(io.size()));
        return std::string(reinterpret_cast<const char*>(all.pData_), static_cast<std::size_t>(all.size_));
    } catch (const std::exception& error) {
        return text::Error{.place = {}, .problem = std::string("the frame cannot be written: ") + error.what()};
    }
}

namespace {

/// Local time as ISO 8601, with the fraction of a second where the camera keeps one.
std::string time_of(const Exiv2::ExifData& data) {
    std::string time = text(data, "Exif.Photo.DateTimeOriginal");
    for (std::size_t i = 0; i < time.size() && i < 10; ++i)
        if (time[i] == ':') time[i] = '-';
    if (time.size() > 10) time[10] = 'T';
    const std::string fraction = text(data, "Exif.Photo.SubSecTimeOriginal");
    const bool digits = !fraction.empty() && fraction.find_first_not_of("0123456789") == std::string::npos;
    return time.empty() || !digits ? time : time + '.' + fraction;
}

}  // namespace

FrameExif exif_from(const Exiv2::ExifData& data) {
    FrameExif exif{.camera = text(data, "Exif.Image.Model"),
                   .lens = text(data, "Exif.Photo.LensModel"),
                   .time = time_of(data),
                   .f_number = number(data, "Exif.Photo.FNumber"),
                   .shutter = number(data, "Exif.Photo.ExposureTime"),
                   .iso = number(data, "Exif.Photo.ISOSpeedRatings"),
                   .focal_length = number(data, "Exif.Photo.FocalLength"),
                   .flash = (static_cast<int>(number(data, "Exif.Photo.Flash")) & 1) != 0,
                   .subject_distance = number(data, "Exif.Photo.SubjectDistance") * 1000,
                   .orientation = static_cast<int>(number(data, "Exif.Image.Orientation")),
                   .known = !data.empty()};
    return exif;
}

FrameExif no_exif() {
    return {.f_number = 0, .shutter = 0, .iso = 0, .focal_length = 0, .orientation = 0, .known = false};
}

}  // namespace poquito::storage
