#include "desk/toolkit/plain_text.hpp"

#include <QAbstractItemView>
#include <QHelpEvent>
#include <QLabel>
#include <QToolTip>

namespace poquito::desk {
namespace {

/// Of a list the row under the mouse; of all else the widget's own.
QString tipOf(const QWidget& widget, const QHelpEvent& help) {
    const auto* view = qobject_cast<const QAbstractItemView*>(widget.parentWidget());
    if (view && view->viewport() == &widget) return view->indexAt(help.pos()).data(Qt::ToolTipRole).toString();
    return widget.toolTip();
}

}  // namespace

PlainText::PlainText(QObject* application) : QObject(application) { application->installEventFilter(this); }

bool PlainText::eventFilter(QObject* watched, QEvent* event) {
    if (!watched->isWidgetType()) return false;
    if (event->type() == QEvent::Polish) {
        // Before it is first laid out. The window that shows tips is a label too: what it is given is markup made here.
        auto* label = qobject_cast<QLabel*>(watched);
        if (label && label->textFormat() == Qt::AutoText && !label->inherits("QTipLabel"))
            label->setTextFormat(Qt::PlainText);
    } else if (event->type() == QEvent::ToolTip) {
        auto* widget = static_cast<QWidget*>(watched);
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto tip = tipOf(*widget, *help);
        if (!Qt::mightBeRichText(tip)) return false;
        QToolTip::showText(help->globalPos(), QStringLiteral("<span>%1</span>").arg(tipText(tip)), widget);
        return true;
    }
    return false;
}

QString tipText(const QString& text) { return text.toHtmlEscaped().replace(QLatin1Char('\n'), QStringLiteral("<br>")); }

}  // namespace poquito::desk

#include "desk/toolkit/moc_plain_text.moc"
