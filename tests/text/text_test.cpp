#include "text/text.hpp"
#include "support/matchers.hpp"
#include "support/random.hpp"
#include "text/local_time.hpp"
#include "text/scales.hpp"
#include "text/tone.hpp"

#include <cmath>
#include <limits>

using namespace poquito;
using namespace poquito::text;
using test::same;
using test::WithinRel;

TEST_CASE("numbers as people write them", "[shoot][text]") {
    CHECK(number_text(0.3412) == "0.341");
    CHECK(number_text(156.2) == "156");
    CHECK(number_text(1234.6) == "1235");
    CHECK(number_text(2.0) == "2");
    CHECK(number_text(-0.0001, 2) == "-0.0001");
    CHECK(f_number_text(5.6) == "f/5.6");
    CHECK(shutter_text(0.005) == "1/200 s");
    CHECK(shutter_text(1 / 30112.0) == "1/30100 s");
    CHECK(shutter_text(0.5) == "0.5 s");
    CHECK(shutter_text(2) == "2 s");
    CHECK(power_text(1) == "1/1");
    CHECK(power_text(1.0 / 32) == "1/32");
    CHECK(power_text(std::exp2(-5 + 1.0 / 3)) == "1/32 +0.3");
    CHECK(power_text(std::exp2(-5 - 1.0 / 3)) == "1/64 +0.7");
    CHECK(power_text(1 / 21.1) == "1/21.1");
    CHECK(power_text(1.4) == "1.4");
    CHECK(stops_text(0.04) == "0.0");
    CHECK(stops_text(-0.04) == "0.0");
    CHECK(stops_text(-7.23) == "\u22127.2");
    CHECK(stops_text(1.0 / 3) == "+0.3");
    CHECK(length_text(0.0124) == "12.4 \u00b5m");
    CHECK(length_text(156.2) == "156 mm");
    CHECK(length_text(2340) == "2.34 m");
    CHECK(time_text(0.4) == "0.4 s");
    CHECK(time_text(72) == "1 min 12 s");
    CHECK(time_text(7500) == "2 h 5 min");
    CHECK(data_text(480) == "480 MB");
    CHECK(data_text(1660) == "1.66 GB");
    CHECK(count_text(1, "frame", "frames") == "1 frame");
    CHECK(count_text(22, "frame", "frames") == "22 frames");
}

TEST_CASE("what people type", "[shoot][text]") {
    CHECK(parse_f_number("f/5.6") == 5.6);
    CHECK(parse_f_number(" F 5,6 ") == 5.6);
    CHECK(parse_f_number("11") == 11);
    CHECK(parse_shutter("1/200") == 1.0 / 200);
    CHECK(parse_shutter("1/200 s") == 1.0 / 200);
    CHECK(parse_shutter("2\"") == 2);
    CHECK_THAT(parse_shutter("4 ms").value(), same(0.004));
    CHECK(parse_shutter("1 min") == 60);
    CHECK(parse_power("1/8") == 0.125);
    CHECK_THAT(parse_power("1/8 +0.3").value(), same(std::exp2(-3 + 1.0 / 3)));
    CHECK_THAT(parse_power("1/8 -0.7").value(), same(std::exp2(-3 - 2.0 / 3)));
    CHECK_THAT(parse_power("12.5 %").value(), same(0.125));
    CHECK(parse_power("5e-3") == 0.005);
    CHECK_THAT(parse_length("3/4\"").value(), same(19.05));
    CHECK_THAT(parse_length("1 1/2 in").value(), same(38.1));
    CHECK_THAT(parse_length("250 um").value(), same(0.25));
    CHECK_THAT(parse_length("250 \u00b5m").value(), same(0.25));
    CHECK_THAT(parse_length("3,5 cm").value(), same(35));
    CHECK_THAT(parse_length("0.3 m").value(), same(300));
    CHECK(parse_length("12") == 12);
    CHECK(parse_magnification("1:2") == 0.5);
    CHECK(parse_magnification("0.8x") == 0.8);
    CHECK(parse_magnification("0.8 \u00d7") == 0.8);
    CHECK(parse_percent("25 %") == 0.25);
    CHECK(parse_percent("25") == 0.25);
    CHECK_THAT(parse_speed("3.6 km/h").value(), same(1000));
    CHECK(parse_stops("\u22121/3") == -1.0 / 3);
    CHECK_THAT(parse_stops("-1 1/3").value(), same(-4.0 / 3));
    CHECK(parse_stops("+0.5 EV") == 0.5);
    CHECK(parse_stops("EV 9 1/2") == 9.5);
    CHECK(parse_angle("30\u00b0") == 30);
}

TEST_CASE("what is not a number is not understood", "[shoot][text]") {
    for (const char* text : {"", " ", "f/", "abc", "1/0", "1/-2", "5.6.7", "1,2,3", "nan", "inf", "1e999", "--3", "3 4",
                             "/", "12 furlongs"}) {
        INFO(text);
        CHECK_FALSE(parse_length(text));
        CHECK_FALSE(parse_f_number(text));
        CHECK_FALSE(parse_shutter(text));
        CHECK_FALSE(parse_power(text));
    }
}

TEST_CASE("text of a setting reads back as the setting", "[shoot][text]") {
    for (double f = 1; f < 64; f = step_f_number(f, 1)) CHECK_THAT(parse_f_number(f_number_text(f)).value(), same(f));
    for (double t = 30; t > 1.0 / 8000; t = step_shutter(t, -1))
        CHECK_THAT(parse_shutter(shutter_text(t)).value(), WithinRel(t, 1e-3));
    for (double p = 1; p > 1.0 / 256; p = step_power(p, -1)) CHECK_THAT(parse_power(power_text(p)).value(), same(p));
}

TEST_CASE("scales step in thirds of a stop along the engraved marks", "[shoot][scales]") {
    CHECK(step_f_number(5.6, 1) == 6.3);
    CHECK(step_f_number(5.6, 3) == 8);
    CHECK(step_f_number(5.7, -1) == 5.6);
    CHECK(step_f_number(5.7, 1) == 6.3);
    CHECK(step_f_number(90, 1) == 90);
    CHECK(step_f_number(120, 1) == 120);
    CHECK(step_shutter(1.0 / 200, 1) == 1.0 / 160);
    CHECK(step_shutter(1.0 / 200, -3) == 1.0 / 400);
    CHECK(step_iso(100, 3) == 200);
    CHECK_THAT(step_power(0.125, 1), same(std::exp2(-8.0 / 3)));
    CHECK_THAT(step_power(0.125, -3), same(0.0625));
    CHECK(step_power(1, 1) == 1);
    // ISO 517 and ISO 516: three marks are a doubling of exposure within a sixth of a stop of rounding.
    for (double f = 1; f < 32; f = step_f_number(f, 1))
        CHECK_THAT(std::pow(step_f_number(f, 3) / f, 2), WithinRel(2, 0.13));
    for (double t = 1.0 / 4000; t < 8; t = step_shutter(t, 1)) CHECK_THAT(step_shutter(t, 3) / t, WithinRel(2, 0.13));
}

TEST_CASE("times a change takes, as people write them", "[shoot][text]") {
    for (const auto& [text, seconds] : {std::pair{"90", 90.0},
                                        {"90 s", 90.0},
                                        {"2 min", 120.0},
                                        {"2min", 120.0},
                                        {"1.5 min", 90.0},
                                        {"2 min 30 s", 150.0},
                                        {"1 h 5 min", 3900.0},
                                        {"1 h", 3600.0},
                                        {"0", 0.0}}) {
        INFO(text);
        REQUIRE(parse_duration(text));
        CHECK(*parse_duration(text) == seconds);
    }
    for (const char* bad : {"", "min", "2 min 30", "2 x", "-3 s", "a while"}) {
        INFO(bad);
        CHECK_FALSE(parse_duration(bad));
    }
    // What is shown is read back as it was, to the second.
    for (int seconds = 0; seconds < 36000; seconds += 37) {
        const auto text = time_text(seconds);
        if (seconds >= 3600) continue;  // hours show no seconds
        INFO(text);
        REQUIRE(parse_duration(text));
        CHECK(std::abs(*parse_duration(text) - seconds) < 0.5);
    }
    CHECK(time_text(180) == "3 min");
    CHECK(time_text(7200) == "2 h");
    CHECK(time_text(7260) == "2 h 1 min");
}

TEST_CASE("times of day", "[shoot][text]") {
    CHECK(day_time_text(9 * 3600) == "9:00");
    CHECK(day_time_text(9 * 3600 + 65) == "9:01");
    CHECK(day_time_text(25 * 3600 + 600) == "1:10 on day 2");
    CHECK(day_time_text(201 * 3600 + 420) == "9:07 on day 9");
    CHECK(parse_day_time("9:05") == 9 * 3600 + 300);
    CHECK(parse_day_time(" 14.30 ") == 14.5 * 3600);
    CHECK(parse_day_time("7") == 7 * 3600);
    for (const char* bad : {"", "9:", ":30", "25:00", "9:60", "9:5:1", "nine", "-1:00", "9:1x"}) {
        INFO(bad);
        CHECK_FALSE(parse_day_time(bad));
    }
    for (int minutes = 0; minutes < 24 * 60; ++minutes)
        CHECK(parse_day_time(day_time_text(minutes * 60)) == minutes * 60);
}

TEST_CASE("what is no number is said so, and nothing worse", "[shoot][text]") {
    CHECK(text::number_text(std::nan("")) == "nan");
    CHECK(text::number_text(std::numeric_limits<double>::infinity()) == "inf");
    CHECK(text::shutter_text(0) == "0 s");
}

TEST_CASE("a tone is told from middle grey", "[text]") {
    CHECK(poquito::text::tone_text(-5.04) == "5.0 stops below middle grey");
    CHECK(poquito::text::tone_text(2.44) == "2.4 stops above middle grey");
}

TEST_CASE("a local time is seconds from some day, whatever the locale", "[text]") {
    const auto between = [](const char* from, const char* to) {
        return text::seconds_of(to).value() - text::seconds_of(from).value();
    };
    CHECK(between("2026-11-28T10:15:03.25", "2026-11-28T10:16:05.75") == 62.5);
    CHECK(between("2026-02-28T23:59:59", "2026-03-01T00:00:01") == 2);
    CHECK(between("2024-02-28T12:00:00", "2024-03-01T12:00:00") == 2 * 86400);
    CHECK(between("2025-12-31T00:00:00", "2026-01-01T00:00:00") == 86400);
    for (const char* none : {"", "2026-11-28", "2026-11-28T10:15", "2026:11:28T10:15:03", "x", "2026-11-28 10:15:03",
                             "2026-99999999-28T10:15:03", "2026-11-28T10:15:nan"})
        CHECK_FALSE(text::seconds_of(none));
}
