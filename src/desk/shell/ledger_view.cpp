#include "desk/shell/ledger_view.hpp"

#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/ledger_model.hpp"

#include <QKeyEvent>
#include <QPainter>
#include <QRegularExpression>
#include <QStyledItemDelegate>
#include <QTextDocument>

namespace poquito::desk {
namespace {

constexpr int heading_height = 26, row_height = 21, unit_width = 66;

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
                          line(LedgerModel::sourceRole, theme().quiet, 11, false));
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

class LedgerDelegate : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;

    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        if (index.data(LedgerModel::headingRole).toBool()) return {100, heading_height};
        if (!index.data(LedgerModel::openRole).toBool()) return {100, row_height};
        const auto* view = qobject_cast<const QListView*>(option.widget);
        const int width = view ? view->viewport()->width() : 260;
        return {100, row_height + 14 + WorkingText(index, working_area(0, 0, width).width()).height()};
    }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Theme& t = theme();
        const QRect area = option.rect;
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        if (index.data(LedgerModel::headingRole).toBool()) {
            painter->setFont(textFont(12, QFont::DemiBold));
            painter->setPen(t.quiet);
            const QString text = index.data(Qt::DisplayRole).toString();
            const QRect at = area.adjusted(6, 6, 0, 0);
            drawLine(*painter, at, Qt::AlignLeft | Qt::AlignVCenter, text);
            const int x = at.left() + static_cast<int>(lineWidth(painter->font(), text)) + 8;
            painter->setPen(QPen(t.hairline, 1));
            painter->drawLine(x, at.center().y() + 1, area.right() - 6, at.center().y() + 1);
            painter->restore();
            return;
        }
        const bool open = index.data(LedgerModel::openRole).toBool();
        const bool focused = option.state & QStyle::State_HasFocus;
        if (open) {
            painter->setBrush(t.panel);
            painter->setPen(QPen(t.link, 1.2));
            painter->drawRoundedRect(QRectF(area).adjusted(1, 1, -1, -3), 3, 3);
        } else if (focused || (option.state & QStyle::State_MouseOver)) {
            painter->setBrush(focused ? t.linkWash : Qt::transparent);
            painter->setPen(QPen(focused ? t.link : t.hairline, 1));
            painter->drawRoundedRect(QRectF(area).adjusted(1.5, 1.5, -1.5, -1.5), 3, 3);
        }
        const QRect row(area.left() + 6, area.top(), area.width() - 12, row_height);
        const int value_right = row.right() - unit_width;
        const auto weight = static_cast<advice::Level>(index.data(LedgerModel::weightRole).toInt());
        painter->setFont(textFont(13, QFont::DemiBold));
        painter->setPen(weight == advice::Level::stop ? t.stop : weight == advice::Level::caution ? t.caution : t.ink);
        const QString value = index.data(LedgerModel::valueRole).toString();
        const int value_width = static_cast<int>(lineWidth(painter->font(), value)) + 1;
        drawLine(*painter, QRect(value_right - value_width - 2, row.top(), value_width + 2, row_height),
                 Qt::AlignRight | Qt::AlignVCenter, value);
        painter->setFont(textFont(12));
        painter->setPen(t.ink);
        const int name_width = value_right - value_width - 10 - row.left();
        drawLine(*painter, QRect(row.left(), row.top(), name_width, row_height), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter->font(), index.data(Qt::DisplayRole).toString(), name_width));
        painter->setFont(textFont(11));
        painter->setPen(t.quiet);
        drawLine(*painter, QRect(value_right + 6, row.top(), unit_width - 6, row_height),
                 Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter->font(), index.data(LedgerModel::unitRole).toString(), unit_width - 6));
        if (open) {
            const QRect at = working_area(area.left(), area.top(), area.width());
            WorkingText(index, at.width()).paint(*painter, at.topLeft());
        }
        painter->restore();
    }
};

}  // namespace

LedgerView::LedgerView(LedgerModel* model, QWidget* parent) : StillList(parent), ledger_(model) {
    setObjectName(QStringLiteral("ledger"));
    setAccessibleName(tr("Ledger: the numbers of this shot"));
    setProperty("bare", true);
    setModel(model);
    setItemDelegate(new LedgerDelegate(this));
    setVerticalScrollMode(ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setSelectionMode(SingleSelection);
    setMouseTracking(true);
    connect(this, &QListView::clicked, this, &LedgerView::toggle);
}

void LedgerView::toggle(const QModelIndex& index) {
    ledger_->toggle(index);
    scheduleDelayedItemsLayout();
    if (index.data(LedgerModel::openRole).toBool()) {
        executeDelayedItemsLayout();
        scrollTo(index);
    }
}

void LedgerView::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space;
    if (enter && currentIndex().isValid()) return toggle(currentIndex());
    QListView::keyPressEvent(event);
}

void LedgerView::resizeEvent(QResizeEvent* event) {
    QListView::resizeEvent(event);
    scheduleDelayedItemsLayout();  // an open working wraps anew
}

}  // namespace poquito::desk
