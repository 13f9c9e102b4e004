#include "desk/reach/reach_finder.hpp"

#include "desk/reach/reach_chart.hpp"
#include "desk/reach/reach_model.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "desk/toolkit/theme.hpp"
#include "shoot/change/kit_edit.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTableView>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

QLabel* heading(const QString& words, QWidget* parent) {
    auto* label = new QLabel(words, parent);
    label->setFont(textFont(12, QFont::DemiBold));
    return label;
}

}  // namespace

ReachFinder::ReachFinder(Document& document, Bag& bag, QWidget* parent)
    : QDialog(parent),
      document_(document),
      bag_(bag),
      search_([this](Answer answer) { showResult(std::move(answer)); },
              [this](double share) { progress_->setValue(static_cast<int>(share * progress_->maximum())); }) {
    setObjectName(QStringLiteral("reachFinder"));
    setWindowTitle(tr("Find a set-up"));
    resize(1080, 700);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 12, 16, 12);
    row->setSpacing(18);
    row->addWidget(buildWishes());
    row->addWidget(buildFound(), 1);
    connect(&document_, &Document::shootChanged, this, [this] {
        if (isVisible() && source_->currentIndex() == 0 && document_.kit() != model_->kit()) search();
    });
}

QWidget* ReachFinder::buildWishes() {
    auto* side = new QWidget(this);
    side->setFixedWidth(236);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(5);
    const auto addField = [&](const QString& label, QWidget* field) {
        auto* line = new QHBoxLayout;
        auto* words = new QLabel(label, side);
        words->setProperty("quiet", true);
        words->setBuddy(field);
        words->setFixedWidth(98);
        line->addWidget(words);
        line->addWidget(field, 1);
        column->addLayout(line);
    };
    column->addWidget(heading(tr("Wanted"), side));
    by_ = new QComboBox(side);
    by_->addItems({tr("Field width"), tr("Magnification")});
    nameControl(by_, {"wishKind", tr("What is wanted"),
                      tr("What the frame shows across its long side, or image over subject")});
    addField(tr("Given as"), by_);
    size_ = new QuantityField(lengthQuantity(text::range::size), side);
    nameControl(size_, {"wishField", tr("Field width"), tr("What the frame shows across its long side")});
    addField(tr("Field width"), size_);
    magnification_ = new QuantityField(magnificationQuantity(), side);
    nameControl(magnification_, {"wishMagnification", tr("Magnification"), tr("Image size over subject size")});
    addField(tr("Magnification"), magnification_);
    distance_ = new QuantityField(lengthQuantity(), side);
    nameControl(distance_,
                {"wishDistance", tr("Air in front, at least"), tr("From the front of the rig to the subject")});
    distance_->setValue(0);
    addField(tr("Air, at least"), distance_);

    column->addSpacing(6);
    column->addWidget(heading(tr("Bounds"), side));
    limitLoss_ = addCheck(column, "wishLimitLoss", tr("Light lost at most"), tr("Against the marked stop"));
    loss_ = new QuantityField(stopsQuantity(), side);
    loss_->setValue(3);
    nameControl(loss_, {"wishLoss", tr("Light lost at most"), tr("Stops")});
    column->addWidget(loss_);
    autofocus_ = addCheck(column, "wishAutofocus", tr("keeps autofocus"), tr("Contacts through the whole chain"));
    infinity_ = addCheck(column, "wishInfinity", tr("keeps infinity"), tr("No extension, nothing in front"));
    noGlass_ = addCheck(column, "wishNoGlass", tr("no glass in front"), tr("No close-up lens and no second lens"));
    thisCamera_ = addCheck(column, "wishThisCamera", tr("this shot's camera only"), {});
    thisCamera_->setChecked(true);
    cropModes_ = addCheck(column, "wishCropModes", tr("crop modes as well"),
                          tr("A smaller part of the sensor shows less of the subject"));

    column->addSpacing(6);
    column->addWidget(heading(tr("Gear"), side));
    source_ = new QComboBox(side);
    source_->addItems({tr("this shoot's kit"), tr("my bag")});
    nameControl(source_,
                {"wishSource", tr("Where to look"), tr("Gear from the bag is put into the shoot when it is chosen")});
    addField(tr("Out of"), source_);
    greatestText_ = new QLabel(side);
    greatestText_->setObjectName(QStringLiteral("greatestText"));
    greatestText_->setWordWrap(true);
    column->addWidget(greatestText_);
    greatestButton_ = new QPushButton(tr("Mount that"), side);
    nameControl(greatestButton_, {"mountGreatestButton", tr("Mount the greatest magnification")});
    greatestButton_->setProperty("link", true);
    connect(greatestButton_, &QPushButton::clicked, this, [this] {
        if (greatest_) mount(*greatest_);
    });
    column->addWidget(greatestButton_, 0, Qt::AlignLeft);
    column->addStretch();
    space_ = new QLabel(side);
    space_->setObjectName(QStringLiteral("spaceText"));
    space_->setProperty("quiet", true);
    space_->setFont(textFont(11));
    space_->setWordWrap(true);
    column->addWidget(space_);

    for (auto* field : {size_, magnification_, distance_, loss_})
        connect(field, &QuantityField::valueEdited, this, &ReachFinder::search);
    for (auto* box : {by_, source_}) connect(box, &QComboBox::activated, this, &ReachFinder::search);
    return side;
}

QCheckBox* ReachFinder::addCheck(QVBoxLayout* column, const char* objectName, const QString& words,
                                 const QString& tip) {
    auto* box = new QCheckBox(words, column->parentWidget());
    nameControl(box, {objectName, words, tip});
    connect(box, &QCheckBox::clicked, this, &ReachFinder::search);
    column->addWidget(box);
    return box;
}

QWidget* ReachFinder::buildFound() {
    auto* side = new QWidget(this);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* top = new QHBoxLayout;
    summary_ = heading({}, side);
    summary_->setObjectName(QStringLiteral("foundText"));
    top->addWidget(summary_, 1);
    progress_ = new QProgressBar(side);
    progress_->setRange(0, 1000);
    progress_->setFixedWidth(140);
    progress_->setTextVisible(false);
    nameControl(progress_, {"searchProgress", tr("Share of the combinations tried")});
    top->addWidget(progress_);
    cancel_ = new QPushButton(tr("Cancel"), side);
    nameControl(cancel_, {"cancelSearchButton", tr("Cancel the search")});
    connect(cancel_, &QPushButton::clicked, this, [this] { search_.stop(); });
    top->addWidget(cancel_);
    column->addLayout(top);

    chart_ = new ReachChart(side);
    column->addWidget(chart_, 5);
    orderLabel_ = new QLabel(side);
    orderLabel_->setObjectName(QStringLiteral("orderText"));
    orderLabel_->setProperty("quiet", true);
    orderLabel_->setFont(textFont(11));
    column->addWidget(orderLabel_);
    model_ = new ReachModel(this);
    table_ = new QTableView(side);
    table_->setTabKeyNavigation(false);  // Tab goes on; arrows go from cell to cell
    nameControl(table_, {"foundTable", tr("Combinations found")});
    table_->setModel(model_);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setShowGrid(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->horizontalHeader()->setSectionsClickable(true);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setSectionResizeMode(ReachModel::pieces, QHeaderView::Stretch);
    const int widths[] = {0, 88, 84, 60, 96, 130};
    for (int i = 1; i < ReachModel::columns; ++i) table_->setColumnWidth(i, widths[i]);
    connect(table_->horizontalHeader(), &QHeaderView::sectionClicked, this, &ReachFinder::orderBy);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, &ReachFinder::showChosen);
    connect(table_, &QTableView::doubleClicked, this, &ReachFinder::apply);
    connect(chart_, &ReachChart::chosen, this, &ReachFinder::choose);
    column->addWidget(table_, 6);

    auto* bottom = new QHBoxLayout;
    chosenText_ = new QLabel(side);
    chosenText_->setObjectName(QStringLiteral("chosenText"));
    chosenText_->setWordWrap(true);
    bottom->addWidget(chosenText_, 1);
    use_ = new QPushButton(tr("Mount it for this shot"), side);
    nameControl(use_,
                {"useFoundButton", tr("Mount it for this shot"), tr("One step of the history: Ctrl+Z takes it back")});
    use_->setDefault(true);
    connect(use_, &QPushButton::clicked, this, &ReachFinder::apply);
    bottom->addWidget(use_);
    auto* close = new QPushButton(tr("Close"), side);
    nameControl(close, {"closeFinderButton", tr("Close")});
    connect(close, &QPushButton::clicked, this, &QDialog::close);
    bottom->addWidget(close);
    column->addLayout(bottom);
    return side;
}

void ReachFinder::begin() {
    if (const auto* shot = document_.shot()) {
        const auto& optics = document_.report()->optics;
        const auto& sensor = shoot::sensor_of(document_.kit(), shot->rig);
        const double m =
            shot->rig.focus.by == shoot::FocusBy::magnification ? shot->rig.focus.value : optics.magnification;
        magnification_->setValue(m > 0 ? m : 1);
        size_->setValue(sensor.width / magnification_->value());
    }
    search();
}

/// What nobody waits for any more is not looked for.
void ReachFinder::hideEvent(QHideEvent* event) {
    again_ = false;
    search_.stop();
    QDialog::hideEvent(event);
}

const gear::Kit& ReachFinder::kit() const { return source_->currentIndex() == 0 ? document_.kit() : bag_.kit(); }

search::ReachWish ReachFinder::wish() const {
    search::ReachWish wish{.magnification = magnification_->value(),
                           .least_working_distance = distance_->value(),
                           .autofocus = autofocus_->isChecked(),
                           .infinity = infinity_->isChecked(),
                           .no_glass_in_front = noGlass_->isChecked(),
                           .crop_modes = cropModes_->isChecked()};
    if (by_->currentIndex() == 0) wish.field_width = size_->value();
    if (const auto* shot = document_.shot()) wish.upright = shot->rig.orientation == shoot::Orientation::portrait;
    if (limitLoss_->isChecked()) wish.most_loss = loss_->value();
    const auto* shot = document_.shot();
    if (shot) wish.f_number = shot->exposure.f_number;
    if (shot && thisCamera_->isChecked() && gear::find_gear(kit().cameras, shot->rig.camera))
        wish.only_camera = shot->rig.camera;
    return wish;
}

/// Off the interface's thread; a wish that changes meanwhile is looked for next.
void ReachFinder::search() {
    size_->setEnabled(by_->currentIndex() == 0);
    magnification_->setEnabled(by_->currentIndex() == 1);
    cropModes_->setEnabled(by_->currentIndex() == 0);
    loss_->setEnabled(limitLoss_->isChecked());
    if (search_.isRunning()) {
        again_ = true;
        search_.stop();
        return;
    }
    progress_->setValue(0);
    progress_->show();
    cancel_->show();
    search_.begin([kit = kit(), wish = wish()](const auto& go_on) {
        Answer answer{.result = search::search_reach(kit, wish, go_on)};
        answer.greatest = search::greatest_reach(kit, wish, go_on);
        return answer;
    });
}

void ReachFinder::showResult(Answer answer) {
    progress_->hide();
    cancel_->hide();
    if (std::exchange(again_, false)) return search();
    space_->setText(toQt(search::space_text(kit(), wish())));
    if (search_.wasStopped()) {
        summary_->setText(tr("Cancelled."));
        return;
    }
    auto& [result, greatest] = answer;
    const bool none = result.found.empty();
    summary_->setText(result.too_many
                          ? tr("Too much gear to try every combination: take some tubes out.")
                          : tr("%1 of %L2 combinations%3.")
                                .arg(none ? tr("None") : QStringLiteral("%L1").arg(result.reached))
                                .arg(result.tried)
                                .arg(result.found.size() < result.reached
                                         ? tr("; the best by each order, %L1, are listed").arg(result.found.size())
                                         : QString()));
    orderLabel_->setText(tr("%1 %2").arg(toQt(search::left_out_text(result.left_out)), orderText()));
    orderLabel_->setWordWrap(true);
    chart_->show(result.found, distance_->value());
    model_->show(kit(), std::move(result.found), order_);
    if (!none) table_->selectRow(0);
    showChosen();
    greatest_ = greatest;
    greatestButton_->setVisible(greatest_.has_value());
    greatestText_->setText(greatest_ ? tr("The most it can do: %1 with %2.")
                                           .arg(toQt(text::magnification_text(greatest_->magnification)),
                                                toQt(search::pieces_text(kit(), search::rig_of(kit(), *greatest_, {}))))
                                     : tr("It needs a camera and a lens."));
}

QString ReachFinder::orderText() const {
    const auto word = [](search::ReachMeasure measure) {
        switch (measure) {
            case search::ReachMeasure::working_distance:
                return tr("most air");
            case search::ReachMeasure::loss:
                return tr("least light lost");
            case search::ReachMeasure::pieces:
                return tr("fewest pieces");
            default:
                return tr("least cost in quality");
        }
    };
    QStringList words;
    for (const auto measure : order_) words << word(measure);
    return tr("In order: %1. A click on a heading puts it first; bold rows are the best trade-offs.")
        .arg(words.join(tr(", then ")));
}

void ReachFinder::orderBy(int column) {
    std::optional<search::ReachMeasure> first;
    if (column == ReachModel::workingDistance) first = search::ReachMeasure::working_distance;
    if (column == ReachModel::loss) first = search::ReachMeasure::loss;
    if (column == ReachModel::count) first = search::ReachMeasure::pieces;
    if (column == ReachModel::cost) first = search::ReachMeasure::optical_cost;
    if (!first) return;
    std::erase(order_, *first);
    order_.insert(order_.begin(), *first);
    model_->rank(order_);
    const auto words = orderLabel_->text();
    orderLabel_->setText(words.left(words.indexOf(tr("In order:"))) + orderText());
    table_->scrollTo(table_->currentIndex());
}

void ReachFinder::choose(const search::ReachFound& found) {
    const int row = model_->rowOf(found);
    if (row >= 0) table_->selectRow(row);
}

void ReachFinder::showChosen() {
    const auto index = table_->currentIndex();
    const bool any = index.isValid() && index.row() < model_->rowCount();
    use_->setEnabled(any && document_.shot());
    chart_->mark(any ? std::optional(model_->found()[static_cast<std::size_t>(index.row())]) : std::nullopt);
    if (!any) return chosenText_->clear();
    const auto& found = model_->found()[static_cast<std::size_t>(index.row())];
    chosenText_->setText(tr("%1, %2 of gear, ring at %3. %4")
                             .arg(toQt(text::magnification_text(found.magnification)),
                                  toQt(text::length_text(found.length)), toQt(text::number_text(found.ring, 2)),
                                  toQt(search::cost_text(model_->kit(), found))));
}

void ReachFinder::apply() {
    const auto index = table_->currentIndex();
    if (index.isValid()) mount(model_->found()[static_cast<std::size_t>(index.row())]);
}

void ReachFinder::mount(const search::ReachFound& found) {
    if (!document_.shot()) return;
    const gear::Kit from = kit();
    shoot::Rig rig = search::rig_of(from, found, document_.shot()->rig);
    // Bellows stand where they were computed, to the last bit of a float; everything else is found again by its size.
    if (!rig.bellows) rig.focus = {.by = shoot::FocusBy::magnification, .value = found.magnification};
    const auto current = static_cast<std::size_t>(document_.current());
    document_.edit({tr("Mount %1").arg(toQt(search::pieces_text(from, rig)))}, [&](shoot::Shoot& shoot) {
        // Gear of the bag comes with it; what the shoot has under that name stays as it is.
        shoot.shots[current].rig = rig;
        for (const auto& kind : gear::gear_kinds())
            for (std::size_t i = 0; i < kind.count(from); ++i)
                if (!gear::find_index(kind, shoot.kit, kind.id(from, i)) &&
                    !shoot::users_of(shoot, kind, kind.id(from, i)).empty())
                    shoot::put_gear(kind, shoot.kit, from, i);
        if (!shoot.shots[current].rig.rail.has_value()) return;
        if (!gear::find_gear(shoot.kit.rails, *shoot.shots[current].rig.rail)) shoot.shots[current].rig.rail.reset();
    });
}

}  // namespace poquito::desk

#include "desk/reach/moc_reach_finder.moc"
