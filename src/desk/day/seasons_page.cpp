#include "desk/day/seasons_page.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QDate>
#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double season_row = 25, months_height = 24;

}  // namespace

SeasonsPage::SeasonsPage(QWidget* parent) : BookPage(parent) {
    setObjectName(QStringLiteral("seasonsPage"));
    setAccessibleName(tr("What is there when"));
}

void SeasonsPage::setRows(std::vector<log::SeasonRow> rows, int thisWeek, const std::vector<log::BestWeek>& best) {
    best_.clear();
    for (const auto& one : best) best_.push_back(one.week);
    rows_ = std::move(rows);
    week_ = thisWeek;
    QStringList says;
    for (const auto& row : rows_)
        if (const int until = log::weeks_until(row, week_); until == 0)
            says << tr("%1: now").arg(toQt(row.name));
        else if (until < log::weeks)
            says << tr("%1: in %2 weeks").arg(toQt(row.name)).arg(until);
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    fit();
}

double SeasonsPage::heightFor(double) const {
    return headingHeight + months_height + season_row * static_cast<double>(rows_.size()) + 30;
}

void SeasonsPage::draw(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    const double words = area.width() * 0.46, from = area.left() + words, wide = area.width() - words - 4;
    const auto x = [&](double week) { return from + wide * week / log::weeks; };
    writeHeading(painter, area, tr("What is there when"));
    double y = area.top() + headingHeight;
    painter.setFont(textFont(11));
    for (int month = 1; month <= 12; ++month) {
        const double left = from + wide * (month - 1) / 12;
        painter.setPen(t.quiet);
        drawLine(painter, QRectF(left + 2, y, wide / 12 - 2, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 QLocale(QLocale::English).monthName(month, QLocale::ShortFormat));
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(left, y),
                         QPointF(left, y + months_height + season_row * static_cast<double>(rows_.size())));
    }
    y += months_height;
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const auto& row = rows_[i];
        if (i > 0 && rows_[i - 1].own && !row.own) {
            painter.setPen(QPen(t.ink, 1));
            painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
        }
        const bool now = log::weeks_until(row, week_) == 0;
        const double named = std::min(words * 0.62, lineWidth(bold, toQt(row.name)) + 10);
        writeLine(painter, QRectF(area.left(), y + 4, named, 16), bold, t.ink, toQt(row.name));
        writeLine(painter, QRectF(area.left() + named, y + 4, words - named - 10, 16), small, now ? t.focus : t.quiet,
                  row.own ? tr("yours, %1: %2").arg(row.cases).arg(toQt(row.note)) : toQt(row.note));
        for (int week = 0; week < log::weeks; ++week)
            if (row.there[static_cast<std::size_t>(week)])
                painter.fillRect(QRectF(QPointF(x(week), y + 7), QPointF(x(week + 1) + 0.5, y + 18)),
                                 row.own ? t.focus : t.focusWash);
        y += season_row;
    }
    // The best weeks ahead: a band behind everything, and a mark over it.
    for (const int week : best_) {
        QColor band = t.light;
        band.setAlphaF(0.18F);
        const double top = area.top() + headingHeight + 16;
        painter.fillRect(QRectF(QPointF(x(week), top), QPointF(x(week + 1), y)), band);
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.light);
        const double middle = x(week + 0.5);
        painter.drawPolygon(QPolygonF({{middle - 5, top - 2}, {middle + 5, top - 2}, {middle, top + 6}}));
    }
    painter.setPen(QPen(t.link, 1.6));
    painter.drawLine(QPointF(x(week_ + 0.5), area.top() + headingHeight), QPointF(x(week_ + 0.5), y));
    painter.setFont(small);
    drawLabel(painter, QPointF(std::clamp(x(week_ + 0.5), from + 24, area.right() - 24), y + 10), Qt::AlignCenter,
              tr("this week"), t.link);
}

}  // namespace poquito::desk

#include "desk/day/moc_seasons_page.moc"
