#include "handbook/handbook.hpp"

#include "storage/json_reader.hpp"

#include <algorithm>
#include <cctype>
#include <optional>
#include <utility>

namespace poquito::handbook {
namespace {

using storage::Json;
using storage::Node;
using storage::ObjectReader;

const std::vector<std::pair<const char*, Drawing>> drawing_names = {
    {"none", Drawing::none},         {"scale", Drawing::scale},
    {"distance", Drawing::distance}, {"aperture", Drawing::aperture},
    {"discs", Drawing::discs},       {"depth", Drawing::depth},
    {"plane", Drawing::plane},       {"background", Drawing::background},
    {"stack", Drawing::stack},       {"tones", Drawing::tones},
    {"falloff", Drawing::falloff},   {"pulse", Drawing::pulse},
    {"angles", Drawing::angles},     {"trace", Drawing::trace}};

std::vector<std::pair<const char*, advice::Station>> station_names() {
    std::vector<std::pair<const char*, advice::Station>> names;
    names.reserve(advice::stations.size());
    for (const auto station : advice::stations) names.emplace_back(advice::station_name(station), station);
    return names;
}

Page read_page(const Node& node) {
    ObjectReader object(node);
    return {.id = object.text("id"),
            .title = object.text("title"),
            .station = object.member("station", "a station").one_of(station_names()),
            .leaves = object.texts("leaves"),
            .figures = object.texts("figures"),
            .drawing = object.member("drawing", "a drawing").one_of(drawing_names),
            .text = object.texts("text"),
            .see = object.texts("see")};
}

Word read_word(const Node& node) {
    ObjectReader object(node);
    return {.word = object.text("word"),
            .also = object.texts("also"),
            .says = object.text("says"),
            .page = object.text_or("page", {})};
}

char lower(char c) { return static_cast<char>(std::tolower(static_cast<unsigned char>(c))); }

/// Letters, digits, and every byte beyond ASCII: what a word cannot end beside.
bool in_word(char c) { return std::isalnum(static_cast<unsigned char>(c)) || static_cast<unsigned char>(c) >= 0x80; }

bool stands_at(std::string_view text, std::size_t at, std::string_view word) {
    if (text.size() - at < word.size()) return false;
    for (std::size_t i = 0; i < word.size(); ++i)
        if (lower(text[at + i]) != lower(word[i])) return false;
    const std::size_t end = at + word.size();
    return (at == 0 || !in_word(text[at - 1]) || !in_word(word.front())) && (end == text.size() || !in_word(text[end]));
}

std::vector<std::string_view> sentences_of(std::string_view paragraph) {
    std::vector<std::string_view> sentences;
    for (std::size_t at = 0; at < paragraph.size();) {
        const auto end = std::min(paragraph.find(". ", at), paragraph.size() - 1);
        sentences.push_back(paragraph.substr(at, end + 1 - at));
        at = end + 2;
    }
    return sentences;
}

/// Value and unit as one reads them; empty: the shot has no such number.
std::optional<std::string> number_text(const std::vector<workings::Figure>& figures, std::string_view key) {
    const auto found = std::ranges::find(figures, key, &workings::Figure::key);
    if (found == figures.end()) return std::nullopt;
    // What was measured says so behind its unit; a page has the unit alone.
    const auto unit = found->unit.substr(0, found->unit.find(','));
    if (unit.empty() || unit == "measured") return found->value;
    return found->value + (unit == "\u00d7" ? "" : " ") + unit;
}

/// Empty where one of its numbers does not exist.
std::optional<std::string> filled_in(std::string_view sentence, const std::vector<workings::Figure>& figures) {
    std::string filled;
    for (std::size_t at = 0; at < sentence.size();) {
        const auto open = sentence.find('{', at);
        const auto close = sentence.find('}', std::min(open, sentence.size()));
        if (close == std::string_view::npos) return filled.append(sentence.substr(at));
        const auto number = number_text(figures, sentence.substr(open + 1, close - open - 1));
        if (!number) return std::nullopt;
        filled.append(sentence.substr(at, open - at)).append(*number);
        at = close + 1;
    }
    return filled;
}

}  // namespace

text::Expected<Handbook> read_handbook(std::string_view json) {
    try {
        const Json document = storage::parse_json(json);
        const Node root(document);
        ObjectReader object(root);
        object.member("format", "\"poquito-handbook\"").one_of<int>({{"poquito-handbook", 0}});
        Handbook handbook;
        const auto pages = object.member("pages", "a list");
        for (const Node& page : pages.items()) handbook.pages.push_back(read_page(page));
        const auto words = object.member("words", "a list");
        for (const Node& word : words.items()) handbook.words.push_back(read_word(word));
        // What is named is there.
        for (const Node& page : pages.items()) {
            ObjectReader one(page);
            const auto see = one.member("see", "a list");
            for (const Node& id : see.items())
                if (!find_page(handbook, id.text())) id.fail("there is no page \"" + id.text() + "\"");
        }
        for (const Node& word : words.items()) {
            ObjectReader one(word);
            if (const auto page = one.find("page"); page && !page->text().empty() && !find_page(handbook, page->text()))
                page->fail("there is no page \"" + page->text() + "\"");
        }
        return handbook;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

const Page* find_page(const Handbook& handbook, std::string_view id) {
    const auto found = std::ranges::find(handbook.pages, id, &Page::id);
    return found == handbook.pages.end() ? nullptr : &*found;
}

const Page* page_of_figure(const Handbook& handbook, std::string_view key) {
    const auto found = std::ranges::find_if(
        handbook.pages, [&](const Page& page) { return std::ranges::find(page.figures, key) != page.figures.end(); });
    return found == handbook.pages.end() ? nullptr : &*found;
}

const Page* page_of_tab(const Handbook& handbook, advice::Station station, std::string_view leaf) {
    for (const Page& page : handbook.pages)
        if (std::ranges::find(page.leaves, leaf) != page.leaves.end()) return &page;
    const auto first = std::ranges::find(handbook.pages, station, &Page::station);
    return first == handbook.pages.end() ? nullptr : &*first;
}

std::vector<Place> places_in(const Handbook& handbook, std::string_view text) {
    std::vector<Place> places;
    for (std::size_t at = 0; at < text.size();) {
        Place longest{.at = at};
        if (at == 0 || !in_word(text[at - 1]))
            for (const Word& word : handbook.words) {
                const auto meant = [&](const std::string& name) {
                    if (name.size() > longest.length && stands_at(text, at, name))
                        longest.length = name.size(), longest.word = &word;
                };
                meant(word.word);
                std::ranges::for_each(word.also, meant);
            }
        if (longest.word) places.push_back(longest);
        at += std::max<std::size_t>(longest.length, 1);
    }
    return places;
}

std::vector<const Word*> words_in(const Handbook& handbook, std::string_view text) {
    std::vector<const Word*> words;
    for (const Place& place : places_in(handbook, text))
        if (std::ranges::find(words, place.word) == words.end()) words.push_back(place.word);
    return words;
}

std::vector<std::string> read(const Page& page, const std::vector<workings::Figure>& figures) {
    std::vector<std::string> paragraphs;
    for (const auto& paragraph : page.text) {
        std::string said;
        for (const auto sentence : sentences_of(paragraph))
            if (const auto filled = filled_in(sentence, figures)) said += (said.empty() ? "" : " ") + *filled;
        if (!said.empty()) paragraphs.push_back(std::move(said));
    }
    return paragraphs;
}

}  // namespace poquito::handbook
