#include "desk/day/picture_board.hpp"

#include "desk/drawing/shot_pictures.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double least_cell = 116, words_room = 32, cell_gap = 8, heading_room = 26, between = 10;
constexpr double ring_room = 5;         // so that what marks a cell, or all of it, goes around and not through
constexpr double high_for_wide = 0.72;  // of the room for a picture

}  // namespace

PictureBoard::PictureBoard(const char* name, const QString& says, ShotPictures& pictures, QWidget* parent)
    : QWidget(parent), pictures_(pictures) {
    setObjectName(QLatin1String(name));
    setAccessibleName(says);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    auto policy = QSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
    connect(&pictures, &ShotPictures::arrived, this, QOverload<>::of(&QWidget::update));
}

void PictureBoard::setSections(std::vector<BoardSection> sections, int selected, bool draggable) {
    const bool same = sections == sections_ && selected == selected_ && draggable == draggable_;
    if (same) return;
    sections_ = std::move(sections);
    selected_ = selected;
    draggable_ = draggable;
    QStringList lines;
    for (const auto& section : sections_) {
        QStringList cells;
        for (const auto& cell : section.cells)
            cells << (cell.trouble.isEmpty() ? cell.label : cell.label + QStringLiteral(": ") + cell.trouble);
        lines << section.heading + QStringLiteral(", ") + section.words + QStringLiteral(": ") +
                     cells.join(QStringLiteral(", "));
    }
    setAccessibleDescription(lines.join(QStringLiteral("; ")));
    const int before = minimumHeight();
    fit();
    if (minimumHeight() != before) updateGeometry();
    update();
}

double PictureBoard::pictureRoom() const { return cellWidth_ * high_for_wide; }
double PictureBoard::cellHeight() const { return pictureRoom() + words_room; }

void PictureBoard::fit() {
    const auto* sight = parentWidget();
    for (const double wide : {212.0, 180.0, 150.0, 132.0, least_cell}) {
        cellWidth_ = wide;
        if (sight && heightForWidth(width()) <= sight->height()) break;
    }
    setMinimumHeight(heightForWidth(width()));
}

std::size_t PictureBoard::columns(int width) const {
    return static_cast<std::size_t>(
        std::max(1.0, std::floor((width - 2 * ring_room + cell_gap) / (cellWidth_ + cell_gap))));
}

double PictureBoard::sectionHeight(const BoardSection& section, std::size_t columns) const {
    const auto rows = std::max<std::size_t>(1, (section.cells.size() + columns - 1) / columns);
    return heading_room + static_cast<double>(rows) * (cellHeight() + cell_gap) + between;
}

int PictureBoard::heightForWidth(int width) const {
    double height = 4;
    for (const auto& section : sections_) height += sectionHeight(section, columns(width));
    return static_cast<int>(std::ceil(height));
}

QRectF PictureBoard::cellRect(std::size_t section, std::size_t cell) const {
    const auto across = columns(width());
    double top = 0;
    for (std::size_t s = 0; s < section; ++s) top += sectionHeight(sections_[s], across);
    const auto row = cell / across, column = cell % across;
    return {ring_room + static_cast<double>(column) * (cellWidth_ + cell_gap),
            top + heading_room + static_cast<double>(row) * (cellHeight() + cell_gap), cellWidth_, cellHeight()};
}

double PictureBoard::frameShape(int shot) {
    const auto* picture = pictures_.picture(shot);
    return picture && picture->height() > 0 ? static_cast<double>(picture->width()) / picture->height() : 1.5;
}

QRectF PictureBoard::pictureRect(const QRectF& cell, const BoardCell& of) {
    double shape = 0;
    for (const auto& part : of.parts)
        shape += frameShape(part.shot) * part.cut.width() / std::max(part.cut.height(), 1e-6);
    if (of.parts.empty()) shape = 1;
    const double wide = std::min(cellWidth_, pictureRoom() * shape), high = wide / shape;
    return {cell.left(), cell.top() + pictureRoom() - high, wide, high};
}

// ---- drawing -----------------------------------------------------------------------------------------------------

void PictureBoard::drawCell(QPainter& painter, const QRectF& area, const BoardCell& cell) {
    const Theme& t = theme();
    const QRectF picture = pictureRect(area, cell);
    if (cell.parts.empty()) {
        painter.setPen(QPen(t.hairline, 1.2, Qt::DashLine));
        painter.drawRect(picture.adjusted(0.5, 0.5, -0.5, -0.5));
        painter.setFont(textFont(12));
        painter.setPen(t.quiet);
        drawLine(painter, picture, Qt::AlignCenter, elided(textFont(12), cell.label, picture.width() - 4));
        return;
    }
    bool selected = false;
    double left = picture.left();
    for (const auto& part : cell.parts) {
        selected = selected || part.shot == selected_;
        const auto* image = pictures_.picture(part.shot);
        const double own = frameShape(part.shot) * part.cut.width() / part.cut.height();
        const QRectF to(left, picture.top(), picture.height() * own, picture.height());
        left = to.right();
        if (image) {
            painter.setRenderHint(QPainter::SmoothPixmapTransform);
            painter.setOpacity(cell.faded ? 0.45 : 1);
            painter.drawImage(to, *image,
                              QRectF(part.cut.left() * image->width(), part.cut.top() * image->height(),
                                     part.cut.width() * image->width(), part.cut.height() * image->height()));
            painter.setOpacity(1);
        } else {
            painter.fillRect(to, t.paper);
        }
        if (cell.parts.size() > 1) {
            painter.setPen(QPen(t.panel, 1));
            painter.drawLine(to.topLeft(), to.bottomLeft());
        }
    }
    painter.setPen(selected ? QPen(t.link, 2.4) : QPen(t.hairline, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(picture.adjusted(0.5, 0.5, -0.5, -0.5));
    if (cell.first) {
        painter.setFont(textFont(11, QFont::DemiBold));
        drawLabel(painter, picture.topLeft() + QPointF(4, 9), Qt::AlignLeft | Qt::AlignVCenter, tr("first"), t.link);
    }
    if (!cell.trouble.isEmpty()) drawStatus(painter, picture.topRight() + QPointF(-10, 10), Status::doubtful);
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    painter.setFont(bold);
    painter.setPen(cell.faded ? t.quiet : t.ink);
    drawLine(painter, QRectF(area.left(), area.top() + pictureRoom() + 2, area.width(), 16),
             Qt::AlignLeft | Qt::AlignVCenter, elided(bold, cell.label, area.width()));
    painter.setFont(small);
    painter.setPen(cell.trouble.isEmpty() ? t.quiet : t.caution);
    const QString& words = cell.trouble.isEmpty() ? cell.second : cell.trouble;
    drawLine(painter, QRectF(area.left(), area.top() + pictureRoom() + 17, area.width(), 15),
             Qt::AlignLeft | Qt::AlignVCenter, elided(small, words, area.width()));
}

void PictureBoard::paintEvent(QPaintEvent* event) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto across = columns(width());
    double top = 0;
    for (std::size_t s = 0; s < sections_.size(); ++s) {
        const auto& section = sections_[s];
        const double high = sectionHeight(section, across);
        const QRectF area(0, top, width(), high);
        top += high;
        if (!area.intersects(event->rect())) continue;
        const QFont bold = textFont(13, QFont::DemiBold);
        const double wide = std::min(width() * 0.5, lineWidth(bold, section.heading) + 2);
        painter.setFont(bold);
        painter.setPen(t.ink);
        drawLine(painter, QRectF(ring_room, area.top(), wide, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(bold, section.heading, wide));
        painter.setFont(textFont(12));
        painter.setPen(section.colour.isValid() ? section.colour : t.quiet);
        drawLine(painter, QRectF(ring_room + wide + 12, area.top(), width() - 2 * ring_room - wide - 12, 20),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 elided(textFont(12), section.words, width() - 2 * ring_room - wide - 12));
        painter.setPen(QPen(t.hairline, 1));
        painter.drawLine(QPointF(ring_room, area.top() + 21.5), QPointF(width() - ring_room, area.top() + 21.5));
        for (std::size_t c = 0; c < section.cells.size(); ++c) drawCell(painter, cellRect(s, c), section.cells[c]);
    }
    if (hasFocus()) {
        const auto place = placeOf(selected_);
        drawFocusRing(painter, place ? cellRect(place->section, place->cell).adjusted(-3, 0, 3, 2) : QRectF(rect()));
    }
}

// ---- by hand -----------------------------------------------------------------------------------------------------

std::optional<PictureBoard::Place> PictureBoard::placeAt(QPointF at) const {
    for (std::size_t s = 0; s < sections_.size(); ++s)
        for (std::size_t c = 0; c < sections_[s].cells.size(); ++c)
            if (cellRect(s, c).contains(at)) return Place{s, c};
    return std::nullopt;
}

std::optional<PictureBoard::Place> PictureBoard::placeOf(int shot) const {
    for (std::size_t s = 0; s < sections_.size(); ++s)
        for (std::size_t c = 0; c < sections_[s].cells.size(); ++c)
            if (std::ranges::count(sections_[s].cells[c].parts, shot, &BoardCell::Part::shot) > 0) return Place{s, c};
    return std::nullopt;
}

void PictureBoard::mousePressEvent(QMouseEvent* event) {
    held_.reset();
    const auto at = event->position();
    const auto place = placeAt(at);
    if (!place) {
        for (std::size_t s = 0; s < sections_.size(); ++s)
            if (const double y = cellRect(s, 0).top() - heading_room; at.y() >= y && at.y() < y + heading_room)
                Q_EMIT headingClicked(static_cast<int>(s));
        return;
    }
    const auto& cell = sections_[place->section].cells[place->cell];
    if (cell.parts.empty()) return;
    const QRectF picture = pictureRect(cellRect(place->section, place->cell), cell);
    const bool second = cell.parts.size() > 1 && at.x() > picture.center().x();
    const auto& part = cell.parts[second ? 1 : 0];
    const double high = picture.height() / part.cut.height();
    held_ = Held{.place = *place, .shot = part.shot, .from = at, .frame = QSizeF(high * frameShape(part.shot), high)};
    Q_EMIT shotClicked(part.shot);
}

void PictureBoard::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) {
        const auto place = placeAt(event->position());
        const bool over = place && !sections_[place->section].cells[place->cell].parts.empty();
        setCursor(!over ? Qt::ArrowCursor : draggable_ ? Qt::OpenHandCursor : Qt::PointingHandCursor);
        return;
    }
    if (!held_ || !draggable_) return;
    const auto by = event->position() - held_->from;
    constexpr double slop = 3;
    if (!held_->moved && std::hypot(by.x(), by.y()) < slop) return;
    held_->moved = true;
    held_->from = event->position();
    setCursor(Qt::ClosedHandCursor);
    // The picture goes with the hand, so the cut goes the other way.
    Q_EMIT cutDragged(static_cast<int>(held_->place.section), held_->shot, -by.x() / held_->frame.width(),
                      -by.y() / held_->frame.height());
}

void PictureBoard::mouseReleaseEvent(QMouseEvent*) { held_.reset(); }

void PictureBoard::mouseDoubleClickEvent(QMouseEvent* event) {
    if (const auto place = placeAt(event->position());
        place && !sections_[place->section].cells[place->cell].parts.empty())
        Q_EMIT shotWanted();
}

void PictureBoard::step(int by) {
    std::vector<int> shots;
    for (const auto& section : sections_)
        for (const auto& cell : section.cells)
            for (const auto& part : cell.parts) shots.push_back(part.shot);
    if (shots.empty()) return;
    const auto now = std::ranges::find(shots, selected_);
    const auto last = static_cast<std::ptrdiff_t>(shots.size()) - 1;
    const auto next =
        now == shots.end() ? std::ptrdiff_t{0} : std::clamp(now - shots.begin() + by, std::ptrdiff_t{0}, last);
    Q_EMIT shotClicked(shots[static_cast<std::size_t>(next)]);
}

void PictureBoard::keyPressEvent(QKeyEvent* event) {
    const int across = static_cast<int>(columns(width()));
    const auto moves = [&](double right, double down) {
        if (const auto place = placeOf(selected_); place && draggable_)
            Q_EMIT cutDragged(static_cast<int>(place->section), selected_, right, down);
    };
    constexpr double nudge = 0.01;  // of the frame
    const bool shifted = (event->modifiers() & Qt::ShiftModifier) != 0;
    switch (event->key()) {
        case Qt::Key_Left:
            return shifted ? moves(-nudge, 0) : step(-1);
        case Qt::Key_Right:
            return shifted ? moves(nudge, 0) : step(1);
        case Qt::Key_Up:
            return shifted ? moves(0, -nudge) : step(-across);
        case Qt::Key_Down:
            return shifted ? moves(0, nudge) : step(across);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (placeOf(selected_)) Q_EMIT shotWanted();
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void PictureBoard::resizeEvent(QResizeEvent*) { fit(); }

bool PictureBoard::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto place = placeAt(help->pos());
    QString words;
    if (place) {
        const auto& cell = sections_[place->section].cells[place->cell];
        words = cell.tip.isEmpty() ? cell.trouble : cell.tip;
    }
    if (words.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(help->globalPos(), words, this);
    return true;
}

}  // namespace poquito::desk

#include "desk/day/moc_picture_board.moc"
