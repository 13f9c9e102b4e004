#pragma once

#include "shoot/change/subject_library.hpp"

#include <QWidget>

#include <optional>

namespace poquito::desk {

/// Subjects of a class side by side, all to one scale, with their names and sizes. A click, or Enter, takes one.
class SpecimenBoard : public QWidget {
    Q_OBJECT
  public:
    explicit SpecimenBoard(QWidget* parent = nullptr);

    /// More of them in the same room.
    void setDense();
    /// `taken`: the one that the shot has; empty: none of these.
    void show(std::vector<shoot::LibrarySubject> subjects, const std::optional<std::string>& taken);
    const std::vector<shoot::LibrarySubject>& subjects() const { return subjects_; }
    QRectF cellRect(std::size_t index) const;
    double scale() const;  // px a mm, of all of them

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override { return {700, heightForWidth(700)}; }

  Q_SIGNALS:
    void chosen(const std::string& id);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void leaveEvent(QEvent* event) override;

  private:
    int columns(int width) const;
    double cellWidth(int width) const;
    double secondLine(int width) const;
    double cellHeight() const;  // what there is of height is theirs, up to a bound
    std::optional<std::size_t> cellAt(QPointF at) const;
    void paintCell(QPainter& painter, std::size_t index) const;

    std::vector<shoot::LibrarySubject> subjects_;
    std::optional<std::string> taken_;
    double least_cell_ = 124, least_height_ = 112;  // px
    std::size_t marked_ = 0;
    std::optional<std::size_t> over_;
};

}  // namespace poquito::desk
