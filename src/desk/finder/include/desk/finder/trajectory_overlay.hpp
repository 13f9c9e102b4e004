#pragma once

class QPainter;
class QRectF;

namespace poquito::plan {
struct Plan;
struct Report;
}  // namespace poquito::plan

namespace poquito::desk {

/// The path of what falls or is thrown over its frame, to scale: where it is after equal times, how far the flash lets
/// it run there, where the light meets it, and the frames' room that its scatter takes. Nothing where nothing moves so.
void paintTrajectory(QPainter& painter, const QRectF& frame, const plan::Plan& plan, const plan::Report& report);

}  // namespace poquito::desk
