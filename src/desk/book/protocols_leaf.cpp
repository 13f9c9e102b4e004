#include "desk/book/protocols_leaf.hpp"

#include "desk/book/protocol_page.hpp"
#include "desk/session/log_desk.hpp"
#include "desk/text/to_qt.hpp"

#include <algorithm>
#include <utility>

namespace poquito::desk {

ProtocolsLeaf::ProtocolsLeaf(LogDesk& desk, QWidget* parent) : ProtocolsLeaf(desk, new ProtocolPage, parent) {}

ProtocolsLeaf::ProtocolsLeaf(LogDesk& desk, ProtocolPage* page, QWidget* parent)
    : PagesLeaf(
          desk,
          {.choice = {"seriesChoice", tr("Series"),
                      tr("Shots of this shoot that were logged on two days or more; locked ones first")},
           .letters = 28,
           .print = {"printProtocolButton", tr("Print for the binder\u2026"), tr("On one sheet, or into a file")}},
          page, parent),
      page_(page) {
    show({});
}

void ProtocolsLeaf::refresh() {
    desk_.protocols(this, [this](std::vector<log::Protocol> protocols) { show(std::move(protocols)); });
}

void ProtocolsLeaf::show(std::vector<log::Protocol> protocols) {
    const auto at = static_cast<std::size_t>(std::max(0, place()));
    const auto shown = at < protocols_.size() ? protocols_[at].name : std::string();
    protocols_ = std::move(protocols);
    QStringList names;
    for (const auto& one : protocols_)
        names << (one.drifts.empty() ? toQt(one.name)
                                     : tr("%1 \u2014 %2 drifting").arg(toQt(one.name)).arg(one.drifts.size()));
    const auto found = std::ranges::find(protocols_, shown, &log::Protocol::name);
    offer(names, found == protocols_.end() ? 0 : static_cast<int>(found - protocols_.begin()));
    showPage(place());
}

void ProtocolsLeaf::turn(int place) { showPage(place); }

void ProtocolsLeaf::showPage(int place) {
    const auto at = static_cast<std::size_t>(std::max(0, place));
    page_->setProtocol(at < protocols_.size() ? std::optional(protocols_[at]) : std::nullopt);
}

}  // namespace poquito::desk

#include "desk/book/moc_protocols_leaf.moc"
