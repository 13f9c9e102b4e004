#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class FactsView;
class StandDrawing;

/// Where the camera stands: upright or level, how far it looks down, on which stand, over which table.
class StandTab : public StationPage {
    Q_OBJECT
  public:
    explicit StandTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addCamera(QLayout* column);
    void addTable(QLayout* column);

    StandDrawing* drawing_;
    FactsView* facts_;
    QWidget* standChoice_ = nullptr;
    QWidget* edgeField_ = nullptr;
    QWidget* farEdgeField_ = nullptr;
};

}  // namespace poquito::desk
