#pragma once

#include "proof/offers.hpp"

#include <optional>
#include <string>
#include <vector>

/// What a person is told of frames that were looked at, and what is to be taken again.
namespace poquito::proof {

enum class Tone { stop, caution, info, well };

/// One matter, however many frames it is found in.
struct Note {
    Tone tone = Tone::info;
    std::optional<Code> code;  // empty: that something is as it should be
    std::string text;
    std::vector<std::size_t> frames;   // it is about, from 0; empty: all of them
    std::optional<PictureArea> place;  // in the first of them
    bool again = false;                // `frames` as they are, or what lies between or beyond them, is to be taken
    std::vector<double> planes;        // of what is to be taken, mm behind the subject's nearest point, nearest first;
                                       // empty where they are not known
    std::string action;                // "Take frame 7 again", or what to remember; empty: nothing to do
    std::optional<std::size_t> offer;  // of those it was made with, that `action` takes
};

/// The worst first, what is well last. `offers`: what they teach.
std::vector<Note> notes_of(const Inspection& inspection, const std::vector<Offer>& offers = {});

/// What can be said of those frames that were looked at so far, each by itself: only what is wrong with them. Null: not
/// yet.
std::vector<Note> notes_so_far(const std::vector<std::shared_ptr<const FrameFacts>>& frames, const Request& request);

/// Of all notes that stop, nearest first, each once. Empty: nothing, or not known where.
std::vector<double> planes_to_take(const std::vector<Note>& notes, const Inspection& inspection);

/// What becomes of frames: kept as they are, looked at again, mended by some more, or taken all over.
enum class Outcome { whole, look, mendable, hopeless };
const char* outcome_text(Outcome outcome);
struct Summary {
    Outcome outcome = Outcome::whole;
    std::string why;  // in a few words; empty: whole
    int to_take = 0;  // frames
};
Summary summary_of(const Inspection& inspection, const std::vector<Note>& notes);

}  // namespace poquito::proof
