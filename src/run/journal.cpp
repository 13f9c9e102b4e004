#include "run/journal.hpp"

#include "devices/clock.hpp"
#include "storage/atomic_file.hpp"
#include "text/stored_path.hpp"

#include <fmt/format.h>
#include <boost/crc.hpp>
#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <limits>

namespace poquito::run {
namespace {

using Json = nlohmann::ordered_json;

Json write_optional(const std::optional<double>& value) { return value ? Json(*value) : Json(nullptr); }
std::optional<double> read_optional(const Json& json) {
    return json.is_null() ? std::nullopt : std::optional(json.get<double>());
}
/// A plane of focus; JSON has no infinity, it stands there as null.
double read_plane(const Json& json) { return read_optional(json).value_or(std::numeric_limits<double>::infinity()); }

// ---- lines -------------------------------------------------------------------------------------------------------

/// CRC-32 of ISO 3309: no single damaged byte, and no burst of up to four, goes unseen.
std::string check_of(std::string_view text) {
    boost::crc_32_type crc;
    crc.process_bytes(text.data(), text.size());
    return fmt::format(R"(,"check":"{:08x}"}})", crc.checksum());
}
const std::size_t check_size = check_of({}).size();

/// One line, its last member the check of what stands before it; whatever bytes a device or a file system gave are no
/// reason not to write it.
std::string line_of(const Json& json) {
    std::string text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
    text.pop_back();
    return text + check_of(text) + "\n";
}

bool is_checked(std::string_view line) {
    if (line.size() < check_size) return false;
    const auto text = line.substr(0, line.size() - check_size);
    return line.substr(text.size()) == check_of(text);
}

constexpr int first_checked = 2;  // version of the head from which lines have a check, and the head stands twice

Json write_plan(const RunPlan& plan) {
    Json frames = Json::array();
    for (const auto& frame : plan.frames)
        frames.push_back({frame.plane, write_optional(frame.rail), write_optional(frame.ring)});
    return {{"journal", "poquito-run"},
            {"version", first_checked},
            {"run", plan.id},
            {"time", devices::local_time()},
            {"shot", plan.shot},
            {"name", plan.shot_name},
            {"folder", text::StoredPath(plan.folder).text()},
            {"f_number", plan.settings.f_number},
            {"shutter_s", plan.settings.shutter},
            {"iso", plan.settings.iso},
            {"powers", plan.powers},
            {"settle_s", plan.settle},
            {"take_up_mm", plan.take_up},
            {"interval_s", plan.interval},
            {"flash_timeout_s", plan.flash_timeout},
            {"frame_s", plan.frame_time},
            {"moment_frames", plan.moment_frames},
            {"moment_s", plan.moment_interval},
            {"moment_stops", plan.moment_stops},
            {"frames", std::move(frames)}};
}

/// A count or an index, as JSON has them: a number that need not be whole.
std::size_t read_whole(const Json& json, const char* what) {
    const auto number = json.get<double>();
    constexpr double most = 1e9;
    if (!(number >= 0 && number < most) || number != std::floor(number))
        throw text::Error{.place = {}, .problem = fmt::format("there is no {} {}", what, number)};
    return static_cast<std::size_t>(number);
}

/// Of a frame of the plan, from 0.
std::size_t read_index(const Json& json) { return read_whole(json, "frame"); }

RunState read_head(const Json& json) {
    if (json.at("journal") != "poquito-run" || (json.at("version") != 1 && json.at("version") != first_checked))
        throw text::Error{.place = {}, .problem = "expected the head of a run's journal, version 1 or 2"};
    RunState state;
    auto& plan = state.plan;
    plan.id = json.at("run").get<std::string>();
    state.time = json.at("time").get<std::string>();
    plan.shot = json.at("shot").get<std::string>();
    plan.shot_name = json.at("name").get<std::string>();
    plan.folder = text::StoredPath::of_text(json.at("folder").get<std::string>()).path();
    plan.settings = {.f_number = json.at("f_number").get<double>(),
                     .shutter = json.at("shutter_s").get<double>(),
                     .iso = json.at("iso").get<double>()};
    plan.powers = json.at("powers").get<std::vector<double>>();
    plan.settle = json.at("settle_s").get<double>();
    plan.take_up = json.at("take_up_mm").get<double>();
    plan.interval = json.at("interval_s").get<double>();
    plan.flash_timeout = json.at("flash_timeout_s").get<double>();
    plan.frame_time = json.at("frame_s").get<double>();
    // Journals from before there were time-lapses have none of it.
    plan.moment_frames = json.contains("moment_frames") ? read_whole(json.at("moment_frames"), "frame") : 0;
    plan.moment_interval = json.value("moment_s", 0.0);
    plan.moment_stops = json.value("moment_stops", 0.0);
    for (const auto& frame : json.at("frames"))
        plan.frames.push_back(
            {.plane = read_plane(frame.at(0)), .rail = read_optional(frame.at(1)), .ring = read_optional(frame.at(2))});
    if (plan.frames.empty()) throw text::Error{.place = {}, .problem = "no frames, expected one or more"};
    state.frames.resize(plan.frames.size());
    return state;
}

shoot::ExposedFrame read_exposed(const Json& json) {
    return {.index = static_cast<int>(read_index(json.at("frame"))),
            .file = json.at("file").get<std::string>(),
            .plane = read_plane(json.at("plane_mm")),
            .f_number = json.at("f_number").get<double>(),
            .shutter = json.at("shutter_s").get<double>(),
            .iso = json.at("iso").get<double>(),
            .flash = json.at("flash_share").get<double>(),
            .time = json.at("time").get<std::string>(),
            .remark = json.value("remark", "")};
}

/// Takes the record of a frame out of what was kept: it is taken again.
void forget(RunState& state, std::size_t frame) {
    std::erase_if(state.taken, [&](const auto& taken) { return taken.index == static_cast<int>(frame); });
    state.frames[frame] = {};
}

shoot::ExposedFrame planned_frame(const RunPlan& plan, std::size_t index) {
    const auto settings = plan.settings_of(index);
    return {.index = static_cast<int>(index),
            .file = plan.file_of(index),
            .plane = plan.frames[index].plane,
            .f_number = settings.f_number,
            .shutter = settings.shutter,
            .iso = settings.iso,
            .time = {},
            .remark = "as planned: its line in the journal is damaged"};
}

void apply(RunState& state, const Json& json) {
    const auto event = json.at("event").get<std::string>();
    if (event == "fault") {
        state.remark = json.at("text").get<std::string>();
        return;
    }
    if (event == "ended") {
        const auto how = json.at("how").get<std::string>();
        state.end = how == "complete"  ? shoot::RunEnd::complete
                    : how == "stopped" ? shoot::RunEnd::stopped
                                       : shoot::RunEnd::broken;
        return;
    }
    state.end.reset();  // it goes on
    const auto index = read_index(json.at("frame"));
    if (index >= state.frames.size())
        throw text::Error{.place = {}, .problem = fmt::format("there is no frame {}", index)};
    auto& frame = state.frames[index];
    if (event == "begun") {
        forget(state, index);
        frame.state = FrameState::begun;
    } else if (event == "exposed") {
        frame = {.state = FrameState::exposed, .exposed = read_exposed(json)};
    } else if (event == "saved" || event == "dim") {
        // What it was exposed with stood on a line that is damaged: as it was planned.
        if (frame.state < FrameState::exposed) frame.exposed = planned_frame(state.plan, index);
        frame.state = event == "dim" ? FrameState::dim : FrameState::saved;
        if (event == "dim")
            frame.exposed.remark =
                fmt::format("{:.1f} stops darker than its neighbours", -json.at("stops").get<double>());
        std::erase_if(state.taken, [&](const auto& taken) { return taken.index == frame.exposed.index; });
        state.taken.push_back(frame.exposed);
    } else if (event == "skipped") {
        frame.state = FrameState::skipped;
    } else if (event == "redone") {
        for (std::size_t i = index; i < state.frames.size(); ++i) forget(state, i);
    }
}

}  // namespace

std::vector<std::size_t> RunState::missing() const {
    std::vector<std::size_t> list;
    for (std::size_t i = 0; i < frames.size(); ++i)
        if (frames[i].state < FrameState::saved) list.push_back(i);
    return list;
}

std::size_t RunState::done() const { return frames.size() - missing().size(); }

// ---- writing -----------------------------------------------------------------------------------------------------

namespace {

text::Error system_error(const std::filesystem::path& path) { return {path.string(), std::strerror(errno)}; }

/// The lock goes with the descriptor, however its program ends.
text::Expected<void> lock(int file, const std::filesystem::path& path) {
    if (::flock(file, LOCK_EX | LOCK_NB) == 0) return {};
    if (errno != EWOULDBLOCK) return system_error(path);
    return text::Error{.place = path.string(), .problem = "this run is on already, here or in another program"};
}

}  // namespace

text::Expected<Journal> Journal::create(const std::filesystem::path& path, const RunPlan& plan) {
    if (plan.frames.empty()) return text::Error{.place = path.string(), .problem = "no frames, expected one or more"};
    const auto head = line_of(write_plan(plan));
    std::error_code ignored;
    std::filesystem::create_directories(path.parent_path(), ignored);
    const int file = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_APPEND | O_CLOEXEC, 0644);
    if (file < 0) return system_error(path);
    Journal journal(file);
    const auto locked = lock(file, path);
    if (locked && journal.add(head + "\n" + head)) {  // no damaged byte, of a line's end either, spoils both
        storage::flush_folder(path.parent_path());
        return journal;
    }
    const auto error = locked ? text::Error{.place = path.string(), .problem = "cannot be written"} : locked.error();
    ::unlink(path.c_str());
    return error;
}

text::Expected<Journal> Journal::resume(const std::filesystem::path& path) {
    const int file = ::open(path.c_str(), O_WRONLY | O_APPEND | O_CLOEXEC);
    if (file < 0) return system_error(path);
    Journal journal(file);
    if (const auto locked = lock(file, path); !locked) return locked.error();
    const auto text = storage::read_file(path);
    if (!text) return text.error();
    // A line torn by a crash is cut off, so that the next one stands by itself.
    const auto& bytes = *text;
    const auto whole = bytes.rfind('\n') + 1;  // 0 where there is none
    if (whole != bytes.size() && ::ftruncate(file, static_cast<off_t>(whole)) != 0) return system_error(path);
    return journal;
}

bool run_is_on(const std::filesystem::path& journal) {
    const int file = ::open(journal.c_str(), O_RDONLY | O_CLOEXEC);
    if (file < 0) return false;
    const bool on = ::flock(file, LOCK_SH | LOCK_NB) != 0 && errno == EWOULDBLOCK;
    ::close(file);
    return on;
}

Journal::Journal(Journal&& other) noexcept : file_(std::exchange(other.file_, -1)) {}

Journal::~Journal() {
    if (file_ >= 0) ::close(file_);
}

bool Journal::add(const std::string& text) {
    for (std::size_t written = 0; written < text.size();) {
        const auto count = ::write(file_, text.data() + written, text.size() - written);
        if (count < 0 && errno == EINTR) continue;
        if (count <= 0) return false;
        written += static_cast<std::size_t>(count);
    }
    return ::fdatasync(file_) == 0;
}

bool Journal::begun(std::size_t frame) { return add(line_of({{"event", "begun"}, {"frame", frame}})); }

bool Journal::exposed(std::size_t frame, const shoot::ExposedFrame& what) {
    Json json = {{"event", "exposed"},        {"frame", frame},
                 {"file", what.file},         {"plane_mm", what.plane},
                 {"f_number", what.f_number}, {"shutter_s", what.shutter},
                 {"iso", what.iso},           {"flash_share", what.flash},
                 {"time", what.time}};
    if (!what.remark.empty()) json["remark"] = what.remark;
    return add(line_of(json));
}

bool Journal::saved(std::size_t frame) { return add(line_of({{"event", "saved"}, {"frame", frame}})); }
bool Journal::dim(std::size_t frame, double stops) {
    return add(line_of({{"event", "dim"}, {"frame", frame}, {"stops", stops}}));
}
bool Journal::skipped(std::size_t frame) { return add(line_of({{"event", "skipped"}, {"frame", frame}})); }
bool Journal::redone(std::size_t from) { return add(line_of({{"event", "redone"}, {"frame", from}})); }
bool Journal::fault(const std::string& text) { return add(line_of({{"event", "fault"}, {"text", text}})); }
bool Journal::ended(shoot::RunEnd end) {
    constexpr const char* ends[] = {"complete", "stopped", "broken"};
    return add(line_of({{"event", "ended"}, {"how", ends[static_cast<int>(end)]}, {"time", devices::local_time()}}));
}

// ---- reading -----------------------------------------------------------------------------------------------------

namespace {

/// Takes a journal in, a line at a time. A line that is damaged is told and passed over; the head may stand twice.
class JournalReader {
  public:
    void read(std::string_view line, std::size_t number) {
        if (line.empty()) return;
        try {
            if (checked_ && !is_checked(line)) throw text::Error{.place = {}, .problem = "damaged"};
            const auto json = Json::parse(line);
            if (json.contains("journal"))
                read_first(json, line);
            else if (state_)
                apply(*state_, json);
            else
                pass_over(number, "not the head of a journal");
        } catch (const nlohmann::json::exception&) {
            pass_over(number, "not a line of a run's journal");
        } catch (const text::Error& error) {
            pass_over(number, error.problem);
        }
    }

    text::Expected<RunState> state(const std::filesystem::path& path) && {
        if (!state_) {
            if (damaged_.empty())
                return text::Error{.place = path.string(), .problem = "empty, expected the head of a journal"};
            return text::Error{.place = fmt::format("{}: line {}", path.string(), damaged_.front()),
                               .problem = first_problem_};
        }
        state_->damaged_lines = std::move(damaged_);
        return *std::move(state_);
    }

  private:
    std::optional<RunState> state_;
    bool checked_ = false;
    std::vector<std::size_t> damaged_;
    std::string first_problem_;

    void pass_over(std::size_t number, const std::string& problem) {
        if (damaged_.empty()) first_problem_ = problem;
        damaged_.push_back(number);
    }
    void read_first(const Json& json, std::string_view line) {
        if (state_) return;  // its second copy
        const bool checked = json.value("version", 0.0) >= first_checked;
        if (checked && !is_checked(line)) throw text::Error{.place = {}, .problem = "damaged"};
        state_ = read_head(json);
        checked_ = checked;
    }
};

}  // namespace

text::Expected<RunState> read_journal(const std::filesystem::path& path) {
    const auto read = storage::read_file(path);
    if (!read) return read.error();
    return journal_of(*read, path);
}

text::Expected<RunState> journal_of(std::string_view text, const std::filesystem::path& path) {
    JournalReader reader;
    // What stands behind the last line's end was torn, and never acknowledged.
    for (std::size_t number = 1, begin = 0, end = 0; (end = text.find('\n', begin)) != std::string_view::npos;
         begin = end + 1, ++number)
        reader.read(text.substr(begin, end - begin), number);
    return std::move(reader).state(path);
}

std::string damage_text(const RunState& state) {
    if (state.damaged_lines.empty()) return {};
    std::string lines;
    constexpr std::size_t most_named = 5;
    for (std::size_t i = 0; i < std::min(state.damaged_lines.size(), most_named); ++i)
        lines += fmt::format("{}{}", i > 0 ? ", " : "", state.damaged_lines[i]);
    if (state.damaged_lines.size() > most_named) lines += " and more";
    return state.damaged_lines.size() == 1 ? fmt::format("line {} of its journal is damaged and was passed over", lines)
                                           : fmt::format("{} lines of its journal are damaged and were passed over: {}",
                                                         state.damaged_lines.size(), lines);
}

shoot::RunRecord record_of(const RunState& state) {
    auto remark = state.remark;
    if (const auto damage = damage_text(state); !damage.empty()) remark += (remark.empty() ? "" : "; ") + damage;
    return {.id = state.plan.id,
            .time = state.time,
            .folder = text::StoredPath(state.plan.folder),
            .planned = static_cast<int>(state.plan.frames.size()),
            .end = state.end.value_or(shoot::RunEnd::broken),
            .remark = remark,
            .frames = state.taken};
}

UnfinishedRuns unfinished_runs(const std::filesystem::path& folder) {
    std::vector<std::pair<std::string, std::filesystem::path>> found;
    UnfinishedRuns runs;
    std::error_code ignored;
    for (const auto& entry : std::filesystem::directory_iterator(folder, ignored)) {
        if (entry.path().extension() != ".journal") continue;
        const auto state = read_journal(entry.path());
        if (!state)
            runs.unreadable.push_back(state.error());
        else if (const auto& run = *state; !run.end)
            found.emplace_back(run.time, entry.path());
    }
    std::ranges::sort(found, std::ranges::greater());
    for (auto& [time, path] : found) runs.journals.push_back(std::move(path));
    return runs;
}

}  // namespace poquito::run
