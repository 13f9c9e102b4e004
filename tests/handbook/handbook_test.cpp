// Pages and words: what ships is whole, words are found where they stand, pages carry the shot's numbers.
#include "support/shoots.hpp"

#include "handbook/handbook.hpp"

#include <fstream>
#include <set>
#include <sstream>

using namespace poquito;

namespace {

handbook::Handbook shipped() {
    std::ifstream file(POQUITO_DATA "/handbook.json");
    std::stringstream text;
    text << file.rdbuf();
    auto read = handbook::read_handbook(text.str());
    if (!read) FAIL(text::message(read.error()));
    return std::move(read).value();
}

std::vector<std::string> names(const std::vector<const handbook::Word*>& words) {
    std::vector<std::string> found;
    for (const auto* word : words) found.push_back(word->word);
    return found;
}

using Texts = std::vector<std::string>;

}  // namespace

TEST_CASE("Every number with a working has a page, and every page is short", "[handbook]") {
    const auto book = shipped();
    std::set<std::string> keys;
    for (unsigned seed = 1; seed <= 60; ++seed) {
        const auto shoot = test::random_shoot(seed);
        for (const auto& shot : shoot.shots) {
            const auto assessment = advice::assessment_of(shoot.kit, shot, {}, advice::Remedies::left_out);
            for (const auto& figure : workings::figures(assessment))
                if (figure.working) keys.insert(figure.key);
        }
    }
    CHECK(keys.size() > 30);
    for (const auto& key : keys) {
        INFO(key);
        CHECK(handbook::page_of_figure(book, key));
    }
    std::set<std::string> ids, explained;
    for (const auto& page : book.pages) {
        INFO(page.id);
        CHECK(ids.insert(page.id).second);
        for (const auto& key : page.figures) CHECK(explained.insert(key).second);  // one page a number
        std::size_t letters = 0;
        for (const auto& text : page.text) letters += text.size();
        CHECK(letters > 150);
        CHECK(letters < 1000);
        CHECK_FALSE(page.see.empty());
        // Without numbers it still says something, and nothing in braces.
        const auto read = handbook::read(page, {});
        CHECK_FALSE(read.empty());
        for (const auto& text : read) CHECK(text.find('{') == std::string::npos);
    }
}

TEST_CASE("Words are found as they stand, the longest first", "[handbook]") {
    const auto book = shipped();
    CHECK(names(handbook::words_in(book, "Working aperture")) == Texts{"working f-number"});
    CHECK(names(handbook::words_in(book, "the marked f-number, not the Working f-number")) ==
          Texts{"marked stop", "working f-number"});
    CHECK(names(handbook::words_in(book, "Airy disc and blur disc, Airy disc")) == Texts{"Airy disc", "blur disc"});
    CHECK(names(handbook::words_in(book, "unstoppable railing")).empty());
    CHECK(names(handbook::words_in(book, "stops")) == Texts{"stop"});
    CHECK(names(handbook::words_in(book, "12.2 \u00b5m")) == Texts{"\u00b5m"});
    CHECK(names(handbook::words_in(book, "")).empty());
    const auto places = handbook::places_in(book, "a gap, an open end");
    REQUIRE(places.size() == 2);
    CHECK(places[0].at == 2);
    CHECK(places[0].length == 3);
    CHECK(places[1].at == 10);
    // Each means one thing, is explained in a line or two, and not by itself.
    std::set<std::string> all;
    for (const auto& word : book.words) {
        INFO(word.word);
        CHECK(all.insert(word.word).second);
        for (const auto& also : word.also) CHECK(all.insert(also).second);
        CHECK(word.says.size() > 20);
        CHECK(word.says.size() < 200);
    }
}

TEST_CASE("A page says the shot's own numbers, and leaves out what the shot has not", "[handbook]") {
    const handbook::Page page{
        .id = "p",
        .title = "P",
        .text = {"At {magnification} it sees {field_width_mm}. Always so.", "Only {blur_mm} here."}};
    workings::Figure m{.key = "magnification", .name = "Magnification", .value = "0.62", .unit = "\u00d7"};
    const workings::Figure field{.key = "field_width_mm", .name = "Field", .value = "38 \u00d7 25", .unit = "mm"};
    CHECK(handbook::read(page, {m, field}) == Texts{"At 0.62\u00d7 it sees 38 \u00d7 25 mm. Always so."});
    CHECK(handbook::read(page, {m}) == Texts{"Always so."});
    m.unit = "\u00d7, measured";
    CHECK(handbook::read(page, {m, field}).front() == "At 0.62\u00d7 it sees 38 \u00d7 25 mm. Always so.");
}

TEST_CASE("Leaves and stations have their pages", "[handbook]") {
    const auto book = shipped();
    using advice::Station;
    CHECK(handbook::page_of_tab(book, Station::depth, "planeTab")->id == "plane");
    CHECK(handbook::page_of_tab(book, Station::depth, "no such leaf")->id == "blur");
    for (const auto station : advice::stations) CHECK(handbook::page_of_tab(book, station, ""));
    CHECK_FALSE(handbook::find_page(book, "nowhere"));
    CHECK_FALSE(handbook::page_of_figure(book, "nothing"));
}

TEST_CASE("A handbook that names what is not there is refused with its place", "[handbook]") {
    const auto problem = [](const std::string& text) {
        const auto read = handbook::read_handbook(text);
        return read ? std::string() : text::message(read.error());
    };
    const std::string page =
        R"({"id":"a","title":"A","station":"Depth","leaves":[],"figures":[],"drawing":"none","text":["x"],"see":[SEE]})";
    const auto with = [&](const std::string& see, const std::string& words) {
        auto text = page;
        text.replace(text.find("SEE"), 3, see);
        return R"({"format":"poquito-handbook","pages":[)" + text + R"(],"words":[)" + words + "]}";
    };
    CHECK(problem(with("", "")).empty());
    CHECK(problem(with(R"("b")", "")).find("there is no page \"b\"") != std::string::npos);
    CHECK(problem(with("", R"({"word":"w","also":[],"says":"s","page":"b"})")).find("words[0].page") !=
          std::string::npos);
    CHECK_FALSE(problem("{").empty());
    CHECK_FALSE(problem(R"({"format":"other"})").empty());
}
