#pragma once

#include <QLineEdit>

namespace poquito::desk {

/// Whether a key, on its way to a field, asks for undo or redo.
bool asksForHistory(QEvent* event);

/// A line of text of which every keystroke is an edit of the shoot already: undo belongs to the shoot, not to the text.
class LineField : public QLineEdit {
    Q_OBJECT
  public:
    using QLineEdit::QLineEdit;

  protected:
    bool event(QEvent* event) override;
};

}  // namespace poquito::desk
