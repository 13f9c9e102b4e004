#pragma once

#include <QRect>
#include <QString>

class QPainter;

/// A note on its wash, as the margin and Proof show it: the mark's shape says what it is, the colour repeats it.
namespace poquito::desk {

enum class NoteMark { stop, caution, info, well, safety };

struct NoteCard {
    NoteMark mark = NoteMark::info;
    QString text;
    QString link;    // what a click does about it; empty: nothing
    QString gain;    // what that gains, beside it
    QString others;  // unfolds what else could be done: at the end of its line; empty: nothing
};

/// Pixels that it takes at that width.
int noteCardHeight(const NoteCard& card, int width);
void drawNoteCard(QPainter& painter, const QRect& area, const NoteCard& card, bool focused);
/// Where its link is clicked; empty: it has none.
QRect noteLinkRect(const QRect& area, const QString& link);
QRect noteOthersRect(const QRect& area, const QString& others);

/// A link and what it gains, in one line of that width; the gain only where there is room for it.
void drawLinkLine(QPainter& painter, const QRect& line, const QString& link, const QString& gain);

/// Of text in the notes' face, wrapped within a width; worked out once for each.
int wrappedHeight(const QString& text, int width);

}  // namespace poquito::desk
