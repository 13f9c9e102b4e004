#pragma once

#include "desk/book/pages_leaf.hpp"

namespace poquito::desk {

class ReviewPage;

/// The last day of this shoot, or another one, on a page that is printed as it stands.
class ReviewLeaf : public PagesLeaf {
    Q_OBJECT
  public:
    explicit ReviewLeaf(LogDesk& desk, QWidget* parent = nullptr);
    void refresh() override;

  protected:
    void turn(int place) override;

  private:
    ReviewLeaf(LogDesk& desk, ReviewPage* page, QWidget* parent);

    ReviewPage* page_;
};

}  // namespace poquito::desk
