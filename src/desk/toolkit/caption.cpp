#include "desk/toolkit/caption.hpp"

#include <QPushButton>
#include <QStyle>
#include <QToolTip>
#include <QVariant>

namespace poquito::desk {

void nameControl(QWidget* control, const Caption& caption) {
    control->setObjectName(QLatin1String(caption.objectName));
    control->setAccessibleName(caption.label);
    control->setAccessibleDescription(caption.tip);
    control->setToolTip(caption.tip);
}

void markWrong(QWidget* field, const QString& expected) {
    constexpr const char *mark = "wrong", *own_tip = "ownToolTip";
    const bool wrong = !expected.isEmpty();
    if (field->property(mark).toBool() == wrong) return;
    field->setProperty(mark, wrong);
    if (wrong) {
        field->setProperty(own_tip, field->toolTip());
        field->setToolTip(expected);
        QToolTip::showText(field->mapToGlobal(QPoint(0, field->height())), expected, field);
    } else {
        field->setToolTip(field->property(own_tip).toString());
        QToolTip::hideText();
    }
    field->style()->unpolish(field);
    field->style()->polish(field);
}

QPushButton* captionedButton(const Caption& caption, QWidget* parent) {
    auto* button = new QPushButton(caption.label, parent);
    nameControl(button, caption);
    button->setAutoDefault(false);
    return button;
}

}  // namespace poquito::desk
