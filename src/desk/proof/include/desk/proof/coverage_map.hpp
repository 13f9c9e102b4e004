#pragma once

#include <QImage>
#include <QWidget>

#include <memory>

namespace poquito::proof {
struct Inspection;
}

namespace poquito::desk {

/// Which frame is sharp where: a tile each, the first frame dark, the last light, those that are sharp in none framed.
class CoverageMap : public QWidget {
    Q_OBJECT
  public:
    explicit CoverageMap(QWidget* parent = nullptr);

    void setInspection(std::shared_ptr<const proof::Inspection> inspection);
    void setCurrent(std::size_t frame);
    bool hasTiles() const;

    QSize sizeHint() const override { return {300, 190}; }

  Q_SIGNALS:
    /// px of the file as it lies in it.
    void placeChosen(std::size_t frame, const QRectF& place);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

  private:
    struct Tile {
        int column = 0, row = 0;
    };
    QRectF area() const;
    std::optional<Tile> tileAt(QPointF point) const;
    QRectF rectOf(Tile tile) const;
    /// Frame, from 0; empty: plain; as many as frames: in none.
    std::optional<std::size_t> sharpIn(Tile tile) const;

    std::shared_ptr<const proof::Inspection> inspection_;
    int orientation_ = 1;
    std::size_t current_ = 0;
};

}  // namespace poquito::desk
