#include "desk/proof/frame_marks.hpp"

#include "desk/session/proof_controller.hpp"
#include "desk/toolkit/theme.hpp"
#include "imaging/inspect/composite.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {

QSize sizeOf(const proof::FrameFacts* facts) {
    return facts && facts->scan ? QSize(facts->scan->width, facts->scan->height) : QSize();
}

FrameView::Marks marksOf(const ProofLook& look, std::size_t current, FramesPanel::Show show, int chosen) {
    using Show = FramesPanel::Show;
    FrameView::Marks marks;
    const auto* facts = look.facts[current].get();
    const int orientation = facts ? facts->exif.orientation : 1;
    const QSize file = sizeOf(facts);
    const auto* planes = look.inspection && look.inspection->stack && look.inspection->stack->look.planes
                             ? &*look.inspection->stack->look.planes
                             : nullptr;
    const auto tiles = [&](auto wanted) {
        const double side = look.inspection->stack->look.tile;
        for (int row = 0; row < planes->depth.rows; ++row)
            for (int column = 0; column < planes->depth.columns; ++column) {
                const auto at = static_cast<std::size_t>(row) * static_cast<std::size_t>(planes->depth.columns) +
                                static_cast<std::size_t>(column);
                if (std::isnan(planes->depth.values[at]) ||
                    !wanted(planes->sharpest[at], static_cast<double>(planes->depth.values[at])))
                    continue;
                marks.tiles.push_back(turnedUp(QRectF(column * side, row * side, side, side), file, orientation));
            }
    };
    if (show == Show::depth) {
        marks.words = FramesPanel::tr("near is dark, far is light");
    } else if (show == Show::sharp && planes) {
        const auto& order = look.inspection->stack->frames;
        const auto place = static_cast<std::size_t>(std::ranges::find(order, current) - order.begin());
        tiles([&](std::size_t sharpest, double) { return sharpest == place; });
        marks.warn = false;
        marks.words = marks.tiles.empty() ? FramesPanel::tr("sharpest nowhere: its neighbours have it all")
                                          : FramesPanel::tr("sharpest in this frame");
    } else if (show == Show::sharp && facts) {
        for (const auto& area : proof::sharpest_areas(*facts))
            marks.tiles.push_back(turnedUp(QRectF(area.x, area.y, area.width, area.height), file, orientation));
        marks.warn = false;
        marks.words = marks.tiles.empty() ? FramesPanel::tr("too plain to tell sharp from soft")
                                          : FramesPanel::tr("the sharpest of this frame");
    } else if (chosen >= 0 && chosen < static_cast<int>(look.notes.size())) {
        const auto& note = look.notes[static_cast<std::size_t>(chosen)];
        const bool here = note.frames.empty() || std::ranges::find(note.frames, current) != note.frames.end();
        if (note.place && here)
            marks.areas.push_back(turnedUp(QRectF(note.place->x, note.place->y, note.place->width, note.place->height),
                                           file, orientation));
        if (planes && (note.code == proof::Code::gap || note.code == proof::Code::end_open)) {
            const auto none = planes->frames.size();
            tiles([&](std::size_t sharpest, double) { return sharpest == none; });
            if (!marks.tiles.empty()) marks.words = FramesPanel::tr("sharp in no frame");
        }
    }
    return marks;
}

QImage depthPicture(const ProofLook& look, std::size_t current) {
    const auto& planes = *look.inspection->stack->look.planes;
    constexpr int small_hole = 2;  // tiles
    const auto map = imaging::filled(planes.depth, small_hole);
    const double last = std::max(1.0, planes.frames.back());
    QImage image(map.columns, map.rows, QImage::Format_RGB32);
    for (int y = 0; y < map.rows; ++y)
        for (int x = 0; x < map.columns; ++x) {
            if (std::isnan(map.at(x, y))) {
                image.setPixelColor(x, y, theme().hairline);
                continue;
            }
            const double share = std::clamp(static_cast<double>(map.at(x, y)) / last, 0.0, 1.0);
            const int grey = static_cast<int>(std::lround(24 + 216 * share));
            image.setPixelColor(x, y, QColor(grey, grey, grey));
        }
    const auto& facts = look.facts[current];
    const double side = look.inspection->stack->look.tile;
    // The net leaves the rest of a tile at the right and the lower edge out.
    const QSize covered(static_cast<int>(map.columns * side), static_cast<int>(map.rows * side));
    const double scale = std::min(1.0, 960.0 / covered.width());
    image = image.scaled(covered * scale, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    return turnedUp(image, facts ? facts->exif.orientation : 1);
}

}  // namespace poquito::desk
