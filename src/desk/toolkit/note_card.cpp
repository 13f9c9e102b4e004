#include "desk/toolkit/note_card.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QFontMetrics>
#include <QHash>
#include <QPainter>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr int text_left = 28, text_right = 10, text_top = 6, below = 9, link_height = 19;  // pixels

QColor washOf(NoteMark mark) {
    const Theme& t = theme();
    switch (mark) {
        case NoteMark::stop:
            return t.stopWash;
        case NoteMark::info:
            return t.linkWash;
        case NoteMark::well:
            return t.focusWash;
        default:
            return t.cautionWash;
    }
}

void drawMark(QPainter& painter, QPointF at, NoteMark mark) {
    const Theme& t = theme();
    painter.setPen(Qt::NoPen);
    switch (mark) {
        case NoteMark::safety:
            painter.setPen(QPen(t.caution, 2.4));
            painter.drawLine(at - QPointF(5, 0), at + QPointF(5, 0));
            painter.drawLine(at - QPointF(0, 5), at + QPointF(0, 5));
            return;
        case NoteMark::stop:
            painter.setBrush(t.stop);
            painter.drawRect(QRectF(at - QPointF(4.5, 4.5), QSizeF(9, 9)));
            return;
        case NoteMark::info:
            painter.setBrush(t.link);
            painter.drawEllipse(at, 3, 3);
            return;
        case NoteMark::well:
            return drawStatus(painter, at, Status::settled);
        case NoteMark::caution:
            return drawStatus(painter, at, Status::doubtful);
    }
}

}  // namespace

int wrappedHeight(const QString& text, int width) {
    static QHash<QString, int> known;
    const QString key = QString::number(width) + QLatin1Char(' ') + text;
    if (const auto found = known.constFind(key); found != known.cend()) return *found;
    if (known.size() > 4000) known.clear();
    return *known.insert(key,
                         QFontMetrics(textFont(12)).boundingRect(0, 0, width, 10000, Qt::TextWordWrap, text).height());
}

int noteCardHeight(const NoteCard& card, int width) {
    return text_top + wrappedHeight(card.text, width - text_left - text_right) +
           (card.link.isEmpty() ? 0 : link_height) + below;
}

void drawNoteCard(QPainter& painter, const QRect& area, const NoteCard& card, bool focused) {
    const Theme& t = theme();
    const QColor sheet = washOf(card.mark);
    drawCard(painter, QRectF(area).adjusted(2, 1, -2, -3), sheet, focused ? QPen(t.link, 1.4) : QPen(sheet, 1), 3);
    painter.setFont(textFont(12));
    painter.setPen(t.ink);
    const int width = area.width() - text_left - text_right;
    const QRect at(area.left() + text_left, area.top() + text_top, width, wrappedHeight(card.text, width));
    painter.drawText(at, Qt::TextWordWrap, card.text);
    if (!card.link.isEmpty()) {
        const QRect others = noteOthersRect(area, card.others);
        const int room = width - (card.others.isEmpty() ? 0 : others.width() + 4);
        drawLinkLine(painter, QRect(at.left(), at.bottom() + 1, room, link_height), card.link, card.gain);
        if (!card.others.isEmpty()) {
            painter.setFont(textFont(12));
            painter.setPen(t.link);
            drawLine(painter, QRect(others.left(), at.bottom() + 1, others.width(), link_height),
                     Qt::AlignRight | Qt::AlignVCenter, card.others);
        }
    }
    drawMark(painter, QPointF(area.left() + 15, area.top() + 15), card.mark);
}

void drawLinkLine(QPainter& painter, const QRect& line, const QString& link, const QString& gain) {
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(theme().link);
    drawLine(painter, line, Qt::AlignLeft | Qt::AlignVCenter, elided(painter.font(), link, line.width()));
    constexpr int gap = 8;
    const int used = static_cast<int>(lineWidth(painter.font(), link)) + gap;
    painter.setFont(textFont(11));
    if (gain.isEmpty() || used + lineWidth(painter.font(), gain) > line.width()) return;
    painter.setPen(theme().quiet);
    drawLine(painter, line.adjusted(used, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, gain);
}

QRect noteOthersRect(const QRect& area, const QString& others) {
    if (others.isEmpty()) return {};
    const int width = static_cast<int>(lineWidth(textFont(12), others)) + 4;
    return {area.right() - text_right - width, area.bottom() - link_height - 8, width, link_height + 4};
}

QRect noteLinkRect(const QRect& area, const QString& link) {
    if (link.isEmpty()) return {};
    const int width = static_cast<int>(lineWidth(textFont(12, QFont::DemiBold), link)) + 8;
    return {area.left() + text_left - 4, area.bottom() - link_height - 8, std::min(width, area.width() - text_left - 4),
            link_height + 4};
}

}  // namespace poquito::desk
