#pragma once

#include "desk/session/picture_queue.hpp"
#include "render/loupe.hpp"

#include <QImage>
#include <QWidget>

#include <memory>

namespace poquito::desk {

class Document;

/// A part of the frame with every pixel of the sensor a pixel of the screen: where softness shows.
class LoupeView : public QWidget {
    Q_OBJECT
  public:
    static constexpr int columns = 240, rows = 160;  // pixels of the sensor

    explicit LoupeView(Document& document, QWidget* parent = nullptr);

    void refresh();
    void setPlace(imaging::Place place);
    const QImage& image() const { return image_; }
    bool isSettled() const { return queue_.isIdle(); }

    QSize sizeHint() const override { return {columns, rows + caption}; }
    QSize minimumSizeHint() const override { return {120, 80 + caption}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    static constexpr int caption = 18;

    Document& document_;
    PictureQueue::Work work(std::shared_ptr<render::Loupe> loupe, int rays);
    std::shared_ptr<render::Loupe> draft_, fine_;
    imaging::Place place_;
    QImage image_;
    PictureQueue queue_;
};

}  // namespace poquito::desk
