#include "desk/toolkit/line_field.hpp"

#include <QKeyEvent>

namespace poquito::desk {

bool asksForHistory(QEvent* event) {
    if (event->type() != QEvent::ShortcutOverride) return false;
    const auto* key = static_cast<QKeyEvent*>(event);
    return key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo);
}

bool LineField::event(QEvent* event) {
    if (!asksForHistory(event)) return QLineEdit::event(event);
    event->ignore();
    return false;
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_line_field.moc"
