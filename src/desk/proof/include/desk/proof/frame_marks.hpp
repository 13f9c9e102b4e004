#pragma once

#include "desk/proof/frame_view.hpp"
#include "desk/proof/frames_panel.hpp"

#include <QImage>

#include <cstddef>

namespace poquito::proof {
struct FrameFacts;
}

/// What a frame can be seen as besides itself, and what is drawn over it.
namespace poquito::desk {

struct ProofLook;

/// px of the file as it lies; empty: not looked at yet, or it cannot be read.
QSize sizeOf(const proof::FrameFacts* facts);

/// Over the frame `current`, as the panel shows it; `note`: which of the notes is looked at, -1: none.
FrameView::Marks marksOf(const ProofLook& look, std::size_t current, FramesPanel::Show show, int note);

/// How deep each tile lies, as grey, the way up that the frame is shown: near dark, far light, like the map beside it.
QImage depthPicture(const ProofLook& look, std::size_t current);

}  // namespace poquito::desk
