#include "desk/book/pages_tab.hpp"

#include "desk/pages/book_page.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/log_controller.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

namespace poquito::desk {

PagesTab::PagesTab(LogController& controller, const Bar& bar, BookPage* page, QWidget* parent)
    : QWidget(parent), controller_(controller) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* paper = paperOn(this);
    auto* column = new QVBoxLayout(paper);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    bar_ = new QWidget(paper);
    auto* line = new QHBoxLayout(bar_);
    line->setContentsMargins(0, 0, 0, 0);
    line->addWidget(new QLabel(bar.choice.label, bar_));
    choice_ = new QComboBox(bar_);
    nameControl(choice_, bar.choice);
    choice_->setMinimumContentsLength(bar.letters);
    connect(choice_, &QComboBox::activated, this, &PagesTab::turn);
    line->addWidget(choice_);
    line->addStretch();
    auto* print = captionedButton(bar.print, bar_);
    line->addWidget(print);
    column->addWidget(bar_);
    column->addWidget(scrollingOn(page, paper), 1);
    connect(print, &QPushButton::clicked, page, &BookPage::askAndPrint);
    row->addWidget(paper);
    connect(&controller, &LogController::changed, this, [this] {
        if (isVisible()) refresh();
    });
}

void PagesTab::offer(const QStringList& names, int place) {
    const QSignalBlocker quiet(choice_);
    choice_->clear();
    choice_->addItems(names);
    choice_->setCurrentIndex(names.isEmpty() ? -1 : place);
    bar_->setVisible(!names.isEmpty());
}

QString PagesTab::chosen() const { return choice_->currentText(); }

int PagesTab::place() const { return choice_->currentIndex(); }

}  // namespace poquito::desk

#include "desk/book/moc_pages_tab.moc"
