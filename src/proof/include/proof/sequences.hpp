#pragma once

#include "proof/notes.hpp"

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace poquito::shoot {
struct Shoot;
}

/// A folder of a day, taken apart into what was taken in one go and sorted by what became of it.
namespace poquito::proof {

/// Frames taken one after the other of the same thing.
struct Sequence {
    std::vector<std::filesystem::path> files;
    std::vector<storage::FrameExif> exif;  // of each
};

/// By time, or by name where the files have none: a new one begins after a pause that is long against the pace before
/// it (four times, and 4 s), with another stop, focal length or camera, and in another folder. One frame that differs
/// among others that do not is a dial that was turned, no other sequence.
std::vector<Sequence> sequences_of(const std::vector<std::filesystem::path>& files);

/// The shot that frames are of, its index: by the run that took them, else by the one plan that has their stop,
/// shutter, ISO and focal length, and of several by its number of frames. Empty: none or several, a person has to say.
std::optional<std::size_t> shot_of(const Sequence& sequence, const shoot::Shoot& shoot);

enum class Kind { single, stack, burst };
const char* kind_text(Kind kind);

/// A sequence that was looked at.
struct Sorted {
    Sequence sequence;
    Kind kind = Kind::single;
    Summary summary;
    std::size_t best = 0;             // of a burst, the sharpest where it has to be
    std::optional<std::size_t> shot;  // of the shoot
};

/// All of them, each told of as it is through; those that show another scene from one frame to the next are taken
/// apart further. False from `found` or `go_on` ends it.
void look_through(const std::vector<std::filesystem::path>& files, const shoot::Shoot* shoot,
                  const std::function<bool(Sorted)>& found,
                  const std::function<bool(std::size_t done, std::size_t all)>& go_on = {});

/// Whole ones first, then what can be mended, then the rest; each as they were taken.
bool comes_before(const Sorted& one, const Sorted& other);

}  // namespace poquito::proof
