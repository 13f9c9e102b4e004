#pragma once

#include "shoot/colour.hpp"

#include <QLineEdit>

#include <optional>

namespace poquito::desk {

/// A colour as `#7f9c8a`, with a patch of it; a click on the patch opens a colour chooser. Nothing typed: no colour.
class ColourField : public QLineEdit {
    Q_OBJECT
  public:
    explicit ColourField(QWidget* parent = nullptr);
    void setColour(const std::optional<shoot::Colour>& colour);

  Q_SIGNALS:
    void colourEdited(std::optional<poquito::shoot::Colour> colour);

  private:
    void choose();
    std::optional<shoot::Colour> colour_;
    QAction* patch_;
};

/// For painting.
QColor colourOf(const shoot::Colour& colour);

}  // namespace poquito::desk
