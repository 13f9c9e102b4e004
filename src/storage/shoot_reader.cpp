#include "shoot/members.hpp"
#include "storage/atomic_file.hpp"
#include "storage/json_reader.hpp"
#include "storage/kit_json.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cstdio>
#include <limits>
#include <span>
#include <utility>

namespace poquito::storage {
namespace {

using namespace text;
using namespace gear;
using namespace shoot;

template <typename Record>
Record read_record(const Node& node, const Kit& kit);

// ---- what has a form of its own ----------------------------------------------------------------------------------

/// What would fit; empty names are none.
std::string listed(std::span<const char* const> names) {
    constexpr std::size_t few = 4;
    std::string all;
    for (const char* name : names)
        if (*name != '\0') all += fmt::format("{}\"{}\"", all.empty() ? "" : names.size() > few ? ", " : " or ", name);
    return names.size() > few ? "one of " + all : all;
}

/// The place of the name in the list.
std::size_t read_choice(const Node& node, std::span<const char* const> names) {
    const std::string found = node.text();
    for (std::size_t i = 0; i < names.size(); ++i)
        if (*names[i] != '\0' && found == names[i]) return i;
    node.fail(fmt::format("got \"{}\", expected {}", Node::shortened(found), listed(names)));
}

Colour read_colour(const Node& node) {
    const auto colour = parse_colour(node.text());
    if (!colour) node.fail_expecting("a colour such as \"#7f9c8a\"");
    return *colour;
}

/// Rows from the top; two hexadecimal digits a height.
void read_heights(const Node& list, const Node& of_map, HeightMap& map) {
    const auto rows = list.items();
    if (rows.size() < 2 || rows.size() > greatest_height_map)
        of_map.fail(fmt::format("got {} rows, expected 2 to {}", rows.size(), greatest_height_map));
    map.height = static_cast<int>(rows.size());
    for (const Node& row : rows) {
        const std::string digits = row.text();
        const auto columns = digits.size() / 2;
        if (digits.size() % 2 != 0 || columns < 2 || columns > greatest_height_map)
            row.fail(fmt::format("got {} digits, expected two for each of 2 to {} heights", digits.size(),
                                 greatest_height_map));
        if (map.width != 0 && static_cast<int>(columns) != map.width)
            row.fail(fmt::format("got {} heights, expected {} as in the first row", columns, map.width));
        map.width = static_cast<int>(columns);
        for (std::size_t i = 0; i < digits.size(); i += 2) {
            std::uint8_t height = 0;
            const char* end = digits.data() + i + 2;
            if (std::from_chars(digits.data() + i, end, height, 16).ptr != end)
                row.fail(fmt::format("got \"{}\", expected two hexadecimal digits", digits.substr(i, 2)));
            map.heights.push_back(height);
        }
    }
}

Focus read_focus(ObjectReader& rig, const NumberRule& ring_rule, const NumberRule& magnification_rule) {
    const auto ring = rig.find(name_of(FocusBy::ring));
    const auto magnification = rig.find(name_of(FocusBy::magnification));
    if (ring && magnification) ring->fail("both ring and magnification given, expected one of them");
    if (ring) return {.by = FocusBy::ring, .value = ring->number(ring_rule)};
    if (magnification) return {.by = FocusBy::magnification, .value = magnification->number(magnification_rule)};
    rig.node().fail("neither ring nor magnification given, expected one of them");
}

/// Of a flash by the camera's meter: none.
std::optional<double> read_power(const Node& node) {
    if (!node.value().is_string()) return node.number(range::power);
    node.one_of<int>({{"auto", 0}});
    return std::nullopt;
}

/// Null: at infinity.
double read_plane(const Node& node) {
    return node.is_null() ? std::numeric_limits<double>::infinity() : node.number(range::offset);
}

constexpr const char* group_names[] = {"A", "B", "C"};

std::vector<std::pair<std::string, double>> read_powers(const Node& node) {
    std::vector<std::pair<std::string, double>> powers;
    ObjectReader groups(node);
    for (const char* group : group_names)
        if (const auto power = groups.find(group)) powers.emplace_back(group, power->number(range::part));
    if (const auto strange = groups.unknown(); !strange.empty())
        node.fail(fmt::format("got {}, expected the groups A, B and C alone", Node::shortened(strange)));
    return powers;
}

// ---- what members mean for each other ----------------------------------------------------------------------------

void check(ObjectReader&, auto&, const Kit&) {}

void check(ObjectReader& object, BellowsSetting& setting, const Kit& kit) {
    const Bellows& bellows = *find_gear(kit.bellows, setting.bellows);
    object.number("extension_mm", NumberRule{.least = bellows.least, .greatest = bellows.greatest});
}

/// Of a zoom, inside its range; of another lens there is nothing to set.
void check_zoom(ObjectReader& object, const Lens& lens) {
    const auto node = object.find("focal_length_mm");
    if (!node) return;
    if (lens.zoom.empty()) node->fail(fmt::format("lens \"{}\" is no zoom, expected no focal length", lens.id));
    node->number({.least = lens.zoom.front().focal_length, .greatest = lens.zoom.back().focal_length});
}

void check(ObjectReader& object, FrontLens& front, const Kit& kit) {
    check_zoom(object, *find_gear(kit.lenses, front.lens));
}

/// What cannot be screwed together.
void check(ObjectReader& object, Rig& rig, const Kit& kit) {
    check_zoom(object, *find_gear(kit.lenses, rig.lens));
    const Camera& camera = *find_gear(kit.cameras, rig.camera);
    if (rig.crop_mode && std::ranges::count(camera.crop_modes, *rig.crop_mode, &CropMode::name) == 0)
        object.member("crop_mode", "text")
            .fail(fmt::format("got \"{}\", expected the name of a crop mode of camera \"{}\"",
                              Node::shortened(*rig.crop_mode), rig.camera));
    if (rig.reversing_ring && !rig.closeup_lenses.empty())
        object.member("closeup_lenses", "a list")
            .fail("got close-up lenses on a reversed lens, expected none: its mount has no thread");
    if (rig.reversing_ring && rig.front_lens)
        object.member("front_lens", "an object").fail("got a front lens on a reversed lens, expected one of the two");
    if (rig.tubes_behind_converter.empty()) return;
    const Node behind = object.member("tubes_behind_converter", "a list");
    if (!rig.teleconverter) behind.fail("got tubes behind no converter, expected them in tubes");
    if (!find_gear(kit.teleconverters, *rig.teleconverter)->optics.has_length())
        behind.fail("got tubes behind a converter without length, expected a converter whose length_mm is 0.1 or more");
}

void check(ObjectReader&, Output& output, const Kit&) { output.delivery.crop = output.print.crop; }

void check(ObjectReader& object, Slice& slice, const Kit&) {
    object.number("to_mm", NumberRule{.least = slice.from, .greatest = range::length.greatest});
}

/// Together they cannot send on more than falls on it, and its brightest part is no darker than all of it.
void check(ObjectReader& object, Subject& subject, const Kit&) {
    constexpr double rounding = 1e-9;
    if (subject.transmittance + subject.reflectance > 1 + rounding)
        object.member("transmittance", "a number")
            .fail(fmt::format("got {} beside a reflectance of {}, expected no more than 1 together",
                              text::number_text(subject.transmittance, 3), text::number_text(subject.reflectance, 3)));
    if (subject.highlight_reflectance)
        object.number("highlight_reflectance", NumberRule{.least = subject.reflectance, .greatest = 1});
}

/// What sends light back has no unit; a lamp gives what it gives: it is not metered.
void check(ObjectReader& object, Light& light, const Kit&) {
    if (light.reflector) {
        for (const char* other : {"flash", "lamp", "modifier", "power", "bounce", "own_stops"})
            if (const auto node = object.find(other))
                node->fail(fmt::format("got {} beside a reflector, expected one of the two", other));
        return;
    }
    if (light.own_stops && light.power)
        object.member("power", "a power").fail("got a power beside own_stops, expected \"auto\"");
    if (light.lamp) {
        if (const auto flash = object.find("flash")) flash->fail("got a flash beside a lamp, expected one of the two");
        object.member("power", "a fraction").number(range::part);
    }
    if (light.metered && light.power)
        object.member("power", "a power").fail("got a power beside metered_compensation_stops, expected \"auto\"");
}

void check(ObjectReader& object, Tries& tries, const Kit&) {
    if (tries.kept > tries.tried)
        object.member("kept", "a whole number")
            .fail(fmt::format("got {} kept of {} tried, expected no more kept than tried", tries.kept, tries.tried));
}

/// Only what is thrown can come from below.
void check(ObjectReader& object, Freeze& freeze, const Kit&) {
    if (freeze.act != Act::thrown) object.number("drop_mm", range::length);
    if (!freeze.second) return;
    const Node second = object.member("second_drop", "an object");
    ObjectReader(second).number("column_mm", NumberRule{.greatest = freeze.drop});
}

// ---- by rows -----------------------------------------------------------------------------------------------------

template <typename Value>
struct Stored {
    using type = Value;
};
template <typename Value>
struct Stored<std::optional<Value>> : Stored<Value> {};
template <typename Value>
struct Stored<CopyOnWrite<Value>> : Stored<Value> {};

/// Reads the members of one record as shoot/members.hpp describes them.
template <typename Record>
class MemberReader {
  public:
    MemberReader(const Node& node, const Kit& kit, Record& record) : object_(node), kit_(kit), record_(record) {}

    void read() {
        describe(*this, static_cast<const Record*>(nullptr));
        check(object_, record_, kit_);
        unknown_of(record_) = object_.unknown();
    }

    template <typename Access>
    void number(const char* key, Access access, const NumberRule& rule, const Presence& presence) {
        if (const auto node = find(key, presence, "a number, " + rule.words())) member(access) = node->number(rule);
    }
    template <typename Access>
    void scaled(const char* key, Access access, const NumberRule& rule, double unit) {
        if (const auto found = object_.number_if_any(key, rule)) member(access) = *found * unit;
    }
    template <typename Access>
    void whole(const char* key, Access access, int least, const Presence& presence) {
        if (const auto node = find(key, presence, "a whole number")) member(access) = node->whole_number(least);
    }
    template <typename Access>
    void flag(const char* key, Access access, const Presence& presence) {
        if (const auto node = find(key, presence, "true or false")) member(access) = node->truth();
    }
    template <typename Access>
    void text(const char* key, Access access, const Presence& presence) {
        if (const auto node = find(key, presence, "text")) member(access) = node->text();
    }
    template <typename Access>
    void path(const char* key, Access access, const Presence& presence) {
        if (const auto node = find(key, presence, "text")) member(access) = text::StoredPath::of_text(node->text());
    }
    template <typename Access>
    void id(const char* key, Access access) {
        const Node node = object_.member(key, "text");
        member(access) = node.text();
        if (member(access).empty()) node.fail_expecting("an id that is not empty");
    }
    template <typename Access>
    void texts(const char* key, Access access) {
        if (object_.find(key)) member(access) = object_.texts(key);
    }
    template <typename Access>
    void choice(const char* key, Access access, const Presence& presence) {
        using Enumeration = std::decay_t<decltype(member(access))>;
        const auto& known = names<Enumeration>;
        if (const auto node = find(key, presence, listed(known)))
            member(access) = static_cast<Enumeration>(read_choice(*node, known));
    }
    template <typename Access>
    void choices(const char* key, Access access) {
        auto& values = member(access);
        using Enumeration = typename std::decay_t<decltype(values)>::value_type;
        const auto node = object_.find(key);
        if (!node) return;
        for (const Node& item : node->items()) {
            const auto value = static_cast<Enumeration>(read_choice(item, names<Enumeration>));
            if (std::ranges::count(values, value) > 0) item.fail_expecting("each of the list once");
            values.push_back(value);
        }
    }
    template <typename Access, typename Gear>
    void gear(const char* key, Access access, std::vector<Gear> Kit::*list, const char* kind,
              const Presence& presence) {
        auto& ids = member(access);
        const auto reference = [&](const Node& node) {
            std::string id = node.text();
            if (!find_gear(kit_.*list, id))
                node.fail(fmt::format("got \"{}\", expected the id of a {} in kit", Node::shortened(id), kind));
            return id;
        };
        using Ids = std::decay_t<decltype(ids)>;
        if constexpr (std::is_same_v<Ids, std::vector<std::string>>) {
            if (const auto node = find(key, presence, "a list of ids"))
                for (const Node& item : node->items()) ids.push_back(reference(item));
        } else if constexpr (std::is_same_v<Ids, std::optional<std::string>>) {
            const auto node = find(key, presence, "an id or null");
            if (node && !node->is_null()) ids = reference(*node);
        } else if (const auto node = find(key, presence, fmt::format("the id of a {}", kind))) {
            ids = reference(*node);
        }
    }
    template <typename Access>
    void object(const char* key, Access access, const Presence& presence = spare) {
        auto& value = member(access);
        if (const auto node = find(key, presence, "an object"))
            value = read_record<typename Stored<std::decay_t<decltype(value)>>::type>(*node, kit_);
    }
    template <typename Access>
    void list(const char* key, Access access, const Presence& presence) {
        auto& items = member(access);
        const auto node = find(key, presence, "a list");
        if (!node) return;
        for (const Node& item : node->items())
            items.push_back(
                read_record<typename Stored<typename std::decay_t<decltype(items)>::value_type>::type>(item, kit_));
    }

    template <typename Access>
    void colour(const char* key, Access access) {
        if (const auto node = object_.find(key)) member(access) = read_colour(*node);
    }
    void heights(const char* key) { read_heights(object_.member(key, "a list of rows"), object_.node(), record_); }
    template <typename Access>
    void focus(Access access, const NumberRule& ring, const NumberRule& magnification) {
        member(access) = read_focus(object_, ring, magnification);
    }
    template <typename Access>
    void power(const char* key, Access access, const Presence& presence) {
        if (const auto node = find(key, presence, "a fraction or \"auto\"")) member(access) = read_power(*node);
    }
    template <typename Access>
    void group(const char* key, Access access) {
        if (const auto node = object_.find(key)) member(access) = group_names[read_choice(*node, group_names)];
    }
    template <typename Access>
    void plane(const char* key, Access access) {
        member(access) = read_plane(object_.member(key, "a number or null"));
    }
    template <typename Access>
    void powers(const char* key, Access access) {
        member(access) = read_powers(object_.member(key, "an object"));
    }

  private:
    template <typename Access>
    auto& member(Access access) {
        return std::invoke(access, record_);
    }
    bool is_needed(const Presence& presence) {
        if (presence.unless && object_.find(presence.unless)) return false;
        if (!presence.needed_then) return presence.needed;
        const auto other = object_.find(presence.member);
        return presence.value ? other && other->value() == presence.value : !other;
    }
    std::optional<Node> find(const char* key, const Presence& presence, const std::string& expected) {
        return is_needed(presence) ? std::optional(object_.member(key, expected.c_str())) : object_.find(key);
    }

    ObjectReader object_;
    const Kit& kit_;
    Record& record_;
};

template <typename Record>
Record read_record(const Node& node, const Kit& kit) {
    Record record;
    MemberReader<Record>(node, kit, record).read();
    return record;
}

// ---- the document ------------------------------------------------------------------------------------------------

/// What names other shots and outlets of the shoot names those that are there.
void check_relations(const Node& shots, const Shoot& shoot) {
    const auto nodes = shots.items();
    for (std::size_t i = 0; i < nodes.size(); ++i) {
        const auto& shot = std::as_const(shoot.shots)[i];
        const auto fail = [&](const std::string& where, const std::string& id, const char* expected) {
            throw text::Error{.place = nodes[i].place() + where,
                              .problem = fmt::format("got \"{}\", expected {}", Node::shortened(id), expected)};
        };
        const auto is_another = [&](const std::string& id) {
            return id != shot.id && std::ranges::count(shoot.shots, id, &Shot::id) > 0;
        };
        for (std::size_t j = 0; j < shot.timing.after.size(); ++j)
            if (!is_another(shot.timing.after[j]))
                fail(fmt::format(".timing.after[{}]", j), shot.timing.after[j], "the id of another shot");
        if (shot.follows && !is_another(shot.follows->shot))
            fail(".follows.shot", shot.follows->shot, "the id of another shot");
        for (std::size_t j = 0; j < shot.deliveries.size(); ++j) {
            const auto& delivery = shot.deliveries[j];
            if (std::ranges::count(shoot.outlets, delivery.outlet, &Outlet::id) == 0)
                fail(fmt::format(".deliveries[{}].outlet", j), delivery.outlet, "the id of an outlet");
            if (delivery.beside && !is_another(*delivery.beside))
                fail(fmt::format(".deliveries[{}].beside", j), *delivery.beside, "the id of another shot");
        }
    }
}

/// "2026-11-28", a day that there is.
bool is_date(const std::string& text) {
    int year = 0;
    unsigned month = 0, day = 0;
    int used = 0;
    constexpr std::size_t length = 10;
    if (text.size() != length || std::sscanf(text.c_str(), "%4d-%2u-%2u%n", &year, &month, &day, &used) != 3)
        return false;
    using namespace std::chrono;
    return used == static_cast<int>(length) && year_month_day(std::chrono::year(year) / month / day).ok();
}

Site read_site(const Node& node, const gear::Kit& kit) {
    auto site = read_record<Site>(node, kit);
    if (site.latitude.has_value() != site.longitude.has_value())
        node.fail("got one of latitude_deg and longitude_deg, expected both or none");
    if (!site.date.empty() && !is_date(site.date))
        throw text::Error{
            .place = node.place() + ".date",
            .problem = fmt::format("got \"{}\", expected a day as 2026-11-28", Node::shortened(site.date))};
    return site;
}

Shoot read_document(const Json& document) {
    const Node root(document);
    ObjectReader object(root);
    object.member("format", "\"poquito-shoot\"").one_of<int>({{"poquito-shoot", 0}});
    const Node version = object.member("version", "1");
    if (!version.value().is_number() || version.value() != shoot_version)
        version.fail_expecting("1, the version this program reads");
    Shoot shoot;
    shoot.title = object.text("title");
    shoot.kit = read_kit(object.member("kit", "an object"));
    if (const auto sets = object.find("power_sets"))
        for (const Node& set : sets->items()) shoot.power_sets.push_back(read_record<PowerSet>(set, shoot.kit));
    const Node shots = object.member("shots", "a list");
    for (const Node& node : shots.items()) {
        auto read = read_record<ShotInFile>(node, shoot.kit);
        if (!read.runs.empty()) shoot.runs.emplace(read.shot.id, std::move(read.runs));
        shoot.shots.push_back(std::move(read.shot));
    }
    check_ids_distinct(shots);
    if (const auto outlets = object.find("outlets")) {
        for (const Node& outlet : outlets->items()) shoot.outlets.push_back(read_record<Outlet>(outlet, shoot.kit));
        check_ids_distinct(*outlets);
    }
    if (const auto packing = object.find("packing")) shoot.packing = read_record<Packing>(*packing, shoot.kit);
    check_relations(shots, shoot);
    if (const auto limits = object.find("limits")) shoot.terms.limits = read_record<Limits>(*limits, shoot.kit);
    if (const auto wishes = object.find("wishes")) shoot.terms.wishes = read_record<Wishes>(*wishes, shoot.kit);
    if (const auto purpose = object.find("purpose")) shoot.purpose = read_record<Output>(*purpose, shoot.kit);
    if (const auto day = object.find("workday")) shoot.workday = read_record<Workday>(*day, shoot.kit);
    if (const auto site = object.find("site")) shoot.site = read_site(*site, shoot.kit);
    shoot.unknown = object.unknown();
    return shoot;
}

}  // namespace

namespace {

/// A file of records alone: what it is called, and the member that lists them.
template <typename Record>
text::Expected<std::vector<Record>> read_list(std::string_view text, const char* format, const char* member) {
    try {
        const Json document = parse_json(text);
        const Node root(document);
        ObjectReader object(root);
        object.member("format", fmt::format("\"{}\"", format).c_str()).template one_of<int>({{format, 0}});
        const Node version = object.member("version", "1");
        if (!version.value().is_number() || version.value() != 1)
            version.fail_expecting("1, the version this program reads");
        const Node list = object.member(member, "a list");
        std::vector<Record> records;
        const Kit none;
        for (const Node& node : list.items()) records.push_back(read_record<Record>(node, none));
        check_ids_distinct(list);
        return records;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

}  // namespace

text::Expected<Limits> load_limits(const std::filesystem::path& path) {
    auto text = read_file(path);
    if (!text) return std::move(text.error());
    try {
        const Json document = parse_json(*text);
        return read_record<Limits>(ObjectReader(Node(document)).member("limits", "an object"), Kit());
    } catch (text::Error& error) {
        return std::move(error);
    }
}

text::Expected<std::vector<KindCheck>> load_checks(const std::filesystem::path& path) {
    auto text = read_file(path);
    if (!text) return std::move(text.error());
    try {
        const Json document = parse_json(*text);
        const Node root(document);
        std::vector<KindCheck> checks;
        for (const Node& node : ObjectReader(root).member("checks", "a list").items())
            checks.push_back(read_record<KindCheck>(node, Kit()));
        return checks;
    } catch (text::Error& error) {
        return std::move(error);
    }
}

text::Expected<std::vector<LibrarySubject>> read_subjects(std::string_view text) {
    return read_list<LibrarySubject>(text, "poquito-subjects", "subjects");
}

text::Expected<std::vector<ViewSet>> read_view_sets(std::string_view text) {
    return read_list<ViewSet>(text, "poquito-view-sets", "sets");
}

text::Expected<std::vector<Staged>> read_props(std::string_view text) {
    return read_list<Staged>(text, "poquito-props", "props");
}

text::Expected<Shoot> read_shoot(std::string_view text) {
    try {
        return read_document(parse_json(text));
    } catch (text::Error& error) {
        return std::move(error);
    }
}

}  // namespace poquito::storage
