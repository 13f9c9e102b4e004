#include "desk/light/shine_tab.hpp"

#include "desk/light/shine_drawing.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "plan/light/lighting.hpp"
#include "plan/light/reflections.hpp"
#include "text/text.hpp"

#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

namespace {

/// The modifier of the kit that is nearest to a diameter and not smaller; null where none is.
const Modifier* large_enough(const Kit& kit, double diameter) {
    const Modifier* best = nullptr;
    for (const Modifier& modifier : kit.modifiers)
        if (modifier.diameter >= diameter && (!best || modifier.diameter < best->diameter)) best = &modifier;
    return best;
}

}  // namespace

ShineTab::ShineTab(Document& document, ChosenLight& chosen, QWidget* parent)
    : StationPage(document, parent), chosen_(chosen) {
    auto* column = addColumn(4);
    column->setSpacing(4);
    text_ = new Sentence(7, this);
    text_->setObjectName(QStringLiteral("shineText"));
    column->addWidget(text_);
    const auto button = [&](const Caption& caption, auto run) {
        auto* made = captionedButton(caption, this);
        connect(made, &QPushButton::clicked, this, run);
        column->addWidget(made);
        return made;
    };
    polished_ = button({"polishedButton", tr("It is polished"), tr("Counts as a mirror from now on; also at Subject")},
                       [this] { setPolished(); });
    bring_ = button({"bringInButton", tr("Put it where it shows"),
                     tr("To the place from which the middle of the face mirrors it, as far away as it is")},
                    [this] { bringIn(); });
    fill_ = button({"fillButton", tr("Fill the face"), tr("The modifier of the kit that covers the whole reflection")},
                   [this] { fill(); });
    column->addStretch();
    drawing_ = new ShineDrawing(document, chosen, this);
    addDrawing(drawing_, 7);
    connect(&chosen_, &ChosenLight::chosen, this, &ShineTab::refresh);
}

void ShineTab::setPolished() {
    document().editShot({tr("Count as polished")}, [](Shot& shot) { shot.subject.traits.emplace_back("polished"); });
}

void ShineTab::bringIn() {
    const std::size_t i = chosen_.index(*document().shot());
    const auto place = shown_place(document().assessment()->plan, i);
    if (!place) return;
    document().editShot({tr("Move a light")}, [&](Shot& shot) {
        shot.lights[i].position = {.distance = place->distance,
                                   .azimuth = std::round(place->azimuth * 10) / 10,
                                   .elevation = std::round(place->elevation * 10) / 10};
        shot.lights[i].on_lens = false;
    });
}

void ShineTab::fill() {
    const std::size_t i = chosen_.index(*document().shot());
    const auto& filling = document().report()->reflections[i].filling;
    const Modifier* modifier = filling ? large_enough(document().kit(), *filling) : nullptr;
    if (!modifier) return;
    document().editShot({tr("Fill the face")}, [&](Shot& shot) { shot.lights[i].modifier = modifier->id; });
}

void ShineTab::showShot(const Shot& shot, const Report& report) {
    const bool polished = has_trait(shot.subject, "polished");
    const std::size_t i = chosen_.index(shot);
    const bool any = polished && i < report.reflections.size();
    polished_->setVisible(!polished);
    bring_->setVisible(any);
    fill_->setVisible(any);
    drawing_->update();
    if (!polished) {
        text_->setText(
            tr("This subject is not down as polished. A polished face shows its lights and everything else that "
               "stands where its rays go: the family of angles."));
        return;
    }
    if (!any) {
        text_->setText(shot.lights.empty() ? tr("No lamp and no flash to show in it: only the room does.")
                                           : tr("The lens stands too near to say what the face mirrors."));
        return;
    }
    const auto& reflection = report.reflections[i];
    const auto& source = report.light.sources[i];
    const double size = shining_diameter(document().assessment()->plan.sources[i]);
    const bool round = mirror_of(shot.subject).bulge.has_value();
    QString line = tr("Light %1, %2 across: ").arg(toQt(source.label), toQt(length_text(size)));
    if (reflection.mirrored >= 0.995)
        line += tr("the whole face shows it, a clean bright plane. ");
    else if (reflection.mirrored > 0)
        line += tr("%1 % of the face shows it. ").arg(toQt(number_text(std::max(reflection.mirrored * 100, 0.1), 2)));
    else if (reflection.marks.empty())
        line += tr("the face does not show it: it stays dark there and keeps its colour. ");
    if (!reflection.marks.empty()) {
        line += reflection.marks.size() > 1 ? tr("Each round part shows %1 marks, ").arg(reflection.marks.size())
                                            : tr("Each round part shows one mark, ");
        line += tr("%1 wide. ").arg(toQt(length_text(reflection.marks.front().width)));
    }
    if (reflection.filling)
        line +=
            tr("To fill the whole face from there it must be %1 across. ").arg(toQt(length_text(*reflection.filling)));
    else
        line += round ? tr("A round face mirrors half the room: no flat source there fills it; a tent or a dome does. ")
                      : tr("From that side nothing fills the face. ");
    line += tr("The sector on the bench is what the face can show.");
    text_->setText(line);
    const bool could_show = shown_place(document().assessment()->plan, i).has_value();
    bring_->setText(tr("Put %1 where it shows").arg(toQt(source.label)));
    bring_->setEnabled(could_show);
    const Modifier* modifier = reflection.filling ? large_enough(document().kit(), *reflection.filling) : nullptr;
    fill_->setEnabled(modifier != nullptr && modifier->id != shot.lights[i].modifier.value_or(""));
    fill_->setText(modifier ? tr("%1 fills it").arg(toQt(modifier->name)) : tr("No modifier is large enough"));
    fill_->setAccessibleName(fill_->text());
}

}  // namespace poquito::desk

#include "desk/light/moc_shine_tab.moc"
