#pragma once

#include "desk/book/pages_tab.hpp"
#include "log/protocol.hpp"

#include <vector>

namespace poquito::desk {

class ProtocolPage;

/// Series that are to look the same for months, one at a time, on a page that is printed for the binder.
class ProtocolsTab : public PagesTab {
    Q_OBJECT
  public:
    explicit ProtocolsTab(LogController& controller, QWidget* parent = nullptr);
    void refresh() override;
    const std::vector<log::Protocol>& protocols() const { return protocols_; }

  protected:
    void turn(int place) override;

  private:
    ProtocolsTab(LogController& controller, ProtocolPage* page, QWidget* parent);
    void show(std::vector<log::Protocol> protocols);
    void showPage(int place);

    ProtocolPage* page_;
    std::vector<log::Protocol> protocols_;
};

}  // namespace poquito::desk
