#include "desk/shell/sheet_switch.hpp"

#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/theme.hpp"

#include <QHBoxLayout>
#include <QToolButton>

namespace poquito::desk {

SheetSwitch::SheetSwitch(QWidget* parent) : QWidget(parent) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(2);
    const Caption captions[] = {
        {"daySheetButton", tr("The day"), tr("The shoot as a whole: order, clock, run sheet. Key 0, and 0 again back")},
        {"shotSheetButton", tr("The shot"), tr("One picture and its six stations. Keys 1 to 6")},
        {"bookSheetButton", tr("The book"), tr("What outlives the shoot: your gear. Key B, and B again back")}};
    for (const Sheet sheet : sheets) {
        const auto& caption = captions[static_cast<std::size_t>(sheet)];
        auto* made = new QToolButton(this);
        nameControl(made, caption);
        made->setText(caption.label);
        made->setFont(textFont(13));
        made->setCheckable(true);
        made->setAutoExclusive(true);
        made->setProperty("sheetButton", true);
        connect(made, &QToolButton::clicked, this, [this, sheet] { Q_EMIT chosen(sheet); });
        row->addWidget(made);
        buttons_[static_cast<std::size_t>(sheet)] = made;
    }
    setCurrent(Sheet::shot);
}

void SheetSwitch::setCurrent(Sheet sheet) { button(sheet)->setChecked(true); }

void SheetSwitch::setReachable(Sheet sheet, bool reachable) { button(sheet)->setEnabled(reachable); }

}  // namespace poquito::desk

#include "desk/shell/moc_sheet_switch.moc"
