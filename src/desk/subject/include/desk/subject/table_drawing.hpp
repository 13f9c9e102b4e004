#pragma once

#include <QPointF>
#include <QRectF>
#include <QWidget>

#include <optional>
#include <string>

namespace poquito::advice {
struct Assessment;
}

namespace poquito::desk {

/// The table from above, to scale: the subject, what stands beside it, how far the frame reaches and what of it is
/// sharp. Things are dragged; arrow keys move the chosen one, Page up and down choose the next.
class TableDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit TableDrawing(QWidget* parent = nullptr);

    /// Lives as long as it is shown; null: nothing.
    void setPlan(const advice::Assessment* assessment, const std::string& chosen);
    /// For tests and tools: where a thing is drawn.
    QRectF thingRect(const std::string& id) const;
    double scale() const;  // px a mm
    QSize sizeHint() const override { return {420, 300}; }
    QSize minimumSizeHint() const override { return {150, 140}; }

  Q_SIGNALS:
    void chosen(const std::string& id);
    void moved(const std::string& id, double right, double behind);  // mm
    void removed(const std::string& id);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QPointF at(double right, double behind) const;
    QRectF footprint(double right, double behind, double width, double deep) const;
    void drawFrame(QPainter& painter) const;
    void drawThings(QPainter& painter, bool lying) const;
    void drawNames(QPainter& painter) const;
    /// mm behind the subject on the table where what is so far from the subject along the axis has its foot.
    double onTable(double away) const;

    const advice::Assessment* assessment_ = nullptr;
    std::string chosen_;
    struct Held {
        std::string id;
        QPointF from;
        double right = 0, behind = 0;
    };
    std::optional<Held> held_;
    double heldScale_ = 0;  // the paper stays while something is dragged
};

}  // namespace poquito::desk
