#include "desk/subject/matters_tab.hpp"

#include "desk/subject/wishes_tab.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using namespace shoot;

namespace {

/// Pixels of a field, so that three columns of them go into the smallest window.
constexpr int narrowest_field = 62;

/// What switches the field of the last row on stands before it in place of its label.
void takeLabelsPlace(QGridLayout* group, QCheckBox* box) {
    const int row = group->rowCount() - 1;
    if (auto* empty = group->itemAtPosition(row, 0); empty && empty->widget()) empty->widget()->hide();
    group->addWidget(box, row, 0);
}

}  // namespace

MattersTab::MattersTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* first = addColumn(3);
    addZone(first);
    addTraits(first);
    first->addStretch();
    wishes_ = new WishesTab(document, this);
    addDrawing(wishes_, 3);
    auto* third = addColumn(3);
    addLimits(third);
    addPurpose(third);
    third->addStretch();
}

// ---- what has to be sharp ----------------------------------------------------------------------------------------

void MattersTab::addZone(QVBoxLayout* column) {
    addHeading(column, tr("Has to be sharp"));
    auto* group = addGroup(column, {});
    auto* part = addCheck(
        group,
        {"zoneCheck", tr("Only a part of the depth"),
         tr("Focus goes into its middle; the rest may be soft, and that is no fault")},
        [](const Shot& s) { return s.capture.slice.has_value(); },
        [this](Shot& s, bool on) {
            s.capture.slice.reset();
            // The nearest third, where eyes and front edges are (common practice).
            if (on) s.capture.slice = Slice{.from = 0, .to = this->document().report()->extent.depth / 3};
        });
    spanRow(group, part);
    from_ = addQuantity(
        group, {"zoneFromField", tr("From"), tr("Behind the nearest point")}, lengthQuantity(),
        [](const Shot& s) { return s.capture.slice ? s.capture.slice->from : 0; },
        [](Shot& s, double v) {
            if (!s.capture.slice) return;
            s.capture.slice->from = v;
            s.capture.slice->to = std::max(s.capture.slice->to, v);
        });
    to_ = addQuantity(
        group, {"zoneToField", tr("To"), tr("Behind the nearest point")}, lengthQuantity(),
        [](const Shot& s) { return s.capture.slice ? s.capture.slice->to : s.subject.depth; },
        [](Shot& s, double v) {
            if (!s.capture.slice) return;
            s.capture.slice->to = v;
            s.capture.slice->from = std::min(s.capture.slice->from, v);
        });
    restSoft_ = addCheck(
        group, {"restSoftCheck", tr("Rest soft by"), tr("A disc of at least that share of the frame's width")},
        [](const Shot& s) { return s.capture.slice && s.capture.slice->rest_blur; },
        [](Shot& s, bool on) {
            constexpr double clearly_soft = 0.01;
            if (s.capture.slice) s.capture.slice->rest_blur = on ? std::optional(clearly_soft) : std::nullopt;
        });
    rest_ = addQuantity(
        group, {"restBlurField", tr("By at least"), tr("Of the frame's width")}, shareQuantity(text::range::part),
        [](const Shot& s) { return s.capture.slice ? s.capture.slice->rest_blur.value_or(0.01) : 0.01; },
        [](Shot& s, double v) {
            if (s.capture.slice) s.capture.slice->rest_blur = v;
        });
    takeLabelsPlace(group, restSoft_);
    for (auto* field : {from_, to_, rest_}) field->setMinimumWidth(narrowest_field);
    zoneSays_ = new Sentence(2, this);
    zoneSays_->setObjectName(QStringLiteral("zoneSays"));
    column->addWidget(zoneSays_);
}

// ---- what it is for ----------------------------------------------------------------------------------------------

namespace {

/// What counts as sharp follows from what the pictures are for, in every shot that did not choose otherwise.
void adopt_purpose(Shoot& shoot) {
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        const auto& sharpness = std::as_const(shoot.shots)[i].sharpness;
        if (sharpness.rule == BlurRule::pixel || sharpness.rule == BlurRule::stated) continue;
        Sharpness wanted = sharpness;
        wanted.rule = shoot.purpose ? BlurRule::output : BlurRule::diagonal;
        if (shoot.purpose) wanted.output = *shoot.purpose;
        if (wanted != sharpness) shoot.shots[i].sharpness = wanted;
    }
}

}  // namespace

void MattersTab::addPurpose(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("These pictures are for"));
    purpose_ = new QComboBox(this);
    for (const auto& [id, name] :
         {std::pair("", tr("not said")), {"print", tr("a print")}, {"delivery", tr("a file, a screen")}})
        purpose_->addItem(name, QString::fromLatin1(id));
    nameControl(purpose_,
                {"purposeChoice", tr("These pictures are for"),
                 tr("What counts as sharp in this shoot; not said: the sensor's diagonal over 1500. Shots that "
                    "count pixels, or state a limit, keep that")});
    group->addWidget(purpose_, group->rowCount(), 0, 1, 2);
    connect(purpose_, &QComboBox::activated, this, [this](int index) {
        const auto id = purpose_->itemData(index).toString();
        this->document().edit({tr("Say what the pictures are for")}, [&](Shoot& shoot) {
            shoot.purpose.reset();
            if (!id.isEmpty())
                shoot.purpose = Output{.kind = id == QLatin1String("print") ? OutputKind::print : OutputKind::delivery};
            adopt_purpose(shoot);
        });
    });
    purposeSize_ = addField(group, {"purposeSizeField", tr("Width"), tr("Of the print, or of the file in pixels")},
                            ratioQuantity({.least = 1, .greatest = 1e5}));
    setRowVisible(purposeSize_, false);
    connect(purposeSize_, &QuantityField::valueEdited, this, [this](double v) {
        this->document().edit({tr("Change the size"), QStringLiteral("purposeSize#%1").arg(purposeSize_->visit())},
                              [&](Shoot& shoot) {
                                  if (!shoot.purpose) return;
                                  if (shoot.purpose->kind == OutputKind::print)
                                      shoot.purpose->print.width = v;
                                  else
                                      shoot.purpose->delivery.width_px = v;
                                  adopt_purpose(shoot);
                              });
    });
}

// ---- how far one goes --------------------------------------------------------------------------------------------

void MattersTab::addLimits(QVBoxLayout* column) {
    addHeading(column, tr("How far you go"));
    auto* group = addGroup(column, {});
    const auto add = [&](const char* name, const QString& label, const QString& tip, const Quantity& quantity,
                         std::optional<double> Limits::*member) {
        auto* on = new QCheckBox(label, this);
        const QByteArray check = QByteArray(name) + "Check", field_name = QByteArray(name) + "Field";
        nameControl(on, {check.constData(), label, tip});
        auto* field = addField(group, {field_name.constData(), QString(), tip}, quantity);
        takeLabelsPlace(group, on);
        connect(on, &QCheckBox::clicked, this, [=, this](bool set) {
            this->document().editLimits(
                {tr("Set a limit")}, [&](Limits& all) { all.*member = set ? usual_limits().*member : std::nullopt; });
        });
        connect(field, &QuantityField::valueEdited, this, [=, this](double v) {
            this->document().editLimits(
                {tr("Set a limit"), QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit())},
                [&](Limits& all) { all.*member = v / shownFactor(member); });
        });
        field->setMinimumWidth(narrowest_field);
        limits_.push_back({on, field, member});
    };
    add("isoLimit", tr("ISO at most"), tr("What you bear of noise, for this purpose and camera"), isoQuantity(),
        &Limits::iso);
    add("handLimit", tr("By hand at most"), tr("The slowest time you hold; on a stand it does not count"),
        shutterQuantity(), &Limits::shutter_by_hand);
    add("stopLimit", tr("Stop down to"), tr("The smallest stop you tolerate"), fNumberQuantity(), &Limits::f_number);
    add("framesLimit", tr("Frames at most"), tr("Of one picture"), countQuantity(text::range::some), &Limits::frames);
    add("minutesLimit", tr("Minutes at most"), tr("For one picture"), ratioQuantity(text::range::some),
        &Limits::minutes);
    ownLimits_ = addCheck(
        group,
        {"ownLimitsCheck", tr("This shot alone"), tr("On: limits and order of this shot. Off: of the whole shoot")},
        [](const Shot& s) { return s.limits.has_value(); },
        [this](Shot& s, bool on) {
            s.limits.reset();
            if (on) s.limits = this->document().shoot().terms.limits;
        });
    spanRow(group, ownLimits_);
    auto* keep = captionedButton(
        {"keepLimitsButton", tr("Keep them as mine"), tr("New shoots begin with these limits and this order")}, this);
    connect(keep, &QPushButton::clicked, this, [this] { Q_EMIT limitsKept(this->document().limits()); });
    column->addWidget(keep);
}

void MattersTab::addTraits(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("Calls for care"));
    auto* chips = addChips(
        group, {"traitChips", tr("Calls for care"), tr("Brings up the cautions that go with it")},
        [](const gear::Kit&) {
            Options options;
            for (const auto& trait : subject_traits()) options.emplace_back(trait.id, trait.name);
            return options;
        },
        [](const Shot& s) { return s.subject.traits; },
        [](Shot& s, const std::vector<std::string>& ids) { s.subject.traits = ids; });
    spanRow(group, chips);
}

/// Kept as marked; typed and shown as the camera of this shot displays it.
double MattersTab::shownFactor(std::optional<double> Limits::*member) {
    const auto& plan = document().assessment()->plan;
    const bool shown = plan.camera.aperture_display == gear::ApertureDisplay::working;
    return member == &Limits::f_number && shown ? plan.working_factor : 1;
}

void MattersTab::showShot(const Shot& shot, const plan::Report& report) {
    const bool zone = shot.capture.slice.has_value();
    for (auto* field : {from_, to_}) setRowEnabled(field, zone);
    restSoft_->setEnabled(zone);
    setRowEnabled(rest_, zone && shot.capture.slice->rest_blur);
    const auto& sharp = report.sharpness;
    zoneSays_->setText(zone ? tr("%1 holds %2 % of it%3.")
                                  .arg(toQt(text::f_number_text(shot.exposure.f_number)),
                                       toQt(text::number_text(sharp.zone_covered.value_or(0) * 100, 3)),
                                       sharp.rest_blur
                                           ? tr("; the rest falls off to %1 % of the frame")
                                                 .arg(toQt(text::number_text(
                                                     *sharp.rest_blur * sharp.background_disc_share.value_or(1) /
                                                         sharp.background_disc.value_or(1) * 100,
                                                     2)))
                                           : QString())
                            : tr("All %1 of the depth.").arg(toQt(text::length_text(report.extent.depth))));
    wishes_->refresh();
    const auto& purpose = document().shoot().purpose;
    purpose_->setCurrentIndex(!purpose ? 0 : purpose->kind == OutputKind::print ? 1 : 2);
    setRowVisible(purposeSize_, purpose.has_value());
    if (purpose)
        purposeSize_->setValue(purpose->kind == OutputKind::print ? purpose->print.width : purpose->delivery.width_px);
    const auto& all = document().limits();
    for (const auto& row : limits_) {
        const auto& limit = all.*row.member;
        row.on->setChecked(limit.has_value());
        row.field->setEnabled(limit.has_value());
        row.field->setValue(limit.value_or((usual_limits().*row.member).value_or(0)) * shownFactor(row.member));
    }
}

}  // namespace poquito::desk

#include "desk/subject/moc_matters_tab.moc"
