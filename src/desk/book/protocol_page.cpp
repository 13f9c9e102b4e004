#include "desk/book/protocol_page.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QDate>
#include <QLocale>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr double protocol_line = 17, strip_height = 84, protocol_head = 44;

QDate dateOf(const std::string& time) { return QDate::fromString(toQt(time.substr(0, 10)), Qt::ISODate); }
QString shortDay(const std::string& time) {
    return QLocale(QLocale::English).toString(dateOf(time), QStringLiteral("d MMM yyyy"));
}

}  // namespace

ProtocolPage::ProtocolPage(QWidget* parent) : BookPage(parent) {
    setObjectName(QStringLiteral("protocolPage"));
    setAccessibleName(tr("A series over the months"));
}

void ProtocolPage::setProtocol(std::optional<log::Protocol> protocol) {
    protocol_ = std::move(protocol);
    QStringList says;
    if (protocol_) {
        for (const auto& drift : protocol_->drifts) says << toQt(drift.text);
        if (protocol_->drifts.empty()) says << tr("nothing has drifted");
        for (const auto& one : protocol_->settings) says << toQt(one);
    }
    setAccessibleDescription(says.join(QStringLiteral("; ")));
    fit();
}

double ProtocolPage::heightFor(double) const {
    if (!protocol_) return 120;
    const auto drifts = static_cast<double>(std::max<std::size_t>(1, protocol_->drifts.size()));
    const auto settings = static_cast<double>(protocol_->settings.size());
    return protocol_head + drifts * protocol_line + 12 + 3 * strip_height + 30 + settings * protocol_line + 10;
}

double ProtocolPage::drawHead(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    const auto& p = *protocol_;
    writeLine(painter, QRectF(area.left(), area.top(), area.width(), 20), textFont(15, QFont::DemiBold), t.ink,
              toQt(p.name));
    QStringList locks;
    for (const auto lock : p.locks) locks << QString::fromUtf8(job::lock_name(lock));
    const auto kept = locks.isEmpty() ? tr("nothing is locked, so all is compared")
                                      : tr("locked: %1").arg(locks.join(QStringLiteral("; ")));
    writeLine(painter, QRectF(area.left(), area.top() + 22, area.width(), 16), textFont(12), t.quiet,
              tr("%1, %2 to %3; %4")
                  .arg(toQt(text::count_text(static_cast<double>(p.sessions.size()), "session", "sessions")),
                       shortDay(p.sessions.front().time), shortDay(p.sessions.back().time), kept));
    double y = area.top() + protocol_head;
    if (p.drifts.empty()) {
        drawStatus(painter, QPointF(area.left() + 6, y + 8), Status::settled);
        writeLine(painter, QRectF(area.left() + 20, y, area.width() - 20, 16), textFont(12), t.ink,
                  tr("The last session looks as the first one did."));
        return y + protocol_line;
    }
    for (const auto& drift : p.drifts) {
        drawStatus(painter, QPointF(area.left() + 6, y + 8), Status::doubtful);
        writeLine(painter, QRectF(area.left() + 20, y, area.width() - 20, 16), textFont(12), t.ink, toQt(drift.text));
        y += protocol_line;
    }
    return y;
}

/// Over time, from the first session to the last; the band is what does not matter.
void ProtocolPage::drawStrip(QPainter& painter, const QRectF& area, const QString& title, const Reads& reads,
                             double may, const QString& unit) const {
    const Theme& t = theme();
    const auto& sessions = protocol_->sessions;
    double most = 2 * may;
    for (const auto& session : sessions)
        if (const auto value = reads(session)) most = std::max(most, std::abs(*value));
    constexpr double words = 172, ends = 56;
    const QRectF chart(area.left() + words, area.top() + 6, area.width() - words - ends, area.height() - 22);
    const auto first = dateOf(sessions.front().time), last = dateOf(sessions.back().time);
    const double days = std::max<double>(1, static_cast<double>(first.daysTo(last)));
    const auto x = [&](const log::Session& session) {
        return chart.left() + chart.width() * static_cast<double>(first.daysTo(dateOf(session.time))) / days;
    };
    const auto y = [&](double value) { return chart.center().y() - chart.height() / 2 * value / most; };
    writeLine(painter, QRectF(area.left(), chart.top() - 2, words - 12, 16), textFont(12, QFont::DemiBold), t.ink,
              title);
    writeLine(painter, QRectF(area.left(), chart.top() + 14, words - 12, 15), textFont(11), t.quiet,
              tr("unseen within %1 %2").arg(toQt(text::number_text(may, 2)), unit));
    painter.fillRect(QRectF(QPointF(chart.left(), y(may)), QPointF(chart.right(), y(-may))), t.focusWash);
    painter.setPen(QPen(t.hairline, 1));
    painter.drawRect(chart);
    painter.drawLine(QPointF(chart.left(), y(0)), QPointF(chart.right(), y(0)));
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    for (const double end : {most, -most})
        drawLine(painter, QRectF(chart.right() + 4, y(end) - 7, ends - 4, 14), Qt::AlignLeft | Qt::AlignVCenter,
                 (end > 0 ? QStringLiteral("+") : QStringLiteral("\u2212")) + toQt(text::number_text(most, 2)));
    std::optional<QPointF> before;
    bool any = false;
    for (const auto& session : sessions) {
        const auto value = reads(session);
        if (!value) continue;
        any = true;
        const QPointF place(x(session), y(*value));
        painter.setPen(QPen(t.focus, 1));
        if (before) painter.drawLine(*before, place);
        before = place;
    }
    for (const auto& session : sessions) {
        const auto value = reads(session);
        if (!value) continue;
        const QPointF place(x(session), y(*value));
        const bool off = std::abs(*value) > may;
        painter.setPen(QPen(off ? t.stop : t.focus, 1.6));
        painter.setBrush(session.measured ? (off ? t.stop : t.focus) : t.panel);
        if (off)
            painter.drawRect(QRectF(place - QPointF(3.5, 3.5), QSizeF(7, 7)));
        else
            painter.drawEllipse(place, 3.5, 3.5);
    }
    painter.setBrush(Qt::NoBrush);
    if (!any)
        writeLine(painter, QRectF(chart.left() + 8, chart.center().y() - 18, chart.width() - 16, 16), textFont(12),
                  t.quiet, tr("no frames of it were looked at"));
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(chart.left(), chart.bottom() + 1, 90, 14), Qt::AlignLeft | Qt::AlignVCenter,
             shortDay(sessions.front().time));
    drawLine(painter, QRectF(chart.right() - 90, chart.bottom() + 1, 90, 14), Qt::AlignRight | Qt::AlignVCenter,
             shortDay(sessions.back().time));
}

void ProtocolPage::drawSettings(QPainter& painter, const QRectF& area) const {
    const Theme& t = theme();
    writeHeading(painter, area, tr("To lay out again, as in the first session"));
    double y = area.top() + headingHeight;
    for (const auto& one : protocol_->settings) {
        writeLine(painter, QRectF(area.left(), y, area.width(), 16), textFont(12), t.ink, toQt(one));
        y += protocol_line;
    }
}

void ProtocolPage::draw(QPainter& painter, const QRectF& area) const {
    if (!protocol_) {
        writeLine(painter, QRectF(area.left(), area.top(), area.width(), 20), textFont(15, QFont::DemiBold),
                  theme().ink, tr("No shot of this shoot was logged on two days yet"));
        writeLine(painter, QRectF(area.left(), area.top() + 24, area.width(), 16), textFont(12), theme().quiet,
                  tr("Take a shot again on another day, as of a patient, a coin or a plant: its sessions then stand "
                     "here beside the first one, with what drifted."));
        return;
    }
    double y = drawHead(painter, area) + 12;
    const auto strip = [&](const QString& title, const Reads& reads, double may, const QString& unit) {
        drawStrip(painter, QRectF(area.left(), y, area.width(), strip_height), title, reads, may, unit);
        y += strip_height;
    };
    strip(
        tr("Lightness, stops"), [](const log::Session& s) { return s.exposure; }, log::exposure_may, tr("stops"));
    strip(
        tr("Size, %"),
        [](const log::Session& s) { return s.scale ? std::optional((*s.scale - 1) * 100) : std::nullopt; },
        log::scale_may * 100, tr("%"));
    strip(
        tr("Off its place, %"),
        [](const log::Session& s) { return s.framing ? std::optional(*s.framing * 100) : std::nullopt; },
        log::framing_may * 100, tr("%"));
    drawSettings(painter, QRectF(area.left(), y + 4, area.width(), 10));
}

}  // namespace poquito::desk

#include "desk/book/moc_protocol_page.moc"
