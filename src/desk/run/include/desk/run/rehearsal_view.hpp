#pragma once

#include "desk/session/picture_queue.hpp"
#include "plan/motion/frame_draws.hpp"
#include "render/loupe.hpp"

#include <QImage>
#include <QWidget>

#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

namespace poquito::desk {

class Document;

/// Tries of a shot as they would come out, one after the other, at the sensor's own pixels where the plan has its
/// focus: so that one sees what 12 of 100 looks like. Drawn by the same odds as are said, and counted.
class RehearsalView : public QWidget {
    Q_OBJECT
  public:
    explicit RehearsalView(Document& document, QWidget* parent = nullptr);

    void begin();  // with other draw each time
    void end();
    bool isOn() const { return on_; }
    int shown() const { return static_cast<int>(tries_.size()); }
    int sharp() const;
    QString words() const;  // "4 of 24 are sharp, where 12 of 100 are reckoned"
    /// What the tiles look at; for the one thread that renders them.
    struct Spot {
        render::Loupe loupe;
        std::optional<imaging::Place> place;
    };
    bool isSettled() const { return !on_ || queue_.isIdle(); }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    static constexpr int tile_width = 84, tile_height = 56, gap = 6, heading = 40;  // pixels
    struct Try {
        QImage picture;
        plan::FrameDraw draw;
    };
    bool isOut(const plan::FrameDraw& draw) const;  // of the frame
    int columns() const;
    int room() const;  // tiles that fit
    void next();

    Document& document_;
    bool on_ = false;
    std::uint64_t seed_ = 0;
    std::unique_ptr<plan::FrameDraws> draws_;
    std::vector<Try> tries_;
    std::shared_ptr<Spot> spot_;
    PictureQueue queue_;
};

}  // namespace poquito::desk
