#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// Where the magnification comes from, piece by piece, and what the ring can reach: magnification and subject distance
/// from ring 0 to 1, as bars on their scales with the plan's place on both.
class ReachDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit ReachDrawing(const Document& document, QWidget* parent = nullptr);
    QSize minimumSizeHint() const override { return {140, 170}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
};

}  // namespace poquito::desk
