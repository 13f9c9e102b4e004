#include "desk/light/light_page.hpp"

#include "desk/light/background_leaf.hpp"
#include "desk/light/balance_leaf.hpp"
#include "desk/light/daylight_leaf.hpp"
#include "desk/light/freeze_leaf.hpp"
#include "desk/light/lights_leaf.hpp"
#include "desk/light/patch_leaf.hpp"
#include "desk/light/shine_leaf.hpp"
#include "desk/toolkit/leaves.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

LightPage::LightPage(Document& document, ChosenLight& chosen, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    leaves_ = new Leaves(this);
    column->addWidget(leaves_, 1);
    leaves_->addLeaf({"exposureTab", tr("Exposure"), tr("Shutter, ISO, the light that is there, and its balance")},
                     new BalanceLeaf(document, this));
    leaves_->addLeaf({"lightsTab", tr("Lights"), tr("Flashes and lamps, one by one")},
                     new LightsLeaf(document, chosen, this));
    leaves_->addLeaf({"daylightTab", tr("Daylight"), tr("Window, panel, room, colour, and how long it holds")},
                     new DaylightLeaf(document, this));
    leaves_->addLeaf({"backdropTab", tr("Background"), tr("Black, dark, its own colour or clean white")},
                     new BackdropLeaf(document, this));
    leaves_->addLeaf({"freezeTab", tr("Freeze"), tr("Falling, thrown and splashing things")},
                     new FreezeLeaf(document, this));
    leaves_->addLeaf({"shineTab", tr("Shine"), tr("What a polished face mirrors")},
                     new ShineLeaf(document, chosen, this));
    leaves_->addLeaf({"testFrameTab", tr("Test"), tr("What it showed, what mends it, what to learn from it")},
                     new TestFrameLeaf(document, chosen, this));
    connect(leaves_, &Leaves::turned, this, &LightPage::refresh);
}

void LightPage::showLights() { leaves_->turnTo(1); }

void LightPage::showShot(const Shot&, const plan::Report&) {
    static_cast<StationPage*>(leaves_->currentLeaf())->refresh();
}

}  // namespace poquito::desk

#include "desk/light/moc_light_page.moc"
