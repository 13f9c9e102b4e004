#pragma once

#include "shoot/form/attitude.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

class Document;

/// The subject from the side and from above, camera on the left, with the depth it presents; and how it would lie if
/// the camera (or the subject) were turned.
class PlaneDrawing : public QWidget {
    Q_OBJECT
  public:
    explicit PlaneDrawing(Document& document, QWidget* parent = nullptr);
    void setProposal(std::optional<shoot::Attitude> proposal);
    QSize minimumSizeHint() const override { return {220, 130}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    Document& document_;
    std::optional<shoot::Attitude> proposal_;
};

}  // namespace poquito::desk
