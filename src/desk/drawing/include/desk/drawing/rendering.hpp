#pragma once

#include "render/finder.hpp"
#include "render/loupe.hpp"

#include <QImage>
#include <QString>

namespace poquito::desk {

/// What a rendering looks like on a screen.
QImage imageOf(const render::Developed& developed);

/// A small finder picture of a shot, at `width` pixels; null where it is focused at infinity. `lighter`: stops that the
/// picture is brightened by, as a longer exposure would.
QImage thumbnail(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report, int width, double lighter);

/// The sensor's own pixels in that window; null as above.
QImage closeUp(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report,
               const render::LoupeWindow& window, double lighter);

/// The picture as PNG with the plan of that shot in it, written whole or not at all. Empty: done; else what went wrong.
QString writeWithPlan(const QImage& image, const shoot::Shoot& shoot, std::size_t shot, const QString& path);

}  // namespace poquito::desk
