#pragma once

#include "desk/pages/station_page.hpp"
#include "whatif/background_look.hpp"

class QToolButton;

class QCheckBox;
class QGridLayout;

namespace poquito::desk {

class LightScale;
class Sentence;

/// The background's look, and the changes that would give it another.
class BackdropTab : public StationPage {
    Q_OBJECT
  public:
    explicit BackdropTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addBackground(QLayout* column);
    void addOwnLight(QGridLayout* group);
    void addLooks(QVBoxLayout* column);
    void showWays(const Shot& shot);
    void take(const QString& what, const Shot& shot);

    QPushButton* glass_[2] = {};
    Sentence* glassSays_ = nullptr;
    QCheckBox* shines_ = nullptr;
    std::vector<QWidget*> shiningOnly_;
    std::vector<QWidget*> backgroundOnly_;
    light::BackgroundLook wanted_ = light::BackgroundLook::black;
    std::vector<QToolButton*> looks_;
    std::vector<QPushButton*> ways_;
    QPushButton* recipe_ = nullptr;
    Sentence* text_ = nullptr;
    LightScale* scale_ = nullptr;
};

}  // namespace poquito::desk
