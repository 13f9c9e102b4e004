#pragma once

#include "advice/stations.hpp"

#include <QWidget>

#include <array>

class QAbstractButton;

namespace poquito::desk {

class Document;
class StationButton;

/// The six stations along a ruled edge, with the pointer at the present one and each one's standing.
class StationRail : public QWidget {
    Q_OBJECT
  public:
    explicit StationRail(const Document& document, QWidget* parent = nullptr);

    advice::Station current() const { return current_; }
    void setCurrent(advice::Station station);
    QSize sizeHint() const override { return {640, 52}; }

  Q_SIGNALS:
    void chosen(advice::Station station);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void refresh();

    const Document& document_;
    advice::Station current_ = advice::Station::subject;
    std::array<StationButton*, advice::stations.size()> buttons_{};
};

}  // namespace poquito::desk
