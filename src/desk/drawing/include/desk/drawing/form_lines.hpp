#pragma once

#include "shoot/shoot.hpp"

#include <QByteArray>
#include <QPainterPath>

namespace poquito::desk {

/// A subject as a map: its outline, and lines of equal depth. mm from its middle, y up, as the camera sees it from
/// afar.
struct FormLines {
    QPainterPath area;      // to fill
    QPainterPath outline;   // strokes
    QPainterPath contours;  // at quarters of the depth
    QPainterPath focus;     // where the plane of focus cuts it
};
/// Remembered, as drawings ask for the same subject with every edit of something else.
FormLines formLines(const shoot::Subject& subject, double focusOffset);

/// Equal where two subjects have the same form, size and attitude.
QByteArray formKey(const shoot::Subject& subject);

}  // namespace poquito::desk
