#include "desk/reach/train_tab.hpp"

#include "desk/pages/options.hpp"
#include "desk/reach/reach_drawing.hpp"
#include "shoot/change/mount.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QSlider>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

namespace {

constexpr int slider_steps = 1000;

template <typename Gear>
std::vector<std::pair<std::string, std::string>> names(const std::vector<Gear>& gear, const std::string& prefix = {}) {
    std::vector<std::pair<std::string, std::string>> options;
    options.reserve(gear.size());
    for (const auto& piece : gear) options.emplace_back(prefix + piece.id, piece.name);
    return options;
}

template <typename Gear>
std::vector<std::pair<std::string, std::string>> names_or_none(const std::vector<Gear>& gear, const char* none) {
    auto options = names(gear);
    options.insert(options.begin(), {"", none});
    return options;
}

std::optional<std::string> if_any(const std::string& id) { return id.empty() ? std::nullopt : std::optional(id); }

/// Gear that is chosen by chips: "list/id".
std::vector<std::pair<std::string, std::string>> piece_options(const Kit& kit) {
    std::vector<std::pair<std::string, std::string>> options;
    const auto add = [&](const auto& gear, const char* list) {
        for (auto& option : names(gear, std::string(list) + "/")) options.push_back(std::move(option));
    };
    add(kit.tubes, "tubes");
    add(kit.bellows, "bellows");
    add(kit.closeup_lenses, "closeup_lenses");
    add(kit.filters, "filters");
    add(kit.reversing_rings, "reversing_rings");
    add(kit.coupling_rings, "coupling_rings");
    return options;
}

std::vector<std::string> pieces_on(const Rig& rig) {
    std::vector<std::string> on;
    const auto add = [&](const char* list, const std::string& id) { on.push_back(std::string(list) + "/" + id); };
    for (const auto& id : rig.tubes_behind_converter) add("tubes", id);
    for (const auto& id : rig.tubes) add("tubes", id);
    if (rig.bellows) add("bellows", rig.bellows->bellows);
    for (const auto& id : rig.closeup_lenses) add("closeup_lenses", id);
    for (const auto& id : rig.filters) add("filters", id);
    if (rig.reversing_ring) add("reversing_rings", *rig.reversing_ring);
    if (rig.front_lens && rig.front_lens->coupling_ring) add("coupling_rings", *rig.front_lens->coupling_ring);
    return on;
}

std::pair<std::string, std::string> split(const std::string& piece) {
    const auto slash = piece.find('/');
    return {piece.substr(0, slash), piece.substr(slash + 1)};
}

/// What was clicked on goes on at its usual place, what was clicked off comes off.
void follow_chips(const Kit& kit, Rig& rig, const std::vector<std::string>& wanted) {
    const auto on = pieces_on(rig);
    for (const auto& piece : on) {
        if (std::ranges::count(wanted, piece) > 0) continue;
        const auto [list, id] = split(piece);
        const auto row = mounted_pieces(kit, rig, 0);
        for (std::size_t i = 0; i < row.size(); ++i)
            if (row[i].list == list && row[i].id == id) {
                take_off(kit, rig, i);
                break;
            }
    }
    for (const auto& piece : wanted) {
        if (std::ranges::count(on, piece) > 0) continue;
        const auto [list, id] = split(piece);
        (void)put_on(kit, rig, list, id, mounted_pieces(kit, rig, 0).size());
    }
}

}  // namespace

TrainTab::TrainTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* left = addColumn(12);
    auto* sides = new QHBoxLayout;
    sides->setSpacing(14);
    left->addLayout(sides);
    auto* gear = new QVBoxLayout;
    sides->addLayout(gear, 6);
    addGear(gear);
    gear->addStretch();
    auto* focus = new QVBoxLayout;
    sides->addLayout(focus, 5);
    addFocus(focus);
    addFrontAndBellows(focus);
    addCarrying(focus);
    focus->addStretch();
    addPieces(left);
    left->addStretch();
    drawing_ = new ReachDrawing(document, this);
    addDrawing(drawing_, 5);
}

void TrainTab::addGear(QLayout* column) {
    auto* gear = addGroup(column, tr("Gear"));
    addChoice(
        gear, {"cameraChoice", tr("Camera"), tr("Body the train is mounted on")},
        [](const Kit& kit) { return names(kit.cameras); }, [](const Shot& s) { return s.rig.camera; },
        [this](Shot& s, const std::string& id) {
            s.rig.camera = id;
            settle_rig(this->document().kit(), s.rig);
        });
    cropChoice_ = addChoice(
        gear, {"cropChoice", tr("Crop"), tr("Part of the sensor that the camera is set to use")},
        [this](const Kit& kit) {
            Options options = {{"", "whole sensor"}};
            if (const auto* shot = this->document().shot())
                for (const auto& mode : camera_of(kit, *shot).crop_modes) options.emplace_back(mode.name, mode.name);
            return options;
        },
        [](const Shot& s) { return s.rig.crop_mode.value_or(""); },
        [](Shot& s, const std::string& name) { s.rig.crop_mode = if_any(name); });
    addChoice(
        gear, {"lensChoice", tr("Lens"), tr("The one on the camera")}, [](const Kit& kit) { return names(kit.lenses); },
        [](const Shot& s) { return s.rig.lens; },
        [this](Shot& s, const std::string& id) { (void)put_on(this->document().kit(), s.rig, "lenses", id, 0); });
    zoomField_ = addQuantity(
        gear, {"zoomField", tr("Zoomed to"), tr("Focal length the zoom is set to; its record is interpolated")},
        lengthQuantity(text::range::size),
        [this](const Shot& s) {
            return zoom_position(lens_of(this->document().kit(), s), s.rig.focal_length).value_or(0);
        },
        [this](Shot& s, double v) { s.rig.focal_length = zoom_position(lens_of(this->document().kit(), s), v); });
    addChoice(
        gear,
        {"converterChoice", tr("Converter"),
         tr("Multiplies magnification and f-number; tubes go on either side of it")},
        [](const Kit& kit) { return names_or_none(kit.teleconverters, "none"); },
        [](const Shot& s) { return s.rig.teleconverter.value_or(""); },
        [this](Shot& s, const std::string& id) {
            s.rig.teleconverter = if_any(id);
            settle_rig(this->document().kit(), s.rig);
        });
}

void TrainTab::addPieces(QLayout* column) {
    auto* group = addGroup(column, tr("Pieces"));
    auto* chips = addChips(
        group,
        {"pieceChips", tr("Pieces"),
         tr("A click puts a piece on or takes it off; drag it into the train to choose the place")},
        piece_options, [](const Shot& s) { return pieces_on(s.rig); },
        [this](Shot& s, const std::vector<std::string>& wanted) {
            follow_chips(this->document().kit(), s.rig, wanted);
        });
    spanRow(group, chips);
    connect(chips, &ChoiceChips::chipDragged, this, [this](const std::string&, QPoint at) { Q_EMIT pieceDragged(at); });
    connect(chips, &ChoiceChips::chipDropped, this, [this](const std::string& piece, QPoint at) {
        const auto [list, id] = split(piece);
        Q_EMIT pieceDropped(list, id, at);
    });
}

void TrainTab::addFocus(QLayout* column) {
    auto* focus = addGroup(column, tr("Focus"));
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
        ratioQuantity(text::range::share), [this](const Shot&) { return this->document().report()->optics.ring; },
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
}

void TrainTab::addFrontAndBellows(QLayout* column) {
    auto* group = addGroup(column, {});
    extensionField_ = addQuantity(
        group, {"extensionField", tr("Extension"), tr("What bellows or helicoid are racked out to")}, lengthQuantity(),
        [](const Shot& s) { return s.rig.bellows ? s.rig.bellows->extension : 0; },
        [this](Shot& s, double v) {
            if (!s.rig.bellows) return;
            s.rig.bellows->extension = v;
            settle_rig(this->document().kit(), s.rig);
        });
    frontStopField_ = addQuantity(
        group,
        {"frontStopField", tr("Front stop"), tr("Marked stop of the lens in front; wide open unless it darkens")},
        fNumberQuantity(), [](const Shot& s) { return s.rig.front_lens ? s.rig.front_lens->f_number : 1; },
        [](Shot& s, double v) {
            if (s.rig.front_lens) s.rig.front_lens->f_number = v;
        });
    frontRingField_ = addQuantity(
        group, {"frontRingField", tr("Front ring"), tr("Focus ring of the lens in front; usually at infinity, 0")},
        ratioQuantity(text::range::share), [](const Shot& s) { return s.rig.front_lens ? s.rig.front_lens->ring : 0; },
        [](Shot& s, double v) {
            if (s.rig.front_lens) s.rig.front_lens->ring = v;
        });
}

void TrainTab::addCarrying(QLayout* column) {
    auto* group = addGroup(column, {});
    railChoice_ = addChoice(
        group, {"railChoice", tr("Rail"), tr("What moves the camera in a stack by rail")},
        [](const Kit& kit) { return names_or_none(kit.rails, "none named"); },
        [](const Shot& s) { return s.rig.rail.value_or(""); },
        [](Shot& s, const std::string& id) { s.rig.rail = if_any(id); });
    tank_ = addCheck(
        group,
        {"tankCheck", tr("In a tank"),
         tr("It stands, floats or sinks in liquid behind a flat wall, and appears nearer")},
        [](const Shot& s) { return s.subject.tank.has_value(); },
        [](Shot& s, bool on) { s.subject.tank = on ? std::optional(InTank{}) : std::nullopt; });
    const auto part = [&](const Caption& caption, double optics::Tank::*member) {
        return addQuantity(
            group, caption, lengthQuantity(),
            [member](const Shot& s) { return (s.subject.tank ? s.subject.tank->tank : optics::Tank()).*member; },
            [member](Shot& s, double v) {
                if (s.subject.tank) s.subject.tank->tank.*member = v;
            });
    };
    water_ = part({"waterField", tr("Water"), tr("From the inner face of the wall to the subject's middle")},
                  &optics::Tank::water);
    wall_ = part({"wallField", tr("Wall"), tr("Thickness of glass or acrylic")}, &optics::Tank::wall);
}

void TrainTab::showShot(const Shot& shot, const Report& report) {
    const QSignalBlocker quiet(slider_);
    slider_->setValue(qRound(report.optics.ring * slider_steps));
    const auto& kit = document().kit();
    setRowVisible(cropChoice_, !camera_of(kit, shot).crop_modes.empty());
    setRowVisible(zoomField_, !lens_of(kit, shot).zoom.empty());
    setRowVisible(extensionField_, shot.rig.bellows.has_value());
    setRowVisible(frontStopField_, shot.rig.front_lens.has_value());
    setRowVisible(frontRingField_, shot.rig.front_lens.has_value());
    setRowVisible(railChoice_, !kit.rails.empty());
    const auto& subject = shot.subject;
    tank_->setVisible(subject.tank || shot.freeze || has_trait(subject, "liquid") || has_trait(subject, "dye"));
    for (QWidget* of_tank : {water_, wall_}) setRowVisible(of_tank, subject.tank.has_value());
    drawing_->update();
}

}  // namespace poquito::desk

#include "desk/reach/moc_train_tab.moc"
