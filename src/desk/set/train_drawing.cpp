#include "desk/set/train_drawing.hpp"

#include "desk/drawing/gear_section.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QApplication>
#include <QContextMenuEvent>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <functional>

namespace poquito::desk {
namespace {

constexpr double gap = 26;           // between pieces pulled apart, pixels
constexpr double glass = 12;         // drawn width of a close-up lens
constexpr double body_shown = 58;    // of the camera body
constexpr double names_height = 80;  // title, scale and three rows of names
constexpr double feet_height = 58;   // lengths, threads, hint
constexpr double take_off_distance = 34;

}  // namespace

TrainDrawing::TrainDrawing(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("trainDrawing"));
    setAccessibleName(tr("The train, pulled apart"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    refresh();
}

void TrainDrawing::refresh() {
    const auto* shot = document_.shot();
    pieces_ = shot ? shoot::mounted_pieces(document_.kit(), shot->rig, document_.report()->optics.ring)
                   : std::vector<shoot::MountedPiece>();
    selected_ = std::clamp(selected_, 0, std::max(0, static_cast<int>(pieces_.size()) - 1));
    layOut();
    if (!pieces_.empty())
        setAccessibleDescription(tr("%1 of %2: %3")
                                     .arg(selected_ + 1)
                                     .arg(pieces_.size())
                                     .arg(toQt(pieces_[static_cast<std::size_t>(selected_)].name)));
    update();
}

void TrainDrawing::layOut() {
    boxes_.clear();
    double length = 0, widest = 1;
    double fixed = 8 + body_shown + 8;
    for (std::size_t i = 1; i < pieces_.size(); ++i) {
        const bool thin = shoot::is_thin(pieces_[i]);
        fixed += gap + (thin ? glass : 0);
        length += thin ? 0 : pieces_[i].length;
        widest = std::max(widest, pieces_[i].diameter);
    }
    const double room = height() - names_height - feet_height;
    scale_ = std::max(0.05, std::min((width() - fixed) / std::max(length, 1.0), room / widest));
    const double used = fixed + length * scale_;
    double x = 8 + std::max(0.0, (width() - used) / 2);
    const double axis = names_height + room / 2;
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const auto& piece = pieces_[i];
        const double w = i == 0 ? body_shown : shoot::is_thin(piece) ? glass : piece.length * scale_;
        const double h = std::min(piece.diameter * scale_, room);
        boxes_.emplace_back(x, axis - h / 2, std::max(w, 2.0), h);
        x += w + gap;
    }
}

void TrainDrawing::resizeEvent(QResizeEvent*) { layOut(); }

// ---- painting ----------------------------------------------------------------------------------------------------

void TrainDrawing::paintEvent(QPaintEvent*) {
    if (pieces_.empty()) return;
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawTitle(p);

    const double axis = boxes_[0].center().y();
    QPen line(t.quiet, 1);
    line.setDashPattern({9, 3, 2, 3});
    p.setPen(line);
    p.drawLine(QPointF(boxes_[0].left(), axis), QPointF(boxes_.back().right() + 8, axis));

    const bool focused = hasFocus();
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const auto& piece = pieces_[i];
        QRectF box = boxes_[i];
        const bool held = own_ && dragged_ && static_cast<int>(i) == selected_;
        if (held) box.translate(*dragged_ - *pressed_);
        const bool main_lens = piece.list == "lenses" && piece.id == document_.shot()->rig.lens;
        drawPiece(p, box, piece,
                  {.ring = main_lens ? std::optional(document_.report()->optics.ring) : std::nullopt,
                   .selected = focused && static_cast<int>(i) == selected_,
                   .lettered = piece.list != "cameras"});
    }
    const auto& sensor = shoot::sensor_of(document_.kit(), document_.shot()->rig);
    p.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::FlatCap));
    const double half = std::min(sensor.height / 2 * scale_, boxes_[0].height() / 2 - 3);
    p.drawLine(QPointF(boxes_[0].left() + 12, axis - half), QPointF(boxes_[0].left() + 12, axis + half));
    drawJoints(p);
    drawNames(p);
    drawLengths(p);

    if (dragged_) {
        const double x = xOfPlace(placeAt(dragged_->x()));
        const bool off = own_ && std::abs(dragged_->y() - axis) >
                                     boxes_[static_cast<std::size_t>(selected_)].height() / 2 + take_off_distance;
        p.setPen(QPen(off ? t.stop : t.link, 2));
        if (!off) p.drawLine(QPointF(x, names_height - 10), QPointF(x, height() - feet_height + 8));
    }
    p.setFont(textFont(11));
    p.setPen(refusal_.isEmpty() ? t.quiet : t.caution);
    drawLine(p, QRectF(0, height() - 15, width(), 15), Qt::AlignLeft | Qt::AlignVCenter,
             elided(p.font(), hint(), width()));
}

QString TrainDrawing::hint() const {
    if (!refusal_.isEmpty()) return refusal_;
    if (!hasFocus()) return tr("Drag pieces to move them, out of the row to take them off.");
    return tr("\u2190 \u2192 choose · Shift+\u2190 \u2192 move · Delete takes off · R turns the lens round");
}

void TrainDrawing::drawTitle(QPainter& p) {
    const Theme& t = theme();
    const auto& fit = document_.report()->optics.fit;
    p.setFont(textFont(12, QFont::DemiBold));
    p.setPen(t.ink);
    const QString title = tr("The train, pulled apart");
    drawLine(p, QRectF(0, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter, title);
    const double ratio = logicalDpiX() / 25.4 / scale_;
    QString rest = tr("to scale, 1 : %1 · %2 together")
                       .arg(toQt(text::number_text(ratio, 2)), toQt(text::length_text(fit.length)));
    if (fit.contacts()) rest += tr(" · contacts kept%1").arg(fit.autofocus ? QString() : tr(", focus by hand"));
    p.setFont(textFont(11));
    p.setPen(t.quiet);
    drawLine(p, QRectF(0, 16, width(), 15), Qt::AlignLeft | Qt::AlignVCenter, elided(p.font(), rest, width()));
    if (fit.contacts()) return;
    const double after = lineWidth(p.font(), rest) + 4;
    p.setPen(t.caution);
    drawLine(p, QRectF(after, 16, width() - after, 15), Qt::AlignLeft | Qt::AlignVCenter,
             elided(p.font(), tr("· no contacts past %1").arg(toQt(fit.without_contacts.front())), width() - after));
}

/// Names above the pieces, in the first of three rows that has room, with a line down to the piece.
void TrainDrawing::drawNames(QPainter& p) {
    const Theme& t = theme();
    p.setFont(textFont(11));
    double taken[3] = {-100, -100, -100};
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
        const QRectF& box = boxes_[i];
        if (pieces_[i].list == "lenses" &&
            lineWidth(p.font(), shortName(pieces_[i])) + 6 < std::max(box.width(), box.height()))
            continue;
        const bool lens = pieces_[i].list == "lenses";
        const QString name = elided(p.font(), lens ? shortName(pieces_[i]) : toQt(pieces_[i].name), 170);
        const double width_px = lineWidth(p.font(), name);
        double left = std::clamp(box.center().x() - width_px / 2, 0.0, std::max(0.0, width() - width_px));
        int row = 2;
        while (row > 0 && left < taken[row] + 8) --row;
        if (left < taken[row] + 8) left = taken[row] + 8;
        if (left + width_px > width()) continue;  // the tooltip has it
        const double y = 34 + row * 14;
        taken[row] = left + width_px;
        p.setPen(QPen(t.hairline, 1));
        const double x = box.center().x();
        p.drawLine(QPointF(x, y + 13), QPointF(x, box.top() - 2));
        p.setPen(static_cast<int>(i) == selected_ && hasFocus() ? t.link : t.quiet);
        drawLine(p, QRectF(left, y, width_px + 2, 14), Qt::AlignLeft | Qt::AlignVCenter, name);
    }
}

void TrainDrawing::drawLengths(QPainter& p) {
    const double y = height() - feet_height + 24;
    double taken = -100;
    for (std::size_t i = 1; i < pieces_.size(); ++i) {
        const auto& piece = pieces_[i];
        if (shoot::is_thin(piece)) continue;
        const QRectF& box = boxes_[i];
        const QString number = toQt(text::number_text(piece.length));
        p.setFont(textFont(11, QFont::Medium));
        const double width_px = lineWidth(p.font(), number);
        if (box.center().x() - width_px / 2 < taken) continue;
        p.setPen(QPen(theme().ink, 1));
        p.drawLine(QPointF(box.left(), y - 4), QPointF(box.left(), y + 4));
        p.drawLine(QPointF(box.right(), y - 4), QPointF(box.right(), y + 4));
        p.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
        const QRectF label =
            drawLabel(p, {box.center().x(), y + (box.width() > width_px + 14 ? 0 : 10)}, Qt::AlignCenter,
                      i + 1 == pieces_.size() ? tr("%1 mm").arg(number) : number, theme().ink);
        taken = label.right() + 2;
    }
}

/// Between the pieces: whether the signals pass, and in front of the lens which thread meets which.
void TrainDrawing::drawJoints(QPainter& p) {
    const Theme& t = theme();
    const auto& fit = document_.report()->optics.fit;
    bool passes = true;
    const double axis = boxes_[0].center().y();
    std::size_t joint = 0;
    for (std::size_t i = 0; i + 1 < pieces_.size(); ++i) {
        const double x = (boxes_[i].right() + boxes_[i + 1].left()) / 2;
        passes = passes && pieces_[i].contacts;
        const bool mount = !shoot::is_thin(pieces_[i + 1]) && pieces_[i + 1].list != "coupling_rings" &&
                           !(pieces_[i + 1].reversed && i + 2 == pieces_.size() && pieces_[i].list == "coupling_rings");
        const bool threaded = joint < fit.joints.size() && toQt(fit.joints[joint].outer) == toQt(pieces_[i + 1].name);
        if (mount && !threaded) {
            // Three pins, filled where the signals come this far.
            const bool here = passes && pieces_[i + 1].contacts;
            for (int pin = -1; pin <= 1; ++pin) {
                const QRectF dot(x - 2 + pin * 5, axis + 9, 4, 4);
                p.setPen(QPen(here ? t.focus : t.caution, 1.2));
                p.setBrush(here ? QBrush(t.focus) : Qt::NoBrush);
                p.drawRect(dot);
            }
        }
        if (!threaded) continue;
        const auto& j = fit.joints[joint++];
        const QString threads =
            !j.inner_thread ? tr("no thread")
            : j.fits()      ? tr("\u2300%1").arg(toQt(text::number_text(*j.inner_thread)))
                            : tr("\u2300%1\u2192%2")
                             .arg(toQt(text::number_text(*j.inner_thread)), toQt(text::number_text(j.outer_thread)));
        p.setFont(textFont(11, j.fits() ? QFont::Normal : QFont::DemiBold));
        drawLabel(p, {x, height() - feet_height + 8}, Qt::AlignCenter, threads, j.fits() ? t.quiet : t.caution);
    }
}

// ---- hands -------------------------------------------------------------------------------------------------------

int TrainDrawing::pieceAt(QPointF at) const {
    for (std::size_t i = 0; i < boxes_.size(); ++i)
        if (boxes_[i].adjusted(-5, -4, 5, 4).contains(at)) return static_cast<int>(i);
    return -1;
}

std::size_t TrainDrawing::placeAt(double x) const {
    std::size_t place = 0;
    while (place < boxes_.size() && boxes_[place].center().x() < x) ++place;
    return place;
}

double TrainDrawing::xOfPlace(std::size_t place) const {
    return place < boxes_.size() ? boxes_[place].left() - gap / 2 : boxes_.back().right() + gap / 2;
}

void TrainDrawing::select(int place) {
    if (place < 0 || place >= static_cast<int>(pieces_.size())) return;
    selected_ = place;
    refusal_.clear();
    refresh();
}

void TrainDrawing::change(const QString& label,
                          const std::function<std::optional<std::string>(const gear::Kit&, shoot::Rig&)>& act) {
    if (!document_.shot()) return;
    shoot::Rig rig = document_.shot()->rig;
    const auto problem = act(document_.kit(), rig);
    refusal_ = problem ? toQt(*problem) : QString();
    if (!problem) document_.editShot({label}, [&](shoot::Shot& shot) { shot.rig = rig; });
    update();
}

void TrainDrawing::takeOff(int place) {
    const auto& piece = pieces_[static_cast<std::size_t>(place)];
    if (!shoot::can_take_off(piece)) {
        refusal_ = piece.list == "cameras" ? tr("The camera stays; choose another below.")
                                           : tr("The lens stays; choose another below.");
        return update();
    }
    change(tr("Take off %1").arg(toQt(piece.name)), [&](const gear::Kit& kit, shoot::Rig& rig) {
        shoot::take_off(kit, rig, static_cast<std::size_t>(place));
        return std::optional<std::string>();
    });
}

void TrainDrawing::move(int place, std::size_t to) {
    const auto name = pieces_[static_cast<std::size_t>(place)].name;
    const auto id = pieces_[static_cast<std::size_t>(place)].id;
    change(tr("Move %1").arg(toQt(name)), [&](const gear::Kit& kit, shoot::Rig& rig) -> std::optional<std::string> {
        if (!shoot::move_piece(kit, rig, static_cast<std::size_t>(place), to)) return "It has no other place there.";
        return std::nullopt;
    });
    for (std::size_t i = 0; i < pieces_.size(); ++i)
        if (pieces_[i].id == id && refusal_.isEmpty()) selected_ = static_cast<int>(i);
    refresh();
}

void TrainDrawing::turnLens() {
    change(tr("Turn the lens round"), [](const gear::Kit& kit, shoot::Rig& rig) { return shoot::turn_lens(kit, rig); });
}

void TrainDrawing::hover(QPointF at) {
    own_ = false;
    dragged_ = rect().contains(at.toPoint()) ? std::optional(at) : std::nullopt;
    update();
}

bool TrainDrawing::drop(std::string_view list, const std::string& id, QPointF at) {
    dragged_.reset();
    update();
    if (!rect().contains(at.toPoint())) return false;
    const auto place = placeAt(at.x());
    change(tr("Put a piece on"),
           [&](const gear::Kit& kit, shoot::Rig& rig) { return shoot::put_on(kit, rig, list, id, place); });
    return true;
}

void TrainDrawing::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    const int piece = pieceAt(event->position());
    if (piece < 0) return;
    select(piece);
    pressed_ = event->position();
}

void TrainDrawing::mouseMoveEvent(QMouseEvent* event) {
    if (!pressed_) return;
    if (!dragged_ && (event->position() - *pressed_).manhattanLength() < QApplication::startDragDistance()) return;
    own_ = true;
    dragged_ = event->position();
    update();
}

void TrainDrawing::mouseReleaseEvent(QMouseEvent*) {
    if (pressed_ && dragged_ && own_) {
        const QRectF& box = boxes_[static_cast<std::size_t>(selected_)];
        const bool off = std::abs(dragged_->y() - box.center().y()) > box.height() / 2 + take_off_distance;
        const auto to = placeAt(dragged_->x());
        const bool same = to == static_cast<std::size_t>(selected_) || to == static_cast<std::size_t>(selected_) + 1;
        if (off)
            takeOff(selected_);
        else if (!same)
            move(selected_, to);
    }
    pressed_.reset();
    dragged_.reset();
    own_ = false;
    update();
}

void TrainDrawing::mouseDoubleClickEvent(QMouseEvent* event) {
    const int piece = pieceAt(event->position());
    if (piece >= 0 && pieces_[static_cast<std::size_t>(piece)].list == "lenses") turnLens();
}

void TrainDrawing::keyPressEvent(QKeyEvent* event) {
    if (pieces_.empty()) return QWidget::keyPressEvent(event);
    const bool shift = event->modifiers() & Qt::ShiftModifier;
    const auto here = static_cast<std::size_t>(selected_);
    switch (event->key()) {
        case Qt::Key_Left:
            if (shift && here > 0) return move(selected_, here - 1);
            return select(selected_ - 1);
        case Qt::Key_Right:
            if (shift) return move(selected_, here + 2);
            return select(selected_ + 1);
        case Qt::Key_Delete:
        case Qt::Key_Backspace:
            return takeOff(selected_);
        case Qt::Key_R:
            return turnLens();
        default:
            QWidget::keyPressEvent(event);
    }
}

void TrainDrawing::contextMenuEvent(QContextMenuEvent* event) {
    const int piece = pieceAt(event->pos());
    if (piece < 0) return;
    select(piece);
    QMenu menu(this);
    auto* off = menu.addAction(tr("Take off"));
    off->setEnabled(shoot::can_take_off(pieces_[static_cast<std::size_t>(piece)]));
    auto* back = menu.addAction(tr("Towards the camera"));
    auto* forward = menu.addAction(tr("Towards the subject"));
    auto* turn = menu.addAction(tr("Turn the lens round"));
    const auto* chosen = menu.exec(event->globalPos());
    const auto here = static_cast<std::size_t>(piece);
    if (chosen == off) takeOff(piece);
    if (chosen == back && here > 0) move(piece, here - 1);
    if (chosen == forward) move(piece, here + 2);
    if (chosen == turn) turnLens();
}

bool TrainDrawing::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        auto* help = static_cast<QHelpEvent*>(event);
        const int at = pieceAt(help->pos());
        if (at < 0) {
            QToolTip::hideText();
            return true;
        }
        const auto& piece = pieces_[static_cast<std::size_t>(at)];
        QString tip = toQt(piece.name);
        if (piece.length > 0) tip += tr("\n%1 long").arg(toQt(text::length_text(piece.length)));
        if (piece.front_thread) tip += tr("\n%1 mm thread in front").arg(toQt(text::number_text(*piece.front_thread)));
        if (!piece.contacts) tip += tr("\nno contacts");
        QToolTip::showText(help->globalPos(), tip, this);
        return true;
    }
    return QWidget::event(event);
}

void TrainDrawing::focusInEvent(QFocusEvent*) { update(); }
void TrainDrawing::focusOutEvent(QFocusEvent*) { update(); }

}  // namespace poquito::desk

#include "desk/set/moc_train_drawing.moc"
