#pragma once

#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "proof/inspection.hpp"

/// What is made of what was measured. Each adds its findings to the frames or to the stack.
namespace poquito::proof {

/// What the frames were meant to be.
struct Meant {
    plan::Plan plan;
    plan::Report report;
    imaging::CellMap picture;   // luminance of its own picture, seen small; empty: it has none
    std::vector<bool> subject;  // which cells of it
    std::vector<float> depth;   // of each, mm behind the plane of focus; subject alone
    double clipped = 0;         // share that it has white
};

void judge_settings(std::vector<FrameFacts>& frames, const Meant* meant);
void judge_sizes(std::vector<FrameFacts>& frames);
void judge_light(std::vector<FrameFacts>& frames, const Meant* meant);
/// Single frames by themselves, those of a stack against the run.
void judge_sharpness(std::vector<FrameFacts>& frames, bool stack);
/// Those that have lost what both frames beside them have.
void judge_against_neighbours(Inspection& inspection);
/// Where a single frame is sharp, of what the plan focuses on.
void judge_focus(std::vector<FrameFacts>& frames, const Meant& meant);
/// How deep the subject is by the frames that its places are sharp in, beside the plan.
void measure_depth(Inspection& inspection, const Meant& meant);
void judge_stack(Inspection& inspection);
/// The digits at the end of each name; empty: one has none, or they begin differently.
std::vector<long> file_numbers(const std::vector<FrameFacts>& frames);
/// Of the files' own numbers, or of the plan's frames.
void judge_numbers(const std::vector<FrameFacts>& frames, const Meant* meant, StackFacts& stack);

/// Whether a frame lies on another plate's, `first` what that shows; its place and its ground's light.
void judge_plate(FrameFacts& frame, const FrameFacts& first, const LaidOn& on);
/// The size that the rule in the frame says it has, against the plan. Nothing where the plan has no rule, or its ticks
/// are too fine for these pixels.
void judge_rule(FrameFacts& frame, const Meant& meant);

/// Frames of a time-lapse, `each` to a moment: those that flicker, and from which on the picture jumps. `field_mm`: the
/// frame's width at the subject; 0: not known.
void judge_lapse(std::vector<FrameFacts>& frames, std::size_t each, const shoot::Lapse& lapse, double field_mm);

/// By the times in the files where those tell, from 0; empty: they do not.
std::vector<std::size_t> order_by_time(const std::vector<FrameFacts>& frames);

}  // namespace poquito::proof
