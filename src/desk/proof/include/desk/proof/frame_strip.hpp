#pragma once

#include <QWidget>

#include <vector>

namespace poquito::desk {

class FramePictures;
struct ProofLook;

/// All frames in a row, each with its number and a mark where something is said of it; below, for a stack, how sharp,
/// how light and how far moved each is against the run.
class FrameStrip : public QWidget {
    Q_OBJECT
  public:
    explicit FrameStrip(FramePictures& pictures, QWidget* parent = nullptr);

    void setLook(const ProofLook* look);  // lives until the next; null: none
    void setCurrent(std::size_t frame);
    std::size_t current() const { return current_; }
    QRectF cellRect(std::size_t frame) const;  // empty: not in view

    QSize sizeHint() const override { return {600, 150}; }

  Q_SIGNALS:
    void chosen(std::size_t frame);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

  private:
    struct Row {
        QString name;
        bool both = false;           // ways from the line
        std::vector<double> values;  // of each frame shown, in its order
        double range = 1;            // that fills the row
        QString unit;
        int digits = 1;
        double worth = 0;  // of saying
    };
    std::size_t shown() const;
    std::size_t first() const;
    double cellWidth() const;
    std::vector<Row> rows() const;
    void paintCells(QPainter& painter) const;
    void paintRow(QPainter& painter, const Row& row, const QRectF& area) const;

    FramePictures& pictures_;
    const ProofLook* look_ = nullptr;
    std::size_t current_ = 0;
};

}  // namespace poquito::desk
