#include "desk/book/protocols_leaf.hpp"

#include "desk/base/caption.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/book/log_desk.hpp"
#include "desk/book/protocol_page.hpp"
#include "desk/day/day_paper.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace poquito::desk {

ProtocolsLeaf::ProtocolsLeaf(LogDesk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* paper = paperOn(this);
    auto* column = new QVBoxLayout(paper);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* bar = new QHBoxLayout;
    bar->addWidget(new QLabel(tr("Series"), paper));
    series_ = new QComboBox(paper);
    nameControl(series_, {"seriesChoice", tr("Series"),
                          tr("Shots of this shoot that were logged on two days or more; locked ones first")});
    series_->setMinimumContentsLength(28);
    connect(series_, &QComboBox::activated, this, [this](int index) {
        if (index >= 0 && index < static_cast<int>(protocols_.size()))
            page_->setProtocol(protocols_[static_cast<std::size_t>(index)]);
    });
    bar->addWidget(series_);
    bar->addStretch();
    print_ = captionedButton(
        {"printProtocolButton", tr("Print for the binder\u2026"), tr("On one sheet, or into a file")}, paper);
    bar->addWidget(print_);
    column->addLayout(bar);
    page_ = new ProtocolPage(paper);
    column->addWidget(scrollingOn(page_, paper), 1);
    connect(print_, &QPushButton::clicked, page_, &ProtocolPage::askAndPrint);
    row->addWidget(paper);
    connect(&desk, &LogDesk::changed, this, [this] {
        if (isVisible()) refresh();
    });
    show({});
}

void ProtocolsLeaf::refresh() {
    desk_.protocols(this, [this](std::vector<log::Protocol> protocols) { show(std::move(protocols)); });
}

void ProtocolsLeaf::show(std::vector<log::Protocol> protocols) {
    const auto at = static_cast<std::size_t>(std::max(0, series_->currentIndex()));
    const auto shown = at < protocols_.size() ? protocols_[at].name : std::string();
    protocols_ = std::move(protocols);
    const QSignalBlocker quiet(series_);
    series_->clear();
    for (const auto& one : protocols_)
        series_->addItem(one.drifts.empty() ? toQt(one.name)
                                            : tr("%1 \u2014 %2 drifting").arg(toQt(one.name)).arg(one.drifts.size()));
    const auto found = std::ranges::find(protocols_, shown, &log::Protocol::name);
    const auto index = found == protocols_.end() ? 0 : found - protocols_.begin();
    series_->setCurrentIndex(static_cast<int>(index));
    series_->setEnabled(!protocols_.empty());
    print_->setEnabled(!protocols_.empty());
    page_->setProtocol(protocols_.empty() ? std::nullopt : std::optional(protocols_[static_cast<std::size_t>(index)]));
}

}  // namespace poquito::desk

#include "book/moc_protocols_leaf.moc"
