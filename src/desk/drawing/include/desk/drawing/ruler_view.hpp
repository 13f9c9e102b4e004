#pragma once

#include "imaging/inspect/rule_reader.hpp"

#include <QImage>
#include <QWidget>

#include <array>
#include <optional>

namespace poquito::desk {

/// A photograph of a rule with two marks on it. The wheel zooms to the pixel, the right button or Space moves the
/// picture; a click sets a mark, arrow keys move it by a pixel, with Shift by a tenth.
class RulerView : public QWidget {
    Q_OBJECT
  public:
    explicit RulerView(QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {360, 280}; }

    void setImage(const QImage& image);
    bool hasImage() const { return !image_.isNull(); }
    QSize imageSize() const { return image_.size(); }
    const imaging::GreyImage& grey() const { return grey_; }

    /// Whether a click looks for the tick near it.
    void setSnapping(bool on) { snapping_ = on; }

    /// How many marks there are to set, 1 or 2.
    void setMarksWanted(std::size_t count) { wanted_ = count; }

    struct Mark {
        imaging::Place place;
        std::optional<imaging::Tick> tick;  // where it was set to one and not moved since
    };
    const std::array<std::optional<Mark>, 2>& marks() const { return marks_; }

    void setFirstMark(imaging::Place place);

    /// Pixels of the picture to places in the widget and back; the middle of the top left pixel is (0, 0).
    QPointF toView(imaging::Place place) const;
    imaging::Place toImage(QPointF at) const;

  Q_SIGNALS:
    void marksChanged();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool focusNextPrevChild(bool next) override;

  private:
    void fit();
    void zoomBy(double factor, QPointF about);
    void setMark(QPointF at);
    void nudge(double dx, double dy);
    void drawMark(QPainter& painter, std::size_t which) const;

    QImage image_;
    imaging::GreyImage grey_;
    double zoom_ = 1;  // pixels of the widget to one of the picture
    QPointF origin_;   // where the picture's corner is drawn
    bool fitted_ = true;
    bool snapping_ = true;
    std::array<std::optional<Mark>, 2> marks_;
    std::size_t active_ = 0, wanted_ = 2;
    std::optional<QPointF> panning_;
};

imaging::GreyImage greyOf(const QImage& image);

}  // namespace poquito::desk
