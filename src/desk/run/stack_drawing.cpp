#include "desk/run/stack_drawing.hpp"

#include "desk/drawing/stack_bands.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double grip = 8;  // pixels about an end that take hold of it

}  // namespace

StackDrawing::StackDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("stackDrawing"));
    setAccessibleName(tr(
        "The frames of the stack on the subject; left and right move an end of the slice, up and down choose which"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

QRectF StackDrawing::field() const { return QRectF(rect()).adjusted(6, 40, -6, -34); }

StackDrawing::Range StackDrawing::range() const {
    if (held_) return *held_;
    const auto* report = document_.report();
    if (!report) return {};
    double low = 0, high = std::max(report->extent.depth, 1e-3);
    if (const auto& stack = report->capture.stack) {
        low = std::min(low, std::min(stack->span.from, stack->first));
        high = std::max(high, std::max(stack->span.to, stack->last));
    }
    const double margin = (high - low) * 0.06;
    return {.low = low - margin, .high = high + margin};
}

double StackDrawing::xOf(double depth) const {
    const auto [low, high] = range();
    return field().left() + (depth - low) / (high - low) * field().width();
}

double StackDrawing::depthAt(double x) const {
    const auto [low, high] = range();
    return low + (x - field().left()) / field().width() * (high - low);
}

void StackDrawing::paintEvent(QPaintEvent*) {
    const auto* shot = document_.shot();
    const auto* report = document_.report();
    if (!shot || !report) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto [low, high] = range();
    const auto bands =
        report->capture.frame_depth ? bandsOf(document_.assessment()->plan, *report) : std::vector<Band>{};
    drawBands(painter, bands);
    painter.setOpacity(0.55);
    const double stretched = drawSection(painter, field(), *shot, *report, low, high);
    painter.setOpacity(1);
    drawPlanes(painter, bands);
    drawWeak(painter, bands);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(theme().ink);
    QString title = tr("From the side");
    if (stretched > 1.02) title += tr("; depth %1 \u00d7").arg(toQt(text::number_text(stretched, 2)));
    drawLine(painter, QRectF(0, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(textFont(12, QFont::DemiBold), title, width()));
    if (shot->capture.mode == shoot::CaptureMode::stack && report->capture.stack) drawEnds(painter);
    drawRuler(painter);
}

/// What each frame holds sharp, and what lies between two and is sharp in none.
void StackDrawing::drawBands(QPainter& painter, const std::vector<Band>& bands) const {
    const Theme& t = theme();
    const auto area = field();
    const auto fill = [&](double from, double to, const QColor& wash) {
        painter.fillRect(QRectF(QPointF(xOf(from), area.top()), QPointF(xOf(to), area.bottom())), wash);
    };
    painter.setPen(Qt::NoPen);
    painter.setRenderHint(QPainter::Antialiasing, false);  // upright edges need none, and there may be hundreds
    const QColor odd = t.focusWash.darker(themeKind() == ThemeKind::light ? 108 : 82);
    for (std::size_t i = 0; i < bands.size(); ++i) fill(bands[i].from, bands[i].to, i % 2 == 1 ? odd : t.focusWash);
    if (document_.report()->capture.frames <= static_cast<double>(bands.size()))
        for (std::size_t i = 1; i < bands.size(); ++i)
            if (bands[i].from > bands[i - 1].to * (1 + 1e-6) + 1e-9) fill(bands[i - 1].to, bands[i].from, t.stopWash);
    painter.setRenderHint(QPainter::Antialiasing);
}

void StackDrawing::drawPlanes(QPainter& painter, const std::vector<Band>& bands) const {
    constexpr std::size_t most = 150;  // more of them are a grey wash
    if (bands.size() > most) return;
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(QPen(theme().focus, 1));
    std::vector<QLineF> planes;
    planes.reserve(bands.size());
    for (const auto& band : bands)
        planes.emplace_back(xOf(band.plane), field().top(), xOf(band.plane), field().bottom());
    painter.drawLines(planes.data(), static_cast<int>(planes.size()));
    painter.setRenderHint(QPainter::Antialiasing);
}

/// The frames after which a flash no longer has its full light.
void StackDrawing::drawWeak(QPainter& painter, const std::vector<Band>& bands) const {
    auto whole = static_cast<double>(bands.size());
    for (const auto& source : document_.report()->light.sources)
        whole = std::min(whole, source.whole_frames.value_or(whole));
    const auto first = static_cast<std::size_t>(whole);
    if (first >= bands.size() || document_.report()->capture.stack->hand()) return;
    const Theme& t = theme();
    const auto area = field();
    const double from = xOf(bands[first].from), to = xOf(bands.back().to);
    painter.fillRect(QRectF(QPointF(std::min(from, to), area.bottom() - 5), QPointF(std::max(from, to), area.bottom())),
                     t.caution);
    painter.setFont(textFont(11, QFont::DemiBold));
    const QString words = tr("flash weak from frame %1").arg(first + 1);
    const double half = lineWidth(painter.font(), words) / 2 + 3;
    const double middle =
        std::clamp((from + to) / 2, area.left() + half, std::max(area.left() + half, area.right() - half));
    drawLabel(painter, {middle, area.bottom() - 14}, Qt::AlignHCenter | Qt::AlignVCenter, words, t.caution);
}

/// The slice, to be dragged by its ends.
void StackDrawing::drawEnds(QPainter& painter) const {
    const Theme& t = theme();
    const auto area = field();
    const auto& capture = document_.shot()->capture;
    const auto& span = document_.report()->capture.stack->span;
    const double from = span.from + capture.lead, to = span.to - capture.tail;
    for (const auto& [depth, which] : {std::pair(from, End::from), std::pair(to, End::to)}) {
        painter.setPen(QPen(t.link, hasFocus() && active_ == which ? 3 : 2));
        const double x = xOf(depth);
        painter.drawLine(QPointF(x, area.top() - 4), QPointF(x, area.bottom() + 4));
        painter.setBrush(t.link);
        painter.drawEllipse(QPointF(x, area.top() - 6), 4, 4);
    }
    painter.setPen(t.link);
    painter.setFont(textFont(11));
    drawDimension(painter, {xOf(from), area.top() - 14}, {xOf(to), area.top() - 14}, lengthText(to - from));
}

/// In depth behind the nearest point.
void StackDrawing::drawRuler(QPainter& painter) const {
    const Theme& t = theme();
    const auto area = field();
    const auto [low, high] = range();
    painter.setFont(textFont(11));
    const int most = std::max(2, width() / 60);
    const double step = rulerStep(high - low, most);
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QPointF(area.left(), area.bottom() + 8), QPointF(area.right(), area.bottom() + 8));
    for (const double mark : rulerMarks(low, high, most)) {
        painter.setPen(QPen(t.quiet, 1));
        painter.drawLine(QPointF(xOf(mark), area.bottom() + 5), QPointF(xOf(mark), area.bottom() + 11));
        const QString words = std::abs(mark) < step / 2 ? tr("nearest") : toQt(text::number_text(mark, 4));
        const double half = lineWidth(textFont(11), words) / 2;
        const double x = std::clamp(xOf(mark), half, std::max(half, width() - half));
        drawLine(painter, QRectF(x - half, area.bottom() + 12, 2 * half, 14), Qt::AlignHCenter | Qt::AlignVCenter,
                 words);
    }
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(area.left(), area.bottom() + 20, area.width(), 14), Qt::AlignRight | Qt::AlignVCenter,
             tr("mm"));
}

std::optional<StackDrawing::End> StackDrawing::endAt(double x) const {
    const auto* report = document_.report();
    const auto* shot = document_.shot();
    if (!report || !shot || !report->capture.stack) return std::nullopt;
    const auto& span = report->capture.stack->span;
    const double from = std::abs(x - xOf(span.from + shot->capture.lead));
    const double to = std::abs(x - xOf(span.to - shot->capture.tail));
    if (std::min(from, to) > grip) return std::nullopt;
    return from <= to ? End::from : End::to;
}

void StackDrawing::moveEnd(End end, double depth) {
    const auto* report = document_.report();
    if (!report) return;
    const double all = report->extent.depth;
    document_.editShot({tr("Choose the slice"), QStringLiteral("slice-%1").arg(drag_)}, [&](shoot::Shot& shot) {
        auto slice = shot.capture.slice.value_or(shoot::Slice{.from = 0, .to = all});
        slice.to = std::min(slice.to, all);
        slice.from = std::min(slice.from, slice.to);
        if (end == End::from)
            slice.from = std::clamp(depth, 0.0, slice.to);
        else
            slice.to = std::clamp(depth, slice.from, all);
        shot.capture.slice = slice;
        if (slice.from <= 0 && slice.to >= all) shot.capture.slice.reset();
    });
}

void StackDrawing::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    dragged_ = endAt(event->position().x());
    if (!dragged_) return;
    active_ = *dragged_;
    held_ = range();
    ++drag_;
}

void StackDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_)
        moveEnd(*dragged_, depthAt(event->position().x()));
    else
        setCursor(endAt(event->position().x()) ? Qt::SplitHCursor : Qt::ArrowCursor);
}

void StackDrawing::mouseReleaseEvent(QMouseEvent*) {
    dragged_.reset();
    held_.reset();
    ++drag_;
    update();
}

void StackDrawing::keyPressEvent(QKeyEvent* event) {
    const auto* shot = document_.shot();
    const auto* report = document_.report();
    const int key = event->key();
    if (!shot || !report || !report->capture.stack ||
        (key != Qt::Key_Left && key != Qt::Key_Right && key != Qt::Key_Up && key != Qt::Key_Down))
        return QWidget::keyPressEvent(event);
    if (key == Qt::Key_Up || key == Qt::Key_Down) {
        active_ = active_ == End::from ? End::to : End::from;
        return update();
    }
    const auto& span = report->capture.stack->span;
    const double now = active_ == End::from ? span.from + shot->capture.lead : span.to - shot->capture.tail;
    const double step = report->extent.depth / 100 * (event->modifiers() & Qt::ShiftModifier ? 0.1 : 1);
    moveEnd(active_, now + (key == Qt::Key_Left ? -step : step));
}

}  // namespace poquito::desk

#include "desk/run/moc_stack_drawing.moc"
