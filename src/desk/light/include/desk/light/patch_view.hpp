#pragma once

#include "whatif/grey_patch.hpp"

#include <QImage>
#include <QWidget>

#include <optional>

namespace poquito::desk {

/// A picture of the test frame, dropped in or opened, with an area marked in it by dragging.
class PatchView : public QWidget {
    Q_OBJECT
  public:
    explicit PatchView(QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {180, 150}; }

    /// Of the marked area; empty without picture or area.
    std::optional<whatif::PatchReading> reading() const { return reading_; }
    void open(const QString& path);
    void clear();
    /// Where the picture lies in this widget, pixels.
    QRectF pictureRect() const;

  Q_SIGNALS:
    void marked();  // another area or another picture

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void askOpen();
    void read();

    QImage picture_;
    QString problem_;
    QRect area_;  // pixels of the picture
    QPoint from_;
    bool dragging_ = false;
    std::optional<whatif::PatchReading> reading_;
};

}  // namespace poquito::desk
