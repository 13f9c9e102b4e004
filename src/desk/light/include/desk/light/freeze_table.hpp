#pragma once

#include "plan/motion/freeze.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

class Document;

/// The settings of the flash from full power down: how long each lights, how far the subject moves meanwhile, against
/// what is wanted, and the aperture or the ISO that keeps the exposure. A click takes one.
class FreezeTable : public QWidget {
    Q_OBJECT
  public:
    explicit FreezeTable(Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {228, 150}; }

    void refresh();
    /// The cell that takes a row by aperture or by ISO, in this widget's pixels.
    QRectF cell(std::size_t row, plan::ExposedBy by) const;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    double bottom() const;
    double pitch() const;
    double barEnd(double px) const;
    void drawHeading(QPainter& painter, const QString& words) const;
    void drawInstead(QPainter& painter, const QString& heading, const QString& words) const;
    void drawTitles(QPainter& painter) const;
    void drawRow(QPainter& painter, std::size_t row) const;
    void drawRest(QPainter& painter) const;
    std::optional<std::pair<std::size_t, plan::ExposedBy>> cellAt(QPointF place) const;
    void take(std::size_t row, plan::ExposedBy by);

    Document& document_;
};

}  // namespace poquito::desk
