#include "desk/run/cost_tab.hpp"

#include "desk/run/cadence_bars.hpp"
#include "desk/run/cost_curve.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {}  // namespace

CostTab::CostTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(4);
    auto* work = addGroup(column, tr("Work on the frames"));
    const auto day = [this](const QString& label, const QString& key, const std::function<void(Workday&)>& change) {
        this->document().edit({label, key}, [&](Shoot& shoot) { change(shoot.workday); });
    };
    const auto key = [](const QuantityField* field) {
        return QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit());
    };
    sorting_ = addField(work, {"sortingField", tr("Sort one"), tr("Looking at it, keeping or throwing away")},
                        secondsQuantity(text::range::seconds));
    connect(sorting_, &QuantityField::valueEdited, this, [this, day, key](double v) {
        day(tr("Change the time for sorting"), key(sorting_), [v](Workday& d) { d.sorting = v; });
    });
    combining_ = addField(work, {"combiningField", tr("Combine one"), tr("Of a stack; machine time you wait for")},
                          secondsQuantity(text::range::seconds));
    connect(combining_, &QuantityField::valueEdited, this, [this, day, key](double v) {
        day(tr("Change the time for combining"), key(combining_), [v](Workday& d) { d.combining = v; });
    });
    auto* measure = addGroup(column, tr("Measured on a stack"));
    frames_ = addField(measure, {"measuredFramesField", tr("Frames"), tr("Of a stack you sorted and combined")},
                       countQuantity());
    frames_->setValue(50);
    minutes_ = addField(measure, {"measuredTimeField", tr("took in all"), tr("Both together; shared as they are now")},
                        secondsQuantity());
    minutes_->setValue(360);
    auto* learn = captionedButton(
        {"learnWorkButton", tr("Learn from it"), tr("Both times are set so that together they come to this")}, this);
    connect(learn, &QPushButton::clicked, this, [this, day] {
        const double each = minutes_->value() / std::max(1.0, frames_->value());
        day(tr("Learn the time a frame takes"), {}, [each](Workday& d) {
            const double both = d.sorting + d.combining;
            const double share = both > 0 ? d.sorting / both : 0.3;
            d.sorting = each * share;
            d.combining = each * (1 - share);
        });
    });
    auto* row = new QHBoxLayout;
    row->addWidget(learn);
    row->addStretch();
    column->addLayout(row);
    column->addStretch();
    auto* drawings = new QWidget(this);
    auto* both = new QVBoxLayout(drawings);
    both->setContentsMargins(0, 0, 0, 0);
    cadence_ = new CadenceBars(document, drawings);
    curve_ = new CostCurve(document, drawings);
    both->addWidget(cadence_);
    both->addWidget(curve_, 1);
    addDrawing(drawings, 9);
    facts_ = new FactsView("costFacts", tr("What it costs"), this);
    addDrawing(facts_, 5);
}

void CostTab::showShot(const Shot& shot, const Report& report) {
    const auto& day = document().shoot().workday;
    sorting_->setValue(day.sorting);
    combining_->setValue(day.combining);
    const auto& capture = report.capture;
    const auto& cost = capture.cost;
    std::vector<Fact> facts;
    facts.push_back({tr("Exposures"), toQt(number_text(cost.exposures, 6)),
                     cost.exposures > capture.frames
                         ? tr("in bursts, for %1").arg(toQt(count_text(capture.frames, "plane", "planes")))
                         : QString()});
    facts.push_back({tr("At the bench"), toQt(time_text(cost.seconds)),
                     cost.stalls > 0 ? tr("%1 waiting for the card").arg(toQt(time_text(cost.stalls))) : QString(),
                     cost.stalls > 0 ? theme().caution : QColor()});
    facts.push_back({tr("Data"), toQt(data_text(capture.data_mb)),
                     cost.card_share ? tr("%1 of the room on the card").arg(percentText(*cost.card_share))
                                     : tr("room on the card is not in the kit"),
                     cost.card_share.value_or(0) > 1 ? theme().stop : QColor()});
    double flashes = 0, full = 0;
    for (const auto& source : report.light.sources)
        if (source.fires && !source.continuous) {
            flashes += cost.exposures;
            full += cost.exposures * std::min(source.power, 1.0);
        }
    if (flashes > 0)
        facts.push_back({tr("Flashes"), toQt(number_text(flashes, 6)),
                         tr("charge of %1 at full power").arg(toQt(number_text(full, 3)))});
    facts.push_back({tr("Camera battery"), cost.charge_share ? percentText(*cost.charge_share) : tr("not in the kit"),
                     QString(), cost.charge_share.value_or(0) > 1 ? theme().stop : QColor()});
    const double work = cost.exposures * (day.sorting + (capture.frames > 1 ? day.combining : 0));
    facts.push_back(
        {tr("Work afterwards"), toQt(time_text(work)),
         tr("sorting %1%2")
             .arg(toQt(time_text(cost.exposures * day.sorting)),
                  capture.frames > 1 ? tr(", combining %1").arg(toQt(time_text(cost.exposures * day.combining)))
                                     : QString())});
    if (capture.stack && capture.frames > 1)
        facts.push_back({tr("Has to hold still"), toQt(time_text(cost.seconds)),
                         tr("to %1").arg(toQt(length_text(capture.stack->hold_still))),
                         shot.subject.speed > 0 || shot.subject.sway_amplitude > 0 ? theme().caution : QColor()});
    facts_->setFacts(std::move(facts));
    cadence_->update();
    curve_->refresh();
}

}  // namespace poquito::desk

#include "desk/run/moc_cost_tab.moc"
