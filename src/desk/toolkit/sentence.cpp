#include "desk/toolkit/sentence.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QPainter>

namespace poquito::desk {

Sentence::Sentence(int lines, QWidget* parent) : QWidget(parent), lines_(lines) {
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
}

void Sentence::setText(const QString& text) {
    if (text == text_) return;
    text_ = text;
    setAccessibleName(text);
    update();
}

QSize Sentence::sizeHint() const { return {120, lines_ * QFontMetrics(textFont()).lineSpacing() + 2}; }

void Sentence::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setFont(textFont());
    painter.setPen(theme().quiet);
    if (lines_ == 1) return drawLine(painter, rect(), Qt::AlignLeft, elided(painter.font(), text_, width()));
    painter.drawText(rect(), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, text_);
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_sentence.moc"
