#pragma once

#include "desk/proof/frame_view.hpp"
#include "desk/session/frame_pictures.hpp"

#include <filesystem>

namespace poquito::desk {

/// A frame that stays beside the one that is looked at, at the same place and as large; hidden while none is held.
class HeldFrame : public FrameView {
    Q_OBJECT
  public:
    HeldFrame(FramePictures& pictures, FrameView& beside, QWidget* parent = nullptr);

    /// `size`: px of the file the right way up.
    void hold(const std::filesystem::path& file, QSize size, const QString& caption);
    void letGo();
    bool holds() const { return !file_.empty(); }
    const std::filesystem::path& file() const { return file_; }

  private:
    void showPicture();

    FramePictures& pictures_;
    FrameView& beside_;
    std::filesystem::path file_;
    QSize size_;
};

}  // namespace poquito::desk
