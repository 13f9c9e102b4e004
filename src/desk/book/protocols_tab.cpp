#include "desk/book/protocols_tab.hpp"

#include "desk/book/protocol_page.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/text/to_qt.hpp"

#include <algorithm>
#include <utility>

namespace poquito::desk {

ProtocolsTab::ProtocolsTab(LogController& controller, QWidget* parent)
    : ProtocolsTab(controller, new ProtocolPage, parent) {}

ProtocolsTab::ProtocolsTab(LogController& controller, ProtocolPage* page, QWidget* parent)
    : PagesTab(controller,
               {.choice = {"seriesChoice", tr("Series"),
                           tr("Shots of this shoot that were logged on two days or more; locked ones first")},
                .letters = 28,
                .print = {"printProtocolButton", tr("Print for the binder\u2026"), tr("On one sheet, or into a file")}},
               page, parent),
      page_(page) {
    show({});
}

void ProtocolsTab::refresh() {
    controller_.protocols(this, [this](std::vector<log::Protocol> protocols) { show(std::move(protocols)); });
}

void ProtocolsTab::show(std::vector<log::Protocol> protocols) {
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

void ProtocolsTab::turn(int place) { showPage(place); }

void ProtocolsTab::showPage(int place) {
    const auto at = static_cast<std::size_t>(std::max(0, place));
    page_->setProtocol(at < protocols_.size() ? std::optional(protocols_[at]) : std::nullopt);
}

}  // namespace poquito::desk

#include "desk/book/moc_protocols_tab.moc"
