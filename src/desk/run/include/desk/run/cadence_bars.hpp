#pragma once

#include <QWidget>

#include <array>
#include <vector>

namespace poquito::desk {

class Document;

/// From one frame to the next as bars: what camera, flash and card do meanwhile.
class CadenceBars : public QWidget {
    Q_OBJECT
  public:
    explicit CadenceBars(const Document& document, QWidget* parent = nullptr);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    enum Row { camera, flash, card };
    struct Part {
        double from = 0, to = 0;  // s
        QColor colour;
        QString name;  // empty: not said
        Row row = camera;
    };
    std::vector<Part> parts() const;
    void paintNames(QPainter& painter, const QRectF& bars, const std::vector<Part>& parts) const;

    const Document& document_;
};

}  // namespace poquito::desk
