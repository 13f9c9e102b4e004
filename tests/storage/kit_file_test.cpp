#include "storage/kit_file.hpp"
#include "storage/csv_rows.hpp"

#include "support/bags.hpp"
#include "support/matchers.hpp"
#include "support/shoots.hpp"

#include <algorithm>
#include <filesystem>

using namespace poquito;

namespace {

gear::Kit kit_of(const text::Expected<gear::Kit>& result) {
    INFO((result ? "" : text::message(result.error())));
    REQUIRE(result);
    return result.value();
}

std::string refusal(const std::string& csv) {
    const auto result = storage::read_kit_csv(csv);
    return result ? std::string() : text::message(result.error());
}

/// Every kind of gear, with names no table likes.
gear::Kit awkward_kit(unsigned seed) {
    test::Random random(seed);
    gear::Kit kit = test::random_bag(random);
    const gear::Kit other = test::random_shoot(seed).kit;
    kit.cameras.push_back(other.cameras[0]);
    kit.lenses.push_back(other.lenses[0]);
    kit.flashes = other.flashes;
    kit.flashes[0].front_thread = 67;
    kit.modifiers = other.modifiers;
    kit.rails = other.rails;
    kit.step_rings = other.step_rings;
    const std::string names[] = {"Größe \"M\", zweiteilig", "line\nbreak", " space ", "a;b|c\\d", "Łódź, 90 mm", ""};
    for (std::size_t i = 0; i < kit.lenses.size(); ++i) kit.lenses[i].name = names[(i + seed) % std::size(names)];
    kit.cameras[0].name = "Kamera, \"gut\"";
    kit.cameras[0].unknown = R"({"colour":"grün","grip_mm":512.5})";
    kit.cameras[0].bracket.unknown = R"({"settle_s":0.2})";
    return kit;
}

}  // namespace

TEST_CASE("a bag comes back from JSON and from CSV as it went", "[storage][kit]") {
    for (unsigned seed = 0; seed < 100; ++seed) {
        const auto kit = awkward_kit(seed);
        INFO("seed " << seed);
        CHECK(kit_of(storage::read_kit_json(storage::write_kit_json(kit))) == kit);
        const auto csv = storage::write_kit_csv(kit);
        const auto back = kit_of(storage::read_kit_csv(csv));
        CHECK(back == kit);
        // Spreadsheets may end lines with a bare line feed, and put a mark in front.
        std::string unix_lines;
        std::ranges::copy_if(csv, std::back_inserter(unix_lines), [](char c) { return c != '\r'; });
        CHECK(kit_of(storage::read_kit_csv("\xef\xbb\xbf" + unix_lines)) == kit);
    }
}

TEST_CASE("columns nobody knows come back whatever piece of a CSV brings them first", "[storage][kit]") {
    auto kit = awkward_kit(2);
    kit.cameras[0].unknown = R"({"zeal":1})";
    kit.lenses[0].unknown = R"({"age":3,"zeal":2})";
    const auto back = kit_of(storage::read_kit_csv(storage::write_kit_csv(kit)));
    CHECK(back == kit);
    // As they stand in the columns, which the camera began.
    CHECK(storage::write_kit_csv(back) == storage::write_kit_csv(kit));
}

TEST_CASE("the suffix says which of both a file is", "[storage][kit]") {
    const auto folder = std::filesystem::temp_directory_path() / "poquito-kit-test";
    std::filesystem::create_directories(folder);
    const auto kit = awkward_kit(3);
    for (const char* name : {"bag.csv", "bag.json"}) {
        REQUIRE(storage::save_kit(kit, folder / name));
        CHECK(kit_of(storage::load_kit(folder / name)) == kit);
    }
    const auto missing = storage::load_kit(folder / "none.csv");
    CHECK(!missing);
    std::filesystem::remove_all(folder);
}

TEST_CASE("a table that a person wrote by hand needs only what the kind needs", "[storage][kit]") {
    const auto kit =
        kit_of(storage::read_kit_csv("kind,id,name,length_mm,contacts,power_dpt,thread_mm\n"
                                     "tubes,t12,\"Tube, 12 mm\",12,true,,\n\n"
                                     "closeup_lenses,c4,Grün,,,4,58\n,,,,,,\n"));
    REQUIRE(kit.tubes.size() == 1);
    CHECK(kit.tubes[0].name == "Tube, 12 mm");
    CHECK(kit.tubes[0].contacts);
    REQUIRE(kit.closeup_lenses.size() == 1);
    CHECK(kit.closeup_lenses[0].name == "Grün");
    CHECK_FALSE(kit.closeup_lenses[0].achromat);
}

TEST_CASE("tables that cannot be meant are refused, with line, column and what was expected",
          "[storage][kit][errors]") {
    const std::string head = "kind,id,name,length_mm,contacts,thread_mm\n";
    CHECK(refusal(head + "tubes,t,Tube,\"12,5\",true,\n") ==
          "line 2, length_mm: got \"12,5\", expected a decimal point, 12.5");
    CHECK(refusal(head + "tubes,t,Tube,twelve,true,\n") ==
          "line 2, length_mm: got \"twelve\", expected a number, 0.0001 to 1000000");
    CHECK(refusal(head + "tubes,t,Tube,-3,true,\n") == "line 2, length_mm: got \"-3\", expected 0.0001 to 1000000");
    CHECK(refusal(head + "tubes,t,Tube,12,maybe,\n") == "line 2, contacts: got \"maybe\", expected true or false");
    CHECK(refusal(head + "tubes,t,Tube,,true,\n") == "line 2, length_mm: got \"\", expected a value");
    CHECK(refusal(head + "tubes,t,Tube,12,true,58\n") ==
          "line 2, thread_mm: got \"58\", expected nothing: a tube has no such member");
    CHECK(refusal(head + "tubes,,Tube,12,true,\n") == "line 2, id: got \"\", expected an id that is not empty");
    CHECK(refusal(head + "tubes,t,A,12,true,\ntubes,t,B,12,true,\n") ==
          "line 3, id: \"t\" is taken, expected an id of its own");
    CHECK(refusal(head + "pipes,t,Tube,12,true,\n")
              .starts_with("line 2, kind: got \"pipes\", expected one of cameras, "));
    CHECK(refusal(head + "tubes,t,Tube,12,true,,\n") == "line 2: got 7 cells, expected 6 as in the header");
    CHECK(refusal("kind;id;name\ntubes;t;Tube\n") == "line 1: columns are divided by semicolons, expected commas");
    CHECK(refusal("id,name\n") == "line 1: no column \"kind\", expected kind, id, name and the members");
    CHECK(refusal("kind,id,name,name\n") == "line 1: column \"name\" stands twice, expected once");
    CHECK(refusal("").starts_with("line 1: nothing there"));
    CHECK(refusal(head + "tubes,t,\"Tube\nof two lines\",12,true,\ntubes,u,a\"b,12,true,\n")
              .starts_with("line 4: a quotation mark"));
    CHECK(refusal(head + "tubes,t,\"Tube,12,true,\n").find("quotation mark") != std::string::npos);
    CHECK(refusal(head + "tubes,t,T\xfc"
                         "be,12,true,\n")
              .find("not UTF-8") != std::string::npos);
    const std::string lens_head =
        "kind,id,name,focal_length_mm,max_aperture,min_aperture,closest_focus_mm,max_magnification,focusing,"
        "pupil_magnification,length_mm,front_diameter_mm,filter_thread_mm,zoom\n";
    CHECK(refusal(lens_head + "lenses,z,Zoom,20,2.8,22,300,0.2,unit,1,80,60,58,20|2.8|300|0.2\n") ==
          "line 2, zoom: got \"20|2.8|300|0.2\", expected 5 values to a line");
    CHECK(refusal(lens_head + "lenses,z,Zoom,20,2.8,22,300,0.2,unit,1,80,60,58,20|2.8|300|0.2|80; 10|2.8|300|0.2|80\n")
              .starts_with("line 2, zoom: got 10, expected above 20"));
}

namespace {

/// Either a bag, which then comes back from a table as it is, or one line that says what is wrong.
void check_whole_or_refused(const std::string& text) {
    const auto read = storage::read_kit_csv(text);
    if (!read) {
        CHECK_FALSE(read.error().problem.empty());
        CHECK(text::message(read.error()).find('\n') == std::string::npos);
        return;
    }
    const auto& kit = read.value();
    const auto again = storage::read_kit_csv(storage::write_kit_csv(kit));
    REQUIRE(again.has_value());
    CHECK(storage::write_kit_csv(again.value()) == storage::write_kit_csv(kit));
}

}  // namespace

TEST_CASE("no cell of a table is taken for a formula, and each comes back as it was", "[storage][kit]") {
    for (const std::string text :
         {"=1+1", "+49 40", "@home", "-3 EV", "'=x", "''-y", "\t=1", "'tis", "it's", "", "plain"}) {
        INFO(text);
        const auto cell = storage::csv_cell(text);
        CHECK(std::string("=+@-\t\r")
                  .find(cell.empty()          ? 'x'
                        : cell.front() == '"' ? cell[1]
                                              : cell.front()) == std::string::npos);
        const auto rows = storage::csv_rows("a," + cell + "\n");
        REQUIRE(rows.size() == 1);
        CHECK(storage::disarmed_text(rows[0].cells[1]) == text);
    }
    auto kit = test::plain_shoot().kit;
    kit.lenses[0].name = "=HYPERLINK(\"x\")";
    const auto table = storage::write_kit_csv(kit);
    CHECK(table.find(",=") == std::string::npos);
    CHECK(table.find(",\"=") == std::string::npos);
    CHECK(storage::read_kit_csv(table).value().lenses[0].name == kit.lenses[0].name);
}

TEST_CASE("bytes changed at random in a table never crash", "[storage][kit][errors]") {
    const std::string whole = storage::write_kit_csv(awkward_kit(5));
    for (unsigned seed = 0; seed < 2000; ++seed) {
        test::Random random(seed);
        std::string changed = whole;
        for (int i = random.whole(1, 4); i > 0; --i)
            changed[static_cast<std::size_t>(random.whole(0, static_cast<int>(whole.size()) - 1))] =
                static_cast<char>(random.whole(0, 255));
        check_whole_or_refused(changed);
    }
    for (std::size_t length = 0; length < whole.size(); length += 13) check_whole_or_refused(whole.substr(0, length));
}

TEST_CASE("a file of another kind is no bag", "[storage][kit][errors]") {
    const auto result = storage::read_kit_json(R"({"format": "poquito-shoot", "version": 1})");
    CHECK(text::message(result.error()) == "format: got \"poquito-shoot\", expected \"poquito-kit\"");
}
