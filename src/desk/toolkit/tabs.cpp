#include "desk/toolkit/tabs.hpp"

#include "desk/toolkit/theme.hpp"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

Tabs::Tabs(QWidget* parent, Style style) : QWidget(parent), style_(style) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* bar = new QHBoxLayout;
    bar->setSpacing(4);
    tabs_ = new QHBoxLayout;
    tabs_->setSpacing(4);
    bar->addLayout(tabs_);
    bar->addStretch();
    column->addLayout(bar);
    stack_ = new QStackedWidget(this);
    column->addWidget(stack_, 1);
}

void Tabs::addTab(const Caption& tab, QWidget* page) {
    auto* button = new QToolButton(this);
    button->setText(tab.label);
    nameControl(button, tab);
    button->setCheckable(true);
    const int index = stack_->addWidget(page);
    button->setChecked(index == 0);
    // The longest of the pages would otherwise make all of them scroll.
    if (index > 0) page->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
    connect(button, &QToolButton::clicked, this, [this, index] { turnTo(index); });
    tabs_->addWidget(button);
    buttons_.push_back(button);
    if (style_ == Style::parts) stylePart(button), stylePart(page);
}

int Tabs::current() const { return stack_->currentIndex(); }
QString Tabs::currentName() const { return buttons_.isEmpty() ? QString() : buttons_[current()]->objectName(); }
QWidget* Tabs::currentTab() const { return stack_->currentWidget(); }

void Tabs::turnTo(int index) {
    for (int i = 0; i < buttons_.size(); ++i) buttons_[i]->setChecked(i == index);
    if (index != stack_->currentIndex()) {
        stack_->currentWidget()->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
        stack_->setCurrentIndex(index);
        stack_->currentWidget()->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    }
    Q_EMIT turned(index);
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_tabs.moc"
