#include "desk/light/tone_strip.hpp"

#include "desk/drawing/tones.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "light/position.hpp"
#include "text/text.hpp"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double middle_grey = 0.18;  // linear, of a surface at 0 stops
constexpr double heading_height = 18, lettering = 34, least_height = 76;

double linear(const ToneStrip::Patch& patch) { return patch.stops ? middle_grey * std::exp2(*patch.stops) : 0; }

}  // namespace

ToneStrip::ToneStrip(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("toneStrip"));
    setAccessibleName(tr("Tones in the picture"));
    setFocusPolicy(Qt::StrongFocus);
}

std::vector<ToneStrip::Patch> ToneStrip::patches() const {
    const auto* shot = document_.shot();
    const auto* report = document_.report();
    if (!shot || !report) return {};
    const auto& light = report->light;
    // The face stands as far from mid grey as its reflectance does once the exposure is right.
    const double face = light::reflectance_stops(std::max(shot->subject.reflectance, 1e-4));
    const auto on_face = [&](const std::optional<double>& stops) {
        return stops ? std::optional(*stops + face) : std::nullopt;
    };
    std::vector<Patch> found = {{tr("lit side"), on_face(light.tones.lit)},
                                {tr("shadow side"), on_face(light.tones.shadow), whatif::Tone::shadow, face}};
    if (light.tones.rim) found.push_back({tr("edge"), on_face(light.tones.rim), whatif::Tone::rim, face});
    if (shot->background) found.push_back({tr("behind"), light.background, whatif::Tone::background});
    if (light.flash) found.push_back({tr("no flash"), on_face(light.continuous)});
    return found;
}

double ToneStrip::tall() const { return std::min(80.0, height() - heading_height - lettering - 4); }

QRectF ToneStrip::patchRect(std::size_t index) const {
    const auto count = std::max<std::size_t>(1, patches().size());
    const double wide = static_cast<double>(width()) / static_cast<double>(count);
    return {static_cast<double>(index) * wide, heading_height + 4, wide, tall()};
}

std::optional<std::size_t> ToneStrip::at(const QPointF& place) const {
    const auto shown = patches();
    for (std::size_t i = 0; i < shown.size(); ++i)
        if (patchRect(i).adjusted(0, 0, 0, lettering).contains(place)) return i;
    return std::nullopt;
}

void ToneStrip::ask(std::size_t patch, double stops) {
    const auto shown = patches();
    if (patch >= shown.size() || !shown[patch].tone) return;
    const auto tone =
        whatif::ask_for(document_.assessment()->plan, *shown[patch].tone, stops - shown[patch].over_exposure);
    if (tone) Q_EMIT asked(*tone, QStringLiteral("tone#%1").arg(visit_));
}

void ToneStrip::resizeEvent(QResizeEvent*) {
    setFocusPolicy(height() < least_height ? Qt::NoFocus : Qt::StrongFocus);  // it stays away where there is no room
}

void ToneStrip::mousePressEvent(QMouseEvent* event) {
    const auto patch = at(event->position());
    const auto shown = patches();
    if (!patch || !shown[*patch].tone || !shown[*patch].stops) return;
    dragged_ = chosen_ = *patch;
    grabbed_ = event->position().y();
    from_ = *shown[*patch].stops;
    ++visit_;
    update();
}

void ToneStrip::mouseMoveEvent(QMouseEvent* event) {
    if (!dragged_) {
        const auto patch = at(event->position());
        setCursor(patch && patches()[*patch].tone ? Qt::SizeVerCursor : Qt::ArrowCursor);
        return;
    }
    constexpr double pixels_a_stop = 24;
    ask(*dragged_, from_ + (grabbed_ - event->position().y()) / pixels_a_stop);
}

void ToneStrip::mouseReleaseEvent(QMouseEvent*) { dragged_.reset(); }

void ToneStrip::keyPressEvent(QKeyEvent* event) {
    const auto shown = patches();
    if (shown.empty()) return;
    chosen_ = std::min(chosen_, shown.size() - 1);
    constexpr double third = 1.0 / 3;
    switch (event->key()) {
        case Qt::Key_Left:
            chosen_ -= chosen_ > 0;
            break;
        case Qt::Key_Right:
            chosen_ += chosen_ + 1 < shown.size();
            break;
        case Qt::Key_Up:
        case Qt::Key_Down:
            ++visit_;
            if (shown[chosen_].stops)
                ask(chosen_, *shown[chosen_].stops + (event->key() == Qt::Key_Up ? third : -third));
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    update();
}

bool ToneStrip::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto patch = at(help->pos());
    const auto shown = patches();
    QString words =
        tr("The side towards the strongest light, the side away from it, an edge lit from behind, what is "
           "behind, and the face without flash, as the picture shows them; stops from mid grey");
    if (patch && shown[*patch].tone) words = tr("Drag up and down to ask for it: the light that makes it follows");
    QToolTip::showText(help->globalPos(), words, this);
    return true;
}

void ToneStrip::paintEvent(QPaintEvent*) {
    const auto shown = patches();
    if (shown.empty() || height() < least_height) return;
    setMouseTracking(true);
    const auto& t = theme();
    QPainter painter(this);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    const auto& tones = document_.report()->light.tones;
    QString title = tr("Tones");
    constexpr double told_apart = 6;  // stops: beyond it the shadow is black, whatever the ratio
    if (tones.lit && tones.shadow && *tones.lit - *tones.shadow < told_apart)
        title += tr(", %1 : 1 side to side").arg(toQt(text::number_text(std::exp2(*tones.lit - *tones.shadow), 2)));
    drawLine(painter, {0, 0, static_cast<double>(width()), heading_height}, Qt::AlignLeft | Qt::AlignVCenter,
             elided(painter.font(), title, width()));
    for (std::size_t i = 0; i < shown.size(); ++i) {
        const Patch& patch = shown[i];
        const QRectF area = patchRect(i);
        const double light = linear(patch);
        painter.fillRect(area, greyOf(light));
        if (patch.tone) {  // a grip: it can be dragged
            painter.setPen(QPen(light > 0.2 ? QColor(0, 0, 0, 130) : QColor(255, 255, 255, 130), 1.2));
            const double x = area.center().x(), y = area.center().y();
            for (const double offset : {-3.0, 0.0, 3.0})
                painter.drawLine(QPointF(x - 8, y + offset), QPointF(x + 8, y + offset));
        }
        const QRectF below(area.left(), area.bottom() + 2, area.width() - 2, 16);
        painter.setFont(textFont(12, QFont::DemiBold));
        painter.setPen(light > 1 ? t.caution : t.ink);
        drawLine(painter, below, Qt::AlignHCenter, patch.stops ? stopsText(*patch.stops) : tr("none"));
        painter.setFont(textFont(11));
        painter.setPen(light > 1 ? t.caution : t.quiet);
        drawLine(painter, below.translated(0, 15), Qt::AlignHCenter,
                 elided(textFont(11), light > 1 ? tr("%1 clips").arg(patch.name) : patch.name, below.width()));
        if (hasFocus() && i == chosen_) {
            painter.setPen(QPen(t.focus, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(area.adjusted(2, 2, -2, -2));
        }
    }
    painter.setPen(QPen(t.hairline, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(QRectF(0.5, heading_height + 4.5, width() - 1, tall() - 1));
}

}  // namespace poquito::desk

#include "desk/light/moc_tone_strip.moc"
