#include "desk/depth/lapse_form.hpp"

#include "desk/depth/lapse_drawing.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "plan/motion/lapse.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QVBoxLayout>

#include <utility>

namespace poquito::desk {

using shoot::Lapse;

LapseForm::LapseForm(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* head = addGroup(column, {});
    auto* on = addCheck(
        head,
        {"lapseCheck", tr("Again and again, shown fast"),
         tr("A bud, ice, dye, mould: a frame, or a stack, every so often")},
        [](const Shot& s) { return s.lapse.has_value(); },
        [](Shot& s, bool is) {
            s.lapse.reset();
            if (is) s.lapse = Lapse{};
        });
    spanRow(head, on);
    auto* sides = new QHBoxLayout;
    sides->setSpacing(14);
    column->addLayout(sides);
    const auto side = [&] {
        auto* inner = new QVBoxLayout;
        sides->addLayout(inner, 1);
        auto* group = addGroup(inner, {});
        inner->addStretch();
        return group;
    };
    addTimes(side());
    addChanges(side());
    drawing_ = new LapseDrawing(this);
    column->addWidget(drawing_);
    column->addStretch();
}

void LapseForm::addNumber(QGridLayout* group, const Caption& caption, Quantity quantity, double Lapse::*member) {
    fields_.push_back(addQuantity(
        group, caption, std::move(quantity), [member](const Shot& s) { return s.lapse.value_or(Lapse{}).*member; },
        [member](Shot& s, double v) {
            if (s.lapse) (*s.lapse).*member = v;
        }));
}

void LapseForm::addFlag(QGridLayout* group, const Caption& caption, bool Lapse::*member) {
    fields_.push_back(addCheck(
        group, caption, [member](const Shot& s) { return s.lapse && (*s.lapse).*member; },
        [member](Shot& s, bool on) {
            if (s.lapse) (*s.lapse).*member = on;
        }));
}

void LapseForm::addTimes(QGridLayout* group) {
    addNumber(group, {"lapseLengthField", tr("Lasts"), tr("From the first frame to the last: 48 h, 90 min")},
              durationQuantity(), &Lapse::length);
    addNumber(group, {"lapseIntervalField", tr("Every"), tr("From one time to the next")}, durationQuantity(),
              &Lapse::interval);
    fields_.push_back(addQuantity(
        group, {"lapseShownField", tr("Shown in"), tr("At its rate; typed here, the interval follows")},
        durationQuantity(),
        [this](const Shot& s) {
            const auto* now = document().assessment();
            return s.lapse && now ? plan::lapse_of(now->plan, now->report).shown : 0;
        },
        [](Shot& s, double v) {
            if (s.lapse) s.lapse->interval = plan::interval_for(*s.lapse, v);
        }));
    addNumber(group, {"lapseRateField", tr("Frames a second"), tr("As it is shown")},
              frequencyQuantity(text::range::some_frequency), &Lapse::frames_per_second);
}

void LapseForm::addChanges(QGridLayout* group) {
    addNumber(
        group,
        {"lapseGrowthField", tr("Grows an hour"), tr("Across the frame: from it follows how far it jumps each time")},
        lengthQuantity(), &Lapse::growth);
    addNumber(group,
              {"lapseDepthField", tr("comes nearer"),
               tr("Towards the camera, an hour; negative: away. Focus does not follow")},
              lengthQuantity(text::range::offset), &Lapse::growth_depth);
    addNumber(group,
              {"lapseDriftField", tr("Light an hour"),
               tr("Stops that the light that is there gets brighter; negative: darker")},
              stopsQuantity(), &Lapse::drift);
    addFlag(group, {"lapseFollowsCheck", tr("Exposure follows"), tr("So much a frame, against the light's own drift")},
            &Lapse::follows);
    addFlag(group, {"lapseRestCheck", tr("Lamps rest between"), tr("They dry and melt what they shine on for days")},
            &Lapse::lamps_rest);
}

void LapseForm::showShot(const Shot& shot, const plan::Report& report) {
    const bool any = shot.lapse.has_value();
    for (auto* field : fields_) setRowVisible(field, any);
    drawing_->setVisible(any);
    if (!any) return;
    drawing_->setLapse(*shot.lapse, plan::lapse_of(document().assessment()->plan, report));
}

}  // namespace poquito::desk

#include "desk/depth/moc_lapse_form.moc"
