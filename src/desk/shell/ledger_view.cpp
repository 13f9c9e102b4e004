#include "desk/shell/ledger_view.hpp"

#include "desk/shell/ledger_model.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/note_card.hpp"
#include "desk/toolkit/theme.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QRegularExpression>
#include <QStyledItemDelegate>
#include <QTextDocument>

namespace poquito::desk {
namespace {

using Kind = LedgerModel::Kind;

constexpr int heading_height = 27, row_height = 21, unit_width = 66, name_width = 52;

/// The open working, its indices set below the line: N_w reads N with a small w.
class WorkingText {
  public:
    WorkingText(const QModelIndex& index, int width) {
        const auto line = [&](int role, const QColor& colour, int pixels, bool bold) {
            QString text = index.data(role).toString().toHtmlEscaped();
            static const QRegularExpression subscript(QStringLiteral("_([A-Za-z0-9]+)"));
            text.replace(subscript, QStringLiteral("<sub>\\1</sub>"));
            return QStringLiteral("<p style=\"margin:0 0 2px 0;color:%1;font-size:%2px;font-weight:%3\">%4</p>")
                .arg(colour.name())
                .arg(pixels)
                .arg(bold ? 600 : 400)
                .arg(text);
        };
        document_.setDefaultFont(textFont(12));
        document_.setDocumentMargin(0);
        document_.setHtml(line(LedgerModel::formulaRole, theme().link, 12, true) +
                          line(LedgerModel::substitutionRole, theme().ink, 12, false) +
                          line(LedgerModel::resultRole, theme().ink, 12, true) +
                          line(LedgerModel::sourceRole, theme().quiet, 11, false) +
                          line(LedgerModel::readRole, theme().link, 12, true));
        QTextOption wrap;
        wrap.setWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
        document_.setDefaultTextOption(wrap);
        document_.setTextWidth(width);
    }
    int height() const { return qCeil(document_.size().height()); }
    void paint(QPainter& painter, QPoint corner) {
        painter.translate(corner);
        document_.drawContents(&painter);
        painter.translate(-corner);
    }

  private:
    QTextDocument document_;
};

QRect working_area(int left, int top, int width) { return {left + 12, top + row_height + 6, width - 24, 0}; }

Kind kind_of(const QModelIndex& index) { return static_cast<Kind>(index.data(LedgerModel::kindRole).toInt()); }

int width_of(const QStyleOptionViewItem& option) {
    const auto* view = qobject_cast<const QListView*>(option.widget);
    return view ? view->viewport()->width() : 260;
}

QString others_of(const QModelIndex& index) {
    const int others = index.data(LedgerModel::othersRole).toInt();
    if (others == 0 || kind_of(index) != Kind::note) return {};
    return (index.data(LedgerModel::openRole).toBool() ? QStringLiteral("\u25be ") : QStringLiteral("\u25b8 ")) +
           QObject::tr("%1 more").arg(others);
}

NoteCard card_of(const QModelIndex& index) {
    const auto level = static_cast<advice::Level>(index.data(LedgerModel::weightRole).toInt());
    return {.mark = index.data(LedgerModel::safetyRole).toBool() ? NoteMark::safety
                    : level == advice::Level::stop               ? NoteMark::stop
                    : level == advice::Level::info               ? NoteMark::info
                                                                 : NoteMark::caution,
            .text = index.data().toString(),
            .link = index.data(LedgerModel::linkRole).toString(),
            .gain = index.data(LedgerModel::gainRole).toString(),
            .others = others_of(index)};
}

class LedgerDelegate : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;

    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const int width = width_of(option);
        switch (kind_of(index)) {
            case Kind::heading:
                return {100, heading_height};
            case Kind::put_right:
                return {100, row_height + 3};
            case Kind::way:
                return {100, row_height};
            case Kind::note:
                return {100, noteCardHeight(card_of(index), width)};
            case Kind::usual:
                return {100, 12 + wrappedHeight(QStringLiteral("\u25b8 ") + index.data().toString(), width - 16)};
            case Kind::figure:
                break;
        }
        if (!index.data(LedgerModel::openRole).toBool()) return {100, row_height};
        return {100, row_height + 14 + WorkingText(index, working_area(0, 0, width).width()).height()};
    }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        switch (kind_of(index)) {
            case Kind::heading:
                paintHeading(*painter, option, index);
                break;
            case Kind::note:
                drawNoteCard(*painter, option.rect, card_of(index), option.state & QStyle::State_HasFocus);
                break;
            case Kind::way:
                paintFrame(*painter, option);
                drawLinkLine(*painter, option.rect.adjusted(28, 0, -10, 0), index.data().toString(),
                             index.data(LedgerModel::gainRole).toString());
                break;
            case Kind::figure:
                paintFigure(*painter, option, index);
                break;
            case Kind::put_right:
            case Kind::usual:
                paintLine(*painter, option, index);
                break;
        }
        painter->restore();
    }

  private:
    static bool isLit(const QStyleOptionViewItem& option) {
        return option.state & (QStyle::State_HasFocus | QStyle::State_MouseOver);
    }
    static void paintFrame(QPainter& painter, const QStyleOptionViewItem& option) {
        if (!isLit(option)) return;
        const bool focused = option.state & QStyle::State_HasFocus;
        painter.setBrush(focused ? theme().linkWash : Qt::transparent);
        painter.setPen(QPen(focused ? theme().link : theme().hairline, 1));
        painter.drawRoundedRect(QRectF(option.rect).adjusted(1.5, 1.5, -1.5, -1.5), 3, 3);
    }

    /// Name, what it comes to, and how it stands; under it a line, unless its numbers follow.
    static void paintHeading(QPainter& painter, const QStyleOptionViewItem& option, const QModelIndex& index) {
        const Theme& t = theme();
        paintFrame(painter, option);
        const QRect area = option.rect.adjusted(6, 0, -6, 0);
        const bool open = index.data(LedgerModel::openRole).toBool();
        painter.setPen(QPen(t.hairline, 1));
        if (index.row() > 0) painter.drawLine(area.topLeft(), area.topRight());
        painter.setFont(textFont(12, QFont::DemiBold));
        painter.setPen(t.ink);
        drawLine(painter, area, Qt::AlignLeft | Qt::AlignVCenter, index.data().toString());
        painter.setFont(textFont(12));
        painter.setPen(open ? t.quiet : t.ink);
        const int room = area.width() - name_width - 22;
        drawLine(painter, QRect(area.left() + name_width, area.top(), room, area.height()),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter.font(), index.data(LedgerModel::headlineRole).toString(), room));
        drawStatus(painter, QPointF(area.right() - 7, area.center().y() + 1),
                   static_cast<Status>(index.data(LedgerModel::statusRole).toInt()));
    }

    static void paintLine(QPainter& painter, const QStyleOptionViewItem& option, const QModelIndex& index) {
        const bool right = kind_of(index) == Kind::put_right;
        paintFrame(painter, option);
        painter.setFont(right ? textFont(12, QFont::DemiBold) : textFont(12));
        painter.setPen(right || isLit(option) ? theme().link : theme().quiet);
        const QString mark = right                                        ? QString()
                             : index.data(LedgerModel::openRole).toBool() ? QStringLiteral("\u25be ")
                                                                          : QStringLiteral("\u25b8 ");
        painter.drawText(option.rect.adjusted(8, right ? 2 : 6, -8, 0), Qt::TextWordWrap,
                         mark + index.data().toString());
    }

    static void paintFigure(QPainter& painter, const QStyleOptionViewItem& option, const QModelIndex& index) {
        const Theme& t = theme();
        const QRect area = option.rect;
        const bool open = index.data(LedgerModel::openRole).toBool();
        if (open) {
            painter.setBrush(t.panel);
            painter.setPen(QPen(t.link, 1.2));
            painter.drawRoundedRect(QRectF(area).adjusted(1, 1, -1, -3), 3, 3);
        } else {
            paintFrame(painter, option);
        }
        const QRect row(area.left() + 6, area.top(), area.width() - 12, row_height);
        const int value_right = row.right() - unit_width;
        const auto weight = static_cast<advice::Level>(index.data(LedgerModel::weightRole).toInt());
        painter.setFont(textFont(13, QFont::DemiBold));
        painter.setPen(weight == advice::Level::stop ? t.stop : weight == advice::Level::caution ? t.caution : t.ink);
        const QString value = index.data(LedgerModel::valueRole).toString();
        const int value_width = static_cast<int>(lineWidth(painter.font(), value)) + 1;
        drawLine(painter, QRect(value_right - value_width - 2, row.top(), value_width + 2, row_height),
                 Qt::AlignRight | Qt::AlignVCenter, value);
        painter.setFont(textFont(12));
        painter.setPen(t.ink);
        const int room = value_right - value_width - 10 - row.left();
        drawLine(painter, QRect(row.left(), row.top(), room, row_height), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter.font(), index.data().toString(), room));
        // What the last edits changed says from what, in the place of its unit.
        const QString was = index.data(LedgerModel::wasRole).toString();
        painter.setFont(textFont(11));
        painter.setPen(was.isEmpty() ? t.quiet : t.focus);
        const QString beside =
            was.isEmpty() ? index.data(LedgerModel::unitRole).toString() : QObject::tr("was %1").arg(was);
        drawLine(painter, QRect(value_right + 6, row.top(), unit_width - 6, row_height),
                 Qt::AlignLeft | Qt::AlignVCenter, elided(painter.font(), beside, unit_width - 6));
        if (!open) return;
        const QRect at = working_area(area.left(), area.top(), area.width());
        WorkingText(index, at.width()).paint(painter, at.topLeft());
    }
};

}  // namespace

LedgerView::LedgerView(LedgerModel* model, QWidget* parent) : StillList(parent), ledger_(model) {
    setObjectName(QStringLiteral("ledger"));
    setAccessibleName(tr("Notes and numbers of this shot"));
    setProperty("bare", true);
    setModel(model);
    setItemDelegate(new LedgerDelegate(this));
    setVerticalScrollMode(ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setSelectionMode(SingleSelection);
    setMouseTracking(true);
}

QRect LedgerView::linkRect(const QModelIndex& index) const {
    return noteLinkRect(visualRect(index), index.data(LedgerModel::linkRole).toString());
}

QRect LedgerView::othersRect(const QModelIndex& index) const {
    return noteOthersRect(visualRect(index), others_of(index));
}

QRect LedgerView::readRect(const QModelIndex& index) const {
    if (kind_of(index) != Kind::figure || !index.data(LedgerModel::openRole).toBool()) return {};
    if (index.data(LedgerModel::readRole).toString().isEmpty()) return {};
    constexpr int below = 8, link_height = 18;
    const QRect row = visualRect(index);
    return {row.left(), row.bottom() - below - link_height, row.width(), link_height + below};
}

void LedgerView::act(const QModelIndex& index) {
    switch (kind_of(index)) {
        case Kind::put_right:
            return Q_EMIT putRightWanted();
        case Kind::note:
        case Kind::way:
            if (!index.data(LedgerModel::remedyRole).toString().isEmpty())
                Q_EMIT mendWanted(index.data(LedgerModel::keyRole).toString().toStdString(),
                                  index.data(LedgerModel::wayRole).toInt());
            return;
        case Kind::heading:
        case Kind::figure:
        case Kind::usual:
            break;
    }
    unfold(index);
}

void LedgerView::unfold(const QModelIndex& index) {
    const auto key = index.data(LedgerModel::keyRole).toString().toStdString();
    const auto name = index.data().toString();
    ledger_->toggle(index);
    scheduleDelayedItemsLayout();
    executeDelayedItemsLayout();
    // Rows came or went: the one that was opened stays the current one.
    for (int i = 0; i < ledger_->rowCount(); ++i) {
        const auto now = ledger_->index(i);
        if (now.data(LedgerModel::keyRole).toString().toStdString() != key || now.data().toString() != name) continue;
        setCurrentIndex(now);
        scrollTo(now);
        return;
    }
}

void LedgerView::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space;
    if (enter && currentIndex().isValid()) return act(currentIndex());
    const bool folds = event->key() == Qt::Key_Right || event->key() == Qt::Key_Left;
    if (folds && !others_of(currentIndex()).isEmpty() &&
        currentIndex().data(LedgerModel::openRole).toBool() == (event->key() == Qt::Key_Left))
        return unfold(currentIndex());
    QListView::keyPressEvent(event);
}

void LedgerView::mouseMoveEvent(QMouseEvent* event) {
    const auto index = indexAt(event->position().toPoint());
    const bool link =
        index.isValid() && (kind_of(index) != Kind::note || linkRect(index).contains(event->position().toPoint()) ||
                            othersRect(index).contains(event->position().toPoint()));
    viewport()->setCursor(link ? Qt::PointingHandCursor : Qt::ArrowCursor);
    StillList::mouseMoveEvent(event);
}

void LedgerView::mouseReleaseEvent(QMouseEvent* event) {
    StillList::mouseReleaseEvent(event);
    const QPoint at = event->position().toPoint();
    const auto index = indexAt(at);
    if (!index.isValid() || event->button() != Qt::LeftButton) return;
    if (readRect(index).contains(at))
        return Q_EMIT readWanted(index.data(LedgerModel::keyRole).toString().toStdString());
    if (othersRect(index).contains(at)) return unfold(index);
    if (kind_of(index) != Kind::note || linkRect(index).contains(at)) act(index);
}

void LedgerView::resizeEvent(QResizeEvent* event) {
    QListView::resizeEvent(event);
    scheduleDelayedItemsLayout();  // what is wrapped wraps anew
}

}  // namespace poquito::desk

#include "desk/shell/moc_ledger_view.moc"
