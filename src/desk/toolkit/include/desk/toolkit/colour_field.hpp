#pragma once

#include "text/colour.hpp"

#include <QLineEdit>

#include <optional>

namespace poquito::desk {

/// A colour as `#7f9c8a`, with a patch of it; a click on the patch opens a colour chooser. Nothing typed: no colour.
class ColourField : public QLineEdit {
    Q_OBJECT
  public:
    explicit ColourField(QWidget* parent = nullptr);
    void setColour(const std::optional<text::Colour>& colour);

    /// Counts the visits, and the colours chosen in the dialog: what is typed in one visit is one step of the history.
    int visit() const { return visit_; }

  Q_SIGNALS:
    void colourEdited(std::optional<text::Colour> colour);

  private:
    void choose();
    std::optional<text::Colour> colour_;
    QAction* patch_;
    int visit_ = 0;
};

/// For painting.
QColor colourOf(const text::Colour& colour);

}  // namespace poquito::desk
