#pragma once

#include "desk/pages/book_page.hpp"
#include "log/review.hpp"

namespace poquito::desk {

/// A day of a shoot looked back on: each shot planned and taken, what went wrong by what it cost, three things to do
/// otherwise.
class ReviewPage : public BookPage {
    Q_OBJECT
  public:
    explicit ReviewPage(QWidget* parent = nullptr);
    void setReview(log::Review review);
    const log::Review& review() const { return review_; }

  protected:
    void draw(QPainter& painter, const QRectF& area) const override;
    double heightFor(double width) const override;

  private:
    std::size_t rows() const;
    double drawHead(QPainter& painter, const QRectF& area) const;  // where it ends
    void drawShots(QPainter& painter, const QRectF& area) const;
    void drawCauses(QPainter& painter, const QRectF& area) const;
    void drawOtherwise(QPainter& painter, const QRectF& area) const;

    log::Review review_;
};

}  // namespace poquito::desk
