#pragma once

#include "advice/look_over.hpp"

#include <QWidget>

#include <map>
#include <string>
#include <vector>

class QGridLayout;
class QLabel;
class QToolButton;

namespace poquito::desk {

/// What to look at in the frames, a row each, answered with yes or no. What to do stands below a no.
class LookOverList : public QWidget {
    Q_OBJECT
  public:
    explicit LookOverList(QWidget* parent = nullptr);

    /// Points of the same plan keep their answers.
    void setPoints(std::vector<advice::ProofPoint> points);
    void forgetAnswers();

    /// Those answered with no, in their order.
    std::vector<advice::ProofPoint> notSo() const;
    int looked() const { return static_cast<int>(good_.size()); }  // points that were answered at all
    int count() const { return static_cast<int>(points_.size()); }

  Q_SIGNALS:
    void answered();

  private:
    struct Row {
        QLabel* seen;
        QLabel* otherwise;
        QToolButton* good;
        QToolButton* notSo;
    };
    Row makeRow(int place);
    void answer(int place, bool good, bool given);
    void showAnswers();

    std::vector<advice::ProofPoint> points_;
    std::map<std::string, bool> good_;  // by the point's id
    std::vector<Row> rows_;
    QGridLayout* grid_;
};

}  // namespace poquito::desk
