#pragma once

#include "plan/report.hpp"

#include <QRectF>

#include <algorithm>

/// Where the frame and the subject in it lie in a FrameDrawing. px.
namespace poquito::desk {

inline constexpr double beside_frame = 16;

/// The largest rectangle of the field's shape inside `area`, centred.
inline QRectF frame_in(const QRectF& area, const plan::Report& report) {
    const auto& optics = report.optics;
    const double aspect = optics.field_width ? *optics.field_width / *optics.field_height : 1.5;
    const double width = std::min(area.width(), area.height() * aspect);
    QRectF frame(0, 0, width, width / aspect);
    frame.moveCenter(area.center());
    return frame;
}

inline QRectF subject_in(const QRectF& frame, const plan::Report& report) {
    const double scale = frame.width() / *report.optics.field_width;
    QRectF subject(0, 0, report.extent.width * scale, report.extent.height * scale);
    subject.moveCenter(frame.center());
    return subject;
}

}  // namespace poquito::desk
