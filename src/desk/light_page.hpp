#pragma once

#include "desk/station_page.hpp"

class QButtonGroup;
class QHBoxLayout;
class QPushButton;
class QToolButton;

namespace poquito::desk {

class LightScale;

/// Shutter and ISO, ambient light, the flashes one at a time, the background.
class LightPage : public StationPage {
    Q_OBJECT
  public:
    explicit LightPage(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const shoot::Report& report) override;

  private:
    void addExposure(QLayout* column);
    void addFlashes(QLayout* column);
    void addBackground(QLayout* column);
    void addFlash();
    void removeFlash();
    void showTabs(const Shot& shot);
    /// The flash whose fields are shown; clamped to what the shot has.
    std::size_t index(const Shot& shot) const;

    int chosen_ = 0;
    QWidget* flashFields_ = nullptr;
    QHBoxLayout* tabs_ = nullptr;
    std::vector<QToolButton*> tabButtons_;
    QPushButton* remove_ = nullptr;
    QLabel* noFlash_ = nullptr;
    QuantityField* ambient_ = nullptr;
    QuantityField* power_ = nullptr;
    std::vector<QWidget*> backgroundOnly_;
    LightScale* scale_ = nullptr;
};

}  // namespace poquito::desk
