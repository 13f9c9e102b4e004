#include "desk/proof/coverage_map.hpp"

#include "desk/session/frame_pictures.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "proof/inspection.hpp"

#include <QMouseEvent>
#include <QPainter>

#include <cmath>

namespace poquito::desk {
namespace {

constexpr double legend_height = 20;

QColor mixed(const QColor& from, const QColor& to, double share) {
    const auto mix = [share](int a, int b) { return static_cast<int>(std::lround(a + share * (b - a))); };
    return {mix(from.red(), to.red()), mix(from.green(), to.green()), mix(from.blue(), to.blue())};
}

/// From the first frame to the last.
QColor shade(double share) {
    const Theme& t = theme();
    return share < 0.5 ? mixed(t.greyScale[0], t.focus, 2 * share) : mixed(t.focus, t.focusWash, 2 * share - 1);
}

const imaging::FocusPlanes* planesOf(const proof::Inspection* inspection) {
    return inspection && inspection->stack && inspection->stack->look.planes ? &*inspection->stack->look.planes
                                                                             : nullptr;
}

}  // namespace

CoverageMap::CoverageMap(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("coverageMap"));
    setAccessibleName(tr("Which frame is sharp where"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    setMinimumHeight(90);
    setMouseTracking(true);
}

void CoverageMap::setInspection(std::shared_ptr<const proof::Inspection> inspection) {
    inspection_ = std::move(inspection);
    orientation_ = inspection_ && !inspection_->frames.empty() ? inspection_->frames.front().exif.orientation : 1;
    update();
}

void CoverageMap::setCurrent(std::size_t frame) {
    current_ = frame;
    update();
}

bool CoverageMap::hasTiles() const { return planesOf(inspection_.get()) != nullptr; }

QRectF CoverageMap::area() const {
    const auto* planes = planesOf(inspection_.get());
    if (!planes) return {};
    const QSizeF size = turnedUp(QSize(planes->depth.columns, planes->depth.rows), orientation_);
    const QSizeF shown = size.scaled(QSizeF(width(), height() - legend_height), Qt::KeepAspectRatio);
    return {QPointF((width() - shown.width()) / 2, 0), shown};
}

QRectF CoverageMap::rectOf(Tile tile) const {
    const auto* planes = planesOf(inspection_.get());
    const QSize size(planes->depth.columns, planes->depth.rows);
    const QRectF place = turnedUp(QRectF(tile.column, tile.row, 1, 1), size, orientation_);
    const double scale = area().width() / turnedUp(size, orientation_).width();
    return {area().topLeft() + place.topLeft() * scale, place.size() * scale};
}

std::optional<CoverageMap::Tile> CoverageMap::tileAt(QPointF point) const {
    const auto* planes = planesOf(inspection_.get());
    if (!planes || !area().contains(point)) return std::nullopt;
    for (int row = 0; row < planes->depth.rows; ++row)
        for (int column = 0; column < planes->depth.columns; ++column)
            if (rectOf({column, row}).contains(point)) return Tile{column, row};
    return std::nullopt;
}

std::optional<std::size_t> CoverageMap::sharpIn(Tile tile) const {
    const auto* planes = planesOf(inspection_.get());
    if (std::isnan(planes->depth.at(tile.column, tile.row))) return std::nullopt;
    const auto at = static_cast<std::size_t>(tile.row) * static_cast<std::size_t>(planes->depth.columns) +
                    static_cast<std::size_t>(tile.column);
    const auto& order = inspection_->stack->frames;
    const auto place = planes->sharpest[at];
    return place < order.size() ? order[place] : order.size();
}

void CoverageMap::paintEvent(QPaintEvent*) {
    const auto* planes = planesOf(inspection_.get());
    if (!planes) return;
    const Theme& t = theme();
    QPainter painter(this);
    const auto& order = inspection_->stack->frames;
    const double last = std::max<double>(1, static_cast<double>(order.size()) - 1);
    bool any_in_none = false;
    for (int row = 0; row < planes->depth.rows; ++row)
        for (int column = 0; column < planes->depth.columns; ++column) {
            const QRectF tile = rectOf({column, row});
            const auto frame = sharpIn({column, row});
            if (!frame) {
                painter.fillRect(tile, mixed(t.paper, t.hairline, 0.35));
                continue;
            }
            if (*frame == order.size()) {
                any_in_none = true;
                painter.fillRect(tile, t.stopWash);
                painter.setPen(QPen(t.stop, 1.2));
                painter.drawRect(tile.adjusted(0.5, 0.5, -0.5, -0.5));
                continue;
            }
            const auto place = std::ranges::find(order, *frame) - order.begin();
            painter.fillRect(tile, shade(static_cast<double>(place) / last));
            if (*frame != current_) continue;
            painter.setPen(QPen(t.light, 1.6));
            painter.drawRect(tile.adjusted(0.5, 0.5, -0.5, -0.5));
        }
    painter.setFont(textFont(11));
    const double y = area().bottom() + 5;
    painter.setPen(t.quiet);
    double x = area().left();
    const auto word = [&](const QString& text, const QColor& colour) {
        painter.setPen(colour);
        const double wide = lineWidth(painter.font(), text) + 6;
        drawLine(painter, QRectF(x, y, wide, 15), Qt::AlignLeft | Qt::AlignVCenter, text);
        x += wide;
    };
    word(tr("first"), t.quiet);
    for (int i = 0; i < 8; ++i) painter.fillRect(QRectF(x + i * 9, y + 4, 9, 8), shade(i / 7.0));
    x += 8 * 9 + 6;
    word(tr("last"), t.quiet);
    x += 8;
    painter.setPen(QPen(t.light, 1.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(QRectF(x, y + 3, 9, 9));
    x += 14;
    word(tr("this frame"), t.quiet);
    if (!any_in_none) return;
    x += 8;
    painter.fillRect(QRectF(x, y + 3, 9, 9), t.stopWash);
    painter.setPen(QPen(t.stop, 1.2));
    painter.drawRect(QRectF(x, y + 3, 9, 9));
    x += 14;
    painter.setFont(textFont(11, QFont::DemiBold));
    word(tr("in none"), t.stop);
}

void CoverageMap::mousePressEvent(QMouseEvent* event) {
    const auto tile = tileAt(event->position());
    if (!tile) return;
    const auto frame = sharpIn(*tile);
    const double side = inspection_->stack->look.tile;
    const std::size_t count = inspection_->frames.size();
    Q_EMIT placeChosen(frame && *frame < count ? *frame : current_,
                       QRectF(tile->column * side, tile->row * side, side, side));
}

void CoverageMap::mouseMoveEvent(QMouseEvent* event) {
    const auto tile = tileAt(event->position());
    setCursor(tile ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (!tile) return setToolTip({});
    const auto frame = sharpIn(*tile);
    setToolTip(!frame                                        ? tr("nothing to tell sharp from soft by")
               : *frame == inspection_->stack->frames.size() ? tr("sharp in no frame")
                                                             : tr("sharpest in frame %1").arg(*frame + 1));
}

}  // namespace poquito::desk

#include "desk/proof/moc_coverage_map.moc"
