#pragma once

#include "log/entry.hpp"

#include <QRectF>
#include <QWidget>

#include <cstdint>
#include <optional>
#include <vector>

namespace poquito::desk {

/// What happened, day by day, the newest above. A click or up and down choose; Delete forgets.
class LogBoard : public QWidget {
    Q_OBJECT
  public:
    explicit LogBoard(QWidget* parent = nullptr);

    void setEntries(std::vector<log::Entry> entries);
    const std::vector<log::Entry>& entries() const { return entries_; }
    std::int64_t chosen() const { return chosen_; }
    QRectF rowRect(std::size_t index) const;
    QSize minimumSizeHint() const override { return {200, 120}; }

  Q_SIGNALS:
    void entryChosen(qint64 entry);
    void entryWanted(qint64 entry);  // by a double click or Enter
    void forgetWanted(qint64 entry);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    struct Row {
        std::size_t entry = 0;
        double top = 0;
        bool newDay = false;  // its date stands above it
    };
    void layOut();
    std::optional<std::size_t> at(QPointF place) const;
    void drawRow(QPainter& painter, const Row& row) const;
    void choose(std::size_t index);

    std::vector<log::Entry> entries_;
    std::vector<Row> rows_;
    std::int64_t chosen_ = 0;
};

}  // namespace poquito::desk
