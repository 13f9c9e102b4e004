#pragma once

#include "text/error.hpp"
#include "workings/figures.hpp"

#include <string>
#include <string_view>
#include <vector>

/// What is read beside the stations: short pages with the numbers of the shot at hand, and the words of the trade.
namespace poquito::handbook {

/// What a page draws of the shot.
enum class Drawing {
    none,
    scale,
    distance,
    aperture,
    discs,
    depth,
    plane,
    background,
    stack,
    tones,
    falloff,
    pulse,
    angles,
    trace
};

struct Page {
    std::string id;     // "working-aperture"
    std::string title;  // "The stop that really works"
    advice::Station station = advice::Station::subject;
    std::vector<std::string> leaves;   // that it stands beside; none: it is read from numbers and pages
    std::vector<std::string> figures;  // keys of the numbers it explains
    Drawing drawing = Drawing::none;
    std::vector<std::string> text;  // paragraphs; {working_f_number} stands for that number of the shot
    std::vector<std::string> see;   // ids of pages

    bool operator==(const Page&) const = default;
};

struct Word {
    std::string word;               // "working f-number"
    std::vector<std::string> also;  // as it is called besides
    std::string says;
    std::string page;  // id; empty: none

    bool operator==(const Word&) const = default;
};

struct Handbook {
    std::vector<Page> pages;
    std::vector<Word> words;
};

/// JSON, "format": "poquito-handbook". What a page or word names (station, page) has to be there.
text::Expected<Handbook> read_handbook(std::string_view json);

/// Null: no such page.
const Page* find_page(const Handbook& handbook, std::string_view id);
/// The page that explains a number, by its key; null: none does.
const Page* page_of_figure(const Handbook& handbook, std::string_view key);
/// The page of a leaf; where that has none, the station's first.
const Page* page_of_tab(const Handbook& handbook, advice::Station station, std::string_view leaf);

/// The words that stand in a text, in its order, each once. The longest that fits is meant: "working f-number" and not
/// "f-number" in it. Capitals do not matter, a word inside another is none.
std::vector<const Word*> words_in(const Handbook& handbook, std::string_view text);

/// Where a word stands in a text, in bytes.
struct Place {
    std::size_t at = 0;
    std::size_t length = 0;
    const Word* word = nullptr;
};
std::vector<Place> places_in(const Handbook& handbook, std::string_view text);

/// The paragraphs of a page with the shot's numbers put in. One that names a number which the shot does not have is
/// left out.
std::vector<std::string> read(const Page& page, const std::vector<workings::Figure>& figures);

}  // namespace poquito::handbook
