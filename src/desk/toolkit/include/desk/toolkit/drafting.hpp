#pragma once

#include <QColor>
#include <QFont>
#include <QRectF>
#include <QString>
#include <QStringList>

#include <vector>

class QImage;
class QPainter;
class QPen;
class QPointF;
class QPolygonF;

/// The hand of the drafting table: what several drawings share.
namespace poquito::desk {

/// A dimension line with arrows at both ends and its text on a gap in the middle; beside the line where it is too
/// short.
void drawDimension(QPainter& painter, QPointF from, QPointF to, const QString& text);

/// One line of text in a rectangle, in the painter's font and colour. Shapes each text once and remembers it: drawings
/// write the same words with every edit.
void drawLine(QPainter& painter, const QRectF& area, Qt::Alignment side, const QString& text);

double lineWidth(const QFont& font, const QString& text);

/// `text`, or as much of it as `width` pixels hold and dots.
QString elided(const QFont& font, const QString& text, double width);

/// As many of `most` lines of `width` pixels as the words need, the last one elided where they need more.
QStringList wrapped(const QFont& font, const QString& words, double width, int most);

/// Text on a patch of the sheet's colour, so that lines end at it instead of crossing it. Returns what it covers.
QRectF drawLabel(QPainter& painter, QPointF anchor, Qt::Alignment side, const QString& text, const QColor& colour);

/// Shades what of a picture on `frame` is cut away where it is delivered in that shape, width over height, and frames
/// what stays, which comes back.
QRectF paintCut(QPainter& painter, const QRectF& frame, double shape);

/// Fills without smoothing the edge: for washes, and for what gets a line around it. A long shallow edge that is
/// smoothed costs many times the filling.
void fillPlainly(QPainter& painter, const QPolygonF& outline, const QColor& colour);

/// Says that a drawing has the keys, where nothing in it does.
void drawFocusRing(QPainter& painter, const QRectF& area);

/// The middle of a picture, as large as it takes to fill an area.
void drawFilling(QPainter& painter, const QRectF& area, const QImage& picture);

/// A card: its sheet, and the line around it.
void drawCard(QPainter& painter, const QRectF& card, const QColor& sheet, const QPen& line, double radius = 4);

/// settled: nothing speaks against it. doubtful: something does. open: not done yet.
enum class Status { settled, doubtful, open };
/// A tick, a triangle or a ring: the shape says it, the colour repeats it.
void drawStatus(QPainter& painter, QPointF centre, Status status);
QColor statusColour(Status status);

/// Round steps (1, 2 or 5 of a decade) of which `most` or fewer fit into `length`.
double rulerStep(double length, int most);

/// Values 1, 2 and 5 of every decade within the two, for a scale on which each is as far from the next as its
/// logarithm.
std::vector<double> decadeMarks(double least, double greatest);
/// Round numbers from `low` to `high`, `most` of them or so, rulerStep apart; none where one of the two is not finite.
std::vector<double> rulerMarks(double low, double high, int most);

}  // namespace poquito::desk
