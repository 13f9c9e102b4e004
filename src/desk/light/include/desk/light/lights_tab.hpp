#pragma once

#include "desk/pages/station_page.hpp"

#include <functional>

class QToolButton;

namespace poquito::desk {

class ChosenLight;
class LightScale;

/// The flashes and lamps of a shot, one at a time: what it is, what it is set to, where it stands and looks; beside
/// them what each gives.
class LightsTab : public StationPage {
    Q_OBJECT
  public:
    LightsTab(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addHeader(QVBoxLayout* column);
    void addUnit(QLayout* column);
    void addPower(QGridLayout* group);
    void addPlace(QLayout* column);
    void addBounce(QGridLayout* group);
    void addReading(QGridLayout* group);
    void addOwnStops(QGridLayout* group);
    void addCard(QGridLayout* group);
    void addGel(QGridLayout* group);
    void addStore(QGridLayout* group);
    void addFlash();
    void removeFlash();
    void showTabs(const Shot& shot);
    void showPowerMenu();
    const shoot::Light& at(const Shot& shot) const;
    /// Changes the chosen light, where there is one.
    void with(Shot& shot, const std::function<void(shoot::Light&)>& change) const;

    ChosenLight& chosen_;
    QWidget* fields_ = nullptr;
    QHBoxLayout* tabs_ = nullptr;
    std::vector<QToolButton*> tabButtons_;
    QToolButton* powers_ = nullptr;
    QPushButton* remove_ = nullptr;
    QLabel* noFlash_ = nullptr;
    QuantityField* power_ = nullptr;
    QCheckBox* automatic_ = nullptr;
    QCheckBox* metered_ = nullptr;
    QuantityField* compensation_ = nullptr;
    QComboBox* own_ = nullptr;
    QuantityField* ownStops_ = nullptr;
    QComboBox* modifier_ = nullptr;
    QComboBox* group_ = nullptr;
    QComboBox* gel_ = nullptr;
    QuantityField* whole_ = nullptr;
    std::vector<QWidget*> cardOnly_;
    std::vector<QWidget*> aims_;
    QCheckBox* layer_ = nullptr;
    QCheckBox* onLens_ = nullptr;
    QuantityField* ratio_ = nullptr;
    QCheckBox* bounced_ = nullptr;
    QuantityField* reading_ = nullptr;
    std::vector<QWidget*> placement_;
    std::vector<QWidget*> bounceOnly_;
    LightScale* scale_ = nullptr;
};

}  // namespace poquito::desk
