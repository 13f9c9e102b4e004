#include "desk/depth/judgement_strip.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/card_keys.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr int reason_height = 34, card_height = 92, gap = 6;

/// Two digits are what a glance takes in.
QString length(double mm) {
    const double scale = std::pow(10, std::floor(std::log10(std::max(mm, 1e-9))) - 1);
    return toQt(text::length_text(std::round(mm / scale) * scale));
}
QString micrometres(double mm) {
    const double scale = std::pow(10, std::floor(std::log10(std::max(mm * 1000, 1e-3))) - 1);
    return toQt(text::number_text(std::round(mm * 1000 / scale) * scale, 6));
}

}  // namespace

JudgementStrip::JudgementStrip(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      judged_(
          document, [](const advice::Assessment& now) { return advice::judge(now.plan); }, [this] { show(); }) {
    setObjectName(QStringLiteral("judgement"));
    setAccessibleName(tr("One frame or a stack"));
    setToolTip(
        tr("A click takes one: stop and frames of the shot. The suited one is tinted; you may disagree.\nBlur: defocus "
           "and Airy disc at the sensor. Flashes: at full power. May move: sideways or along the axis without harm, "
           "while it lasts."));
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
}

int JudgementStrip::columns(int width) const {
    constexpr int least_card = 104;
    const int count = judgement_ ? static_cast<int>(judgement_->approaches.size()) : 5;
    return width >= count * least_card ? count : (count + 1) / 2;
}

int JudgementStrip::heightForWidth(int width) const {
    const int count = judgement_ ? static_cast<int>(judgement_->approaches.size()) : 5;
    const int rows = (count + columns(width) - 1) / columns(width);
    return reason_height + rows * (card_height + gap);
}

/// The sheet scrolls, and what scrolls is not asked for its height by its width.
void JudgementStrip::takeHeight() { setFixedHeight(heightForWidth(width())); }

void JudgementStrip::resizeEvent(QResizeEvent*) { takeHeight(); }

QRectF JudgementStrip::cardRect(std::size_t index) const {
    const int across = columns(width());
    const double wide = (width() - gap * (across - 1.0)) / across;
    const int column = static_cast<int>(index) % across, row = static_cast<int>(index) / across;
    return QRectF(column * (wide + gap), reason_height + row * (card_height + gap), wide, card_height)
        .adjusted(1, 1, -1, -1);
}

void JudgementStrip::refresh() {
    if (!document_.shot() || !isVisible()) return;
    judged_.refresh();
    show();
}

void JudgementStrip::show() {
    const auto before = judgement_ ? judgement_->approaches.size() : 0;
    const auto* found = judged_.found();
    judgement_ = found ? *found : std::nullopt;
    if (before != (judgement_ ? judgement_->approaches.size() : 0)) takeHeight();
    marked_ = taken().value_or(judgement_ ? judgement_->best : 0);
    setAccessibleDescription(reason());
    update();
}

std::optional<std::size_t> JudgementStrip::taken() const {
    if (!judgement_ || !document_.shot()) return std::nullopt;
    const auto& shot = *document_.shot();
    const auto is_set = [&](const advice::Approach& approach) {
        return approach.shot.exposure.f_number == shot.exposure.f_number &&
               approach.shot.capture.mode == shot.capture.mode &&
               approach.shot.sharpness.focus_offset == shot.sharpness.focus_offset;
    };
    const auto& all = judgement_->approaches;
    // The one that was decided on, where the shot still is as decided; else one that says the same.
    auto found =
        std::ranges::find_if(all, [&](const auto& one) { return is_set(one) && shot.capture.approach == one.id; });
    if (found == all.end()) found = std::ranges::find_if(all, is_set);
    if (found == all.end()) return std::nullopt;
    return static_cast<std::size_t>(found - all.begin());
}

QString JudgementStrip::reason() const {
    if (!judged_.found()) return {};  // in a moment
    if (!judgement_) return tr("Focused at infinity: there is nothing to judge yet.");
    const auto now = taken();
    const bool disagrees = now && *now != judgement_->best && document_.shot()->capture.approach.has_value();
    return toQt(judgement_->reason) +
           (disagrees ? QLatin1Char('\n') + toQt(advice::objection(*judgement_, *now)) : QString());
}

void JudgementStrip::paintEvent(QPaintEvent*) {
    if (!document_.shot()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(12));
    painter.setPen(theme().ink);
    // A disagreement is said in the place of the reason it disagrees with.
    const QStringList parts = reason().split(QLatin1Char('\n'));
    painter.drawText(QRectF(0, 0, width(), reason_height), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
                     parts.last());
    if (!judgement_ && hasFocus()) drawFocusRing(painter, rect());
    for (std::size_t i = 0; judgement_ && i < judgement_->approaches.size(); ++i) paintCard(painter, i);
}

void JudgementStrip::paintCard(QPainter& painter, std::size_t index) const {
    const Theme& t = theme();
    const auto& approach = judgement_->approaches[index];
    const QRectF card = cardRect(index);
    const bool best = index == judgement_->best, now = taken() == index;
    const bool cursor = hasFocus() && index == marked_;
    drawCard(painter, card, best ? t.focusWash : t.panel,
             cursor ? QPen(t.link, 2.4)
             : now  ? QPen(t.focus, 2)
                    : QPen(t.hairline, 1));
    double y = card.top() + 3;
    const bool narrow = card.width() < 118;
    const double inset = narrow ? 4 : 7, room = card.width() - 2 * inset;
    const auto line = [&](const QFont& font, const QColor& colour, const QString& words) {
        painter.setFont(font);
        painter.setPen(colour);
        drawLine(painter, QRectF(card.left() + inset, y, room, 15), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(font, words, room));
        y += 14.5;
    };
    const auto& capture = approach.report.capture;
    line(textFont(narrow ? 11 : 12, QFont::DemiBold), t.ink, toQt(approach.name) + (now ? tr(" \u2713") : QString()));
    const QColor quiet = best ? t.ink : t.quiet;
    const QFont small = textFont(11);
    line(small, quiet,
         approach.ends_blur == approach.middle_blur
             ? tr("blur %1 throughout").arg(length(approach.ends_blur))
             : tr("ends %1, mid %2 µm").arg(micrometres(approach.ends_blur), micrometres(approach.middle_blur)));
    line(small, quiet,
         tr("%1, %2").arg(
             toQt(text::count_text(capture.frames, "frame", "frames")),
             toQt(approach.seconds < 1 ? text::shutter_text(approach.seconds) : text::time_text(approach.seconds))));
    line(small, quiet,
         approach.flash_energy > 0
             ? tr("%1, %2 flashes")
                   .arg(toQt(text::data_text(capture.data_mb)), toQt(text::number_text(approach.flash_energy, 2)))
             : toQt(text::data_text(capture.data_mb)));
    line(small, quiet, tr("may move %1").arg(length(approach.tolerance)));
    if (!approach.against.empty())
        line(textFont(11, QFont::DemiBold), best ? t.ink : t.caution, tr("\u25b3 %1").arg(toQt(approach.against)));
    else
        line(small, quiet,
             approach.background ? tr("disc behind %1").arg(percentText(*approach.background, 2))
                                 : tr("nothing behind"));
}

void JudgementStrip::take(std::size_t index) {
    const auto& approach = judgement_->approaches[index];
    document_.editShot({tr("Take %1").arg(toQt(approach.name))}, [&](shoot::Shot& shot) {
        shot.exposure.f_number = approach.shot.exposure.f_number;
        shot.capture.mode = approach.shot.capture.mode;
        shot.sharpness.focus_offset = approach.shot.sharpness.focus_offset;
        shot.capture.approach = approach.id;
    });
}

void JudgementStrip::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; judgement_ && i < judgement_->approaches.size(); ++i)
        if (cardRect(i).contains(event->position())) return take(i);
}

void JudgementStrip::keyPressEvent(QKeyEvent* event) {
    switch (cardKey(*event, marked_, judgement_ ? judgement_->approaches.size() : 0)) {
        case CardKey::marked:
            return update();
        case CardKey::taken:
            return take(marked_);
        case CardKey::none:
            QWidget::keyPressEvent(event);
    }
}

void JudgementStrip::showEvent(QShowEvent*) { refresh(); }

}  // namespace poquito::desk

#include "desk/depth/moc_judgement_strip.moc"
