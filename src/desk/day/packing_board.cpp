#include "desk/day/packing_board.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double row_height = 33, head_height = 28, card_gap = 10, least_card = 250, tick_size = 14, inset = 10;

}  // namespace

double PackingBoard::Card::height() const { return head_height + static_cast<double>(lines.size()) * row_height + 6; }

PackingBoard::PackingBoard(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("packingBoard"));
    setAccessibleName(tr("What is packed, by case"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    auto policy = QSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

bool PackingBoard::isAsked(const job::PackLine& line) const { return !home_ || (line.going && !line.stays); }

void PackingBoard::setLines(std::vector<job::PackLine> lines, bool home, const std::string& marked) {
    lines_ = std::move(lines);
    home_ = home;
    marked_ = marked;
    cards_.clear();
    const auto card_of = [&](const job::PackLine& line) -> Card& {
        const bool cased = !line.container.empty();
        const auto heading = cased ? toQt(line.container) : tr(job::pack_kind_name(line.kind));
        for (auto& card : cards_)
            if (card.container.has_value() == cased && card.heading == heading) return card;
        auto& card = cards_.emplace_back();
        card.heading = heading;
        if (cased) card.container = line.container;
        return card;
    };
    for (std::size_t i = 0; i < lines_.size(); ++i) card_of(lines_[i]).lines.push_back(i);
    // What has a case comes first.
    std::stable_partition(cards_.begin(), cards_.end(), [](const Card& card) { return card.container.has_value(); });
    QStringList says;
    for (const auto& card : cards_) {
        QStringList names;
        for (const auto i : card.lines)
            names << toQt(lines_[i].name) + (isTicked(lines_[i]) ? tr(", ticked") : QString());
        says << card.heading + QStringLiteral(": ") + names.join(QStringLiteral("; "));
    }
    setAccessibleDescription(says.join(QStringLiteral(". ")));
    setMinimumHeight(heightForWidth(width()));
    updateGeometry();
    update();
}

/// Each card under the shortest column so far.
std::vector<PackingBoard::Laid> PackingBoard::laid(int width) const {
    width -= 6;  // before the scroll bar
    const auto columns =
        static_cast<std::size_t>(std::max(1.0, std::floor((width + card_gap) / (least_card + card_gap))));
    const double wide = (width - static_cast<double>(columns - 1) * card_gap) / static_cast<double>(columns);
    std::vector<double> filled(columns, 0);
    std::vector<Laid> all;
    for (std::size_t c = 0; c < cards_.size(); ++c) {
        const auto column = static_cast<std::size_t>(std::ranges::min_element(filled) - filled.begin());
        const double x = static_cast<double>(column) * (wide + card_gap);
        all.push_back({QRectF(x, filled[column], wide, cards_[c].height()), c});
        filled[column] += cards_[c].height() + card_gap;
    }
    return all;
}

int PackingBoard::heightForWidth(int width) const {
    double height = 60;
    for (const auto& one : laid(width)) height = std::max(height, one.area.bottom() + 2);
    return static_cast<int>(std::ceil(height));
}

QRectF PackingBoard::rowRect(const QRectF& card, std::size_t row) const {
    return {card.left(), card.top() + head_height + static_cast<double>(row) * row_height, card.width(), row_height};
}

QRectF PackingBoard::lineRect(const std::string& id) const {
    for (const auto& one : laid(width()))
        for (std::size_t row = 0; row < cards_[one.card].lines.size(); ++row)
            if (lines_[cards_[one.card].lines[row]].id == id) return rowRect(one.area, row);
    return {};
}

std::optional<std::size_t> PackingBoard::lineAt(QPointF at) const {
    for (const auto& one : laid(width()))
        for (std::size_t row = 0; row < cards_[one.card].lines.size(); ++row)
            if (rowRect(one.area, row).contains(at)) return cards_[one.card].lines[row];
    return std::nullopt;
}

// ---- drawing -----------------------------------------------------------------------------------------------------

void PackingBoard::drawLineOf(QPainter& painter, const QRectF& row, const job::PackLine& line) {
    const Theme& t = theme();
    const bool ticked = isTicked(line), asked = isAsked(line);
    if (line.id == marked_) painter.fillRect(row.adjusted(1, 0, -1, 0), t.linkWash);
    const QRectF box(row.left() + inset, row.top() + 5, tick_size, tick_size);
    if (asked || ticked) {
        painter.setPen(QPen(ticked ? t.focus : t.quiet, 1.2));
        painter.setBrush(ticked ? QBrush(t.focusWash) : Qt::NoBrush);
        painter.drawRoundedRect(box.adjusted(0.5, 0.5, -0.5, -0.5), 2, 2);
        painter.setBrush(Qt::NoBrush);
        if (ticked) {
            painter.setPen(QPen(t.focus, 2));
            painter.drawPolyline(QPolygonF(
                {box.topLeft() + QPointF(3.5, 7), box.topLeft() + QPointF(6, 10), box.topLeft() + QPointF(11, 4)}));
        }
    }
    const double left = row.left() + inset + tick_size + 8, wide = row.right() - left - inset;
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    painter.setFont(bold);
    painter.setPen(asked ? t.ink : t.quiet);
    const auto name = line.count > 1 ? tr("%1 \u00d7 %2").arg(line.count).arg(toQt(line.name)) : toQt(line.name);
    drawLine(painter, QRectF(left, row.top() + 3, wide, 16), Qt::AlignLeft | Qt::AlignVCenter,
             elided(bold, name, wide));
    painter.setFont(small);
    painter.setPen(t.quiet);
    const auto why = home_ && !line.going  ? tr("was not ticked going")
                     : home_ && line.stays ? tr("is used up")
                                           : toQt(line.why);
    drawLine(painter, QRectF(left, row.top() + 17, wide, 14), Qt::AlignLeft | Qt::AlignVCenter,
             elided(small, why, wide));
}

void PackingBoard::paintEvent(QPaintEvent* event) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto all = laid(width());
    for (const auto& one : all) {
        if (!one.area.intersects(event->rect())) continue;
        const auto& card = cards_[one.card];
        const bool target = held_ && held_->dragged && card.container && one.area.contains(held_->at);
        drawCard(painter, one.area.adjusted(0.5, 0.5, -0.5, -0.5), t.panel,
                 target ? QPen(t.link, 2.4) : QPen(t.hairline, 1));
        int in = 0, asked = 0;
        for (const auto i : card.lines) asked += isAsked(lines_[i]), in += isAsked(lines_[i]) && isTicked(lines_[i]);
        const QFont bold = textFont(13, QFont::DemiBold);
        painter.setFont(bold);
        painter.setPen(t.ink);
        const QRectF head = one.area.adjusted(inset, 4, -inset, 0);
        drawLine(painter, QRectF(head.left(), head.top(), head.width() - 64, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(bold, card.heading, head.width() - 64));
        painter.setFont(textFont(12));
        painter.setPen(in == asked ? t.focus : t.quiet);
        drawLine(painter, QRectF(head.right() - 64, head.top(), 64, 20), Qt::AlignRight | Qt::AlignVCenter,
                 tr("%1 of %2").arg(in).arg(asked));
        for (std::size_t row = 0; row < card.lines.size(); ++row)
            drawLineOf(painter, rowRect(one.area, row), lines_[card.lines[row]]);
    }
    if (held_ && held_->dragged) {
        painter.setFont(textFont(12, QFont::DemiBold));
        drawLabel(painter, held_->at + QPointF(12, 0), Qt::AlignLeft | Qt::AlignVCenter, toQt(lines_[held_->line].name),
                  t.link);
    }
    if (!hasFocus()) return;
    const auto line = lineRect(marked_);
    drawFocusRing(painter, line.isEmpty() ? QRectF(rect()) : line);
}

// ---- by hand -----------------------------------------------------------------------------------------------------

void PackingBoard::mark(const std::string& id) {
    if (marked_ == id) return;
    marked_ = id;
    update();
    Q_EMIT markedChanged(id);
}

void PackingBoard::mousePressEvent(QMouseEvent* event) {
    held_.reset();
    if (const auto line = lineAt(event->position())) {
        held_ = Held{.line = *line, .from = event->position(), .at = event->position()};
        mark(lines_[*line].id);
    }
}

void PackingBoard::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) {
        setCursor(lineAt(event->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
        return;
    }
    if (!held_) return;
    held_->at = event->position();
    constexpr double slop = 8;
    const auto by = held_->at - held_->from;
    held_->dragged = held_->dragged || std::hypot(by.x(), by.y()) > slop;
    if (held_->dragged) setCursor(Qt::ClosedHandCursor);
    update();
}

void PackingBoard::mouseReleaseEvent(QMouseEvent* event) {
    const auto held = std::exchange(held_, std::nullopt);
    update();
    if (!held) return;
    const auto line = lines_[held->line];
    if (!held->dragged) {
        if (isAsked(line) || isTicked(line)) Q_EMIT ticked(line.id, !isTicked(line));
        return;
    }
    for (const auto& one : laid(width()))
        if (const auto& container = cards_[one.card].container;
            one.area.contains(event->position()) && container.value_or("") != line.container)
            return Q_EMIT moved(line.id, container.value_or(""));
}

void PackingBoard::keyPressEvent(QKeyEvent* event) {
    std::vector<std::size_t> order;
    for (const auto& one : laid(width()))
        order.insert(order.end(), cards_[one.card].lines.begin(), cards_[one.card].lines.end());
    if (order.empty()) return QWidget::keyPressEvent(event);
    const auto now = std::ranges::find_if(order, [&](std::size_t i) { return lines_[i].id == marked_; });
    const auto at = now - order.begin(), last = static_cast<std::ptrdiff_t>(order.size()) - 1;
    const auto go = [&](std::ptrdiff_t to) {
        mark(lines_[order[static_cast<std::size_t>(std::clamp(to, std::ptrdiff_t{0}, last))]].id);
    };
    switch (event->key()) {
        case Qt::Key_Up:
            return go(at - 1);
        case Qt::Key_Down:
            return go(now == order.end() ? 0 : at + 1);
        case Qt::Key_Space:
            if (now != order.end()) {
                const auto line = lines_[*now];
                if (isAsked(line) || isTicked(line)) Q_EMIT ticked(line.id, !isTicked(line));
            }
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void PackingBoard::resizeEvent(QResizeEvent*) { setMinimumHeight(heightForWidth(width())); }

}  // namespace poquito::desk

#include "desk/day/moc_packing_board.moc"
