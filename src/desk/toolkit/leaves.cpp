#include "desk/toolkit/leaves.hpp"

#include "desk/toolkit/theme.hpp"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

Leaves::Leaves(QWidget* parent, Style style) : QWidget(parent), style_(style) {
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

void Leaves::addLeaf(const Caption& tab, QWidget* leaf) {
    auto* button = new QToolButton(this);
    button->setText(tab.label);
    nameControl(button, tab);
    button->setCheckable(true);
    const int index = stack_->addWidget(leaf);
    button->setChecked(index == 0);
    // The longest of the leaves would otherwise make all of them scroll.
    if (index > 0) leaf->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
    connect(button, &QToolButton::clicked, this, [this, index] { turnTo(index); });
    tabs_->addWidget(button);
    buttons_.push_back(button);
    if (style_ == Style::parts) stylePart(button), stylePart(leaf);
}

int Leaves::current() const { return stack_->currentIndex(); }
QString Leaves::currentName() const { return buttons_.isEmpty() ? QString() : buttons_[current()]->objectName(); }
QWidget* Leaves::currentLeaf() const { return stack_->currentWidget(); }

void Leaves::turnTo(int index) {
    for (int i = 0; i < buttons_.size(); ++i) buttons_[i]->setChecked(i == index);
    if (index != stack_->currentIndex()) {
        stack_->currentWidget()->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
        stack_->setCurrentIndex(index);
        stack_->currentWidget()->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    }
    Q_EMIT turned(index);
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_leaves.moc"
