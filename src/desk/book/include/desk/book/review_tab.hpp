#pragma once

#include "desk/book/pages_tab.hpp"

namespace poquito::desk {

class ReviewPage;

/// The last day of this shoot, or another one, on a page that is printed as it stands.
class ReviewTab : public PagesTab {
    Q_OBJECT
  public:
    explicit ReviewTab(LogController& controller, QWidget* parent = nullptr);
    void refresh() override;

  protected:
    void turn(int place) override;

  private:
    ReviewTab(LogController& controller, ReviewPage* page, QWidget* parent);

    ReviewPage* page_;
};

}  // namespace poquito::desk
