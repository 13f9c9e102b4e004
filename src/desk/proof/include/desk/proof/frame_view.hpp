#pragma once

#include <QImage>
#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

/// A frame large: whole, or at the file's own pixels. The wheel zooms about the mouse, a drag moves, a double click
/// goes to the pixels there and back. Places are px of the file, the right way up.
class FrameView : public QWidget {
    Q_OBJECT
  public:
    explicit FrameView(QWidget* parent = nullptr);

    /// `image` of any size stands for a file of `size`; null: words in its place. The view stays where it was.
    void setPicture(const QImage& image, QSize size, const QString& words = {});
    /// What is drawn over it: areas that a note is about, and tiles in a wash.
    struct Marks {
        std::vector<QRectF> areas;
        std::vector<QRectF> tiles;
        std::optional<double> shape;  // width over height that the picture is cut to; empty: it is the frame
        QString words;                // over the tiles
        bool warn = true;             // tiles are something missing, else what is sharp here
    };
    void setMarks(Marks marks);

    void setCaption(const QString& caption);  // over its upper left corner; empty: none

    void goTo(const QRectF& place);  // at the file's own pixels, in the middle
    void showWhole();
    void zoomBy(double factor, std::optional<QPointF> about = {});
    void follow(const FrameView& other);  // the same place as large, without a signal
    bool isWhole() const { return zoom_ <= 1; }
    /// Screen pixels to one of the file.
    double scale() const;
    QRectF pictureRect() const;
    QPointF placeAt(QPointF point) const;

    QSize minimumSizeHint() const override { return {240, 160}; }

  Q_SIGNALS:
    void pixelsWanted();  // what is shown is coarser than the screen
    void looked();        // elsewhere, or from nearer

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

  private:
    double fit() const { return fitOf(QSizeF(width(), height())); }
    double fitOf(QSizeF room) const;
    void keepInside();
    void moved();
    void see();
    void paintLabel(QPainter& painter, QPointF at, const QString& words) const;
    void paintMarks(QPainter& painter) const;

    QImage image_;
    QSize size_;
    QString words_, caption_;
    Marks marks_;
    double zoom_ = 1;  // times as large as whole
    QPointF middle_;   // px of the file in the middle of the view
    QPointF grabbed_;
};

}  // namespace poquito::desk
