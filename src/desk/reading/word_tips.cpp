#include "desk/reading/word_tips.hpp"

#include "desk/session/shipped_handbook.hpp"
#include "desk/toolkit/plain_text.hpp"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QHelpEvent>
#include <QLabel>
#include <QLineEdit>
#include <QTextDocumentFragment>
#include <QToolTip>

namespace poquito::desk {
namespace {

constexpr std::size_t most_in_a_tip = 3;

const QAbstractItemView* listOf(const QWidget& widget) {
    if (const auto* view = qobject_cast<const QAbstractItemView*>(&widget)) return view;
    const auto* view = qobject_cast<const QAbstractItemView*>(widget.parentWidget());
    return view && view->viewport() == &widget ? view : nullptr;
}

QModelIndex rowOf(const QAbstractItemView& view, std::optional<QPoint> at) {
    return at ? view.indexAt(*at) : view.currentIndex();
}

/// Drawings tell what is under the mouse themselves.
bool isLettered(const QWidget& widget) {
    return listOf(widget) || qobject_cast<const QLabel*>(&widget) || qobject_cast<const QAbstractButton*>(&widget) ||
           qobject_cast<const QLineEdit*>(&widget) || qobject_cast<const QAbstractSpinBox*>(&widget) ||
           qobject_cast<const QComboBox*>(&widget);
}

}  // namespace

WordTips::WordTips(QObject* parent) : QObject(parent) { qApp->installEventFilter(this); }

QString WordTips::lettering(const QWidget& widget, std::optional<QPoint> at) {
    if (const auto* view = listOf(widget)) return rowOf(*view, at).data(Qt::DisplayRole).toString();
    if (const auto* label = qobject_cast<const QLabel*>(&widget)) {
        const QString text = label->text();
        return label->textFormat() == Qt::RichText ? QTextDocumentFragment::fromHtml(text).toPlainText() : text;
    }
    if (const auto* button = qobject_cast<const QAbstractButton*>(&widget); button && !button->text().isEmpty())
        return button->text();
    return widget.accessibleName();
}

bool WordTips::explain(QWidget* focused) {
    if (!focused) return false;
    const auto words = handbook::words_in(shippedHandbook(), lettering(*focused, std::nullopt).toStdString());
    if (words.empty()) return false;
    const auto* view = listOf(*focused);
    const QPoint below =
        view ? view->visualRect(rowOf(*view, std::nullopt)).bottomLeft() : focused->rect().bottomLeft();
    QToolTip::showText(focused->mapToGlobal(below), explained(words, most_in_a_tip), focused);
    return true;
}

bool WordTips::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::ToolTip || !watched->isWidgetType()) return false;
    auto* widget = static_cast<QWidget*>(watched);
    if (!isLettered(*widget)) return false;
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto words = handbook::words_in(shippedHandbook(), lettering(*widget, help->pos()).toStdString());
    if (words.empty()) return false;
    const auto* view = listOf(*widget);
    const QString own = view ? rowOf(*view, help->pos()).data(Qt::ToolTipRole).toString() : widget->toolTip();
    QString tip;
    if (!own.isEmpty()) tip = QStringLiteral("<p style=\"margin:0 0 6px 0\">%1</p>").arg(tipText(own));
    QToolTip::showText(help->globalPos(), tip + explained(words, most_in_a_tip), widget);
    return true;
}

}  // namespace poquito::desk

#include "desk/reading/moc_word_tips.moc"
