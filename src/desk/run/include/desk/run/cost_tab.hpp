#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class CadenceBars;
class CostCurve;
class FactsView;

/// What a shot costs: where its time goes, card, batteries and flashes, the work afterwards, and the point from which
/// more frames do not help.
class CostTab : public StationPage {
    Q_OBJECT
  public:
    explicit CostTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    CadenceBars* cadence_;
    CostCurve* curve_;
    FactsView* facts_;
    QuantityField* sorting_;
    QuantityField* combining_;
    QuantityField* frames_;
    QuantityField* minutes_;
};

}  // namespace poquito::desk
