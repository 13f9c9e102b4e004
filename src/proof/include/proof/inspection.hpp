#pragma once

#include "imaging/inspect/stack_look.hpp"
#include "shoot/fwd.hpp"
#include "shoot/terms.hpp"
#include "storage/frame_file.hpp"

#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace poquito::gear {
struct Kit;
}

/// Frames as they came out, against the plan or against one another: what is wrong with them while the set still
/// stands. Source: MODEL 11.
namespace poquito::proof {

/// What was found, in the words of files and for people; see docs/file-format.md.
enum class Code {
    unreadable,
    size,
    settings,
    uneven,
    moved,
    gap,
    end_open,
    order,
    missing,
    clipped,
    background,
    blurred,
    colour,
    shaken
};
const char* code_text(Code code);

enum class Level { info, caution, stop };

/// px of the file, from the top left.
struct PictureArea {
    int x = 0, y = 0, width = 0, height = 0;
};
struct Finding {
    Code code = Code::unreadable;
    Level level = Level::info;
    std::string text;                  // what is wrong and what to do about it
    std::optional<PictureArea> place;  // empty: all of the frame, or no place of it
};

struct FrameFacts {
    std::filesystem::path file;
    storage::FrameExif exif;
    std::shared_ptr<const imaging::FrameScan> scan;  // null: cannot be read
    bool has_detail = false;                         // enough to tell sharp from soft by
    double sharpness = 0;                            // of its sharpest part: fine detail over coarse, 0 to about 1
    /// How much of the frame the subject takes, the larger of width and height: by its detail before a plain ground,
    /// and as planned. Empty: the ground is not plain, or there is no plan.
    std::optional<double> fill, planned_fill;
    /// Where its middle stands of where it is planned, as shares of the frame's width, to the right and down; and how
    /// much it is turned against that, degrees clockwise, where it is long enough to tell. Empty as `fill` is.
    std::optional<double> off_right, off_down, turned;
    /// How far it passes out of the picture's own shape, in widths of the frame; below 0 the margin it has. Empty as
    /// well where the picture is the frame, or the plan itself has it pass out.
    std::optional<double> past_picture;
    /// How fine its detail is where the plan has its focus, against that twice as wide, by the logarithm of their
    /// squares: to compare single frames of one thing by. Empty: there is no plan, or too little to tell by.
    std::optional<double> sharp_at_focus;
    /// Size that the frame was taken at over the planned one, by a rule in it; empty: none was read.
    std::optional<double> scale;
    std::optional<double> over_plan;  // stops that the subject is lighter than in the plan's own picture
    std::vector<Finding> findings;
};

struct Gap {
    int after_frame = 1;
    double frames = 1;  // that would fill it
};
struct Moved {
    int frame = 2;     // the first in the new place
    double shift = 0;  // px at the middle
    double turn = 0;   // degrees
};
struct Uneven {
    int frame = 1;
    double stops = 0;
};
/// Frames count from 1 as they were given.
struct StackFacts {
    bool first_end_open = false;
    bool last_end_open = false;
    std::vector<Gap> gaps;
    std::vector<Moved> moved;
    std::vector<Uneven> uneven;
    std::vector<int> order;    // as they belong; empty: as they are
    std::vector<int> missing;  // numbers of files, or of the plan's frames
    std::vector<Finding> findings;
    std::vector<std::size_t> frames;  // those that `look` is of, in their order, from 0
    imaging::StackLook look;
    /// mm of depth over which detail of the subject was seen, and over which the plan has the same places; empty: there
    /// is no plan, or too little was seen of it.
    std::optional<double> seen_depth, planned_depth;
};

enum class Verdict { keep, look, redo };
const char* verdict_text(Verdict verdict);

struct Inspection {
    std::vector<FrameFacts> frames;
    std::optional<StackFacts> stack;  // empty: single frames
    std::vector<double> planes;       // of `frames`, mm behind the subject's nearest point; empty: not known
    Verdict verdict = Verdict::keep;

    bool any_readable() const;
    double step() const;  // mm from one frame of the stack to the next; 0: not known
};

/// A frame of another plate of the picture, that these are laid on.
struct LaidOn {
    std::filesystem::path file;
    std::string name;   // of its shot
    bool alike = true;  // lit as this one is: their grounds are to match
};

struct Request {
    std::vector<std::filesystem::path> files;
    const gear::Kit* kit = nullptr;     // of the shot
    const shoot::Shot* shot = nullptr;  // that they are of; null: not known
    shoot::Terms terms = {};            // by which it is planned: what the picture is to look like
    bool singles = false;               // also where there are more than one
    bool tries = false;                 // singles, of which the best is wanted: that others miss is no fault of theirs
    /// Where each was focused, mm behind the subject's nearest point, as a run has it: it gives their order too. Empty:
    /// not known, or as the shot's plan has it where that has as many.
    std::vector<double> planes = {};
    std::optional<LaidOn> laid_on = {};  // of a plate that is not its picture's first
};

/// What one file shows of itself, with no finding but that it cannot be read. From any thread.
FrameFacts look_at(const std::filesystem::path& file);

/// Where a frame is the sharpest of itself, in squares of a few cells; needs its maps.
std::vector<PictureArea> sharpest_areas(const FrameFacts& frame);

/// Its numbers without its maps and its small picture, which are large.
std::shared_ptr<const imaging::FrameScan> without_maps(const imaging::FrameScan& scan);

/// The same of many, on all cores. `looked` is told of each as it is through, one after the other by the thread that
/// asked; false ends it, after what is under way.
void look_at_all(const std::vector<std::filesystem::path>& files,
                 const std::function<bool(std::size_t index, FrameFacts facts)>& looked);

/// What is to be said of frames that were looked at, in the order of `request.files`. `go_on` false ends it: empty.
std::optional<Inspection> judge(std::vector<FrameFacts> frames, const Request& request,
                                const std::function<bool()>& go_on = {});

/// `done` frames are through, of `all`: one more each time, told by the thread that asked; false ends it.
using Progress = std::function<bool(std::size_t done, std::size_t all)>;

/// Both, on all cores. Empty: told to end.
std::optional<Inspection> inspect(const Request& request, const Progress& progress = {});

}  // namespace poquito::proof
