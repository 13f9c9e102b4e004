#pragma once

#include "imaging/colour.hpp"

#include <QWidget>

namespace poquito::desk {

class Document;

/// Cards that set the subject off, each with the subject's colour on it. A click takes one for the background.
class CardSwatches : public QWidget {
    Q_OBJECT
  public:
    explicit CardSwatches(Document& document, QWidget* parent = nullptr);
    void refresh();
    const std::vector<imaging::CardColour>& cards() const { return cards_; }
    QRectF cardRect(std::size_t index) const;
    QSize minimumSizeHint() const override { return {240, 84}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void take(std::size_t index);
    Document& document_;
    std::vector<imaging::CardColour> cards_;
    std::size_t marked_ = 0;
};

}  // namespace poquito::desk
