#include "desk/book/review_page.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QDate>
#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double review_head = 62, review_row = 42, otherwise_height = 40;

QString minutesText(double minutes) { return toQt(text::time_text(minutes * 60)); }

QString longDay(const std::string& day) {
    const auto date = QDate::fromString(toQt(day), Qt::ISODate);
    return date.isValid() ? QLocale(QLocale::English).toString(date, QStringLiteral("dddd, d MMMM yyyy")) : toQt(day);
}

bool isTaken(const log::ReviewedShot& shot) { return shot.runs > 0 || shot.frames > 0 || !shot.verdict.empty(); }

QString timesText(int often) { return toQt(text::count_text(often, "time", "times")); }

}  // namespace

ReviewPage::ReviewPage(QWidget* parent) : BookPage(parent) {
    setObjectName(QStringLiteral("reviewPage"));
    setAccessibleName(tr("The day looked back on"));
}

void ReviewPage::setReview(log::Review review) {
    review_ = std::move(review);
    QStringList says;
    for (const auto& shot : review_.shots)
        says << tr("%1: %2 of %3 frames").arg(toQt(shot.name)).arg(shot.frames).arg(shot.planned_frames);
    for (const auto& cause : review_.causes) says << toQt(cause.text);
    for (const auto& one : review_.otherwise) says << toQt(one);
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    fit();
}

std::size_t ReviewPage::rows() const {
    const auto taken = std::ranges::count_if(review_.shots, isTaken);
    // One more for those that were not.
    const auto left =
        static_cast<std::size_t>(taken) + (static_cast<std::size_t>(taken) < review_.shots.size() ? 1 : 0);
    return std::max(left, std::max<std::size_t>(1, review_.causes.size()));
}

double ReviewPage::heightFor(double) const {
    return review_head + headingHeight + review_row * static_cast<double>(rows()) + 16 + headingHeight +
           otherwise_height * static_cast<double>(std::max<std::size_t>(1, review_.otherwise.size())) + 8;
}

double ReviewPage::drawHead(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    const auto& r = review_;
    writeLine(painter, QRectF(area.left(), area.top(), area.width() * 0.7, 20), textFont(15, QFont::DemiBold), t.ink,
              r.day.empty() ? tr("Nothing was logged of this shoot yet") : longDay(r.day));
    if (r.day.empty()) {
        writeLine(painter, QRectF(area.left(), area.top() + 24, area.width(), 16), textFont(12), t.quiet,
                  tr("Once something was run or looked at in Proof, its day stands here on a page: what was planned, "
                     "what happened, and what the changes took."));
        return area.top() + review_head;
    }
    painter.setFont(textFont(12));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(area.right() - area.width() * 0.3, area.top(), area.width() * 0.3, 20),
             Qt::AlignRight | Qt::AlignVCenter,
             tr("%1 to %2, %3")
                 .arg(toQt(text::day_time_text(r.begin * 60)), toQt(text::day_time_text(r.end * 60)),
                      minutesText(r.end - r.begin)));
    QStringList counts;
    if (r.kept > 0) counts << tr("%1 kept").arg(r.kept);
    if (r.redone > 0) counts << tr("%1 to be taken again").arg(r.redone);
    if (r.open > 0) counts << tr("%1 without a verdict").arg(r.open);
    writeLine(painter, QRectF(area.left(), area.top() + 22, area.width(), 16), textFont(12), t.ink,
              tr("Of %1 shots: %2.").arg(r.shots.size()).arg(counts.join(QStringLiteral(", "))));
    const double rest = std::max(0.0, r.end - r.begin - r.running - r.changing);
    writeLine(
        painter, QRectF(area.left(), area.top() + 38, area.width(), 16), textFont(12), t.quiet,
        tr("Frames ran for %1, changes took %2 where %3 were planned; %4 went into looking, placing and waiting.")
            .arg(minutesText(r.running), minutesText(r.changing), minutesText(r.planned_changing), minutesText(rest)));
    return area.top() + review_head;
}

void ReviewPage::drawShots(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    writeHeading(painter, area, tr("Planned and taken, in frames"));
    int most = 1;
    for (const auto& shot : review_.shots)
        if (isTaken(shot)) most = std::max({most, shot.frames, shot.planned_frames});
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    const double words = area.width() * 0.5, from = area.left() + words, wide = area.width() - words - 44;
    double y = area.top() + headingHeight;
    QStringList others;
    for (const auto& shot : review_.shots) {
        if (!isTaken(shot)) {
            others << toQt(shot.name);
            continue;
        }
        if (!shot.verdict.empty())
            drawStatus(painter, QPointF(area.left() + 6, y + 12),
                       shot.verdict == "keep" ? Status::settled : Status::doubtful);
        writeLine(painter, QRectF(area.left() + 20, y + 3, words - 28, 16), bold, t.ink, toQt(shot.name));
        QStringList facts;
        if (shot.runs > 0 && shot.minutes > 0)
            facts << tr("%1 in %2").arg(minutesText(shot.minutes), toQt(text::count_text(shot.runs, "run", "runs")));
        else if (shot.runs > 0)
            facts << toQt(text::count_text(shot.runs, "run", "runs"));
        if (shot.f_number && shot.planned_f_number && *shot.f_number != *shot.planned_f_number)
            facts << tr("%1, planned %2")
                         .arg(toQt(text::f_number_text(*shot.f_number)),
                              toQt(text::f_number_text(*shot.planned_f_number)));
        writeLine(painter, QRectF(area.left() + 20, y + 19, words - 28, 15), small, t.quiet,
                  facts.join(QStringLiteral(" \u00b7 ")));
        const auto x = [&](int frames) { return from + wide * frames / most; };
        painter.fillRect(QRectF(QPointF(from, y + 8), QPointF(x(shot.frames), y + 20)), t.focusWash);
        painter.setPen(QPen(t.focus, 1.4));
        painter.drawLine(QPointF(x(shot.frames), y + 6), QPointF(x(shot.frames), y + 22));
        painter.setPen(QPen(t.ink, 1, Qt::DashLine));
        painter.drawLine(QPointF(x(shot.planned_frames), y + 3), QPointF(x(shot.planned_frames), y + 25));
        painter.setFont(small);
        painter.setPen(t.ink);
        drawLine(painter, QRectF(from + wide + 2, y + 6, 42, 16), Qt::AlignRight | Qt::AlignVCenter,
                 tr("%1 / %2").arg(shot.frames).arg(shot.planned_frames));
        y += review_row;
    }
    if (others.isEmpty()) return;
    painter.setFont(small);
    painter.setPen(t.quiet);
    painter.drawText(
        QRectF(area.left() + 20, y + 4, area.width() - 24, review_row - 6),
        Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
        elided(small, tr("Not taken that day: %1.").arg(others.join(QStringLiteral(", "))), (area.width() - 24) * 1.9));
}

void ReviewPage::drawCauses(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    writeHeading(painter, area, tr("What went wrong, the dearest first"));
    double y = area.top() + headingHeight, most = 0;
    if (review_.causes.empty())
        writeLine(painter, QRectF(area.left(), y, area.width(), 16), textFont(12), t.quiet,
                  tr("Nothing was found wrong that day."));
    for (const auto& cause : review_.causes) most = std::max(most, cause.minutes);
    for (const auto& cause : review_.causes) {
        writeLine(painter, QRectF(area.left(), y + 3, area.width() - 70, 16), textFont(12, QFont::DemiBold), t.ink,
                  toQt(cause.text));
        painter.setFont(textFont(12));
        painter.setPen(cause.minutes > 0 ? t.stop : t.quiet);
        drawLine(painter, QRectF(area.right() - 70, y + 3, 70, 16), Qt::AlignRight | Qt::AlignVCenter,
                 cause.minutes > 0 ? minutesText(cause.minutes) : tr("%1\u00d7").arg(cause.often));
        QStringList shots;
        for (const auto& shot : cause.shots) shots << toQt(shot);
        writeLine(painter, QRectF(area.left(), y + 19, area.width(), 15), textFont(11), t.quiet,
                  cause.minutes > 0 ? tr("%1: %2").arg(timesText(cause.often), shots.join(QStringLiteral(", ")))
                                    : shots.join(QStringLiteral(", ")));
        if (most > 0 && cause.minutes > 0)
            painter.fillRect(QRectF(area.left(), y + 35, area.width() * cause.minutes / most, 2.5), t.stop);
        y += review_row;
    }
}

void ReviewPage::drawOtherwise(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    writeHeading(painter, area, tr("To do otherwise"));
    double y = area.top() + headingHeight;
    if (review_.otherwise.empty())
        writeLine(painter, QRectF(area.left(), y, area.width(), 16), textFont(12), t.quiet,
                  tr("Nothing: do it so again."));
    int number = 0;
    for (const auto& one : review_.otherwise) {
        painter.setFont(textFont(15, QFont::DemiBold));
        painter.setPen(t.link);
        drawLine(painter, QRectF(area.left(), y, 20, 20), Qt::AlignLeft | Qt::AlignVCenter, QString::number(++number));
        painter.setFont(textFont(13));
        painter.setPen(t.ink);
        painter.drawText(QRectF(area.left() + 24, y, area.width() - 24, otherwise_height),
                         Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, toQt(one));
        y += otherwise_height;
    }
}

void ReviewPage::draw(QPainter& painter, const QRectF& area) const {
    const double top = drawHead(painter, area);
    if (review_.day.empty()) return;
    const double gap = 24, left = (area.width() - gap) * 0.58;
    drawShots(painter, QRectF(area.left(), top, left, 10));
    drawCauses(painter, QRectF(area.left() + left + gap, top, area.width() - left - gap, 10));
    drawOtherwise(painter, QRectF(area.left(), top + headingHeight + review_row * static_cast<double>(rows()) + 16,
                                  area.width(), 10));
}

}  // namespace poquito::desk

#include "desk/book/moc_review_page.moc"
