#pragma once

#include "proof/inspection.hpp"

#include <optional>
#include <string>
#include <vector>

/// What the findings of frames and of stacks are made with.
namespace poquito::proof {

void add(std::vector<Finding>& to, Code code, Level level, std::string text, std::optional<PictureArea> place = {});

/// "1, 3 to 5".
std::string list_text(const std::vector<int>& numbers);

/// What most of them have; empty where no value is shared by more than half of those that say.
std::optional<double> usual(const std::vector<double>& values);

/// Stops that its settings make a frame brighter than one with the others.
double brighter_by_settings(const storage::FrameExif& frame, const storage::FrameExif& usual);

/// The settings that most of the frames have.
storage::FrameExif usual_exif(const std::vector<FrameFacts>& frames);

}  // namespace poquito::proof
