#include "shoot/members.hpp"
#include "storage/atomic_file.hpp"
#include "storage/json_number.hpp"
#include "storage/kit_json.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <cstddef>
#include <type_traits>
#include <utility>

namespace poquito::storage {
namespace {

using namespace shoot;

/// The number of units that reads back as exactly this value: dividing may miss it by the last bit.
double in_units(double value, double unit) {
    const double number = value / unit;
    const double whole = std::round(value * std::round(1 / unit));
    for (const double candidate :
         {value * std::round(1 / unit), whole, std::nextafter(number, -1e300), std::nextafter(number, 1e300), number})
        if (candidate * unit == value) return candidate;
    return number;
}

Json write_heights(const HeightMap& map) {
    Json rows = Json::array();
    for (int y = 0; y < map.height; ++y) {
        const auto row = map.heights.begin() + static_cast<std::ptrdiff_t>(y) * map.width;
        rows.push_back(fmt::format("{:02x}", fmt::join(row, row + map.width, "")));
    }
    return rows;
}

template <typename Record>
Json write_record(const Record& record);
template <typename Record>
Json write_record(const CopyOnWrite<Record>& record) {
    return write_record(*record);
}

template <typename Value>
constexpr bool is_optional = false;
template <typename Value>
constexpr bool is_optional<std::optional<Value>> = true;

/// Writes the members of one record as shoot/members.hpp describes them.
template <typename Record>
class MemberWriter {
  public:
    explicit MemberWriter(const Record& record) : record_(record) {}

    Json write() {
        describe(*this, static_cast<const Record*>(nullptr));
        return with_unknown(std::move(json_), unknown_of(record_));
    }

    template <typename Access>
    void number(const char* key, Access access, const text::NumberRule&, const Presence& presence) {
        put(key, access, presence, [](double value) { return json_number(value); });
    }
    template <typename Access>
    void scaled(const char* key, Access access, const text::NumberRule&, double unit) {
        put(key, access, spare, [unit](double value) { return json_number(in_units(value, unit)); });
    }
    template <typename Access>
    void whole(const char* key, Access access, int, const Presence& presence) {
        put(key, access, presence);
    }
    template <typename Access>
    void flag(const char* key, Access access, const Presence& presence) {
        put(key, access, presence);
    }
    template <typename Access>
    void text(const char* key, Access access, const Presence& presence) {
        put(key, access, presence);
    }
    template <typename Access>
    void path(const char* key, Access access, const Presence& presence) {
        put(key, access, presence, [](const text::StoredPath& path) { return Json(path.text()); });
    }
    template <typename Access>
    void id(const char* key, Access access) {
        put(key, access, needed);
    }
    template <typename Access>
    void texts(const char* key, Access access) {
        put(key, access, spare);
    }
    template <typename Access>
    void choice(const char* key, Access access, const Presence& presence) {
        put(key, access, presence, [](auto value) { return Json(name_of(value)); });
    }
    template <typename Access>
    void choices(const char* key, Access access) {
        put(key, access, spare, [](const auto& values) {
            Json list = Json::array();
            for (const auto value : values) list.push_back(name_of(value));
            return list;
        });
    }
    template <typename Access, typename List>
    void gear(const char* key, Access access, List, const char*, const Presence& presence) {
        using Ids = std::decay_t<decltype(member(access))>;
        if (is_optional<Ids> && presence.written && !barred(presence)) json_[key] = nullptr;  // "none", said
        put(key, access, presence);
    }
    template <typename Access>
    void object(const char* key, Access access, const Presence& presence = spare) {
        put(key, access, presence, [](const auto& value) { return write_record(value); });
    }
    template <typename Access>
    void list(const char* key, Access access, const Presence& presence) {
        put(key, access, presence, [](const auto& items) {
            Json list = Json::array();
            for (const auto& item : items) list.push_back(write_record(item));
            return list;
        });
    }

    template <typename Access>
    void colour(const char* key, Access access) {
        put(key, access, spare, [](const text::Colour& value) { return Json(text::colour_text(value)); });
    }
    void heights(const char* key) { json_[key] = write_heights(record_); }
    template <typename Access>
    void focus(Access access, const text::NumberRule&, const text::NumberRule&) {
        json_[name_of(member(access).by)] = json_number(member(access).value);
    }
    template <typename Access>
    void power(const char* key, Access access, const Presence& presence) {
        if (barred(presence)) return;
        json_[key] = member(access) ? json_number(*member(access)) : Json("auto");
    }
    template <typename Access>
    void group(const char* key, Access access) {
        put(key, access, spare);
    }
    template <typename Access>
    void plane(const char* key, Access access) {
        json_[key] = json_number(member(access));
    }
    template <typename Access>
    void powers(const char* key, Access access) {
        json_[key] = Json::object();
        for (const auto& [group, power] : member(access)) json_[key][group] = json_number(power);
    }

  private:
    template <typename Access>
    const auto& member(Access access) const {
        return std::invoke(access, record_);
    }
    bool barred(const Presence& presence) const { return presence.unless && json_.contains(presence.unless); }
    bool is_written(const Presence& presence) const {
        if (barred(presence)) return false;
        if (!presence.written_then) return presence.needed || presence.written;
        const auto other = json_.find(presence.member);
        return other != json_.end() && *other == presence.value;
    }
    /// An optional member is written where it has a value.
    template <typename Access, typename Convert = Json (*)(const Json&)>
    void put(
        const char* key, Access access, const Presence& presence,
        Convert convert = [](const Json& as_is) { return as_is; }) {
        const auto& value = member(access);
        if constexpr (is_optional<std::decay_t<decltype(value)>>) {
            if (value) json_[key] = convert(*value);
        } else if (is_written(presence) || !(value == std::invoke(access, plain()))) {
            json_[key] = convert(value);
        }
    }
    static const Record& plain() {
        static const Record record;
        return record;
    }

    const Record& record_;
    Json json_ = Json::object();
};

template <typename Record>
Json write_record(const Record& record) {
    return MemberWriter<Record>(record).write();
}

}  // namespace

text::Expected<void> save_limits(const Limits& limits, const std::filesystem::path& path) {
    const Json document = {{"format", "poquito-limits"}, {"version", 1}, {"limits", write_record(limits)}};
    return replace_file(path, document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n");
}

text::Expected<void> save_checks(const std::vector<KindCheck>& checks, const std::filesystem::path& path) {
    Json list = Json::array();
    for (const auto& check : checks) list.push_back(write_record(check));
    const Json document = {{"format", "poquito-checks"}, {"version", 1}, {"checks", std::move(list)}};
    return replace_file(path, document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n");
}

namespace {

template <typename Record>
std::string write_list(const std::vector<Record>& records, const char* format, const char* member) {
    Json list = Json::array();
    for (const auto& record : records) list.push_back(write_record(record));
    const Json document = {{"format", format}, {"version", 1}, {member, std::move(list)}};
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace

std::string write_subjects(const std::vector<LibrarySubject>& subjects) {
    return write_list(subjects, "poquito-subjects", "subjects");
}
std::string write_view_sets(const std::vector<ViewSet>& sets) { return write_list(sets, "poquito-view-sets", "sets"); }
std::string write_props(const std::vector<Staged>& props) { return write_list(props, "poquito-props", "props"); }

std::string write_shoot(const Shoot& shoot) {
    Json shots = Json::array();
    for (const Shot& shot : shoot.shots)
        shots.push_back(write_record(ShotInFile{.shot = shot, .runs = runs_of(shoot.runs, shot.id)}));
    Json json = {{"format", "poquito-shoot"},
                 {"version", shoot_version},
                 {"title", shoot.title},
                 {"kit", write_kit(shoot.kit)},
                 {"shots", std::move(shots)}};
    if (shoot.workday != Workday{}) json["workday"] = write_record(shoot.workday);
    if (shoot.site != Site{}) json["site"] = write_record(shoot.site);
    if (shoot.terms.limits != Limits{}) json["limits"] = write_record(shoot.terms.limits);
    if (shoot.terms.wishes != Wishes{}) json["wishes"] = write_record(shoot.terms.wishes);
    if (shoot.purpose) json["purpose"] = write_record(*shoot.purpose);
    if (!shoot.power_sets.empty()) {
        json["power_sets"] = Json::array();
        for (const PowerSet& set : shoot.power_sets) json["power_sets"].push_back(write_record(set));
    }
    if (!shoot.outlets.empty()) {
        json["outlets"] = Json::array();
        for (const Outlet& outlet : shoot.outlets) json["outlets"].push_back(write_record(outlet));
    }
    if (shoot.packing != Packing{}) json["packing"] = write_record(shoot.packing);
    const Json document = with_unknown(std::move(json), shoot.unknown);
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace poquito::storage
