#include "desk/drawing/rendering.hpp"
#include "desk/text/to_qt.hpp"

#include "storage/atomic_file.hpp"
#include "storage/picture_plan.hpp"

#include <QBuffer>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QImage brightened(imaging::Raster light, double stops) {
    const auto factor = static_cast<float>(std::exp2(stops));
    for (auto& pixel : light.pixels) pixel *= factor;
    return imageOf(render::develop(light));
}

}  // namespace

QImage imageOf(const render::Developed& developed) {
    const QImage shared(developed.rgb.data(), developed.width, developed.height, qsizetype{3} * developed.width,
                        QImage::Format_RGB888);
    return shared.convertToFormat(QImage::Format_RGB32);  // a copy
}

QImage thumbnail(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report, int width, double lighter) {
    const auto scene = render::scene_of(kit, shot, report);
    if (!scene) return {};
    const int height = std::max(1, static_cast<int>(std::lround(width * scene->frame_height / scene->frame_width)));
    return brightened(render::Finder().render(*scene, {.width = width, .height = height})->light, lighter);
}

QImage closeUp(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report,
               const render::LoupeWindow& window, double lighter) {
    const auto scene = render::scene_of(kit, shot, report);
    return scene ? brightened(*render::Loupe().render(*scene, window), lighter) : QImage();
}

QString writeWithPlan(const QImage& image, const shoot::Shoot& shoot, std::size_t shot, const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    const auto png = storage::png_with_plan(bytes.toStdString(), shoot, shot);
    if (!png) return toQt(message(png.error()));
    const auto written = storage::replace_file(path.toStdString(), *png);
    return written ? QString() : toQt(message(written.error()));
}

}  // namespace poquito::desk
