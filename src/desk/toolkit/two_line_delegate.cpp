#include "desk/toolkit/two_line_delegate.hpp"

#include "desk/toolkit/theme.hpp"

#include <QHash>
#include <QListView>
#include <QPainter>

#include <algorithm>

namespace poquito::desk {
namespace {

constexpr int scroll_bar = 16;  // room for it, there or not: it may come when the rows are laid out
constexpr int margin = 8, between = 7;

/// Each text is wrapped once a width: a list asks for all rows with every edit.
int wrappedHeight(int width, int letters, const QString& text) {
    if (text.isEmpty()) return 0;
    static QHash<QString, int> known;
    const QString key = QString::number(width) + QLatin1Char(' ') + QString::number(letters) + text;
    if (const auto found = known.constFind(key); found != known.cend()) return *found;
    if (known.size() > 2000) known.clear();
    const QFontMetrics metrics(textFont(letters));
    return *known.insert(key, metrics.boundingRect(0, 0, width, 1000, Qt::TextWordWrap, text).height());
}

}  // namespace

/// Whether the list scrolls or not, so that a row is as high as what stands in it.
int TwoLineDelegate::wrapWidth(const QStyleOptionViewItem& option) const {
    const auto* view = qobject_cast<const QListView*>(option.widget);
    return (view ? view->width() - scroll_bar : 400) - indent_ - margin;
}

QSize TwoLineDelegate::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const int width = wrapWidth(option);
    return {option.rect.width(), wrappedHeight(width, 12, index.data().toString()) +
                                     wrappedHeight(width, 11, index.data(Qt::ToolTipRole).toString()) + between};
}

void TwoLineDelegate::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    QStyleOptionViewItem bare = option;
    initStyleOption(&bare, index);
    bare.text.clear();
    if (bare.features & QStyleOptionViewItem::HasCheckIndicator) bare.rect.setHeight(22);
    bare.widget->style()->drawControl(QStyle::CE_ItemViewItem, &bare, painter, bare.widget);
    QRect area = option.rect.adjusted(indent_, 3, -4, -3);
    area.setWidth(std::min(area.width(), wrapWidth(option)));
    painter->save();
    painter->setFont(textFont(12));
    painter->setPen(theme().ink);
    QRect used;
    painter->drawText(area, Qt::TextWordWrap, index.data().toString(), &used);
    painter->setFont(textFont(11));
    painter->setPen(theme().quiet);
    painter->drawText(area.adjusted(0, used.height(), 0, 0), Qt::TextWordWrap, index.data(Qt::ToolTipRole).toString());
    painter->restore();
}

}  // namespace poquito::desk
