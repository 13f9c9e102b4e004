#include "desk/toolkit/colour_field.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QAction>
#include <QColorDialog>
#include <QPainter>
#include <QPixmap>
#include <QToolButton>

namespace poquito::desk {

QColor colourOf(const text::Colour& colour) { return {colour.red, colour.green, colour.blue}; }

ColourField::ColourField(QWidget* parent) : QLineEdit(parent), patch_(new QAction(this)) {
    setPlaceholderText(tr("none, grey"));
    addAction(patch_, LeadingPosition);
    patch_->setToolTip(tr("Choose a colour"));
    for (auto* button : findChildren<QToolButton*>())
        nameControl(button, {"colourPatch", tr("Choose a colour"), tr("Choose a colour")});
    connect(patch_, &QAction::triggered, this, &ColourField::choose);
    connect(this, &QLineEdit::textEdited, this, [this](const QString& text) {
        const auto colour = text::parse_colour(text.toStdString());
        if (!colour && !text.trimmed().isEmpty()) return;  // half typed
        setColour(colour);
        Q_EMIT colourEdited(colour);
    });
    connect(this, &QLineEdit::editingFinished, this, [this] {
        ++visit_;
        setColour(colour_);  // what was left half typed goes
    });
}

void ColourField::setColour(const std::optional<text::Colour>& colour) {
    colour_ = colour;
    const QString wanted = colour ? toQt(text::colour_text(*colour)) : QString();
    if (!hasFocus() || text::parse_colour(text().toStdString()) != colour) setText(wanted);
    QPixmap pixmap(16, 16);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setPen(theme().quiet);
    painter.setBrush(colour ? QBrush(colourOf(*colour)) : QBrush(theme().greyScale[2], Qt::BDiagPattern));
    painter.drawRect(1, 1, 13, 13);
    patch_->setIcon(pixmap);
}

void ColourField::choose() {
    QColorDialog dialog(colour_ ? colourOf(*colour_) : theme().greyScale[2], this);
    dialog.setObjectName(QStringLiteral("colourDialog"));
    dialog.setOption(QColorDialog::DontUseNativeDialog);
    if (dialog.exec() != QDialog::Accepted) return;
    const QColor chosen = dialog.selectedColor();
    const text::Colour colour{static_cast<std::uint8_t>(chosen.red()), static_cast<std::uint8_t>(chosen.green()),
                              static_cast<std::uint8_t>(chosen.blue())};
    setColour(colour);
    ++visit_;
    Q_EMIT colourEdited(colour);
    ++visit_;
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_colour_field.moc"
