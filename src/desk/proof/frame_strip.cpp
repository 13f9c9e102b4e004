#include "desk/proof/frame_strip.hpp"

#include "desk/session/frame_pictures.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double least_width = 30, most_width = 74;  // px of a cell
constexpr double picture_height = 40, number_height = 16, row_height = 24, names = 48;

}  // namespace

FrameStrip::FrameStrip(FramePictures& pictures, QWidget* parent) : QWidget(parent), pictures_(pictures) {
    setObjectName(QStringLiteral("frameStrip"));
    setAccessibleName(tr("The frames in a row"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(FrameStrip::sizeHint().height());
    setMouseTracking(true);
    connect(&pictures, &FramePictures::arrived, this, qOverload<>(&QWidget::update));
}

void FrameStrip::setLook(const ProofLook* look) {
    look_ = look;
    const int rows_high = look && look->inspection && look->inspection->stack ? 3 : 0;
    setFixedHeight(static_cast<int>(picture_height + number_height + 6 + rows_high * row_height));
    setAccessibleDescription(look ? tr("%1 of %2 frames looked at").arg(look->done).arg(look->facts.size())
                                  : QString());
    update();
}

void FrameStrip::setCurrent(std::size_t frame) {
    current_ = frame;
    update();
}

double FrameStrip::cellWidth() const {
    const double count = look_ ? static_cast<double>(std::max<std::size_t>(1, look_->frames.files.size())) : 1;
    return std::clamp((width() - names) / count, least_width, most_width);
}

std::size_t FrameStrip::shown() const {
    if (!look_) return 0;
    return std::min(look_->frames.files.size(),
                    static_cast<std::size_t>(std::max(1.0, (width() - names) / cellWidth())));
}

/// Where there are more than fit, the one that is shown stays near the middle.
std::size_t FrameStrip::first() const {
    const std::size_t count = look_ ? look_->frames.files.size() : 0, fit = shown();
    const std::size_t before = fit / 2;
    return std::min(current_ > before ? current_ - before : 0, count - fit);
}

QRectF FrameStrip::cellRect(std::size_t frame) const {
    if (!look_ || frame < first() || frame >= first() + shown()) return {};
    return {static_cast<double>(frame - first()) * cellWidth(), 0, cellWidth(), picture_height + number_height};
}

void FrameStrip::paintEvent(QPaintEvent*) {
    if (!look_ || look_->frames.files.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paintCells(painter);
    double top = picture_height + number_height + 4;
    for (const Row& row : rows()) {
        paintRow(painter, row, QRectF(0, top, static_cast<double>(shown()) * cellWidth(), row_height));
        top += row_height;
    }
}

void FrameStrip::paintCells(QPainter& painter) const {
    const Theme& t = theme();
    for (std::size_t i = first(); i < first() + shown(); ++i) {
        const QRectF cell = cellRect(i);
        const QRectF frame = QRectF(cell.left() + 1, cell.top() + 1, cell.width() - 2, picture_height - 2);
        const auto& facts = look_->facts[i];
        painter.fillRect(frame, t.greyScale[1]);
        const QImage image = pictures_.picture(look_->frames.files[i], FramePictures::Kind::thumbnail);
        if (!image.isNull()) drawFilling(painter, frame, image);
        if (!facts) painter.fillRect(frame, t.shadePicture);
        // The worst that is said of it, also by the stack's notes: a square stops, a triangle is to be looked at.
        std::optional<proof::Tone> worst;
        for (const auto& note : look_->notes)
            if (note.tone <= proof::Tone::caution && 2 * note.frames.size() <= look_->frames.files.size() &&
                std::ranges::find(note.frames, i) != note.frames.end() && (!worst || note.tone < *worst))
                worst = note.tone;
        const bool stop = worst == proof::Tone::stop;
        if (worst) {
            painter.setPen(QPen(stop ? t.stop : t.caution, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(frame.adjusted(1, 1, -1, -1));
        }
        if (i == current_) {
            painter.setPen(QPen(t.link, 2.6));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(frame.adjusted(-0.3, -0.3, 0.3, 0.3));
        }
        painter.setFont(textFont(11, i == current_ || worst ? QFont::DemiBold : QFont::Normal));
        painter.setPen(stop ? t.stop : worst ? t.caution : i == current_ ? t.link : t.quiet);
        const QRectF number(cell.left(), picture_height, cell.width(), number_height);
        drawLine(painter, number, Qt::AlignCenter, QString::number(i + 1));
        if (!worst || cell.width() < 26) continue;
        const QPointF mark(number.center().x() - lineWidth(painter.font(), QString::number(i + 1)) / 2 - 7,
                           number.center().y());
        painter.setPen(Qt::NoPen);
        painter.setBrush(stop ? t.stop : t.caution);
        if (stop)
            painter.drawRect(QRectF(mark - QPointF(3, 3), QSizeF(6, 6)));
        else
            painter.drawPolygon(QPolygonF({mark + QPointF(-3.6, 3), mark + QPointF(3.6, 3), mark - QPointF(0, 3.6)}));
    }
}

std::vector<FrameStrip::Row> FrameStrip::rows() const {
    const auto& inspection = look_->inspection;
    if (!inspection || !inspection->stack) return {};
    const auto& stack = *inspection->stack;
    const std::size_t count = inspection->frames.size();
    Row sharp{.name = tr("sharp"), .values = std::vector<double>(count, 0), .range = 1, .unit = {}, .worth = 0};
    Row light{.name = tr("light"),
              .both = true,
              .values = std::vector<double>(count, 0),
              .range = 1,
              .unit = tr("stops"),
              .worth = 0.25};
    Row moved{.name = tr("moved"),
              .values = std::vector<double>(count, 0),
              .range = 4,
              .unit = tr("px"),
              .digits = 0,
              .worth = 2};
    double best = 0;
    for (std::size_t i = 0; i < count; ++i) {
        sharp.values[i] = inspection->frames[i].sharpness;
        best = std::max(best, sharp.values[i]);
    }
    sharp.range = std::max(best, 1e-3);
    for (std::size_t f = 0; f < stack.frames.size(); ++f) {
        if (f < stack.look.uneven.size()) light.values[stack.frames[f]] = stack.look.uneven[f];
        if (f > 0 && f - 1 < stack.look.neighbours.size())
            moved.values[stack.frames[f]] =
                stack.look.neighbours[f - 1].found ? stack.look.neighbours[f - 1].shift() : 0;
    }
    for (const double value : light.values) light.range = std::max(light.range, std::abs(value));
    for (const double value : moved.values) moved.range = std::max(moved.range, value);
    return {sharp, light, moved};
}

/// A line through all frames; what is worth saying has a dot and its number.
void FrameStrip::paintRow(QPainter& painter, const Row& row, const QRectF& area) const {
    const Theme& t = theme();
    const bool both = row.both;  // ways
    const double zero = both ? area.top() + 8 : area.bottom() - 3;
    const double high = both ? area.height() - 12 : area.height() - 7;
    const auto place = [&](std::size_t i) {
        const double share = std::clamp(row.values[i] / row.range, -1.0, 1.0);
        // Light falls below the line where it is missing; more of it is rare and stays near.
        const double y = both ? zero - share * (share < 0 ? high : 6.0) : zero - share * high;
        return QPointF((static_cast<double>(i - first()) + 0.5) * cellWidth(), y);
    };
    painter.setPen(QPen(t.hairline, 1));
    painter.drawLine(QPointF(area.left(), zero), QPointF(area.right(), zero));
    painter.setFont(textFont(11));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(area.right() + 6, area.center().y() - 8, names, 16), Qt::AlignLeft | Qt::AlignVCenter,
             row.name);
    QPolygonF line;
    for (std::size_t i = first(); i < first() + shown(); ++i) line << place(i);
    painter.setPen(QPen(t.focus, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
    if (row.worth <= 0) return;
    double free_from = -1e9;
    for (std::size_t i = first(); i < first() + shown(); ++i) {
        if (std::abs(row.values[i]) < row.worth) continue;
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.stop);
        painter.drawEllipse(place(i), 3, 3);
        const QString words = (both ? stopsText(row.values[i]) : QString::number(row.values[i], 'f', row.digits)) +
                              QLatin1Char(' ') + row.unit;
        painter.setFont(textFont(11, QFont::DemiBold));
        const double wide = lineWidth(painter.font(), words) + 4;
        const bool left = place(i).x() + 6 + wide > area.right() + names - 4;
        const QRectF label(left ? place(i).x() - 6 - wide : place(i).x() + 6,
                           std::clamp(place(i).y() - 8, area.top(), area.bottom() - 15), wide, 16);
        if (label.left() < free_from) continue;
        free_from = label.right();
        painter.setPen(t.stop);
        drawLine(painter, label, Qt::AlignLeft | Qt::AlignVCenter, words);
    }
}

void FrameStrip::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = first(); i < first() + shown(); ++i)
        if (const QRectF cell = cellRect(i);
            event->position().x() >= cell.left() && event->position().x() < cell.right()) {
            Q_EMIT chosen(i);
            return;
        }
}

void FrameStrip::mouseMoveEvent(QMouseEvent* event) {
    QString tip;
    for (std::size_t i = first(); look_ && i < first() + shown(); ++i)
        if (cellRect(i).contains(event->position())) tip = toQt(look_->frames.files[i].filename().string());
    setToolTip(tip);
    if (event->buttons() & Qt::LeftButton) mousePressEvent(event);
}

void FrameStrip::wheelEvent(QWheelEvent* event) {
    if (!look_) return;
    const std::size_t last = look_->frames.files.size() - 1;
    if (event->angleDelta().y() > 0 && current_ > 0) Q_EMIT chosen(current_ - 1);
    if (event->angleDelta().y() < 0 && current_ < last) Q_EMIT chosen(current_ + 1);
    event->accept();
}

}  // namespace poquito::desk

#include "desk/proof/moc_frame_strip.moc"
