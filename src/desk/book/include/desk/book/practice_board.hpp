#pragma once

#include "practice/exercise.hpp"

#include <QWidget>

#include <map>
#include <string>
#include <vector>

namespace poquito::desk {

/// The exercises by their grades: which are passed, which comes next.
class PracticeBoard : public QWidget {
    Q_OBJECT
  public:
    explicit PracticeBoard(QWidget* parent = nullptr);
    /// What came of each, by its id; those that are not in it were not done. `next`: empty, all are passed.
    void setDone(std::map<std::string, practice::Result> done, std::string next);
    const practice::Exercise& chosen() const;
    void choose(std::size_t index);
    QRectF rowRect(std::size_t index) const;
    QSize minimumSizeHint() const override { return {220, 120}; }

  Q_SIGNALS:
    void exerciseChosen();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void layOut();

    std::vector<const practice::Exercise*> exercises_;  // by grade
    std::vector<double> tops_;
    std::map<std::string, practice::Result> done_;
    std::string next_;
    std::size_t chosen_ = 0;
};

}  // namespace poquito::desk
