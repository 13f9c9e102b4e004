// fuzz_corpus FOLDER: what each target begins with, in a folder of its name.
#include "log/book.hpp"
#include "log/exchange.hpp"
#include "log/made_up.hpp"
#include "run/journal.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_file.hpp"
#include "storage/kit_file.hpp"
#include "storage/shoot_file.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <string>

#include <png.h>
#include <tiffio.h>

using namespace poquito;

namespace {

bool put(const std::filesystem::path& path, const std::string& bytes) { return !storage::replace_file(path, bytes); }

storage::FramePicture picture(int width, int height) {
    storage::FramePicture made{.width = width, .height = height, .rgb = {}};
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            for (int c = 0; c < 3; ++c) made.rgb.push_back(static_cast<unsigned char>(37 * x + 91 * y * y + 60 * c));
    return made;
}

/// Grey, or a mosaic of red, green and blue with the tags that a raw file has.
bool write_tiff(const std::filesystem::path& path, const storage::FramePicture& made, bool raw) {
    TIFF* tiff = TIFFOpen(path.c_str(), "w");
    if (!tiff) return false;
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, made.width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, made.height);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, raw ? 16 : 8);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, raw ? 1 : 3);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_NONE);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, made.height);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, raw ? PHOTOMETRIC_CFA : PHOTOMETRIC_RGB);
    if (raw) {
        const unsigned char version[4] = {1, 4, 0, 0}, pattern[4] = {0, 1, 1, 2};
        const std::uint16_t repeat[2] = {2, 2};
        TIFFSetField(tiff, TIFFTAG_DNGVERSION, version);
        TIFFSetField(tiff, TIFFTAG_CFAREPEATPATTERNDIM, repeat);
        TIFFSetField(tiff, TIFFTAG_CFAPATTERN, 4, pattern);
    }
    bool good = true;
    std::vector<std::uint16_t> mosaic(static_cast<std::size_t>(made.width));
    for (int y = 0; y < made.height && good; ++y) {
        const auto* row = made.rgb.data() + static_cast<std::ptrdiff_t>(3) * y * made.width;
        for (std::size_t x = 0; x < mosaic.size(); ++x) mosaic[x] = static_cast<std::uint16_t>(row[3 * x] * 200);
        void* line = raw ? static_cast<void*>(mosaic.data()) : const_cast<unsigned char*>(row);
        good = TIFFWriteScanline(tiff, line, static_cast<std::uint32_t>(y), 0) == 1;
    }
    TIFFClose(tiff);
    return good;
}

bool write_frames(const std::filesystem::path& folder) {
    for (const int side : {16, 41}) {
        const auto made = picture(side, side * 2 / 3);
        const auto bytes = storage::frame_file(
            made, {.camera = "Body", .lens = "Lens", .time = "2026-02-03T10:11:12", .remark = "a remark"});
        if (!std::holds_alternative<std::string>(bytes)) return false;
        const std::string name = std::to_string(side);
        if (!put(folder / (name + ".jpg"), std::get<std::string>(bytes))) return false;
        png_image png{};
        png.version = PNG_IMAGE_VERSION;
        png.format = PNG_FORMAT_RGB;
        png.width = static_cast<png_uint_32>(made.width), png.height = static_cast<png_uint_32>(made.height);
        if (!png_image_write_to_file(&png, (folder / (name + ".png")).c_str(), 0, made.rgb.data(), 0, nullptr))
            return false;
        for (const bool raw : {false, true})
            if (!write_tiff(folder / (name + (raw ? ".dng" : ".tif")), made, raw)) return false;
    }
    return true;
}

/// The same as the first version wrote it, without checks, which no chance change of a letter gets right.
bool without_checks(const std::filesystem::path& path) {
    auto text = std::get<std::string>(storage::read_file(path));
    text.erase(0, text.find('\n') + 1);
    for (std::size_t at = 0; (at = text.find(",\"check\":\"", at)) != std::string::npos;)
        text.erase(at, text.find('}', at) - at);
    const auto version = text.find("\"version\":2");
    if (version != std::string::npos) text[version + 10] = '1';
    return put(path.string() + "-plain", text);
}

bool write_log(const std::filesystem::path& folder) {
    const auto entries = log::made_up_year(test::plain_shoot(), 2026);
    const std::vector<log::Entry> few(entries.begin(),
                                      entries.begin() + std::min<std::ptrdiff_t>(6, std::ssize(entries)));
    {
        auto opened = log::Book::open(folder / "book.db");
        auto* all = std::get_if<log::Book::Opened>(&opened);
        if (!all || all->book.add(few)) return false;
    }
    return put(folder / "log.json", log::write_json(few)) && put(folder / "log.csv", log::write_csv(few));
}

bool write_lists(const std::filesystem::path& notes, const std::filesystem::path& list) {
    return put(notes / "one",
               "2026-05-03\n9:40 bee on lavender 3/20 gusty\n10:15; lichen; 12 frames; keep; showers\n"
               "lichen combined 40 frames 7 min\n# nothing\nPlain 3 of 20\n") &&
           put(list / "one",
               "Name,Width (cm),Height,Depth,No,Flaws,Colour\nBag,38,30 cm,12,7,\"scuff 25 mm; torn\",#8a5532\n") &&
           put(list / "two", "name;width\nTin;12,5 cm\n");
}

bool write_journal(const std::filesystem::path& path) {
    run::RunPlan plan{.id = "a-1", .shot = "a", .shot_name = "A", .folder = "frames"};
    for (int i = 0; i < 4; ++i) plan.frames.push_back({.plane = 0.1 * i, .rail = 0.1 * i, .ring = {}});
    plan.powers = {0.25};
    auto made = run::Journal::create(path, plan);
    auto* journal = std::get_if<run::Journal>(&made);
    if (!journal) return false;
    bool good = true;
    for (std::size_t i = 0; i < 3; ++i)
        good = good && journal->begun(i) && journal->exposed(i, {}) &&
               (i == 1 ? journal->dim(i, -0.5) : journal->saved(i));
    return good && without_checks(path) && journal->skipped(3) && journal->redone(2) && journal->fault("a fault") &&
           journal->ended(shoot::RunEnd::broken);
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        std::fprintf(stderr, "usage: fuzz_corpus FOLDER\n");
        return 2;
    }
    const std::filesystem::path folder = argv[1];
    for (const char* name : {"shoot", "kit", "journal", "frame", "notes", "list", "log"})
        std::filesystem::create_directories(folder / name);
    bool good = write_frames(folder / "frame") && write_journal(folder / "journal" / "a-1") &&
                write_log(folder / "log") && write_lists(folder / "notes", folder / "list");
    constexpr unsigned shoots = 60;
    for (unsigned seed = 0; seed < shoots && good; ++seed) {
        auto shoot = test::random_shoot(seed);
        // One shot each: more files in an hour.
        if (shoot.shots.size() > 1) shoot.shots.erase(1, shoot.shots.size());
        const std::string name = std::to_string(seed);
        good = !storage::save_shoot(shoot, folder / "shoot" / name) &&
               put(folder / "kit" / (name + ".json"), storage::write_kit_json(shoot.kit)) &&
               put(folder / "kit" / (name + ".csv"), storage::write_kit_csv(shoot.kit));
    }
    if (!good) std::fprintf(stderr, "the corpus cannot be written\n");
    return good ? 0 : 1;
}
