#include "desk/run/rehearsal_view.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/run/odds_view.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/assess.hpp"
#include "plan/light/lighting.hpp"
#include "plan/motion/chance.hpp"
#include "render/scene.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

/// One try at the sensor's pixels; empty: it shows nothing.
QImage pictureOf(const plan::Plan& plan, const plan::Report& report, const plan::FrameDraw& draw,
                 RehearsalView::Spot& spot, render::LoupeWindow window) {
    if (!spot.place) {
        const auto planned = render::scene_of(plan, report);
        if (!planned) return {};
        spot.place =
            render::place_in_focus(*planned, window.width * planned->pixel_pitch, window.height * planned->pixel_pitch);
    }
    window.centre = *spot.place;
    const auto scene = render::scene_of_try(plan, report, draw);
    if (!scene) return {};
    // The eye follows it, to the edge of the frame.
    const auto light = spot.loupe.render(*scene, window);
    return light ? imageOf(render::develop(*light)) : QImage();
}

}  // namespace

RehearsalView::RehearsalView(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("rehearsalView"));
    setAccessibleName(tr("Tries as they would come out"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setMinimumSize(tile_width + 2, heading + tile_height);
}

int RehearsalView::columns() const { return std::max(1, (width() + gap) / (tile_width + gap)); }
int RehearsalView::room() const { return columns() * std::max(1, (height() - heading + gap) / (tile_height + gap)); }

int RehearsalView::sharp() const {
    return static_cast<int>(std::ranges::count_if(tries_, [](const Try& one) { return one.draw.sharp; }));
}

bool RehearsalView::isOut(const plan::FrameDraw& draw) const {
    const auto& optics = document_.report()->optics;
    const auto* shot = document_.shot();
    // What sways is followed.
    if (!(shot->freeze || shoot::tries_of(*shot).perch) || !optics.field_width) return false;
    return std::abs(draw.aside) > *optics.field_width / 2 || std::abs(draw.up) > *optics.field_height / 2;
}

QString RehearsalView::words() const {
    const auto* report = document_.report();
    if (!report || !report->chance) return tr("Nothing is left to chance.");
    return tr("%1 of %2 are sharp; %3 are reckoned").arg(sharp()).arg(shown()).arg(oddsText(report->chance->reckoned));
}

void RehearsalView::begin() {
    const auto* assessment = document_.assessment();
    tries_.clear();
    on_ = assessment && assessment->report.chance;
    if (!on_) return update();
    spot_ = std::make_shared<Spot>();
    draws_ = std::make_unique<plan::FrameDraws>(assessment->plan, assessment->report, ++seed_);
    next();
}

void RehearsalView::end() {
    on_ = false;
    tries_.clear();
    update();
}

/// Draws and renders the next one that fits, away from the interface thread.
void RehearsalView::next() {
    update();
    if (!on_ || shown() >= room()) return;
    const auto draw = draws_->draw();
    const double ratio = devicePixelRatioF();
    const render::LoupeWindow window{.centre = {},
                                     .width = static_cast<int>(tile_width * ratio),
                                     .height = static_cast<int>(tile_height * ratio),
                                     .rays = 1};
    queue_.render(
        [this, draw, window, spot = spot_, seed = seed_, assessment = document_.sharedAssessment(document_.current())](
            const std::function<bool()>&) -> PictureQueue::Show {
            if (!assessment->report.chance) return [] {};
            const QImage picture = pictureOf(assessment->plan, assessment->report, draw, *spot, window);
            return [this, draw, picture, seed] {
                if (!on_ || seed != seed_) return;
                tries_.push_back({.picture = picture, .draw = draw});
                next();
            };
        });
}

void RehearsalView::resizeEvent(QResizeEvent*) {
    if (on_ && queue_.isIdle()) next();
}

void RehearsalView::paintEvent(QPaintEvent*) {
    if (!on_) return;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(15, QFont::DemiBold));
    painter.setPen(t.ink);
    drawLine(painter, QRectF(0, 0, width(), 20), Qt::AlignLeft | Qt::AlignVCenter,
             elided(painter.font(), words(), width()));
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(0, 20, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(painter.font(), tr("where the focus is, pixel for pixel; ticked where it is sharp"), width()));
    for (int i = 0; i < shown(); ++i) {
        const auto& one = tries_[static_cast<std::size_t>(i)];
        const int column = i % columns(), row = i / columns();
        const QRectF tile(column * (tile_width + gap), heading + row * (tile_height + gap), tile_width, tile_height);
        painter.fillRect(tile, t.greyScale[0]);
        const bool out = isOut(one.draw);
        if (!one.picture.isNull() && !out) painter.drawImage(tile, one.picture);
        if (out || !one.draw.fired) {
            painter.setFont(textFont(11));
            drawLabel(painter, tile.center(), Qt::AlignCenter, out ? tr("out of frame") : tr("not fired"), t.quiet);
        }
        painter.setPen(one.draw.sharp ? QPen(t.focus, 3) : QPen(t.hairline, 1));
        painter.drawRect(tile.adjusted(0.5, 0.5, -0.5, -0.5));
        if (one.draw.sharp) {
            painter.setBrush(t.panel);
            painter.setPen(Qt::NoPen);
            painter.drawEllipse(tile.bottomRight() - QPointF(12, 12), 10, 10);
            painter.setBrush(Qt::NoBrush);
            drawStatus(painter, tile.bottomRight() - QPointF(12, 12), Status::settled);
        }
    }
}

}  // namespace poquito::desk

#include "desk/run/moc_rehearsal_view.moc"
