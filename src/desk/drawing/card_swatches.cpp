#include "desk/drawing/card_swatches.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

/// As the picture shows it at a correct exposure: the hue of its colour, as bright as it reflects.
text::Colour seen(const shoot::Subject& subject) {
    imaging::Light3 light = subject.colour ? imaging::light_of(*subject.colour) : imaging::Light3{1, 1, 1};
    const double factor = subject.reflectance / std::max(imaging::luminance(light), 1e-3);
    return imaging::colour_of({light.red * factor, light.green * factor, light.blue * factor});
}

}  // namespace

CardSwatches::CardSwatches(const char* name, const QString& says, QWidget* parent) : QWidget(parent) {
    setObjectName(QLatin1String(name));
    setAccessibleName(says);
    setToolTip(
        tr("A click takes the card. The number is the difference from the subject, CIE L*a*b*: past 20 it is seen at a "
           "glance."));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(84);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
}

void CardSwatches::setSubject(const shoot::Subject& subject, const std::optional<text::Colour>& taken) {
    const auto colour = seen(subject);
    if (subject_ == colour && taken_ == taken) return;
    subject_ = colour, taken_ = taken;
    cards_ = imaging::card_colours(colour);
    marked_ = std::min(marked_, cards_.size() - 1);
    update();
}

QRectF CardSwatches::cardRect(std::size_t index) const {
    constexpr double gap = 6;
    const auto count = static_cast<double>(cards_.size());
    const double wide = (width() - gap * (count - 1)) / count;
    return {static_cast<double>(index) * (wide + gap), 0, wide, 44};
}

void CardSwatches::paintEvent(QPaintEvent*) {
    if (!subject_) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    constexpr double roomy = 50;  // pixels that the longest of the names takes
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        const QRectF card = cardRect(i);
        const bool taken = taken_ == cards_[i].colour;
        painter.setPen(hasFocus() && i == marked_ ? QPen(theme().link, 2.4)
                       : taken                    ? QPen(theme().focus, 2.4)
                                                  : QPen(theme().hairline, 1));
        painter.setBrush(colourOf(cards_[i].colour));
        painter.drawRoundedRect(card.adjusted(1, 1, -1, -1), 3, 3);
        painter.setPen(Qt::NoPen);
        painter.setBrush(colourOf(*subject_));
        painter.drawEllipse(card.center(), 12, 12);
        painter.setFont(textFont(11));
        painter.setPen(theme().quiet);
        const QRectF below(card.left(), card.bottom() + 2, card.width(), 36);
        painter.drawText(below, Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap,
                         card.width() < roomy
                             ? QString::number(qRound(cards_[i].difference))
                             : tr("%1, %2").arg(toQt(cards_[i].name)).arg(qRound(cards_[i].difference)));
    }
}

void CardSwatches::take(std::size_t index) {
    const auto colour = cards_[index].colour;
    Q_EMIT cardTaken(colour, std::round(imaging::luminance(imaging::light_of(colour)) * 1000) / 1000);
}

void CardSwatches::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < cards_.size(); ++i)
        if (cardRect(i).contains(event->position())) return take(i);
}

void CardSwatches::keyPressEvent(QKeyEvent* event) {
    if (cards_.empty()) return;
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        marked_ = (marked_ + (event->key() == Qt::Key_Right ? 1 : cards_.size() - 1)) % cards_.size();
        return update();
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space) return take(marked_);
    QWidget::keyPressEvent(event);
}

}  // namespace poquito::desk

#include "desk/drawing/moc_card_swatches.moc"
