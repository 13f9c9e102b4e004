#include "desk/base/caption.hpp"

#include <QPushButton>

namespace poquito::desk {

void nameControl(QWidget* control, const Caption& caption) {
    control->setObjectName(QLatin1String(caption.objectName));
    control->setAccessibleName(caption.label);
    control->setAccessibleDescription(caption.tip);
    control->setToolTip(caption.tip);
}

QPushButton* captionedButton(const Caption& caption, QWidget* parent) {
    auto* button = new QPushButton(caption.label, parent);
    nameControl(button, caption);
    button->setAutoDefault(false);
    return button;
}

}  // namespace poquito::desk
