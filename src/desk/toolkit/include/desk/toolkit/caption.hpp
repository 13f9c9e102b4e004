#pragma once

#include <QString>

class QPushButton;
class QWidget;

namespace poquito::desk {

/// The name a control is found by, what it is called on the sheet, and what a screen reader and tooltip say of it.
struct Caption {
    const char* objectName;
    QString label;
    QString tip = {};
};

/// Gives a control its names; the text it shows stays as it is.
void nameControl(QWidget* control, const Caption& caption);

/// Marks a field whose text is nothing that is allowed, and says what would be in the place of its tip; empty: it is
/// right again.
void markWrong(QWidget* field, const QString& expected);

/// A push button that reads as its caption and takes no part in Enter.
QPushButton* captionedButton(const Caption& caption, QWidget* parent);

}  // namespace poquito::desk
