#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class FallDrawing;
class FreezeTable;

/// Something falls, flies or splashes: how fast it is, which powers of the flash stop it, and when to fire.
class FreezeTab : public StationPage {
    Q_OBJECT
  public:
    explicit FreezeTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addWhat(QLayout* column);
    void addWhen(QLayout* column);
    /// A field of the freeze plan. A change of what makes it fast carries the subject's speed along.
    template <typename Member>
    QuantityField* addNumber(QGridLayout* group, const Caption& caption, const Quantity& quantity, Member member);

    std::vector<QWidget*> planOnly_;
    QuantityField* drop_ = nullptr;
    QuantityField* thrown_ = nullptr;
    QuantityField* rises_ = nullptr;
    QuantityField* angle_ = nullptr;
    QComboBox* moment_ = nullptr;
    QuantityField* beam_ = nullptr;
    QuantityField* rise_ = nullptr;
    QCheckBox* undelayed_ = nullptr;
    QuantityField* sound_ = nullptr;
    QCheckBox* second_ = nullptr;
    std::vector<QWidget*> secondOnly_;
    QCheckBox* repeating_ = nullptr;
    std::vector<QWidget*> repeatingOnly_;
    FallDrawing* fall_ = nullptr;
    FreezeTable* table_ = nullptr;
};

}  // namespace poquito::desk
