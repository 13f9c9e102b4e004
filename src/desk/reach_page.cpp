#include "desk/reach_page.hpp"

#include "desk/reach_drawing.hpp"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QSlider>

namespace poquito::desk {

using namespace shoot;

namespace {

constexpr int slider_steps = 1000;

template <typename Gear>
std::vector<std::pair<std::string, std::string>> names(const std::vector<Gear>& gear) {
    std::vector<std::pair<std::string, std::string>> options;
    options.reserve(gear.size());
    for (const auto& piece : gear) options.emplace_back(piece.id, piece.name);
    return options;
}

}  // namespace

ReachPage::ReachPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* fields = addColumn(5);

    auto* gear = addGroup(fields, tr("Gear, from the camera forwards"));
    addChoice(
        gear, {"cameraChoice", tr("Camera"), tr("Body the train is mounted on")},
        [](const Kit& kit) { return names(kit.cameras); }, [](const Shot& s) { return s.rig.camera; },
        [](Shot& s, const std::string& id) { s.rig.camera = id; });
    addChoice(
        gear,
        {"converterChoice", tr("Converter"), tr("Next to the camera; multiplies magnification and working f-number")},
        [](const Kit& kit) {
            auto options = names(kit.teleconverters);
            options.insert(options.begin(), {"", "none"});
            return options;
        },
        [](const Shot& s) { return s.rig.teleconverter.value_or(""); },
        [](Shot& s, const std::string& id) { s.rig.teleconverter = id.empty() ? std::nullopt : std::optional(id); });
    addChips(
        gear, {"tubeChips", tr("Tubes"), tr("Extension between camera and lens; does not change the focal length")},
        [](const Kit& kit) { return names(kit.tubes); }, [](const Shot& s) { return s.rig.tubes; },
        [](Shot& s, const std::vector<std::string>& ids) { s.rig.tubes = ids; });
    addChoice(
        gear, {"lensChoice", tr("Lens"), tr("Zooms are entered at one focal length")},
        [](const Kit& kit) { return names(kit.lenses); }, [](const Shot& s) { return s.rig.lens; },
        [](Shot& s, const std::string& id) { s.rig.lens = id; });
    addChips(
        gear, {"closeupChips", tr("Close-up lenses"), tr("On the front thread; cost no light, but working distance")},
        [](const Kit& kit) { return names(kit.closeup_lenses); }, [](const Shot& s) { return s.rig.closeup_lenses; },
        [](Shot& s, const std::vector<std::string>& ids) { s.rig.closeup_lenses = ids; });

    auto* focus = addGroup(fields, tr("Focus"));
    addQuantity(
        focus,
        {"magnificationField", tr("Magnification"),
         tr("Of the whole train; the ring goes to the first place that gives it")},
        magnificationQuantity(),
        [this](const Shot& s) {
            return s.rig.focus.by == FocusBy::magnification ? s.rig.focus.value
                                                            : this->document().report()->optics.magnification;
        },
        [](Shot& s, double v) { s.rig.focus = {.by = FocusBy::magnification, .value = v}; });
    addQuantity(
        focus,
        {"ringField", tr("Ring"),
         tr("0 is infinity, 1 the closest focus; set by hand it stays where it is when gear changes")},
        ratioQuantity(0, 1), [this](const Shot&) { return this->document().report()->optics.ring; },
        [](Shot& s, double v) { s.rig.focus = {.by = FocusBy::ring, .value = v}; });
    slider_ = new QSlider(Qt::Horizontal, this);
    slider_->setObjectName(QStringLiteral("ringSlider"));
    slider_->setAccessibleName(tr("Focus ring from infinity to closest"));
    slider_->setRange(0, slider_steps);
    slider_->setPageStep(slider_steps / 10);
    slider_->setMinimumHeight(22);
    focus->addWidget(slider_, focus->rowCount(), 0, 1, 2);
    connect(slider_, &QSlider::sliderPressed, this, [this] { ++drag_; });
    connect(slider_, &QSlider::valueChanged, this, [this](int value) {
        this->document().editShot(
            {tr("Turn the focus ring"), QStringLiteral("ringSlider#%1").arg(drag_)}, [&](Shot& shot) {
                shot.rig.focus = {.by = FocusBy::ring, .value = static_cast<double>(value) / slider_steps};
            });
    });
    fields->addStretch();

    drawing_ = new ReachDrawing(document, this);
    addDrawing(drawing_, 6);
}

void ReachPage::showShot(const Shot&, const Report& report) {
    const QSignalBlocker quiet(slider_);
    slider_->setValue(qRound(report.optics.ring * slider_steps));
    drawing_->update();
}

}  // namespace poquito::desk
