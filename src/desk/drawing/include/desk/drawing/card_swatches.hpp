#pragma once

#include "imaging/colour.hpp"

#include "shoot/subject.hpp"

#include <QWidget>

#include <optional>
#include <vector>

namespace poquito::desk {

/// Cards that set a subject off, each with its colour on it. A click takes one.
class CardSwatches : public QWidget {
    Q_OBJECT
  public:
    CardSwatches(const char* name, const QString& says, QWidget* parent = nullptr);
    /// `taken`: the colour that what is chosen for has now.
    void setSubject(const shoot::Subject& subject, const std::optional<text::Colour>& taken);
    const std::vector<imaging::CardColour>& cards() const { return cards_; }
    QRectF cardRect(std::size_t index) const;
    QSize minimumSizeHint() const override { return {190, 84}; }

  Q_SIGNALS:
    void cardTaken(const poquito::text::Colour& colour, double reflectance);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void take(std::size_t index);
    std::optional<text::Colour> subject_, taken_;
    std::vector<imaging::CardColour> cards_;
    std::size_t marked_ = 0;
};

}  // namespace poquito::desk
