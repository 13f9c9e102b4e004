#include "desk/light/light_page.hpp"

#include "desk/light/background_tab.hpp"
#include "desk/light/balance_tab.hpp"
#include "desk/light/daylight_tab.hpp"
#include "desk/light/freeze_tab.hpp"
#include "desk/light/lights_tab.hpp"
#include "desk/light/patch_tab.hpp"
#include "desk/light/shine_tab.hpp"
#include "desk/toolkit/tabs.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

LightPage::LightPage(Document& document, ChosenLight& chosen, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    tabs_ = new Tabs(this);
    column->addWidget(tabs_, 1);
    tabs_->addTab({"exposureTab", tr("Exposure"), tr("Shutter, ISO, the light that is there, and its balance")},
                  new BalanceTab(document, this));
    tabs_->addTab({"lightsTab", tr("Lights"), tr("Flashes and lamps, one by one")},
                  new LightsTab(document, chosen, this));
    tabs_->addTab({"daylightTab", tr("Daylight"), tr("Window, panel, room, colour, and how long it holds")},
                  new DaylightTab(document, this));
    tabs_->addTab({"backdropTab", tr("Background"), tr("Black, dark, its own colour or clean white")},
                  new BackdropTab(document, this));
    tabs_->addTab({"freezeTab", tr("Freeze"), tr("Falling, thrown and splashing things")},
                  new FreezeTab(document, this));
    tabs_->addTab({"shineTab", tr("Shine"), tr("What a polished face mirrors")}, new ShineTab(document, chosen, this));
    tabs_->addTab({"testFrameTab", tr("Test"), tr("What it showed, what mends it, what to learn from it")},
                  new TestFrameTab(document, chosen, this));
    connect(tabs_, &Tabs::turned, this, &LightPage::refresh);
}

void LightPage::showLights() { tabs_->turnTo(1); }

void LightPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(tabs_->currentTab())->refresh();
}

}  // namespace poquito::desk

#include "desk/light/moc_light_page.moc"
