// Frames as a camera writes them: what Exiv2, a general reader of metadata, finds in them.
#include "storage/frame_file.hpp"
#include "support/matchers.hpp"

#include <catch2/catch.hpp>

using namespace poquito::storage;
using poquito::test::WithinRel;

TEST_CASE("a frame carries its exposure in EXIF", "[storage][frame]") {
    FramePicture picture{.width = 48, .height = 32};
    for (int i = 0; i < 48 * 32; ++i)
        picture.rgb.insert(picture.rgb.end(), {200, static_cast<unsigned char>(i % 256), 30});
    const FrameExif exif{.camera = "APS-C body",
                         .lens = "90 mm macro 1:1",
                         .time = "2026-11-25T10:05:00",
                         .f_number = 5.6,
                         .shutter = 1.0 / 160,
                         .iso = 200,
                         .focal_length = 90,
                         .flash = true,
                         .subject_distance = 312.5};
    const auto made = frame_file(picture, exif);
    REQUIRE(made);
    const auto& bytes = made.value();
    // ISO/IEC 10918: starts with SOI, ends with EOI.
    CHECK(bytes.starts_with("\xFF\xD8"));
    CHECK(bytes.ends_with("\xFF\xD9"));
    const auto read = exif_of(bytes).value();
    CHECK(read.camera == exif.camera);
    CHECK(read.lens == exif.lens);
    CHECK(read.time == exif.time);
    CHECK_THAT(read.f_number, WithinRel(5.6, 1e-9));
    CHECK_THAT(1 / read.shutter, WithinRel(160, 1e-9));
    CHECK(read.iso == 200);
    CHECK(read.focal_length == 90);
    CHECK(read.flash);
    CHECK_THAT(read.subject_distance, WithinRel(312.5, 1e-6));
}

TEST_CASE("shutter times keep their value, as fractions or not", "[storage][frame]") {
    const FramePicture picture{.width = 2, .height = 2, .rgb = std::vector<unsigned char>(12, 90)};
    for (const double shutter : {30.0, 2.5, 0.4, 0.3, 1.0 / 3, 1.0 / 8000, 0.00625}) {
        const auto made = frame_file(picture, {.shutter = shutter});
        CHECK_THAT(exif_of(made.value()).value().shutter, WithinRel(shutter, 1e-3));
    }
}

TEST_CASE("what is no picture is refused with a sentence", "[storage][frame]") {
    CHECK(!exif_of("nothing of the kind"));
    CHECK(!frame_file({.width = 0, .height = 0}, {}));
}
