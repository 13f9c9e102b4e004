#pragma once

#include "desk/pages/book_page.hpp"
#include "log/protocol.hpp"

#include <QString>

#include <functional>
#include <optional>

namespace poquito::desk {

/// A series over the months: how light, how large and where its frames came out against the first session, what has
/// drifted, and what to lay out again. The sheet for the binder.
class ProtocolPage : public BookPage {
    Q_OBJECT
  public:
    explicit ProtocolPage(QWidget* parent = nullptr);
    void setProtocol(std::optional<log::Protocol> protocol);

  protected:
    void draw(QPainter& painter, const QRectF& area) const override;
    double heightFor(double width) const override;

  private:
    using Reads = std::function<std::optional<double>(const log::Session&)>;
    void drawStrip(QPainter& painter, const QRectF& area, const QString& title, const Reads& reads, double may,
                   const QString& unit) const;
    double drawHead(QPainter& painter, const QRectF& area) const;
    void drawSettings(QPainter& painter, const QRectF& area) const;

    std::optional<log::Protocol> protocol_;
};

}  // namespace poquito::desk
