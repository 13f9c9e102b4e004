#include "desk/depth/lapse_form.hpp"

#include "desk/depth/lapse_drawing.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "plan/motion/lapse.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using shoot::Lapse;

LapseForm::LapseForm(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    auto* head = addGroup(column, {});
    on_ = addCheck(
        head,
        {"lapseCheck", tr("Again and again, shown fast"),
         tr("A bud, ice, dye, mould: a frame, or a stack, every so often")},
        [](const Shot& s) { return s.lapse.has_value(); },
        [](Shot& s, bool on) {
            s.lapse.reset();
            if (on) s.lapse = Lapse{};
        });
    spanRow(head, on_);
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
    auto* left = side();
    auto* right = side();
    const auto number = [this](QGridLayout* group, const Caption& caption, Quantity quantity, double Lapse::*member) {
        fields_.push_back(addQuantity(
            group, caption, std::move(quantity), [member](const Shot& s) { return s.lapse.value_or(Lapse{}).*member; },
            [member](Shot& s, double v) {
                if (s.lapse) (*s.lapse).*member = v;
            }));
    };
    number(left, {"lapseLengthField", tr("Lasts"), tr("From the first frame to the last: 48 h, 90 min")},
           durationQuantity(), &Lapse::length);
    number(left, {"lapseIntervalField", tr("Every"), tr("From one time to the next")}, durationQuantity(),
           &Lapse::interval);
    shown_ = addQuantity(
        left, {"lapseShownField", tr("Shown in"), tr("At its rate; typed here, the interval follows")},
        durationQuantity(),
        [this](const Shot& s) {
            const auto* now = this->document().assessment();
            return s.lapse && now ? plan::lapse_of(now->plan, now->report).shown : 0;
        },
        [](Shot& s, double v) {
            if (s.lapse) s.lapse->interval = plan::interval_for(*s.lapse, v);
        });
    fields_.push_back(shown_);
    number(left, {"lapseRateField", tr("Frames a second"), tr("As it is shown")},
           frequencyQuantity(text::range::some_frequency), &Lapse::frames_per_second);
    number(
        right,
        {"lapseGrowthField", tr("Grows an hour"), tr("Across the frame: from it follows how far it jumps each time")},
        lengthQuantity(), &Lapse::growth);
    number(right,
           {"lapseDepthField", tr("comes nearer"),
            tr("Towards the camera, an hour; negative: away. Focus does not follow")},
           lengthQuantity(text::range::offset), &Lapse::growth_depth);
    number(right,
           {"lapseDriftField", tr("Light an hour"),
            tr("Stops that the light that is there gets brighter; negative: darker")},
           stopsQuantity(), &Lapse::drift);
    auto* follows = addCheck(
        right, {"lapseFollowsCheck", tr("Exposure follows"), tr("So much a frame, against the light's own drift")},
        [](const Shot& s) { return s.lapse && s.lapse->follows; },
        [](Shot& s, bool on) {
            if (s.lapse) s.lapse->follows = on;
        });
    fields_.push_back(follows);
    auto* rest = addCheck(
        right, {"lapseRestCheck", tr("Lamps rest between"), tr("They dry and melt what they shine on for days")},
        [](const Shot& s) { return s.lapse && s.lapse->lamps_rest; },
        [](Shot& s, bool on) {
            if (s.lapse) s.lapse->lamps_rest = on;
        });
    fields_.push_back(rest);
    drawing_ = new LapseDrawing(this);
    column->addWidget(drawing_);
    column->addStretch();
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
