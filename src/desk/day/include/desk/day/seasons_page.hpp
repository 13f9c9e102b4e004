#pragma once

#include "desk/pages/book_page.hpp"
#include "log/seasons.hpp"

#include <vector>

namespace poquito::desk {

/// A year by its weeks: what is there when, what comes next. For the wall.
class SeasonsPage : public BookPage {
    Q_OBJECT
  public:
    explicit SeasonsPage(QWidget* parent = nullptr);
    void setRows(std::vector<log::SeasonRow> rows, int thisWeek, const std::vector<log::BestWeek>& best);
    const std::vector<log::SeasonRow>& rows() const { return rows_; }

  protected:
    void draw(QPainter& painter, const QRectF& area) const override;
    double heightFor(double width) const override;

  private:
    std::vector<log::SeasonRow> rows_;
    std::vector<int> best_;  // weeks that are marked
    int week_ = 0;
};

}  // namespace poquito::desk
