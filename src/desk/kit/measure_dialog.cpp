#include "desk/kit/measure_dialog.hpp"

#include "desk/drawing/ruler_view.hpp"
#include "desk/kit/measure_sketch.hpp"
#include "desk/session/picture_file.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/theme.hpp"
#include "optics/train.hpp"
#include "text/text.hpp"

#include <QButtonGroup>
#include <QCheckBox>
#include <QDateTime>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QStackedWidget>
#include <QUrl>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QString number(double value, int digits = 4) { return toQt(text::number_text(value, digits)); }

QString withUncertainty(const shoot::Measurement& m) {
    return QStringLiteral("%1 \u00b1 %2").arg(number(m.value), number(m.uncertainty, 2));
}

QString comparedTo(double measured, double believed) {
    const double share = measured / believed - 1;
    return QObject::tr("by the record %1, measured %2 % %3")
        .arg(number(believed), number(std::abs(share) * 100, 2), share < 0 ? QObject::tr("less") : QObject::tr("more"));
}

std::string now() { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

}  // namespace

MeasureDialog::MeasureDialog(Document& document, Bag& bag, QWidget* parent)
    : QDialog(parent), document_(document), bag_(bag) {
    setObjectName(QStringLiteral("measureDesk"));
    setWindowTitle(tr("Measure the lens"));
    setAcceptDrops(true);
    resize(1080, 700);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 12, 16, 12);
    row->setSpacing(16);
    auto* side = new QWidget(this);
    side->setFixedWidth(300);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    title_ = new QLabel(side);
    title_->setObjectName(QStringLiteral("measureTitle"));
    title_->setFont(textFont(14, QFont::DemiBold));
    title_->setWordWrap(true);
    column->addWidget(title_);
    ways_ = new QStackedWidget(side);
    auto* group = new QButtonGroup(this);
    const std::pair<const char*, QString> ways[] = {{"wayRule", tr("Photographed rule")},
                                                    {"wayAperture", tr("Aperture the camera shows")},
                                                    {"wayDistances", tr("Two sharp distances")}};
    for (int i = 0; i < 3; ++i) {
        auto* way = captionedButton({ways[i].first, ways[i].second}, side);
        way->setCheckable(true);
        way->setChecked(i == 0);
        group->addButton(way, i);
        column->addWidget(way);
    }
    view_ = new RulerView(this);
    sketch_ = new MeasureSketch(document_, this);
    sketch_->hide();
    connect(group, &QButtonGroup::idClicked, this, [this](int way) {
        ways_->setCurrentIndex(way);
        view_->setVisible(way == 0);
        sketch_->setVisible(way != 0);
        refresh();
    });
    ways_->addWidget(buildRule());
    ways_->addWidget(buildAperture());
    ways_->addWidget(buildDistances());
    column->addSpacing(4);
    column->addWidget(ways_, 1);
    alsoBag_ = new QCheckBox(tr("in my bag as well"), side);
    nameControl(alsoBag_, {"alsoBagCheck", alsoBag_->text(),
                           tr("Where the bag has this lens, its record gets the measurement too")});
    alsoBag_->setChecked(true);
    column->addWidget(alsoBag_);
    message_ = new QLabel(side);
    message_->setObjectName(QStringLiteral("measureMessage"));
    message_->setWordWrap(true);
    column->addWidget(message_);
    row->addWidget(side);
    row->addWidget(view_, 1);
    row->addWidget(sketch_, 1);
    connect(view_, &RulerView::marksChanged, this, &MeasureDialog::refreshRule);
    connect(&document_, &Document::shootChanged, this, &MeasureDialog::refresh);
    connect(&document_, &Document::selected, this, &MeasureDialog::begin);
}

QuantityField* MeasureDialog::addField(QVBoxLayout* column, const char* name, const QString& label, const QString& tip,
                                       Quantity quantity, double value) {
    auto* line = new QHBoxLayout;
    auto* words = new QLabel(label, column->parentWidget());
    words->setProperty("quiet", true);
    words->setFixedWidth(132);
    line->addWidget(words);
    auto* field = new QuantityField(std::move(quantity), column->parentWidget());
    nameControl(field, {name, label, tip});
    field->setValue(value);
    words->setBuddy(field);
    line->addWidget(field, 1);
    column->addLayout(line);
    connect(field, &QuantityField::valueEdited, this, &MeasureDialog::refresh);
    return field;
}

QLabel* MeasureDialog::addText(QVBoxLayout* column, const char* name) {
    auto* label = new QLabel(column->parentWidget());
    label->setObjectName(QLatin1String(name));
    label->setWordWrap(true);
    column->addWidget(label);
    return label;
}

QPushButton* MeasureDialog::addStore(QVBoxLayout* column, const char* name, void (MeasureDialog::*run)()) {
    auto* button = captionedButton({name, tr("Put it into the lens's record"),
                                    tr("One step of the history; the kit room takes it back at any time")},
                                   column->parentWidget());
    connect(button, &QPushButton::clicked, this, run);
    column->addWidget(button);
    column->addStretch();
    return button;
}

QWidget* MeasureDialog::buildRule() {
    auto* page = new QWidget(ways_);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* open = captionedButton({"openRuleButton", tr("Open a photograph\u2026")}, page);
    connect(open, &QPushButton::clicked, this, &MeasureDialog::askPicture);
    column->addWidget(open);
    pictureText_ = addText(column, "pictureText");
    pictureText_->setProperty("quiet", true);
    distance_ = addField(column, "ruleDistanceField", tr("Between the marks"), tr("On the rule, from tick to tick"),
                         lengthQuantity(text::range::size), 10);
    ring_ = addField(column, "ruleRingField", tr("Ring when taken"),
                     tr("0 infinity, 1 closest; the rig is that of the shot"),
                     ratioQuantity({.least = 0.01, .greatest = 1}), 1);
    snap_ = new QCheckBox(tr("set marks to the nearest tick"), page);
    nameControl(snap_, {"snapCheck", snap_->text()});
    snap_->setChecked(true);
    connect(snap_, &QCheckBox::clicked, view_, &RulerView::setSnapping);
    column->addWidget(snap_);
    ruleText_ = addText(column, "ruleText");
    ruleText_->setTextFormat(Qt::RichText);
    storeRule_ = addStore(column, "storeRuleButton", &MeasureDialog::storeRule);
    return page;
}

QWidget* MeasureDialog::buildAperture() {
    auto* page = new QWidget(ways_);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* how = addText(column, "apertureHow");
    how->setText(tr(
        "On a camera that shows working values: bare lens, widest stop, ring at closest focus. Type what it shows."));
    how->setProperty("quiet", true);
    shown_ = addField(column, "shownApertureField", tr("It shows"), tr("Working f-number at closest focus"),
                      fNumberQuantity(), 5.6);
    shownOff_ = addField(column, "shownOffField", tr("Good to"), tr("Cameras show thirds: half a third either way"),
                         stopsQuantity(), 1.0 / 6);
    apertureText_ = addText(column, "apertureText");
    storeAperture_ = addStore(column, "storeApertureButton", &MeasureDialog::storeAperture);
    return page;
}

QWidget* MeasureDialog::buildDistances() {
    auto* page = new QWidget(ways_);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* how = addText(column, "distancesHow");
    how->setText(
        tr("Ring at closest focus both times, from the sensor mark to what is sharp: once with the bare lens, once "
           "with a tube behind it. Focal length and principal planes follow."));
    how->setProperty("quiet", true);
    bare_ = addField(column, "bareDistanceField", tr("Bare lens"), tr("Sensor to subject"),
                     lengthQuantity(text::range::size), 290);
    extension_ = addField(column, "sharpExtensionField", tr("Extension"), tr("Length of the tube"),
                          lengthQuantity(text::range::size), 12);
    extended_ = addField(column, "extendedDistanceField", tr("With the tube"), tr("Sensor to subject"),
                         lengthQuantity(text::range::size), 280);
    distanceOff_ = addField(column, "distanceOffField", tr("Good to"), tr("Of either distance"),
                            lengthQuantity(text::range::size), 1);
    distancesText_ = addText(column, "distancesText");
    distancesText_->setTextFormat(Qt::RichText);
    storeDistances_ = addStore(column, "storeDistancesButton", &MeasureDialog::storeDistances);
    return page;
}

// ---- pictures ----------------------------------------------------------------------------------------------------

void MeasureDialog::askPicture() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Photograph of a rule"), inDocuments({}),
                                     tr("Pictures (*.jpg *.jpeg *.png *.tif *.tiff *.bmp *.webp);;All files (*)"));
    if (!path.isEmpty()) openPicture(path);
}

bool MeasureDialog::openPicture(const QString& path) {
    const auto [picture, problem] = readPicture(path.toStdString(), Turned::upright);
    if (picture.isNull()) {
        message_->setText(tr("%1 was not opened: %2.").arg(QFileInfo(path).fileName(), problem));
        message_->setProperty("problem", true);
        return false;
    }
    showPicture(picture, QFileInfo(path).fileName());
    return true;
}

void MeasureDialog::showPicture(const QImage& picture, const QString& name) {
    picture_ = name;
    message_->clear();
    view_->setImage(picture);
    view_->setFocus();
}

void MeasureDialog::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}
void MeasureDialog::dropEvent(QDropEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (!urls.isEmpty()) openPicture(urls.front().toLocalFile());
}

// ---- what follows ------------------------------------------------------------------------------------------------

const gear::Lens* MeasureDialog::lens() const {
    const auto* shot = document_.shot();
    return shot ? &shoot::lens_of(document_.kit(), *shot) : nullptr;
}

void MeasureDialog::begin() {
    if (const auto* record = lens()) {
        ring_->setValue(std::max(0.01, document_.report()->optics.ring));
        const auto optics = gear::optics_of(*record, document_.shot()->rig.focal_length);
        bare_->setValue(optics.closest_focus);
        // What the record itself would give, so that nothing is claimed before it is measured.
        optics::Train train{.lens = optics, .tubes = extension_->value()};
        extended_->setValue(optics::focus_at_ring(train, 1).subject_to_sensor.value_or(optics.closest_focus));
        shown_->setValue(optics.closest_working_f_number.value_or(
            optics.max_aperture * (1 + optics.max_magnification / optics.pupil_magnification)));
    }
    refresh();
}

void MeasureDialog::refresh() {
    const auto* record = lens();
    setEnabled(record != nullptr);
    if (!record) return;
    title_->setText(toQt(record->name));
    refreshRule();
    refreshAperture();
    refreshDistances();
    if (ways_->currentIndex() == 1) sketch_->show({});
    if (ways_->currentIndex() == 2)
        sketch_->show(MeasureSketch::Distances{
            .bare = bare_->value(), .extended = extended_->value(), .extension = extension_->value()});
}

void MeasureDialog::refreshRule() {
    whole_.reset();
    own_.reset();
    const auto* shot = document_.shot();
    if (!shot) return;
    const auto& kit = document_.kit();
    const auto& sensor = shoot::sensor_of(kit, shot->rig);
    const auto& marks = view_->marks();
    QStringList lines;
    if (view_->hasImage()) {
        const QSize size = view_->imageSize();
        const double pitch = std::max(sensor.width, sensor.height) / std::max(size.width(), size.height());
        pictureText_->setText(tr("%1, %2 \u00d7 %3; a pixel is %4 on the sensor of %5.")
                                  .arg(picture_)
                                  .arg(size.width())
                                  .arg(size.height())
                                  .arg(toQt(text::length_text(pitch)), toQt(shoot::camera_of(kit, *shot).name)));
        const double shape = double(std::max(size.width(), size.height())) / std::min(size.width(), size.height());
        const double expected = std::max(sensor.width, sensor.height) / std::min(sensor.width, sensor.height);
        if (std::abs(shape / expected - 1) > 0.02)
            lines << tr("The picture is not the shape of the sensor: cropped, it would read wrong.");
        if (marks[0] && marks[1]) {
            const auto reading = imaging::read_rule({.first = marks[0]->place,
                                                     .second = marks[1]->place,
                                                     .first_tick = marks[0]->tick,
                                                     .second_tick = marks[1]->tick,
                                                     .distance = distance_->value(),
                                                     .pixel_pitch = pitch});
            whole_ = shoot::Measurement{.value = reading.magnification, .uncertainty = reading.uncertainty};
            lines << tr("%1 pixels between the marks.").arg(number(reading.pixels, 5));
            const int ticks = imaging::ticks_between(view_->grey(), marks[0]->place, marks[1]->place);
            if (ticks > 0) lines << tr("%1 spaces counted between them.").arg(ticks + 1);
            lines << tr("<b>Magnification of the rig %1</b>").arg(withUncertainty(*whole_));
            own_ = whole_->value > 0 ? shoot::lens_part(kit, shot->rig, ring_->value(), *whole_) : std::nullopt;
            if (own_)
                lines << tr("The rig at ring %1: %2.<br>The lens alone there: <b>%3</b>")
                             .arg(number(ring_->value(), 3),
                                  comparedTo(whole_->value,
                                             shoot::believed_magnification(kit, shot->rig, ring_->value())),
                                  withUncertainty(*own_));
            else
                lines << tr(
                    "No magnification of the lens gives that with this rig: check the distance and the pieces "
                    "mounted.");
        } else {
            lines << tr("Click one tick, then another; the farther apart the better.");
        }
    } else {
        pictureText_->clear();
    }
    ruleText_->setText(lines.join(QStringLiteral("<br>")));
    storeRule_->setEnabled(own_.has_value());
}

void MeasureDialog::refreshAperture() {
    const auto& optics = lens()->optics;
    const double believed = optics.closest_working_f_number.value_or(
        optics.max_aperture *
        (1 + optics::lens_magnification(gear::optics_of(*lens(), std::nullopt), 1) / optics.pupil_magnification));
    const bool possible = shown_->value() >= optics.max_aperture;
    apertureText_->setText(possible
                               ? tr("Working aperture %1. %2")
                                     .arg(comparedTo(shown_->value(), believed),
                                          tr("That is %1 stops lost at closest focus.")
                                              .arg(number(2 * std::log2(shown_->value() / optics.max_aperture), 2)))
                               : tr("A working f-number is never below the marked %1.")
                                     .arg(toQt(text::f_number_text(optics.max_aperture))));
    storeAperture_->setEnabled(possible);
}

void MeasureDialog::refreshDistances() {
    const auto& record = *lens();
    if (!record.zoom.empty()) {
        sharp_.reset();
        distancesText_->setText(tr("Not for zooms: their record says it at every focal length."));
        storeDistances_->setEnabled(false);
        return;
    }
    sharp_ = shoot::from_sharp_distances(gear::optics_of(record, std::nullopt), {.bare = bare_->value(),
                                                                                 .extended = extended_->value(),
                                                                                 .extension = extension_->value(),
                                                                                 .uncertainty = distanceOff_->value()});
    constexpr double worth_storing = 0.1;  // of the focal length; worse is no knowledge
    const bool fits = sharp_ && sharp_->hiatus.value < bare_->value();
    const bool sound = fits && sharp_->focal_length.uncertainty < worth_storing * sharp_->focal_length.value;
    if (sound)
        distancesText_->setText(
            tr("Focal length at closest focus <b>%1 mm</b>, between the principal planes <b>%2 mm</b>.")
                .arg(withUncertainty(sharp_->focal_length), withUncertainty(sharp_->hiatus)));
    else if (fits)
        distancesText_->setText(
            tr("Focal length at closest focus %1 mm: too uncertain to be of use. Near 1:1 a tube hardly "
               "moves what is sharp; measure more closely, or take a longer tube.")
                .arg(withUncertainty(sharp_->focal_length)));
    else
        distancesText_->setText(
            tr("No focal length fits these distances. Measure again, from the sensor mark, with the "
               "ring at its end."));
    storeDistances_->setEnabled(sound);
}

// ---- into the record ---------------------------------------------------------------------------------------------

void MeasureDialog::store(const QString& label, const std::function<void(gear::Lens&)>& change) {
    const std::string id = lens()->id;
    const auto apply = [&](shoot::Shoot& shoot) {
        for (auto& record : shoot.kit.lenses)
            if (record.id == id) change(record);
    };
    document_.edit({label}, apply);
    const bool bag = alsoBag_->isChecked() && gear::find_gear(bag_.kit().lenses, id);
    if (bag) bag_.document().edit({label}, apply);
    message_->setProperty("problem", false);
    message_->setText(tr("Stored in this shoot%1; every shot with this lens reckons with it.")
                          .arg(bag ? tr(" and in the bag") : QString()));
}

void MeasureDialog::storeRule() {
    if (!own_) return;
    const shoot::Reading reading{.ring = ring_->value(),
                                 .magnification = *own_,
                                 .focal_length = gear::zoom_position(*lens(), document_.shot()->rig.focal_length),
                                 .time = now()};
    store(tr("Measure the magnification"), [&](gear::Lens& record) { shoot::store_reading(record, reading); });
}

void MeasureDialog::storeAperture() {
    // Half a step in stops as a share of the f-number.
    const shoot::Measurement shown{.value = shown_->value(),
                                   .uncertainty = shown_->value() * (std::exp2(shownOff_->value() / 2) - 1)};
    store(tr("Measure the displayed aperture"),
          [&](gear::Lens& record) { shoot::store_displayed_aperture(record, shown, now()); });
}

void MeasureDialog::storeDistances() {
    if (!sharp_) return;
    const shoot::SharpDistances measured{.bare = bare_->value(),
                                         .extended = extended_->value(),
                                         .extension = extension_->value(),
                                         .uncertainty = distanceOff_->value()};
    const auto result = *sharp_;
    store(tr("Measure two sharp distances"),
          [&](gear::Lens& record) { shoot::store_sharp_distances(record, measured, result, now()); });
}

}  // namespace poquito::desk

#include "desk/kit/moc_measure_dialog.moc"
