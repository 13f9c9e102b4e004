#pragma once

#include "plan/fwd.hpp"
#include "shoot/fwd.hpp"

#include <QWidget>

namespace poquito::desk {

class Document;

/// The frame as the camera sees it, to scale: field, subject's outline, thirds, fill. Also painted small on shot cards.
class FrameDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit FrameDrawing(const Document& document, QWidget* parent = nullptr);

    /// The frame alone, as large as `area` allows.
    static void paintFrame(QPainter& painter, const QRectF& area, const shoot::Shot& shot, const plan::Report& report);

    QSize minimumSizeHint() const override { return {140, 150}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
};

}  // namespace poquito::desk
