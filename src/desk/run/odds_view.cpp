#include "desk/run/odds_view.hpp"

#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double row_height = 24, bar_height = 12, share_width = 44;  // pixels

QString timeWords(double seconds) { return toQt(text::time_text(seconds)); }

}  // namespace

QString oddsText(double chance) {
    if (chance >= 0.995) return QObject::tr("nearly all");
    if (chance >= 0.01) return QObject::tr("%1 of 100").arg(std::lround(chance * 100));
    if (chance >= 0.001) return QObject::tr("%1 of 1000").arg(std::lround(chance * 1000));
    return QObject::tr("hopeless");
}

OddsView::OddsView(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("oddsView"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

QString OddsView::headline() const {
    const auto* report = document_.report();
    if (!report || !report->chance) return tr("nothing is left to chance");
    return oddsText(report->chance->chance);
}

QString OddsView::meaning() const {
    const auto* report = document_.report();
    if (!report || !report->chance)
        return tr(
            "Nothing moves and no hand holds it. Enter a sway or a speed at Subject, the hand at Reach, or a throw "
            "at Light.");
    const auto& chance = *report->chance;
    if (chance.burst && chance.burst->row.frames < 1) return tr("The flash gives no whole frame at that pace.");
    const QString one = chance.burst        ? tr("one with a sharp frame in it")
                        : chance.frames > 1 ? tr("a stack of %1 frames, all sharp").arg(std::lround(chance.frames))
                                            : tr("one that is sharp");
    if (!std::isfinite(chance.tries)) return tr("No number of tries makes %1 likely.").arg(one);
    const bool counted = chance.counted && document_.shot()->tries->tried >= plan::enough_tried;
    QString words = counted ? tr("As counted: ") : tr("As reckoned: ");
    words += chance.tries <= 1 ? tr("one try is enough for %1.").arg(one)
                               : tr("%1 tries for %2 (19 times of 20), about %3.")
                                     .arg(toQt(text::number_text(chance.tries, 4)), one,
                                          timeWords(chance.tries * chance.seconds_a_try));
    QStringList costs;
    const auto add = [&](const std::optional<double>& share, const QString& part, const QString& many) {
        constexpr double told = 0.01;
        if (!share || *share < told) return;
        costs << (*share > 1 ? many.arg(toQt(text::number_text(std::ceil(*share), 4)))
                             : part.arg(toQt(text::number_text(*share * 100, 2))));
    };
    add(chance.card_share, tr("%1 % of the card"), tr("%1 such cards"));
    add(chance.charge_share, tr("%1 % of a battery"), tr("%1 batteries"));
    add(chance.flash_charge_share, tr("%1 % of a flash's charge"), tr("%1 charges of a flash"));
    if (chance.burst)
        words += tr(" Each burst is %1 frames in %2; the %3 sets that.")
                     .arg(QString::number(chance.burst->row.frames), timeWords(chance.burst->seconds()),
                          tr(plan::limit_name(chance.burst->limit)));
    if (!costs.isEmpty()) words += QLatin1Char(' ') + costs.join(tr(", ")) + QLatin1Char('.');
    if (chance.visits && std::isfinite(*chance.visits))
        words +=
            tr(" It gives about %1 tries a visit: %2 visits.")
                .arg(toQt(text::number_text(*chance.tries_a_visit, 2)), toQt(text::number_text(*chance.visits, 4)));
    const auto& freeze = document_.shot()->freeze;
    if (freeze && freeze->pieces > 1 && report->freeze && report->freeze->path)
        words += tr(" Of %1 pieces about %2 are sharp and in the frame.")
                     .arg(freeze->pieces)
                     .arg(toQt(text::number_text(report->freeze->path->inside * freeze->pieces, 2)));
    if (chance.stop_after && chance.tries > *chance.stop_after)
        words += *chance.stop_after > 0
                     ? tr(" Your limit ends it after %1, with a chance of %2 to have one.")
                           .arg(toQt(text::number_text(*chance.stop_after, 4)), oddsText(chance.by_then))
                     : tr(" Not even ten tries fit your limit.");
    return words;
}

void OddsView::paintEvent(QPaintEvent*) {
    const auto* report = document_.report();
    if (!report) return;
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const bool any = report->chance.has_value();
    painter.setFont(textFont(any ? 34 : 15, QFont::DemiBold));
    painter.setPen(any && report->chance->chance < 0.05 ? t.caution : t.ink);
    const double top = any ? 44 : 24;
    drawLine(painter, QRectF(0, 0, width(), top), Qt::AlignLeft | Qt::AlignVCenter, headline());
    painter.setFont(textFont(12));
    painter.setPen(t.ink);
    QRectF used;
    painter.drawText(QRectF(0, top + 2, width(), 110), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, meaning(),
                     &used);
    if (!any) return;
    paintBars(painter, *report->chance, std::max(used.bottom() + 8, top + 30));
}

/// From `y` on down.
void OddsView::paintBars(QPainter& painter, const plan::ChanceReport& chance, double y) const {
    const Theme& t = theme();
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(0, y, width(), 16), Qt::AlignLeft | Qt::AlignVCenter, tr("Of frames, each lets be sharp"));
    y += 18;
    double name_width = 40;
    for (const auto& cause : chance.causes)
        name_width = std::max(name_width, lineWidth(textFont(12), tr(plan::cause_name(cause.cause))) + 10);
    name_width = std::min(name_width, width() * 0.52);
    const QRectF scale(name_width, y, std::max(40.0, width() - name_width - share_width), 0);
    const auto x = [&](double share) { return scale.left() + std::clamp(share, 0.0, 1.0) * scale.width(); };
    const auto row = [&](const QString& name, double share, const QColor& colour, bool strong) {
        painter.setFont(textFont(12, strong ? QFont::DemiBold : QFont::Normal));
        painter.setPen(t.ink);
        drawLine(painter, QRectF(0, y, name_width - 8, row_height), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter.font(), name, name_width - 8));
        const QRectF bar(scale.left(), y + (row_height - bar_height) / 2, scale.width(), bar_height);
        painter.fillRect(bar, t.linkWash);
        painter.fillRect(QRectF(bar.topLeft(), QPointF(std::max(x(share), x(0) + 1), bar.bottom())), colour);
        painter.setPen(t.ink);
        drawLine(painter, QRectF(scale.right() + 6, y, share_width - 6, row_height), Qt::AlignRight | Qt::AlignVCenter,
                 share >= 0.0995 || share <= 0 ? tr("%1 %").arg(std::lround(share * 100))
                                               : tr("%1 %").arg(toQt(text::number_text(share * 100, 2))));
        y += row_height;
    };
    constexpr double worth_work = 0.9;
    for (std::size_t i = 0; i < chance.causes.size(); ++i) {
        const auto& cause = chance.causes[i];
        row(tr(plan::cause_name(cause.cause)), cause.share, i == 0 && cause.share < worth_work ? t.caution : t.link,
            false);
    }
    if (!chance.causes.empty()) {
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(0, y + 2), QPointF(width(), y + 2));
        y += 4;
        const double reckoned = std::pow(chance.reckoned, chance.frames);
        row(chance.frames > 1 ? tr("all %1 frames").arg(std::lround(chance.frames)) : tr("together"), reckoned, t.ink,
            true);
    }
    if (!chance.counted) return;
    row(tr("counted"), chance.counted->share, t.focus, true);
    const double middle = y - row_height / 2;
    painter.setPen(QPen(t.ink, 1.5));
    painter.drawLine(QPointF(x(chance.counted->least), middle), QPointF(x(chance.counted->greatest), middle));
    for (const double end : {chance.counted->least, chance.counted->greatest})
        painter.drawLine(QPointF(x(end), middle - 5), QPointF(x(end), middle + 5));
}

}  // namespace poquito::desk

#include "desk/run/moc_odds_view.moc"
