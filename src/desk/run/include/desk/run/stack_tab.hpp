#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class FactsView;
class StackDrawing;

/// The stack as it will be taken: what moves, which slice, in which steps; the frames on the subject; what ring, rail,
/// hand or bracket makes of it.
class StackTab : public StationPage {
    Q_OBJECT
  public:
    explicit StackTab(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    void slicePointsWanted();  // to be clicked in the finder

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addWhat(QVBoxLayout* column);
    void addSpan(QGridLayout* group);
    void addPace(QGridLayout* group);
    void addHand(QGridLayout* group);
    void addEnds(QVBoxLayout* column);

    StackDrawing* drawing_ = nullptr;
    FactsView* facts_ = nullptr;
    QPushButton* all_ = nullptr;
    QComboBox* rail_ = nullptr;
    QWidget* composite_ = nullptr;
    QWidget* settle_ = nullptr;
    QWidget* interval_ = nullptr;
    QWidget* cadence_ = nullptr;
    std::vector<QWidget*> stackOnly_, handOnly_;
};

}  // namespace poquito::desk
