#pragma once

#include "log/entry.hpp"
#include "proof/inspection.hpp"
#include "shoot/shoot.hpp"

#include <string>

/// What happened in a shoot, as entries of the log.
namespace poquito::log {

/// What an entry of that shot says whatever happened: with what, by what light, on what; its plan, that shot alone with
/// the gear that it uses. `subject_class`: as the library of subjects calls it; empty: its form.
Entry entry_for(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class);

/// Frames that a run exposed; test frames are none of it, and an entry for them is empty of frames.
Entry run_entry(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class,
                const shoot::RunRecord& run);
/// A verdict that was given.
Entry proof_entry(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class,
                  const shoot::ProofEntry& proof);
/// Tries that were counted into a shot, from the count it had before.
Entry count_entry(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class, int kept,
                  int tried, const std::string& time);
/// How far the light of that place in the shot was from its record.
Entry correction_entry(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class,
                       std::size_t light, double stops, const std::string& time);

/// What frames of that shot showed by themselves, judged against it: how often what was wrong, how deep, how large, how
/// light and where the subject is against its plan. The same frames are the same entry.
Entry inspection_entry(const shoot::Shoot& shoot, const shoot::Shot& shot, const std::string& subject_class,
                       const proof::Inspection& inspection, const std::string& time);

/// Small pictures of its frames, of a dozen at most, evenly from the first to the last; of files that can be read.
/// Reads whole frames: for a thread of its own.
void add_thumbnails(Entry& entry);

/// "one frame", "stack by rail", "bursts by hand".
std::string approach_of(const shoot::Shot& shot);

}  // namespace poquito::log
