#include "desk/day/sets_tab.hpp"

#include "desk/day/picture_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/user_file.hpp"
#include "desk/session/view_set_library.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "job/locks.hpp"
#include "shoot/change/view_set.hpp"
#include "storage/atomic_file.hpp"
#include "storage/shoot_file.hpp"
#include "storage/things_csv.hpp"
#include "text/text.hpp"

#include <QFileDialog>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace poquito::desk {

using shoot::Shoot;

SetsTab::SetsTab(Document& document, ShotPictures& pictures, ViewSetLibrary& library, QWidget* parent)
    : StationPage(document, parent), pictures_(pictures), library_(library) {
    addDrawing(buildBoard(), 1);
    addDrawing(buildSide(), 0);
    connect(&library, &ViewSetLibrary::changed, this, &SetsTab::fillSets);
    fillSets();
    tellProblem(library_, this, &SetsTab::problemFound);
}

// ---- the board ---------------------------------------------------------------------------------------------------

QWidget* SetsTab::buildBoard() {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    addMaking(column);
    nothing_ = new Sentence(4, page);
    nothing_->setObjectName(QStringLiteral("noSets"));
    nothing_->setText(
        tr("Nothing here has several views yet. Choose what it is, say its name and how large it is, and "
           "make its views: each becomes a shot with the set-up of the selected one. The second thing of "
           "its kind takes over what was set up for the first."));
    column->addWidget(nothing_);
    board_ = new PictureBoard("setsBoard", tr("Things by their views, pictures by their plates"), pictures_, page);
    column->addWidget(scrollingOn(board_, page), 1);
    connect(board_, &PictureBoard::shotClicked, this, [this](int shot) { this->document().select(shot); });
    connect(board_, &PictureBoard::shotWanted, this, &SetsTab::shotWanted);
    return page;
}

void SetsTab::addMaking(QVBoxLayout* column) {
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    sets_ = new QComboBox(this);
    nameControl(sets_, {"viewSetChoice", tr("Set"), tr("What it is: the views that a thing of this class needs")});
    connect(sets_, &QComboBox::currentIndexChanged, this, [this] { refresh(); });
    row->addWidget(sets_);
    thingName_ = new LineField(this);
    nameControl(thingName_, {"thingNameField", tr("Thing"), tr("Its name; it stands before the name of each view")});
    thingName_->setPlaceholderText(tr("name of the thing"));
    connect(thingName_, &QLineEdit::textChanged, this, [this] { showBoard(); });
    row->addWidget(thingName_, 1);
    const char* names[] = {"thingWidthField", "thingHeightField", "thingDepthField"};
    const QString labels[] = {tr("wide"), tr("high"), tr("deep")};
    const double begin[] = {300, 200, 100};
    for (int i = 0; i < 3; ++i) {
        sizes_[i] = new QuantityField(lengthQuantity(text::range::size), this);
        nameControl(sizes_[i], {names[i], labels[i], tr("As it stands before the camera; 38 cm, 380, 15\"")});
        sizes_[i]->setFixedWidth(84);
        sizes_[i]->setValue(begin[i]);
        connect(sizes_[i], &QuantityField::valueEdited, this, [this, i](double v) { sizes_[i]->setValue(v); });
        auto* label = new QLabel(labels[i], this);
        label->setProperty("quiet", true);
        row->addWidget(label);
        row->addWidget(sizes_[i]);
    }
    make_ = captionedButton({"makeViewsButton", tr("Make its views"), tr("Those that it does not have yet")}, this);
    connect(make_, &QPushButton::clicked, this, &SetsTab::make);
    row->addWidget(make_);
    column->addLayout(row);
    auto* below = new QHBoxLayout;
    contents_ = new Sentence(1, this);
    contents_->setObjectName(QStringLiteral("viewSetContents"));
    below->addWidget(contents_, 1);
    const auto link = [&](const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, this);
        made->setProperty("link", true);
        connect(made, &QPushButton::clicked, this, run);
        below->addWidget(made);
        return made;
    };
    link({"readThingsButton", tr("From a list (CSV)\u2026"),
          tr("One thing a line under the headings name, width, height, depth, number, flaws, colour: each gets the "
             "views of this set")},
         [this] {
             const auto path = QFileDialog::getOpenFileName(this, tr("List of things"), {},
                                                            tr("Tables (*.csv *.tsv *.txt);;All files (*)"));
             if (!path.isEmpty()) readList(path);
         });
    keep_ = link({"keepSetButton", tr("Keep as a set\u2026"),
                  tr("The views of the selected thing, under a name of your own, for the next of its kind")},
                 [this] { keepSet(); });
    column->addLayout(below);
}

void SetsTab::fillSets() {
    const auto chosen = sets_->currentData().toString();
    const QSignalBlocker quiet(sets_);
    sets_->clear();
    for (const auto& set : library_.sets()) sets_->addItem(toQt(set.name), toQt(set.id));
    const int index = sets_->findData(chosen.isEmpty() ? QStringLiteral("bag") : chosen);
    sets_->setCurrentIndex(std::max(0, index));
    refresh();
}

const shoot::ViewSet* SetsTab::chosenSet() {
    const auto& sets = library_.sets();
    const auto found = std::ranges::find(sets, sets_->currentData().toString().toStdString(), &shoot::ViewSet::id);
    return found == sets.end() ? nullptr : &*found;
}

shoot::Thing SetsTab::wantedThing() const {
    return {.name = thingName_->text().trimmed().toStdString(),
            .number = {},
            .width = sizes_[0]->value(),
            .height = sizes_[1]->value(),
            .depth = sizes_[2]->value(),
            .colour = {},
            .flaws = {}};
}

void SetsTab::make() {
    const auto* set = chosenSet();
    const auto thing = wantedThing();
    if (!set || thing.name.empty() || document().count() == 0) return;
    std::size_t made = 0;
    const int before = document().count();
    document().edit({tr("Make the views of %1").arg(toQt(thing.name))}, [&](Shoot& shoot) {
        made = shoot::add_views(shoot, *set, thing, static_cast<std::size_t>(document().current()));
    });
    if (made == 0 || document().count() == before) return;
    const auto of = shoot::shots_of_thing(document().shoot(), thing.name);
    if (!of.empty()) document().select(static_cast<int>(of.front()));
}

void SetsTab::readList(const QString& path) {
    const auto* set = chosenSet();
    const auto text = storage::read_file(path.toStdString());
    if (!text) return Q_EMIT problemFound(toQt(text::message(text.error())));
    const auto list = storage::read_things_csv(*text);
    if (!list)
        return Q_EMIT problemFound(tr("%1 is no list of things. %2").arg(path, toQt(text::message(list.error()))));
    const auto& read = *list;
    std::size_t made = 0;
    if (set && !read.things.empty() && document().count() > 0)
        document().edit({tr("Make the views of a list")}, [&](Shoot& shoot) {
            const auto pattern = static_cast<std::size_t>(document().current());
            for (const auto& thing : read.things) made += shoot::add_views(shoot, *set, thing, pattern);
        });
    QStringList words;
    words << tr("%1 read, %2 made")
                 .arg(toQt(text::count_text(static_cast<double>(read.things.size()), "thing", "things")),
                      toQt(text::count_text(static_cast<double>(made), "view", "views")));
    for (const auto& problem : read.problems) words << tr("left out: %1").arg(toQt(text::message(problem)));
    if (!read.unused.empty()) {
        QStringList unused;
        for (const auto& heading : read.unused) unused << toQt(heading);
        words << tr("not used: %1").arg(unused.join(QStringLiteral(", ")));
    }
    if (!read.problems.empty() || read.things.empty()) Q_EMIT problemFound(words.join(QStringLiteral(". ")));
    contents_->setText(words.join(QStringLiteral(" \u00b7 ")));
    contents_->setToolTip(words.join(QLatin1Char('\n')));
}

void SetsTab::compareWith(const QString& path) {
    const auto loaded = storage::load_shoot(path.toStdString());
    if (!loaded) return Q_EMIT problemFound(toQt(text::message(loaded.error())));
    const auto& before = *loaded;
    const auto& now = document().shoot();
    const auto found = job::compare_sessions(now, before);
    QStringList words;
    if (found.compared == 0 && found.without.empty())
        words << tr("Nothing is locked here: choose what a shot goes by and what may not differ");
    else
        words << tr("%1 held against %2")
                     .arg(toQt(text::count_text(static_cast<double>(found.compared), "shot", "shots")),
                          toQt(before.title));
    for (const auto& one : found.shots)
        for (const auto& deviation : one.what)
            words << tr("%1: %2").arg(toQt(now.shots[one.shot].name), toQt(deviation.text));
    if (found.compared > 0 && found.shots.empty()) words << tr("all as it was");
    if (!found.without.empty())
        words << tr("not there: %1")
                     .arg(toQt(now.shots[found.without.front()].name) +
                          (found.without.size() > 1 ? tr(" and %1 more").arg(found.without.size() - 1) : QString()));
    sessions_->setText(words.join(QStringLiteral(". ")));
    sessions_->setToolTip(words.join(QLatin1Char('\n')));
    sessions_->show();
}

void SetsTab::keepSet() {
    const auto* shot = document().shot();
    if (!shot || !shot->view) return;
    bool wanted = false;
    const auto name = QInputDialog::getText(this, tr("Keep as a set"), tr("Name of the set"), QLineEdit::Normal,
                                            toQt(shot->view->thing), &wanted)
                          .trimmed();
    if (!wanted || name.isEmpty()) return;
    const auto problem = library_.keep(shoot::set_of(document().shoot(), shot->view->thing, name.toStdString()));
    if (!problem.isEmpty()) return Q_EMIT problemFound(problem);
    sets_->setCurrentIndex(std::max(0, sets_->findText(name)));
}
void SetsTab::showShot(const Shot& shot, const plan::Report&) {
    viewGroup_->setVisible(shot.view.has_value());
    if (shot.view) {
        if (!viewName_->hasFocus()) viewName_->setText(toQt(shot.view->name)), viewName_->setCursorPosition(0);
        if (!proves_->hasFocus()) proves_->setText(toQt(shot.view->proves)), proves_->setCursorPosition(0);
        QStringList also;
        for (const auto& name : shot.view->also) also << toQt(name);
        if (!also_->hasFocus()) also_->setText(also.join(QStringLiteral(", "))), also_->setCursorPosition(0);
    }
    // The next thing is often as large as this one.
    if (shot.view && shot.view->thing != thingOf_) {
        thingOf_ = shot.view->thing;
        const auto thing = *shoot::thing_of(document().shoot(), shot);
        const double size[] = {thing.width, thing.height, thing.depth};
        for (int i = 0; i < 3; ++i) sizes_[i]->setValue(size[i]);
    }
    keep_->setEnabled(shot.view.has_value());
    plateWork_->setText(shot.plate ? tr("%1 of \u201c%2\u201d: %3")
                                         .arg(tr(job::role_name(shot.plate->role)), toQt(shot.plate->picture),
                                              tr(job::role_work(shot.plate->role)))
                                   : tr("From this shot as the hero, each taken with the camera where it stands, one "
                                        "directly after the other."));
    showDeviations();
    showBoard();
}

void SetsTab::showDeviations() {
    const auto& shoot = document().shoot();
    const auto* shot = document().shot();
    QStringList words;
    for (const auto& one : job::deviations(shoot, *shot)) words << toQt(one.text);
    const bool deviates = !words.isEmpty();
    int others = 0;
    for (const auto& other : shoot.shots) others += !job::deviations(shoot, other).empty();
    deviations_->setText(deviates        ? tr("Deviates: %1.").arg(words.join(QStringLiteral("; ")))
                         : shot->follows ? tr("Nothing deviates.")
                                         : tr("It goes by itself."));
    locksChips_->setVisible(shot->follows.has_value());
    bringInLine_->setVisible(deviates);
    bringAll_->setVisible(others > (deviates ? 1 : 0));
    bringAll_->setText(tr("Set back all %1").arg(others));
}

void SetsTab::showBoard() {
    const auto& shoot = document().shoot();
    const auto cell_of = [&](std::size_t i, const std::string& label) {
        const auto& shot = shoot.shots[i];
        const auto& report = document().report(static_cast<int>(i));
        BoardCell cell;
        cell.parts = {{.shot = static_cast<int>(i)}};
        cell.label = toQt(label);
        cell.second = tr("%1 \u00b7 %2")
                          .arg(toQt(text::length_text(shot.subject.width)),
                               toQt(text::count_text(report.capture.frames, "frame", "frames")));
        QStringList troubles;
        for (const auto& one : job::deviations(shoot, shot)) troubles << toQt(one.text);
        if (!troubles.isEmpty()) cell.trouble = troubles.join(QStringLiteral("; "));
        if (shot.view) cell.tip = toQt(shot.view->proves);
        if (!troubles.isEmpty()) cell.tip = cell.trouble;
        return cell;
    };
    std::vector<BoardSection> sections;
    for (const auto& name : shoot::things_of(shoot)) {
        auto& section = sections.emplace_back();
        const auto of = shoot::shots_of_thing(shoot, name);
        const auto thing = *shoot::thing_of(shoot, shoot.shots[of.front()]);
        section.heading = toQt(name);
        int musts = 0, deviating = 0;
        for (const auto i : of) {
            section.cells.push_back(cell_of(i, shoot.shots[i].view->name));
            musts += shoot.shots[i].view->must;
            deviating += !section.cells.back().trouble.isEmpty();
        }
        section.words = tr("%1 \u00d7 %2 \u00d7 %3 mm \u00b7 %4, %5 have to be shown")
                            .arg(toQt(text::number_text(thing.width, 4)), toQt(text::number_text(thing.height, 4)),
                                 toQt(text::number_text(thing.depth, 4)),
                                 toQt(text::count_text(static_cast<double>(of.size()), "view", "views")))
                            .arg(musts);
        if (deviating > 0) {
            section.words += tr(" \u00b7 %1 not as locked").arg(deviating);
            section.colour = theme().caution;
        }
    }
    std::vector<std::string> pictures;
    for (const auto& shot : shoot.shots)
        if (shot.plate && std::ranges::count(pictures, shot.plate->picture) == 0)
            pictures.push_back(shot.plate->picture);
    for (const auto& picture : pictures) {
        auto& section = sections.emplace_back();
        const auto plates = shoot::plates_of(shoot, picture);
        section.heading = toQt(picture);
        bool apart = false;
        for (std::size_t k = 0; k < plates.size(); ++k) {
            section.cells.push_back(cell_of(plates[k], job::role_name(shoot.shots[plates[k]].plate->role)));
            apart = apart || (k > 0 && plates[k] != plates[k - 1] + 1);
        }
        section.words =
            apart ? tr("%1 plates, apart in the list: other shots move the camera between them").arg(plates.size())
                  : tr("one picture of %1 plates: camera and framing stay from first to last").arg(plates.size());
        if (apart) section.colour = theme().caution;
    }
    nothing_->setVisible(sections.empty());
    board_->setSections(std::move(sections), document().current(), false);
    const auto* set = chosenSet();
    const auto thing = wantedThing();
    make_->setEnabled(set && !thing.name.empty() && document().count() > 0);
    if (!set) return;
    QStringList views;
    for (const auto& view : set->views) views << toQt(view.name);
    contents_->setText(tr("Views: %1").arg(views.join(QStringLiteral(", "))));
    contents_->setToolTip({});
}

}  // namespace poquito::desk

#include "desk/day/moc_sets_tab.moc"
