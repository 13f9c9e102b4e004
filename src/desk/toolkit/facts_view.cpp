#include "desk/toolkit/facts_view.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QPainter>

#include <cmath>

namespace poquito::desk {
namespace {

constexpr double line_height = 18;
constexpr double remark_height = 14;
constexpr double between = 2;

double heightOf(const std::vector<Fact>& facts, double width, int most) {
    double sum = line_height + 3;
    for (const auto& fact : facts)
        sum += line_height + between +
               remark_height * static_cast<double>(wrapped(textFont(11), fact.remark, width, most).size());
    return sum;
}

}  // namespace

FactsView::FactsView(const char* name, const QString& heading, QWidget* parent) : QWidget(parent), heading_(heading) {
    setObjectName(QLatin1String(name));
    setAccessibleName(heading);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void FactsView::setFacts(std::vector<Fact> facts) {
    if (facts == facts_) return;
    facts_ = std::move(facts);
    QStringList lines;
    for (const auto& fact : facts_) lines += fact.name + QLatin1Char(' ') + fact.value;
    setAccessibleDescription(lines.join(QStringLiteral("; ")));
    // The page scrolls before one of them is left out.
    setMinimumHeight(static_cast<int>(std::ceil(heightOf(facts_, width(), 1))));
    update();
}

void FactsView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    double y = 0;
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(theme().ink);
    drawLine(painter, QRectF(0, y, width(), line_height), Qt::AlignLeft | Qt::AlignVCenter, heading_);
    y += line_height + 3;
    int lines = 3;  // of a remark, where the room allows
    while (lines > 1 && heightOf(facts_, width(), lines) > height()) --lines;
    for (const auto& fact : facts_) {
        const auto remark = wrapped(textFont(11), fact.remark, width(), lines);
        const double needed = line_height + remark_height * static_cast<double>(remark.size());
        if (y + needed > height()) break;
        const auto value_font = textFont(12, QFont::DemiBold);
        // A short name leaves its room to the value.
        const double room = std::max(width() * 0.72, width() - lineWidth(textFont(12), fact.name) - 12);
        const double value_width = std::min(lineWidth(value_font, fact.value), room);
        painter.setFont(textFont(12));
        painter.setPen(theme().quiet);
        drawLine(painter, QRectF(0, y, width() - value_width - 8, line_height), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(12), fact.name, width() - value_width - 8));
        painter.setFont(value_font);
        painter.setPen(fact.colour.isValid() ? fact.colour : theme().ink);
        drawLine(painter, QRectF(width() - value_width, y, value_width, line_height), Qt::AlignRight | Qt::AlignVCenter,
                 elided(value_font, fact.value, value_width));
        y += line_height;
        painter.setFont(textFont(11));
        painter.setPen(theme().quiet);
        for (const QString& words : remark) {
            drawLine(painter, QRectF(0, y - 2, width(), remark_height), Qt::AlignLeft | Qt::AlignVCenter, words);
            y += remark_height;
        }
        painter.setPen(theme().hairline);
        painter.drawLine(QPointF(0, y), QPointF(width(), y));
        y += between;
    }
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_facts_view.moc"
