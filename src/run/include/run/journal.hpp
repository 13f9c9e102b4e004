#pragma once

#include "run/run_plan.hpp"
#include "shoot/shoot.hpp"
#include "text/error.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// The exact record of a run while it lasts: a text file that is only ever added to, one JSON object a line, each on
/// the disk before the bench goes on. Whatever breaks off, power included, what was taken is known.
namespace poquito::run {

enum class FrameState { pending, begun, exposed, saved, dim, skipped };

struct JournalFrame {
    FrameState state = FrameState::pending;
    shoot::ExposedFrame exposed;  // from `exposed` on
};

/// What a journal says.
struct RunState {
    RunPlan plan;
    std::string time;                        // when it began
    std::vector<JournalFrame> frames;        // one a planned frame
    std::vector<shoot::ExposedFrame> taken;  // all exposures that were kept, in the order they were taken
    std::optional<shoot::RunEnd> end;        // empty: it broke off
    std::string remark;                      // what the last fault was
    std::vector<std::size_t> damaged_lines;  // of the journal, from 1: passed over

    /// What is still to be taken: pending, begun but not known to be exposed, exposed but not known to be saved.
    std::vector<std::size_t> missing() const;
    std::size_t done() const;  // saved, dim or skipped on purpose
};

/// Writes one; every call returns when the line is on the disk. It is locked for as long as this lives: no other
/// program, and no other Journal of this one, can go on with it meanwhile.
class Journal {
  public:
    /// Begins a new one, and leaves no file behind where that fails; an existing file is not touched and is an error.
    static text::Expected<Journal> create(const std::filesystem::path& path, const RunPlan& plan);
    /// Goes on with one; a line that a crash tore is cut off first. Read what it says after that, not before: whoever
    /// had it may have written until then.
    static text::Expected<Journal> resume(const std::filesystem::path& path);

    Journal(Journal&& other) noexcept;
    Journal& operator=(Journal&&) = delete;
    ~Journal();

    bool begun(std::size_t frame);
    bool exposed(std::size_t frame, const shoot::ExposedFrame& what);
    bool saved(std::size_t frame);
    bool dim(std::size_t frame, double stops);  // saved, but darker than its neighbours
    bool skipped(std::size_t frame);
    bool redone(std::size_t from);  // this frame and all behind it are to be taken again
    bool fault(const std::string& text);
    bool ended(shoot::RunEnd end);

  private:
    explicit Journal(int file) : file_(file) {}
    bool add(const std::string& text);

    int file_ = -1;
};

/// Each line carries a check, and the first stands twice: lines that are damaged are passed over and told. What a frame
/// was exposed with is then as planned, one that is not known to be saved is taken again. An error where no line says
/// which run it is.
text::Expected<RunState> read_journal(const std::filesystem::path& path);
/// What is read of it; `path` is for the error alone.
text::Expected<RunState> journal_of(std::string_view text, const std::filesystem::path& path);

/// "line 7 of its journal is damaged and was passed over"; empty: none is.
std::string damage_text(const RunState& state);

/// For the log in the shoot file.
shoot::RunRecord record_of(const RunState& state);

/// Journals in the folder of runs that did not end, newest first; `run_is_on` tells those that someone is at.
struct UnfinishedRuns {
    std::vector<std::filesystem::path> journals;
    std::vector<text::Error> unreadable;  // of which nobody knows
};
UnfinishedRuns unfinished_runs(const std::filesystem::path& folder);
bool run_is_on(const std::filesystem::path& journal);

}  // namespace poquito::run
