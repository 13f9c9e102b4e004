#include "desk/shell/station_rail.hpp"

#include "desk/shell/status_mark.hpp"

#include "desk/session/document.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QAbstractButton>
#include <QPainter>
#include <QPainterPath>

namespace poquito::desk {
namespace {
constexpr double ruler_y = 14;
}

class StationButton : public QAbstractButton {
  public:
    StationButton(int number, advice::Station station, QWidget* parent) : QAbstractButton(parent), number_(number) {
        setText(QLatin1String(advice::station_name(station)));
        setObjectName(QStringLiteral("station-%1").arg(text()));
        setToolTip(tr("Key %1").arg(number));
        setCheckable(true);
        setFocusPolicy(Qt::StrongFocus);
        setCursor(Qt::PointingHandCursor);
    }
    void setStatus(advice::Status status) {
        status_ = status;
        setAccessibleName(tr("%1, %2").arg(text(), QLatin1String(advice::status_name(status))));
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        if (hasFocus()) {
            painter.setPen(QPen(t.link, 1.5));
            painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
        }
        const QFont font = textFont(13, isChecked() ? QFont::DemiBold : QFont::Normal);
        const int text_width = QFontMetrics(font).horizontalAdvance(text());
        double x = (width() - (14 + text_width + 22)) / 2.0;
        painter.setFont(textFont(12));
        painter.setPen(t.quiet);
        painter.drawText(QRectF(x, 0, 14, height()), Qt::AlignLeft | Qt::AlignVCenter, QString::number(number_));
        x += 14;
        painter.setFont(font);
        painter.setPen(isChecked() ? t.focus : t.ink);
        painter.drawText(QRectF(x, 0, text_width + 4, height()), Qt::AlignLeft | Qt::AlignVCenter, text());
        drawStatus(painter, {x + text_width + 13, height() / 2.0}, markOf(status_));
    }

  private:
    int number_;
    advice::Status status_ = advice::Status::open;
};

StationRail::StationRail(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("stationRail"));
    setAccessibleName(tr("Stations"));
    for (std::size_t i = 0; i < buttons_.size(); ++i) {
        const auto station = advice::stations[i];
        buttons_[i] = new StationButton(static_cast<int>(i) + 1, station, this);
        connect(buttons_[i], &QAbstractButton::clicked, this, [this, station] {
            setCurrent(station);
            Q_EMIT chosen(station);
        });
    }
    connect(&document, &Document::shootChanged, this, &StationRail::refresh);
    connect(&document, &Document::selected, this, &StationRail::refresh);
    setCurrent(current_);
    refresh();
}

void StationRail::setCurrent(advice::Station station) {
    current_ = station;
    for (std::size_t i = 0; i < buttons_.size(); ++i) buttons_[i]->setChecked(advice::stations[i] == station);
    update();
}

void StationRail::refresh() {
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        buttons_[i]->setStatus(document_.shot() ? advice::status_of(*document_.assessment(), advice::stations[i])
                                                : advice::Status::open);
}

void StationRail::resizeEvent(QResizeEvent*) {
    const int each = width() / static_cast<int>(buttons_.size());
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        buttons_[i]->setGeometry(static_cast<int>(i) * each, static_cast<int>(ruler_y) + 8, each,
                                 height() - static_cast<int>(ruler_y) - 9);
}

void StationRail::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme& t = theme();
    const double each = width() / static_cast<double>(buttons_.size());
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(QLineF(each / 2, ruler_y, width() - each / 2, ruler_y));
    constexpr int between = 10;
    for (int i = 0; i <= between * (static_cast<int>(buttons_.size()) - 1); ++i) {
        const double x = each / 2 + i * each / between;
        const bool whole = i % between == 0;
        painter.setPen(QPen(whole ? t.ink : t.hairline, whole ? 1.4 : 1));
        painter.drawLine(QLineF(x, ruler_y, x, ruler_y + (whole ? 7 : i % (between / 2) == 0 ? 5 : 3)));
    }
    const double x = each * (static_cast<int>(current_) + 0.5);
    QPainterPath pointer(QPointF(x, ruler_y));
    pointer.lineTo(x - 6, ruler_y - 9);
    pointer.lineTo(x + 6, ruler_y - 9);
    pointer.closeSubpath();
    painter.fillPath(pointer, t.focus);
}

}  // namespace poquito::desk

#include "desk/shell/moc_station_rail.moc"
