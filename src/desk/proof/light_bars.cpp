#include "desk/proof/light_bars.hpp"

#include "desk/drawing/tones.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

using imaging::LightHistogram;
constexpr double mid_grey = 0.18, full = 2.474;  // stops of full scale above it

}  // namespace

LightBars::LightBars(QWidget* parent) : Chart(parent) {
    setObjectName(QStringLiteral("lightBars"));
    setAccessibleName(tr("Light of this frame, in stops from mid grey"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(LightBars::sizeHint().height());
    setMargins(2, 18, 2, 18);
}

void LightBars::setScan(std::shared_ptr<const imaging::FrameScan> scan) {
    scan_ = std::move(scan);
    setAccessibleDescription(scan_ ? tr("median %1 stops, %2 clipped, %3 black")
                                         .arg(stopsText(scan_->median_stops), percentText(scan_->clipped_share, 2),
                                              percentText(scan_->black_share, 2))
                                   : QString());
    refresh();
}

bool LightBars::prepare() {
    if (!scan_) return false;
    const auto& shares = scan_->histogram.shares;
    const double to = LightHistogram::from + LightHistogram::step * static_cast<double>(shares.size());
    setAxes(Axis::even(LightHistogram::from, to),
            Axis::even(0, std::max(0.02, static_cast<double>(*std::ranges::max_element(shares)))));
    return true;
}

void LightBars::draw(QPainter& painter) {
    const Theme& t = theme();
    drawTitle(painter, tr("Light, median %1 stops").arg(stopsText(scan_->median_stops)));
    const auto& shares = scan_->histogram.shares;
    painter.setPen(QPen(t.hairline, 1));
    for (std::size_t i = 0; i < shares.size(); ++i) {
        if (shares[i] <= 0) continue;
        const double from = LightHistogram::from + LightHistogram::step * static_cast<double>(i);
        const QRectF bar(QPointF(xOf(from) + 0.5, yOf(static_cast<double>(shares[i]))),
                         QPointF(xOf(from + LightHistogram::step) - 0.5, area().bottom()));
        painter.fillRect(bar, greyOf(mid_grey * std::exp2(from + LightHistogram::step / 2)));
        painter.drawRect(bar);
    }
    drawAcross(painter, QPen(t.hairline, 1), 0);
    drawUpright(painter, QPen(t.stop, 1, Qt::DashLine), full);
    drawColumns(painter,
                {{-8, QStringLiteral("\u22128")},
                 {-5, tr("\u22125 black")},
                 {-2, QStringLiteral("\u22122")},
                 {0, tr("0 grey")},
                 {full, tr("full")}},
                Lines::ticks);
    QStringList ends;
    if (scan_->clipped_share >= 5e-4) ends << tr("%1 clipped").arg(percentText(scan_->clipped_share, 2));
    if (scan_->black_share >= 5e-4) ends << tr("%1 black").arg(percentText(scan_->black_share, 2));
    painter.setFont(textFont(11));
    painter.setPen(scan_->clipped_share >= 0.01 ? t.stop : t.quiet);
    drawLine(painter, QRectF(0, 0, width(), 16), Qt::AlignRight | Qt::AlignVCenter, ends.join(QStringLiteral(", ")));
}

QString LightBars::reading(double x, double) const {
    const auto at = static_cast<std::ptrdiff_t>((x - LightHistogram::from) / LightHistogram::step);
    const auto& shares = scan_->histogram.shares;
    if (at < 0 || at >= static_cast<std::ptrdiff_t>(shares.size())) return {};
    const double from = LightHistogram::from + LightHistogram::step * static_cast<double>(at);
    return tr("%1 of the frame at %2 to %3 stops")
        .arg(percentText(static_cast<double>(shares[static_cast<std::size_t>(at)]), 2), stopsText(from),
             stopsText(from + LightHistogram::step));
}

}  // namespace poquito::desk

#include "desk/proof/moc_light_bars.moc"
