#include "desk/subject/staging_tab.hpp"

#include "desk/drawing/card_swatches.hpp"
#include "desk/session/user_file.hpp"
#include "desk/subject/table_drawing.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/report.hpp"
#include "shoot/form/form.hpp"
#include "storage/shoot_file.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using shoot::Staged;

StagingTab::StagingTab(Document& document, QWidget* parent, const QString& props)
    : StationPage(document, parent),
      kept_({.file = "props.json",
             .whose = tr("Your things for the table"),
             .read = storage::read_props,
             .write = storage::write_props,
             .shipped = shoot::usual_props},
            props) {
    auto* left = addColumn(3);
    drawing_ = new TableDrawing(this);
    left->addWidget(drawing_, 1);
    swatches_ = new CardSwatches("propSwatches", tr("Colours of this ground that set the subject off"), this);
    connect(swatches_, &CardSwatches::cardTaken, this, [this](const text::Colour& colour, double reflectance) {
        editChosen({}, [&](Staged& one) { one.subject.colour = colour, one.subject.reflectance = reflectance; });
    });
    left->addWidget(swatches_);
    connect(drawing_, &TableDrawing::chosen, this, [this](const std::string& id) {
        chosen_ = id;
        refresh();
    });
    connect(drawing_, &TableDrawing::moved, this, [this](const std::string& id, double right, double behind) {
        chosen_ = id;
        editChosen(QStringLiteral("drag"), [&](Staged& one) { one.right = right, one.behind = behind; });
    });
    const auto take = [this](const std::string& id) {
        this->document().editShot({tr("Take a thing off the table")}, [&](Shot& shot) {
            std::erase_if(shot.staging, [&](const Staged& one) { return one.id == id; });
        });
    };
    connect(drawing_, &TableDrawing::removed, this, take);
    auto* column = addColumn(2);
    auto* row = new QHBoxLayout;
    props_ = new QComboBox(this);
    nameControl(props_,
                {"propChoice", tr("Put on the table"), tr("A prop, a ground, a card, or one more of the subject")});
    props_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    props_->setMinimumContentsLength(8);
    fillProps();
    row->addWidget(props_, 1);
    auto* add = captionedButton({"addPropButton", tr("Add"), tr("To the right of the subject; drag it")}, this);
    connect(add, &QPushButton::clicked, this, [this] { addThing(props_->currentIndex()); });
    row->addWidget(add);
    remove_ = captionedButton({"removePropButton", tr("Take off"), tr("The chosen thing; Delete")}, this);
    connect(remove_, &QPushButton::clicked, this, [this, take] { take(chosen_); });
    row->addWidget(remove_);
    keep_ = captionedButton({"keepPropButton", tr("Keep"),
                             tr("The chosen thing, under its name, for every shoot; it comes first in the list then")},
                            this);
    connect(keep_, &QPushButton::clicked, this, &StagingTab::keepThing);
    row->addWidget(keep_);
    column->addLayout(row);
    addFields(column);
    facts_ = new FactsView("stagedFacts", tr("In the frame"), this);
    facts_->setMinimumHeight(120);
    column->addWidget(facts_, 1);
}

void StagingTab::addFields(QVBoxLayout* column) {
    group_ = new QWidget(this);
    auto* inner = new QVBoxLayout(group_);
    inner->setContentsMargins(0, 0, 0, 0);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(8);
    inner->addLayout(grid);
    name_ = new LineField(this);
    nameControl(name_, {"stagedNameField", tr("Name"), tr("What it is")});
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& text) {
        editChosen(QStringLiteral("name"), [&](Staged& one) { one.name = text.toStdString(); });
    });
    grid->addWidget(new QLabel(tr("Name"), this), 0, 0);
    grid->addWidget(name_, 0, 1);
    form_ = new QComboBox(this);
    nameControl(form_, {"stagedFormChoice", tr("Form"), tr("Its shape")});
    form_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    form_->setMinimumContentsLength(6);
    for (const auto& form : shoot::forms())
        if (form.form != shoot::Form::height_map) form_->addItem(tr(form.name), static_cast<int>(form.form));
    connect(form_, &QComboBox::activated, this, [this] {
        editChosen({}, [&](Staged& one) { one.subject.form = static_cast<shoot::Form>(form_->currentData().toInt()); });
    });
    grid->addWidget(new QLabel(tr("Form"), this), 0, 2);
    grid->addWidget(form_, 0, 3);
    const auto size = [&](int at, const Caption& caption, Quantity quantity, std::function<double(const Staged&)> get,
                          const std::function<void(Staged&, double)>& set) {
        auto* field = new QuantityField(std::move(quantity), this);
        nameControl(field, caption);
        connect(field, &QuantityField::valueEdited, this, [this, field, set](double v) {
            editChosen(QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit()),
                       [&](Staged& one) { set(one, v); });
        });
        grid->addWidget(new QLabel(caption.label, this), at / 2, 2 * (at % 2));
        grid->addWidget(field, at / 2, 2 * (at % 2) + 1);
        sizes_.push_back({field, std::move(get)});
    };
    const auto sized = [&] { return lengthQuantity(text::range::size); };
    size(
        2, {"stagedWidthField", tr("Wide"), tr("Across")}, sized(), [](const Staged& s) { return s.subject.width; },
        [](Staged& s, double v) { s.subject.width = v; });
    size(
        3, {"stagedHeightField", tr("High"), tr("Upwards; of what lies, away from the camera")}, sized(),
        [](const Staged& s) { return s.subject.height; }, [](Staged& s, double v) { s.subject.height = v; });
    size(
        4, {"stagedDepthField", tr("Deep"), tr("Away from the camera; of what lies, how thick")},
        lengthQuantity(text::range::length), [](const Staged& s) { return s.subject.depth; },
        [](Staged& s, double v) { s.subject.depth = v; });
    size(
        5, {"stagedReflectanceField", tr("Reflects"), tr("Share of the light: 18 % mid grey, 90 % white")},
        shareQuantity(text::range::share), [](const Staged& s) { return s.subject.reflectance; },
        [](Staged& s, double v) { s.subject.reflectance = v; });
    size(
        6, {"stagedRightField", tr("To the right"), tr("Its middle from the subject's; negative to the left")},
        lengthQuantity(text::range::offset), [](const Staged& s) { return s.right; },
        [](Staged& s, double v) { s.right = v; });
    size(
        7, {"stagedBehindField", tr("Behind"), tr("Along the table; negative before the subject")},
        lengthQuantity(text::range::offset), [](const Staged& s) { return s.behind; },
        [](Staged& s, double v) { s.behind = v; });
    lies_ = new QCheckBox(tr("Lies flat"), this);
    nameControl(lies_, {"stagedLiesCheck", tr("Lies flat"), tr("A plate, a cloth, a board")});
    connect(lies_, &QCheckBox::clicked, this, [this](bool on) { editChosen({}, [&](Staged& one) { one.lies = on; }); });
    grid->addWidget(lies_, 4, 0, 1, 2);
    colour_ = new ColourField(this);
    nameControl(colour_, {"stagedColourField", tr("Colour"), tr("Its hue; how bright it is, Reflects says")});
    connect(colour_, &ColourField::colourEdited, this, [this](const std::optional<text::Colour>& colour) {
        editChosen(QStringLiteral("colour#%1").arg(colour_->visit()),
                   [&](Staged& one) { one.subject.colour = colour; });
    });
    grid->addWidget(new QLabel(tr("Colour"), this), 4, 2);
    grid->addWidget(colour_, 4, 3);
    column->addWidget(group_);
    tellProblem(kept_, this, &StagingTab::problemFound);
}

const Staged* StagingTab::chosen() {
    const auto* shot = document().shot();
    if (!shot || shot->staging.empty()) return nullptr;
    const auto found = std::ranges::find(shot->staging, chosen_, &Staged::id);
    return found == shot->staging.end() ? &shot->staging.front() : &*found;
}

void StagingTab::editChosen(const QString& key, const std::function<void(Staged&)>& change) {
    const auto* own = chosen();
    if (!own) return;
    const auto id = own->id;
    document().editShot({tr("Change %1").arg(toQt(own->name)), key.isEmpty() ? QString() : key + toQt(id)},
                        [&](Shot& shot) {
                            const auto found = std::ranges::find(shot.staging, id, &Staged::id);
                            if (found != shot.staging.end()) change(*found);
                        });
}

void StagingTab::fillProps() {
    props_->clear();
    props_->addItem(tr("One more of it"));
    for (const auto& prop : kept_.all()) props_->addItem(toQt(prop.name));
}

void StagingTab::keepThing() {
    const auto* own = chosen();
    if (!own) return;
    auto thing = *own;
    thing.right = thing.behind = 0;
    thing.id = text::unique_id(thing.name, "thing", [](const std::string&) { return false; });
    if (const auto problem = kept_.keep(std::move(thing)); !problem.isEmpty()) return Q_EMIT problemFound(problem);
    fillProps();
    props_->setCurrentIndex(static_cast<int>(kept_.own()));
}

void StagingTab::addThing(int prop) {
    const auto* shot = document().shot();
    if (!shot) return;
    Staged made{.id = {},
                .name = tr("One more").toStdString(),
                .role = shoot::StagedRole::repeat,
                .subject = shot->subject,
                .unknown = {}};
    if (prop > 0) made = kept_.all()[static_cast<std::size_t>(prop - 1)];
    made.id = text::unique_id(made.name, "thing", [&](const std::string& id) {
        return std::ranges::find(shot->staging, id, &Staged::id) != shot->staging.end();
    });
    if (!made.lies) {
        made.right = std::round(shot->subject.width / 2 + made.subject.width * 0.7);
        made.behind = std::round(shot->subject.depth / 2 + made.subject.depth);
    }
    chosen_ = made.id;
    document().editShot({tr("Put a thing on the table")}, [&](Shot& edited) { edited.staging.push_back(made); });
}

void StagingTab::showShot(const Shot& shot, const plan::Report& report) {
    const auto* own = chosen();
    if (own) chosen_ = own->id;
    drawing_->setPlan(document().assessment(), own ? own->id : std::string());
    group_->setVisible(own != nullptr);
    remove_->setEnabled(own != nullptr);
    keep_->setEnabled(own != nullptr);
    // A ground is chosen for the subject; a thing has the colour that it has.
    swatches_->setVisible(own && (own->lies || own->role == shoot::StagedRole::card));
    if (own) swatches_->setSubject(shot.subject, own->subject.colour), colour_->setColour(own->subject.colour);
    std::vector<Fact> facts;
    if (!own) {
        facts.push_back({tr("Beside the subject"), tr("nothing"), tr("put a prop, a ground or a card on the table")});
        return facts_->setFacts(std::move(facts));
    }
    if (!name_->hasFocus()) name_->setText(toQt(own->name)), name_->setCursorPosition(0);
    form_->setCurrentIndex(form_->findData(static_cast<int>(own->subject.form)));
    lies_->setChecked(own->lies);
    for (const auto& [field, get] : sizes_) field->setValue(get(*own));
    const auto found = std::ranges::find(report.staging, own->id, &plan::StagedReport::id);
    if (found == report.staging.end()) return facts_->setFacts({});
    const auto percent = [](double share) { return tr("%1 %").arg(toQt(text::number_text(share * 100, 2))); };
    facts.push_back({tr("Takes of the frame"), tr("%1 \u00d7 %2").arg(percent(found->width), percent(found->height))});
    facts.push_back(
        {tr("From the plane of focus"), tr("%1 %2").arg(toQt(text::length_text(std::abs(found->behind_focus))),
                                                        found->behind_focus < 0 ? tr("before it") : tr("behind it"))});
    facts.push_back({tr("Blurred by"),
                     found->blur_share ? tr("%1 of the width").arg(percent(*found->blur_share)) : tr("all of it"),
                     found->readable ? tr("its detail can be read") : tr("its detail is gone")});
    if (found->cut_off > 0.005) facts.push_back({tr("Outside the frame"), percent(found->cut_off)});
    if (found->hides > 0.005)
        facts.push_back({tr("Stands before the subject"), percent(found->hides), {}, theme().caution});
    if (found->hidden > 0.005) facts.push_back({tr("Behind the subject"), percent(found->hidden)});
    if (own->role == shoot::StagedRole::scale && own->subject.texture == shoot::Texture::ticks) {
        const auto* assessment = document().assessment();
        const double reads = plan::scale_at(assessment->plan, found->place.away) /
                                 plan::scale_at(assessment->plan, assessment->plan.focus) -
                             1;
        facts.push_back({tr("Measured by it"), std::abs(reads) < 0.0005
                                                   ? tr("true")
                                                   : tr("%1 % too %2")
                                                         .arg(toQt(text::number_text(std::abs(reads) * 100, 2)),
                                                              reads < 0 ? tr("large") : tr("small"))});
    }
    if (found->draws_the_eye)
        facts.push_back({tr("Draws the eye"), tr("yes"), tr("brighter or more coloured, and sharp"), theme().caution});
    facts_->setFacts(std::move(facts));
}

}  // namespace poquito::desk

#include "desk/subject/moc_staging_tab.moc"
