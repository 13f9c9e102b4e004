#include "proof/inspection.hpp"

#include "proof/inspection_json.hpp"
#include "proof/notes.hpp"
#include "storage/atomic_file.hpp"
#include "storage/frame_reader.hpp"
#include "support/folder.hpp"
#include "support/matchers.hpp"
#include "support/photographs.hpp"
#include "support/stacks.hpp"

#include <fmt/format.h>
#include <png.h>
#include <tiffio.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <functional>

using namespace poquito;
using namespace proof;
using test::codes;
using test::nothing;
using test::Photographs;
using test::scene;
using test::Stack;
using test::whole;
using test::WithinAbs;

TEST_CASE("good stacks are kept: even, noisy, breathing, reversed, of a dome or a slope", "[proof][stack]") {
    const auto kept = [](const Photographs& of, std::vector<Photographs::Frame> run) {
        const auto inspection = Stack(of).put(run).look();
        CHECK(codes(inspection) == nothing);
        CHECK(inspection.verdict == Verdict::keep);
        CHECK(inspection.stack->order.empty());
    };
    kept(scene(), whole());
    auto backwards = whole();
    std::ranges::reverse(backwards);
    kept(scene(), backwards);
    const auto dome = [](double x, double y) { return 0.5 + 12 * std::min(1.0, (x * x + y * y) / 1.9); };
    kept(Photographs({.seed = 7, .depth = dome, .breathing = -0.003, .noise = 3}), whole());
    kept(Photographs({.seed = 9, .disc = 2.6, .breathing = 0.005, .noise = 0.7}), whole());
}

TEST_CASE("a frame that is missing is found where it is missing, alone or two at once", "[proof][stack]") {
    for (const int lost : {4, 7, 9}) {
        auto run = whole();
        run.erase(run.begin() + lost);
        const auto inspection = Stack(scene()).put(run).look();
        INFO(lost);
        REQUIRE(inspection.stack->gaps.size() == 1);
        CHECK(inspection.stack->gaps[0].after_frame == lost);
        CHECK(inspection.stack->gaps[0].frames == 1);
        CHECK(inspection.verdict == Verdict::redo);
    }
    auto run = whole();
    run.erase(run.begin() + 6, run.begin() + 8);
    const auto inspection = Stack(scene()).put(run).look();
    REQUIRE(inspection.stack->gaps.size() == 1);
    CHECK(inspection.stack->gaps[0].after_frame == 6);
    CHECK(inspection.stack->gaps[0].frames == 2);
    CHECK(inspection.stack->findings[0].text.find("between 6 and 7") != std::string::npos);
}

TEST_CASE("a gap that noise leaves in doubt is borne out by the distances that the lens reports, which alone make none",
          "[proof][stack]") {
    // Frame `lost` is not there; the lens reports those distances, mm, or none.
    const auto gaps_of = [](const Photographs& of, int lost, const std::function<double(int)>& distance) {
        Stack stack(of);
        for (int i = 0, number = 1; i < test::frames_of_scene; ++i) {
            if (i == lost) continue;
            auto exif = stack.exif;
            if (distance) exif.subject_distance = distance(i);
            stack.put({.focus = static_cast<double>(i)}, number++, exif);
        }
        std::vector<int> after;
        const auto inspection = stack.look();
        for (const auto& gap : inspection.stack->gaps) after.push_back(gap.after_frame);
        return after;
    };
    const auto even = [](int i) { return 300 + 0.4 * i; };
    const Photographs noisy({.seed = 4, .breathing = 0, .noise = 3});
    int in_doubt = 0;
    for (const int lost : {4, 6, 8}) {
        INFO(lost);
        CHECK(gaps_of(noisy, lost, even) == std::vector{lost});
        in_doubt += gaps_of(noisy, lost, {}).empty();
    }
    CHECK(in_doubt > 0);
    // Distances that jump where the planes do not, or that hide a gap, are not believed.
    CHECK(gaps_of(scene(), -1, [&](int i) { return even(i) + (i > 6 ? 0.4 : 0); }).empty());
    CHECK(gaps_of(scene(), 7, [&](int i) { return even(i) - (i > 6 ? 0.4 : 0); }) == std::vector{7});
}

TEST_CASE("a run that began late or ended early has an open end", "[proof][stack]") {
    auto late = whole();
    late.erase(late.begin(), late.begin() + 5);
    const auto began_late = Stack(scene()).put(late).look();
    CHECK(began_late.stack->first_end_open);
    CHECK_FALSE(began_late.stack->last_end_open);
    auto early = whole();
    early.erase(early.end() - 5, early.end());
    const auto ended_early = Stack(scene()).put(early).look();
    CHECK_FALSE(ended_early.stack->first_end_open);
    CHECK(ended_early.stack->last_end_open);
    CHECK(ended_early.verdict == Verdict::redo);
}

TEST_CASE("an end that is open by three steps is told at once from one that is not, by how fine its detail is",
          "[proof][stack]") {
    constexpr std::ptrdiff_t cut = 3;
    for (const int seed : {1, 2, 3}) {
        INFO("seed " << seed);
        const Photographs made({.seed = seed, .noise = 0.8});
        auto late = whole(), early = whole();
        late.erase(late.begin(), late.begin() + cut);
        early.erase(early.end() - cut, early.end());
        const auto of = [&](const std::vector<test::Photographs::Frame>& run) {
            return Stack(made).put(run).look().stack;
        };
        const auto began_late = of(late), ended_early = of(early), all = of(whole());
        CHECK(began_late->first_end_open);
        CHECK_FALSE(began_late->last_end_open);
        CHECK(ended_early->last_end_open);
        CHECK_FALSE(ended_early->first_end_open);
        CHECK_FALSE(all->first_end_open);
        CHECK_FALSE(all->last_end_open);
    }
}

TEST_CASE("a knock is found at the first frame in the new place, with its shift and turn", "[proof][stack]") {
    auto run = whole();
    for (int i = 8; i < test::frames_of_scene; ++i)
        run[static_cast<std::size_t>(i)].dx = 4, run[static_cast<std::size_t>(i)].dy = -3;
    const auto shifted = Stack(scene()).put(run).look();
    REQUIRE(shifted.stack->moved.size() == 1);
    CHECK(shifted.stack->moved[0].frame == 9);
    CHECK_THAT(shifted.stack->moved[0].shift, WithinAbs(5, 0.5));
    CHECK(shifted.stack->gaps.empty());
    auto turned = whole();
    for (int i = 5; i < test::frames_of_scene; ++i)
        turned[static_cast<std::size_t>(i)].turn = 0.8, turned[static_cast<std::size_t>(i)].dx = 3;
    const auto twisted = Stack(scene()).put(turned).look();
    REQUIRE(twisted.stack->moved.size() == 1);
    CHECK(twisted.stack->moved[0].frame == 6);
    CHECK_THAT(twisted.stack->moved[0].turn, WithinAbs(0.8, 0.15));
    // A smooth drift is none: a rail that is not quite along the axis.
    auto drifting = whole();
    for (int i = 0; i < test::frames_of_scene; ++i) drifting[static_cast<std::size_t>(i)].dx = 1.5 * i;
    CHECK(Stack(scene()).put(drifting).look().stack->moved.empty());
}

TEST_CASE("what moves by itself is an area to look at, neither a knock nor a reason to throw the stack away",
          "[proof][stack]") {
    struct Moving {
        int x, y;         // px, of the leg's left upper corner before
        int first, last;  // frames: in the one it still stands, in the other it stands again
        double by;        // px from one frame to the next
    };
    for (const Moving leg : {Moving{150, 90, 6, 7, 9}, Moving{300, 200, 6, 8, 6}, Moving{60, 240, 3, 4, -8}}) {
        Stack stack(scene());
        stack.touch = [&](storage::FramePicture& picture, int number) {
            constexpr int wide = 12, high = 48;
            const double moved = leg.by * std::clamp(number - leg.first, 0, leg.last - leg.first);
            for (int y = leg.y; y < leg.y + high; ++y)
                for (int x = 0; x < wide; ++x) {
                    const auto at = 3 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.width) +
                                         static_cast<std::size_t>(leg.x + x + static_cast<int>(moved)));
                    for (std::size_t c = 0; c < 3; ++c) picture.rgb[at + c] = 25;
                }
        };
        const auto inspection = stack.put(whole()).look();
        INFO(leg.x);
        CHECK(inspection.stack->moved.empty());
        CHECK(inspection.verdict == Verdict::keep);
        REQUIRE(codes(inspection) == std::vector{Code::moved});
        const auto& finding = inspection.stack->findings[0];
        CHECK(finding.level == proof::Level::info);
        const auto frames = leg.last == leg.first + 1 ? fmt::format("between frames {} and {}:", leg.first, leg.last)
                                                      : fmt::format("in frames {} to {}:", leg.first, leg.last);
        CHECK(finding.text.find(frames) != std::string::npos);
        REQUIRE(finding.place);
        CHECK(finding.place->x < leg.x + 12);
        CHECK(finding.place->x + finding.place->width > leg.x);
        CHECK(finding.place->y < leg.y + 48);
        CHECK(finding.place->y + finding.place->height > leg.y);
        CHECK(finding.place->width < 120);
        CHECK(finding.place->height < 140);
        const auto notes = proof::notes_of(inspection);
        const auto note = std::ranges::find(notes, std::optional(Code::moved), &proof::Note::code);
        REQUIRE(note != notes.end());
        CHECK(note->frames.front() == static_cast<std::size_t>(leg.last - 1));
        CHECK_FALSE(note->again);
    }
}

TEST_CASE("a flash that missed, a shaken frame and a dial that turned are told apart", "[proof][stack]") {
    auto run = whole();
    run[6].stops = -1.5;
    auto inspection = Stack(scene()).put(run).look();
    REQUIRE(inspection.stack->uneven.size() == 1);
    CHECK(inspection.stack->uneven[0].frame == 7);
    CHECK_THAT(inspection.stack->uneven[0].stops, WithinAbs(-1.5, 0.1));
    CHECK(codes(inspection.frames[6].findings) == std::vector{Code::uneven});
    CHECK(inspection.stack->gaps.empty());

    run = whole();
    run[5].drawn_out = 9;
    inspection = Stack(scene()).put(run).look();
    CHECK(codes(inspection.frames[5].findings) == std::vector{Code::shaken});
    CHECK(std::abs(inspection.frames[5].scan->structure.least_along()) < 15);  // drawn out across

    // A stop less light by a shutter that says so is its setting's, and the flash's no fault.
    Stack turned(scene());
    run = whole();
    run[9].stops = -1;
    for (int i = 0; i < test::frames_of_scene; ++i) {
        auto said = turned.exif;
        if (i == 9) said.shutter /= 2;
        turned.put(run[static_cast<std::size_t>(i)], i + 1, said);
    }
    inspection = turned.look();
    CHECK(codes(inspection.frames[9].findings) == std::vector{Code::settings});
    CHECK(inspection.frames[9].findings[0].text.find("1/320 s") != std::string::npos);
    CHECK(inspection.verdict == Verdict::look);
}

TEST_CASE("what noise hides in a frame that is too dark is not called soft", "[proof][stack]") {
    for (const double noise : {1.5, 2.6}) {
        const Photographs made({.disc = 2.2, .noise = noise});
        for (const double stops : {-1.1, -2.0, 1.0}) {
            auto run = test::whole();
            run[6].stops = stops;
            Stack stack(made);
            stack.put(run);
            const auto inspection = stack.look();
            CAPTURE(noise, stops);
            const auto found = codes(inspection.frames[6].findings);
            CHECK(std::ranges::find(found, Code::uneven) != found.end());
            CHECK(std::ranges::find(found, Code::blurred) == found.end());
            CHECK(std::ranges::find(found, Code::shaken) == found.end());
        }
    }
}

TEST_CASE("a shaken frame is found wherever it stands in a stack, where noise hides what is fine as well",
          "[proof][stack]") {
    for (const double noise : {0.8, 2.6}) {
        const Photographs made({.disc = 2.2, .noise = noise});
        for (int shaken = 1; shaken + 1 < test::frames_of_scene; shaken += 2) {
            auto run = test::whole();
            run[static_cast<std::size_t>(shaken)].drawn_out = 9;
            Stack stack(made);
            stack.put(run);
            const auto inspection = stack.look();
            CAPTURE(noise, shaken);
            for (std::size_t i = 0; i < inspection.frames.size(); ++i) {
                const auto found = codes(inspection.frames[i].findings);
                CHECK(found == (i == static_cast<std::size_t>(shaken) ? std::vector{Code::shaken} : nothing));
            }
        }
    }
}

TEST_CASE("order by times, or without them by the detail, numbers that are missing", "[proof][stack]") {
    Stack timed(scene());
    const auto run = whole();
    for (int i = 0; i < test::frames_of_scene; ++i) {
        auto said = timed.exif;
        said.time = fmt::format("2026-11-25T09:30:{:02}", i);
        timed.put(run[static_cast<std::size_t>(i)], i + 1, said);
    }
    std::swap(timed.files()[2], timed.files()[8]);
    auto inspection = timed.look();
    CHECK(inspection.stack->order == std::vector{1, 2, 9, 4, 5, 6, 7, 8, 3, 10, 11, 12, 13, 14});
    CHECK(codes(inspection.stack->findings) == std::vector{Code::order});
    CHECK(inspection.stack->missing.empty());

    Stack untimed(scene());
    untimed.put(run);
    std::ranges::rotate(untimed.files(), untimed.files().begin() + 5);
    inspection = untimed.look();
    CHECK(inspection.stack->order == std::vector{10, 11, 12, 13, 14, 1, 2, 3, 4, 5, 6, 7, 8, 9});

    Stack counted(scene());
    for (int i = 0; i < test::frames_of_scene; ++i)  // the counter turns over, and two are not there
        counted.put(run[static_cast<std::size_t>(i)], (9994 + i + (i >= 3 ? 2 : 0)) % 10000);
    inspection = counted.look();
    CHECK(inspection.stack->missing == std::vector{9997, 9998});
    CHECK(codes(inspection.stack->findings) == std::vector{Code::missing});
}

TEST_CASE("files that are cut off, no pictures or of another size are findings, and the rest is judged",
          "[proof][files]") {
    Stack stack(scene());
    stack.put(whole());
    const auto bytes = storage::read_file(stack.files()[3]).value();
    REQUIRE(storage::replace_file(stack.files()[3], bytes.substr(0, bytes.size() / 2)));
    REQUIRE(storage::replace_file(stack.files()[11], "not a picture at all"));
    const Photographs other({.width = 320, .height = 240});
    const auto odd = storage::frame_file(other.picture({}), stack.exif).value();
    REQUIRE(storage::replace_file(stack.files()[13], odd));
    stack.files().push_back(stack.folder() / "IMG_0099.jpg");  // is not there
    const auto inspection = stack.look();
    CHECK(codes(inspection.frames[3].findings) == std::vector{Code::unreadable});
    CHECK(codes(inspection.frames[11].findings) == std::vector{Code::unreadable});
    CHECK(codes(inspection.frames[13].findings) == std::vector{Code::size});
    CHECK(codes(inspection.frames[14].findings) == std::vector{Code::unreadable});
    CHECK(inspection.stack->frames.size() == 11);
    CHECK(inspection.verdict == Verdict::redo);
    CHECK(inspection.any_readable());
    CHECK_FALSE(inspect({.files = {stack.files()[3]}})->any_readable());
    CHECK_FALSE(
        inspect({.files = stack.files()}, [](std::size_t done, std::size_t) { return done < 3; }));  // told to end
}

TEST_CASE("PNG and TIFF give the same rows as what was written, and a hostile size none", "[proof][files]") {
    const test::Folder folder;
    const auto picture = scene().picture({.focus = 5});
    const auto rows_of = [](const std::filesystem::path& path) {
        std::vector<unsigned char> all;
        int wide = 0;
        const auto read = storage::read_rows(path, {.begin =
                                                        [&](int width, int) {
                                                            wide = width;
                                                            return true;
                                                        },
                                                    .row =
                                                        [&](const std::uint8_t* rgb) {
                                                            all.insert(all.end(), rgb, rgb + 3 * wide);
                                                            return true;
                                                        }});
        CHECK(read);
        return all;
    };
    png_image png{};
    png.version = PNG_IMAGE_VERSION;
    png.width = static_cast<png_uint_32>(picture.width);
    png.height = static_cast<png_uint_32>(picture.height);
    png.format = PNG_FORMAT_RGB;
    REQUIRE(png_image_write_to_file(&png, (folder / "a.png").c_str(), 0, picture.rgb.data(), 0, nullptr));
    CHECK(rows_of(folder / "a.png") == picture.rgb);
    TIFF* tiff = TIFFOpen((folder / "a.tif").c_str(), "w");
    REQUIRE(tiff);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, picture.width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, picture.height);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 3);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_RGB);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    for (int y = 0; y < picture.height; ++y) {
        auto line =
            std::vector<unsigned char>(picture.rgb.begin() + static_cast<std::ptrdiff_t>(y) * picture.width * 3,
                                       picture.rgb.begin() + static_cast<std::ptrdiff_t>(y + 1) * picture.width * 3);
        REQUIRE(TIFFWriteScanline(tiff, line.data(), static_cast<std::uint32_t>(y)) == 1);
    }
    TIFFClose(tiff);
    CHECK(rows_of(folder / "a.tif") == picture.rgb);

    // A header of 65500 by 65500 pixels with nothing behind it.
    auto jpeg = storage::frame_file(picture, {}).value();
    const auto frame = jpeg.find("\xff\xc0");
    REQUIRE(frame != std::string::npos);
    for (const std::size_t at : {5u, 7u})
        jpeg[frame + at] = static_cast<char>(0xff), jpeg[frame + at + 1] = static_cast<char>(0xdc);
    REQUIRE(storage::replace_file(folder / "b.jpg", jpeg));
    const auto inspection = inspect({.files = {folder / "b.jpg"}, .singles = true});
    CHECK(codes(inspection->frames[0].findings) == std::vector{Code::unreadable});
    CHECK(inspection->frames[0].findings[0].text.find("65500 by 65500") != std::string::npos);
}

TEST_CASE("a raw file is developed at half its size, one that is cut off is told", "[proof][files]") {
    const test::Folder folder;
    constexpr int width = 640, height = 480;
    const auto path = folder / "a.dng";
    TIFF* tiff = TIFFOpen(path.c_str(), "w");
    REQUIRE(tiff);
    const std::uint16_t pattern_size[] = {2, 2};
    const std::uint8_t pattern[] = {0, 1, 1, 2}, version[] = {1, 4, 0, 0};
    // A JPEG to be looked at stands first, as cameras write it.
    const auto look = storage::frame_file(scene().picture({.focus = 5}), {}).value();
    std::uint64_t raw_place[] = {0};
    TIFFSetField(tiff, TIFFTAG_SUBFILETYPE, FILETYPE_REDUCEDIMAGE);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, 480);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, 320);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 3);
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_JPEG);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_YCBCR);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, 320);
    TIFFSetField(tiff, TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
    TIFFSetField(tiff, TIFFTAG_MAKE, "Made up");
    TIFFSetField(tiff, TIFFTAG_MODEL, "Made up");
    TIFFSetField(tiff, TIFFTAG_DNGVERSION, version);
    TIFFSetField(tiff, TIFFTAG_UNIQUECAMERAMODEL, "Made up");
    TIFFSetField(tiff, TIFFTAG_SUBIFD, 1, raw_place);
    auto bytes = look;
    REQUIRE(TIFFWriteRawStrip(tiff, 0, bytes.data(), static_cast<tmsize_t>(bytes.size())) > 0);
    REQUIRE(TIFFWriteDirectory(tiff) == 1);
    const float matrix[] = {0.9f, -0.3f, -0.1f, -0.4f, 1.2f, 0.2f, -0.1f, 0.2f, 0.6f}, neutral[] = {0.5f, 1, 0.7f};
    TIFFSetField(tiff, TIFFTAG_SUBFILETYPE, 0);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, height);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 16);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, 1);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, PHOTOMETRIC_CFA);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_NONE);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, 16);
    TIFFSetField(tiff, TIFFTAG_ORIENTATION, ORIENTATION_TOPLEFT);
    TIFFSetField(tiff, TIFFTAG_CFAREPEATPATTERNDIM, pattern_size);
    TIFFSetField(tiff, TIFFTAG_CFAPATTERN, 4, pattern);
    TIFFSetField(tiff, TIFFTAG_MAKE, "Made up");
    TIFFSetField(tiff, TIFFTAG_MODEL, "Made up");
    TIFFSetField(tiff, TIFFTAG_DNGVERSION, version);
    TIFFSetField(tiff, TIFFTAG_UNIQUECAMERAMODEL, "Made up");
    TIFFSetField(tiff, TIFFTAG_COLORMATRIX1, 9, matrix);
    TIFFSetField(tiff, TIFFTAG_ASSHOTNEUTRAL, 3, neutral);
    TIFFSetField(tiff, TIFFTAG_CALIBRATIONILLUMINANT1, 21);
    // A neutral grey as this sensor sees it, on the right half as dark again.
    for (int y = 0; y < height; ++y) {
        std::vector<std::uint16_t> line(width);
        for (int x = 0; x < width; ++x) {
            const int channel = pattern[2 * (y % 2) + x % 2];
            line[static_cast<std::size_t>(x)] =
                static_cast<std::uint16_t>(24000 * neutral[channel] * (x < width / 2 ? 1.0f : 0.25f));
        }
        REQUIRE(TIFFWriteScanline(tiff, line.data(), static_cast<std::uint32_t>(y)) == 1);
    }
    TIFFClose(tiff);
    int wide = 0, high = 0;
    std::vector<std::uint8_t> middle;
    const auto read = storage::read_rows(path, {.begin =
                                                    [&](int across, int down) {
                                                        wide = across, high = down;
                                                        return true;
                                                    },
                                                .row =
                                                    [&](const std::uint8_t* rgb) {
                                                        middle.assign(rgb, rgb + std::ptrdiff_t{3} * wide);
                                                        return true;
                                                    }});
    REQUIRE(read);
    const auto preview = storage::embedded_preview(path);
    CHECK(preview.size() == look.size());
    CHECK((preview == look));
    CHECK(wide == width / 2);
    CHECK(high == height / 2);
    const auto* left = &middle[3 * 20];
    const auto* right = &middle[middle.size() - 3 * 20];
    CHECK(std::abs(left[0] - left[1]) <= 6);  // the camera's own white balance makes it neutral
    CHECK(std::abs(left[2] - left[1]) <= 6);
    CHECK(right[1] < left[1] - 30);
    std::filesystem::resize_file(path, std::filesystem::file_size(path) / 2);
    const auto cut = inspect({.files = {path}, .singles = true});
    CHECK(codes(cut->frames[0].findings) == std::vector{Code::unreadable});
}

TEST_CASE("an inspection is written as the contract says", "[proof][json]") {
    auto run = whole();
    run.erase(run.begin() + 7);
    const auto inspection = Stack(scene()).put(run).look();
    const auto json = nlohmann::json::parse(inspection_json(inspection));
    CHECK(json["format"] == "poquito-inspection");
    REQUIRE(json["frames"].size() == 13);
    CHECK(json["frames"][0]["f_number"] == 5.6);
    CHECK(json["frames"][0]["iso"] == 100);
    for (const char* key :
         {"file", "shutter_s", "median_stops", "clipped_share", "black_share", "sharpness", "findings"})
        CHECK(json["frames"][0].contains(key));
    CHECK(json["stack"]["gaps"] == nlohmann::json::parse(R"([{"after_frame": 7}])"));
    CHECK(json["stack"]["first_end_open"] == false);
    CHECK(json["stack"]["findings"][0]["code"] == "gap");
    CHECK(json["stack"]["findings"][0]["level"] == "stop");
    CHECK(json["verdict"] == "redo");
    Stack one(scene());
    one.put({.focus = 5}, 1);
    CHECK(nlohmann::json::parse(inspection_json(one.look()))["stack"].is_null());
}
