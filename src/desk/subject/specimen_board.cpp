#include "desk/subject/specimen_board.hpp"

#include "desk/drawing/form_lines.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double dense_height = 96, most_height = 176, between = 6, words_height = 46, line_height = 15,
                 words_beside = 14, foot = 18;

}  // namespace

SpecimenBoard::SpecimenBoard(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("specimenBoard"));
    setAccessibleName(tr("Subjects of this class, to one scale"));
    setToolTip(tr("A click takes one: its size, depth, form, movement and care. All of it stays yours to change"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

void SpecimenBoard::setDense() {
    least_cell_ = 104;
    least_height_ = dense_height;
    updateGeometry();
}

void SpecimenBoard::show(std::vector<shoot::LibrarySubject> subjects, const std::optional<std::string>& taken) {
    const bool same = subjects == subjects_;
    if (same && taken == taken_) return;
    subjects_ = std::move(subjects);
    taken_ = taken;
    const auto found = taken ? std::ranges::find(subjects_, *taken, &shoot::LibrarySubject::id) : subjects_.end();
    marked_ = found == subjects_.end() ? 0 : static_cast<std::size_t>(found - subjects_.begin());
    over_.reset();
    QStringList names;
    for (const auto& subject : subjects_) names << toQt(subject.name);
    setAccessibleDescription(names.join(QStringLiteral("; ")));
    if (!same) updateGeometry();
    update();
}

int SpecimenBoard::columns(int width) const {
    return std::max(1, static_cast<int>((width + between) / (least_cell_ + between)));
}

int SpecimenBoard::heightForWidth(int width) const {
    const int across = columns(width), count = static_cast<int>(subjects_.size());
    const int rows = std::max(1, (count + across - 1) / across);
    return static_cast<int>(rows * (least_height_ + secondLine(width) + between) + foot);
}

/// What a second line takes where a name of these is too long for one.
double SpecimenBoard::secondLine(int width) const {
    const double room = cellWidth(width) - words_beside;
    const bool any = std::ranges::any_of(subjects_, [&](const shoot::LibrarySubject& one) {
        return lineWidth(textFont(12, QFont::DemiBold), toQt(one.name)) > room;
    });
    return any ? line_height : 0;
}

double SpecimenBoard::cellWidth(int width) const {
    const double across = columns(width);
    return (width - between * (across - 1)) / across;
}

double SpecimenBoard::cellHeight() const {
    const auto across = static_cast<std::size_t>(columns(width()));
    const auto rows = static_cast<double>(std::max<std::size_t>(1, (subjects_.size() + across - 1) / across));
    return std::clamp((height() - foot) / rows - between, least_height_ + secondLine(width()), most_height);
}

QRectF SpecimenBoard::cellRect(std::size_t index) const {
    const double cell_height = cellHeight();
    const auto across = static_cast<std::size_t>(columns(width()));
    const double wide = cellWidth(width());
    const std::size_t column = index % across, row = index / across;
    return {static_cast<double>(column) * (wide + between), static_cast<double>(row) * (cell_height + between), wide,
            cell_height};
}

double SpecimenBoard::scale() const {
    double widest = 1e-9, highest = 1e-9;
    for (const auto& subject : subjects_) {
        widest = std::max(widest, subject.subject.width);
        highest = std::max(highest, subject.subject.height);
    }
    return std::min((cellRect(0).width() - 20) / widest, (cellHeight() - words_height - secondLine(width())) / highest);
}

void SpecimenBoard::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < subjects_.size(); ++i) paintCell(painter, i);
    if (subjects_.empty()) return;
    // A bar of one, two or five times a power of ten says how large they are.
    const double most = 110 / scale(), power = std::pow(10, std::floor(std::log10(most)));
    const double length = most >= 5 * power ? 5 * power : most >= 2 * power ? 2 * power : power;
    const double y = cellRect(subjects_.size() - 1).bottom() + 10, wide = length * scale();
    painter.setPen(QPen(theme().ink, 1));
    painter.drawLine(QPointF(2, y), QPointF(2 + wide, y));
    for (const double x : {2.0, 2 + wide}) painter.drawLine(QPointF(x, y - 3), QPointF(x, y + 3));
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    drawLine(painter, QRectF(wide + 10, y - 8, 260, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("%1, all to this scale").arg(toQt(text::length_text(length))));
}

void SpecimenBoard::paintCell(QPainter& painter, std::size_t index) const {
    const Theme& t = theme();
    const auto& entry = subjects_[index];
    const QRectF cell = cellRect(index).adjusted(1, 1, -1, -1);
    const bool taken = taken_ == entry.id, marked = hasFocus() && marked_ == index;
    drawCard(painter, cell, taken ? t.focusWash : t.panel,
             marked           ? QPen(t.link, 2.2)
             : taken          ? QPen(t.focus, 1.8)
             : over_ == index ? QPen(t.link, 1)
                              : QPen(t.hairline, 1));
    const auto lines = formLines(entry.subject, 0);
    painter.save();
    const double second = secondLine(width());
    painter.translate(cell.center().x(), cell.top() + 4 + (cell.height() - words_height - second) / 2);
    painter.scale(scale(), -scale());
    QPen thin(t.ink, 1, Qt::SolidLine, Qt::FlatCap);
    thin.setCosmetic(true);
    painter.setPen(Qt::NoPen);
    painter.setBrush(taken ? t.panel : t.focusWash);
    painter.drawPath(lines.area);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(thin);
    painter.drawPath(lines.outline);
    painter.restore();
    const double beside = words_beside / 2 - 1;  // of a cell that is a pixel smaller all round
    const QRectF words = cell.adjusted(beside, cell.height() - words_height + 8, -beside, -4);
    painter.setFont(textFont(12, taken ? QFont::DemiBold : QFont::Normal));
    painter.setPen(t.ink);
    const auto lines_of_name = wrapped(painter.font(), toQt(entry.name), words.width(), 2);
    double y = words.top() - line_height * static_cast<double>(lines_of_name.size() - 1);
    for (const auto& line : lines_of_name) {
        drawLine(painter, QRectF(words.left(), y, words.width(), 16), Qt::AlignHCenter | Qt::AlignVCenter, line);
        y += line_height;
    }
    painter.setFont(textFont(11));
    painter.setPen(taken ? t.ink : t.quiet);
    const auto& s = entry.subject;
    drawLine(painter, QRectF(words.left(), words.top() + 16, words.width(), 15), Qt::AlignHCenter | Qt::AlignVCenter,
             tr("%1 \u00d7 %2 \u00d7 %3 mm")
                 .arg(toQt(text::number_text(s.width, 3)), toQt(text::number_text(s.height, 3)),
                      toQt(text::number_text(s.depth, 3))));
}

std::optional<std::size_t> SpecimenBoard::cellAt(QPointF at) const {
    for (std::size_t i = 0; i < subjects_.size(); ++i)
        if (cellRect(i).contains(at)) return i;
    return std::nullopt;
}

void SpecimenBoard::mouseReleaseEvent(QMouseEvent* event) {
    const auto cell = cellAt(event->position());
    if (!cell || event->button() != Qt::LeftButton) return;
    marked_ = *cell;
    Q_EMIT chosen(subjects_[*cell].id);
}

void SpecimenBoard::mouseMoveEvent(QMouseEvent* event) {
    const auto cell = cellAt(event->position());
    setCursor(cell ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (cell == over_) return;
    over_ = cell;
    update();
}

void SpecimenBoard::leaveEvent(QEvent*) {
    over_.reset();
    update();
}

void SpecimenBoard::keyPressEvent(QKeyEvent* event) {
    if (subjects_.empty()) return QWidget::keyPressEvent(event);
    const auto across = static_cast<std::size_t>(columns(width()));
    const auto last = subjects_.size() - 1;
    switch (event->key()) {
        case Qt::Key_Left:
            marked_ -= marked_ > 0 ? 1 : 0;
            return update();
        case Qt::Key_Right:
            marked_ = std::min(marked_ + 1, last);
            return update();
        case Qt::Key_Up:
            marked_ -= marked_ >= across ? across : 0;
            return update();
        case Qt::Key_Down:
            marked_ = std::min(marked_ + across, last);
            return update();
        case Qt::Key_Return:
        case Qt::Key_Enter:
        case Qt::Key_Space:
            return Q_EMIT chosen(subjects_[marked_].id);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace poquito::desk

#include "desk/subject/moc_specimen_board.moc"
