#pragma once

#include <QColor>

namespace poquito::desk {

/// The grey that a picture shows of so much linear light: 0 black, 1 paper white and above.
QColor greyOf(double linear);

}  // namespace poquito::desk
