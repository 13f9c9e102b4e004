#include "desk/day/outlets_tab.hpp"

#include "desk/day/picture_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/pages/options.hpp"
#include "desk/session/picture_writer.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "shoot/change/view_set.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QMessageBox>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <filesystem>
#include <system_error>
#include <utility>

namespace poquito::desk {

using shoot::Ground;
using shoot::Outlet;
using shoot::Shoot;

OutletsTab::OutletsTab(Document& document, ShotPictures& pictures, QWidget* parent)
    : StationPage(document, parent), pictures_(pictures), writer_(new PictureWriter(this)) {
    addDrawing(buildBoard(), 1);
    addDrawing(buildSide(), 0);
    connect(writer_, &PictureWriter::changed, this, &OutletsTab::showWriting);
    showWriting();
}

QWidget* OutletsTab::buildBoard() {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    nothing_ = new Sentence(3, page);
    nothing_->setObjectName(QStringLiteral("noOutlets"));
    column->addWidget(nothing_);
    begin_ = captionedButton({"usualOutletsButton", tr("Begin with two shops, a journal and an archive"),
                              tr("What such outlets usually take; all of it can be changed")},
                             page);
    connect(begin_, &QPushButton::clicked, this, [this] {
        this->document().edit({tr("Add the usual outlets")}, [](Shoot& shoot) {
            for (auto& outlet : job::usual_outlets())
                if (std::ranges::find(shoot.outlets, outlet.id, &Outlet::id) == shoot.outlets.end())
                    shoot.outlets.push_back(std::move(outlet));
        });
    });
    column->addWidget(begin_, 0, Qt::AlignLeft);
    board_ = new PictureBoard("outletsBoard", tr("Outlets, each with the pictures that it gets"), pictures_, page);
    column->addWidget(scrollingOn(board_, page), 1);
    connect(board_, &PictureBoard::shotClicked, this, [this](int shot) { this->document().select(shot); });
    connect(board_, &PictureBoard::shotWanted, this, &OutletsTab::shotWanted);
    connect(board_, &PictureBoard::cutDragged, this, &OutletsTab::moveCut);
    connect(board_, &PictureBoard::headingClicked, this, [this](int section) {
        const auto& outlets = this->document().shoot().outlets;
        if (section < static_cast<int>(outlets.size())) shown_ = outlets[static_cast<std::size_t>(section)].id;
        refresh();
    });
    auto* hint =
        new QLabel(tr("drag a picture under its cut, or Shift and an arrow; a double click opens the shot"), page);
    hint->setProperty("quiet", true);
    column->addWidget(hint, 0, Qt::AlignRight);
    return page;
}

QWidget* OutletsTab::buildSide() {
    auto* fields = new QWidget;
    auto* column = new QVBoxLayout(fields);
    column->setContentsMargins(14, 8, 14, 8);
    addWays(column);
    addRecord(column);
    column->addStretch();
    auto* side = scrollingPaper(fields, this);
    side->setFixedWidth(side_width);
    return side;
}

void OutletsTab::addWays(QVBoxLayout* column) {
    auto* head = new QHBoxLayout;
    outlets_ = new QComboBox(this);
    nameControl(outlets_,
                {"outletChoice", tr("Outlet"), tr("Whose record shows; a click on its heading does the same")});
    connect(outlets_, &QComboBox::currentIndexChanged, this, [this](int) {
        shown_ = outlets_->currentData().toString().toStdString();
        refresh();
    });
    head->addWidget(outlets_, 1);
    const auto button = [&](QLayout* row, const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, this);
        connect(made, &QPushButton::clicked, this, run);
        row->addWidget(made);
        return made;
    };
    button(head, {"addOutletButton", tr("+"), tr("Another outlet, as this one")}, [this] { addOutlet(); });
    button(head, {"removeOutletButton", tr("Remove"), tr("And what it gets of all shots")}, [this] { removeOutlet(); });
    column->addLayout(head);
    verdict_ = new Sentence(4, this);
    verdict_->setObjectName(QStringLiteral("outletVerdict"));
    column->addWidget(verdict_);
    auto* row = new QHBoxLayout;
    choose_ = button(row,
                     {"choosePicturesButton", tr("Choose the best"),
                      tr("What has to be shown, then what is worth most, within what the outlet takes; two share a "
                         "picture where that brings more in")},
                     [this] { choose(false); });
    chooseAll_ =
        button(row, {"chooseAllButton", tr("For all"), tr("Every thing, every outlet")}, [this] { choose(true); });
    column->addLayout(row);
    auto* second = new QHBoxLayout;
    toggle_ = button(second, {"toggleDeliveryButton", tr("Give it this shot"), tr("The selected shot, to this outlet")},
                     [this] { toggle(); });
    frame_ = button(second,
                    {"frameForOutletButton", tr("Frame for it"),
                     tr("Goes further away with what its cut does not hold, as far as that takes")},
                    [this] { frameUnfit(); });
    column->addLayout(second);
    write_ = captionedButton(
        {"writePicturesButton", tr("Write the pictures\u2026"),
         tr("Cuts all that is taken for every outlet, into a folder an outlet. Finished pictures and combined stacks "
            "go "
            "into its folder \u201cfinished\u201d, named as their shot's id; single frames go as they were taken")},
        this);
    connect(write_, &QPushButton::clicked, this, [this] {
        if (writer_->isBusy())
            writer_->cancel();
        else
            askAndWrite();
    });
    column->addWidget(write_);
    written_ = new Sentence(4, this);
    written_->setObjectName(QStringLiteral("writtenPictures"));
    column->addWidget(written_);
}

void OutletsTab::addRecord(QVBoxLayout* column) {
    record_ = new QWidget(this);
    auto* inner = new QVBoxLayout(record_);
    inner->setContentsMargins(0, 0, 0, 0);
    auto* group = addGroup(inner, tr("What it takes"));
    const auto line = [&](const Caption& caption, const auto& set) {
        const auto key = QString::fromLatin1(caption.objectName);
        return addLine(group, caption, [this, set, key](const QString& text) {
            editOutlet(tr("Change the outlet"), key, [&](Outlet& o) { set(o, text.toStdString()); });
        });
    };
    const auto number = [&](const Caption& caption, Quantity quantity, const auto& set) {
        auto* field = addField(group, caption, std::move(quantity));
        connect(field, &QuantityField::valueEdited, this, [this, set, field](double v) {
            editOutlet(tr("Change the outlet"), QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit()),
                       [&](Outlet& o) { set(o, v); });
        });
        return field;
    };
    name_ = line({"outletNameField", tr("Name"), tr("A shop, a journal, an archive")},
                 [](Outlet& o, const std::string& text) { o.name = text; });
    most_ = number({"outletMostField", tr("Pictures"), tr("At most, of one thing")},
                   countQuantity({.least = 1, .greatest = 1000}),
                   [](Outlet& o, double v) { o.most = static_cast<int>(v); });
    shaped_ = new QCheckBox(tr("A shape of its own"), this);
    nameControl(shaped_, {"outletShapedCheck", tr("A shape of its own"), tr("Off: as each shot's picture is")});
    connect(shaped_, &QCheckBox::clicked, this, [this](bool on) {
        editOutlet(tr("Change the outlet"), {}, [&](Outlet& o) { o.shape = on ? std::optional(1.0) : std::nullopt; });
    });
    group->addWidget(shaped_, group->rowCount(), 0, 1, 2);
    shape_ = number({"outletShapeField", tr("Width : height"), tr("1 is square, 1.5 is 3 : 2, 0.8 is 4 : 5 upright")},
                    ratioQuantity(text::range::picture_shape), [](Outlet& o, double v) { o.shape = v; });
    const auto pixels = text::NumberRule{.least = 0, .greatest = text::range::sensor_pixels.greatest};
    const auto or_none = [](double v) { return v >= 1 ? std::optional(v) : std::nullopt; };
    least_ = number({"outletLeastField", tr("Short side, px"), tr("At least; 0: any")}, countQuantity(pixels),
                    [or_none](Outlet& o, double v) { o.least_short_px = or_none(v); });
    longest_ = number({"outletMostPxField", tr("Long side, px"), tr("At most: larger ones are made smaller; 0: any")},
                      countQuantity(pixels), [or_none](Outlet& o, double v) { o.most_long_px = or_none(v); });
    margin_ = number({"outletMarginField", tr("Free edge"), tr("Share of the picture's side that stays free")},
                     shareQuantity(text::range::margin), [](Outlet& o, double v) { o.margin = v; });
    ground_ = new QComboBox(this);
    nameControl(ground_, {"outletGroundChoice", tr("Ground"), tr("What it wants behind the thing")});
    ground_->addItems({tr("any"), tr("plain"), tr("white")});
    connect(ground_, &QComboBox::activated, this, [this](int index) {
        editOutlet(tr("Change the outlet"), {}, [&](Outlet& o) { o.ground = static_cast<Ground>(index); });
    });
    const int at = group->rowCount();
    auto* label = new QLabel(tr("Ground"), this);
    label->setProperty("quiet", true);
    group->addWidget(label, at, 0);
    group->addWidget(ground_, at, 1);
    first_ =
        line({"outletFirstField", tr("First view"), tr("That stands before all others, by itself; empty: any")},
             [](Outlet& o, const std::string& text) { o.first = text.empty() ? std::nullopt : std::optional(text); });
    column->addWidget(record_);
}

// ---- what is shown -----------------------------------------------------------------------------------------------

const Outlet* OutletsTab::outlet() {
    const auto& outlets = document().shoot().outlets;
    const auto found = std::ranges::find(outlets, shown_, &Outlet::id);
    if (found != outlets.end()) return &*found;
    return outlets.empty() ? nullptr : &outlets.front();
}

std::string OutletsTab::thing() {
    if (const auto* shot = document().shot(); shot && shot->view) return shot->view->thing;
    const auto things = shoot::things_of(document().shoot());
    return things.empty() ? std::string() : things.front();
}

void OutletsTab::editOutlet(const QString& label, const QString& key, const std::function<void(Outlet&)>& change) {
    const auto* own = outlet();
    if (!own) return;
    const auto id = own->id;
    document().edit({label, key.isEmpty() ? QString() : key + QLatin1Char('#') + toQt(id)}, [&](Shoot& shoot) {
        const auto found = std::ranges::find(shoot.outlets, id, &Outlet::id);
        if (found != shoot.outlets.end()) change(*found);
    });
}

void OutletsTab::showShot(const Shot&, const plan::Report&) {
    if (const auto* own = outlet()) shown_ = own->id;
    showRecord();
    showBoard();
}

void OutletsTab::showRecord() {
    const auto* own = outlet();
    record_->setVisible(own != nullptr);
    {
        const QSignalBlocker quiet(outlets_);
        outlets_->clear();
        for (const auto& one : document().shoot().outlets) outlets_->addItem(toQt(one.name), toQt(one.id));
        outlets_->setCurrentIndex(outlets_->findData(toQt(shown_)));
    }
    if (!own) return;
    if (!name_->hasFocus()) name_->setText(toQt(own->name)), name_->setCursorPosition(0);
    if (!first_->hasFocus()) first_->setText(toQt(own->first.value_or("")));
    most_->setValue(own->most);
    shaped_->setChecked(own->shape.has_value());
    setRowVisible(shape_, own->shape.has_value());
    shape_->setValue(own->shape.value_or(1));
    least_->setValue(own->least_short_px.value_or(0));
    longest_->setValue(own->most_long_px.value_or(0));
    margin_->setValue(own->margin);
    ground_->setCurrentIndex(static_cast<int>(own->ground));
}

/// What can be done with the selected one.
void OutletsTab::showActions() {
    const auto* own = outlet();
    const auto* shot = document().shot();
    const bool has = own && shot && job::delivery_of(*shot, own->id);
    toggle_->setText(has ? tr("Take it back") : tr("Give it this shot"));
    toggle_->setEnabled(own && shot && shot->view.has_value());
    frame_->setEnabled(!unfit_.empty());
    frame_->setText(unfit_.empty() ? tr("Frame for it") : tr("Frame %1 for it").arg(unfit_.size()));
}

// ---- what is done ------------------------------------------------------------------------------------------------

void OutletsTab::addOutlet() {
    document().edit({tr("Add an outlet")}, [this](Shoot& shoot) {
        const auto* own = outlet();
        Outlet made = own ? *own
                          : Outlet{.id = {},
                                   .name = {},
                                   .shape = {},
                                   .least_short_px = {},
                                   .most_long_px = {},
                                   .first = {},
                                   .unknown = {}};
        made.name = own ? own->name + " copy" : tr("Outlet").toStdString();
        made.id = text::unique_id(made.name, "outlet", [&](const std::string& id) {
            return std::ranges::find(shoot.outlets, id, &Outlet::id) != shoot.outlets.end();
        });
        shown_ = made.id;
        shoot.outlets.push_back(std::move(made));
    });
}

void OutletsTab::removeOutlet() {
    const auto id = shown_;
    document().edit({tr("Remove an outlet")}, [&](Shoot& shoot) {
        std::erase_if(shoot.outlets, [&](const Outlet& one) { return one.id == id; });
        for (std::size_t i = 0; i < shoot.shots.size(); ++i)
            if (job::delivery_of(std::as_const(shoot.shots)[i], id))
                std::erase_if(shoot.shots[i].deliveries, [&](const shoot::Delivery& one) { return one.outlet == id; });
    });
}

void OutletsTab::choose(bool all) {
    const AllShots facts(document());
    const auto* own = outlet();
    if (!own) return;
    const auto id = own->id, name = thing();
    document().edit({tr("Choose the pictures")}, [&](Shoot& shoot) {
        const Shoot before = shoot;  // the choices go by it
        for (const auto& outlet : before.outlets)
            for (const auto& one : shoot::things_of(before))
                if (all || (outlet.id == id && one == name))
                    job::deliver(shoot, outlet.id, one, job::choose_pictures(before, facts.all, outlet, one));
    });
}

void OutletsTab::askAndWrite() {
    const auto folder = QFileDialog::getExistingDirectory(this, tr("Folder for the outlets' pictures"));
    if (!folder.isEmpty()) write(folder);
}

void OutletsTab::write(const QString& folder) {
    const AllShots facts(document());
    auto plan = proof::delivery_plan(document().shoot(), facts.all, folder.toStdString());
    const auto there = std::ranges::count_if(plan.jobs, [](const proof::DeliveryJob& job) {
        std::error_code failed;
        return std::filesystem::exists(job.to, failed);
    });
    auto what = proof::IfThere::keep;
    if (there > 0) {
        QMessageBox box(QMessageBox::NoIcon, tr("Pictures are there already"),
                        tr("%1 of %2 pictures are in that folder already.").arg(there).arg(plan.jobs.size()),
                        QMessageBox::Cancel, this);
        box.setObjectName(QStringLiteral("overwriteQuestion"));
        const auto* replace = box.addButton(tr("Replace them"), QMessageBox::AcceptRole);
        const auto* keep = box.addButton(tr("Write only the others"), QMessageBox::ActionRole);
        box.exec();
        if (box.clickedButton() != replace && box.clickedButton() != keep) return;
        if (box.clickedButton() == replace) what = proof::IfThere::replace;
    }
    writer_->write(std::move(plan), what);
}

void OutletsTab::showWriting() {
    const bool busy = writer_->isBusy();
    const auto count = static_cast<double>(writer_->done());
    write_->setText(busy ? tr("Stop: %1 of %2").arg(writer_->done()).arg(writer_->all())
                         : tr("Write the pictures\u2026"));
    const auto& problems = writer_->problems();
    QStringList words;
    if (writer_->all() > 0) words << tr("%1 written").arg(toQt(text::count_text(count, "picture", "pictures")));
    if (!busy && writer_->done() < writer_->all()) words << tr("stopped");
    if (problems.size() > 2)
        words << tr("%1, and %2 more").arg(problems.front()).arg(problems.size() - 1);
    else
        words << problems;
    written_->setText(words.join(QStringLiteral(". ")));
    written_->setToolTip(problems.join(QLatin1Char('\n')));
    written_->setVisible(!words.isEmpty());
}

void OutletsTab::toggle() {
    const auto* own = outlet();
    const auto* shot = document().shot();
    if (!own || !shot || !shot->view) return;
    const auto id = own->id;
    const auto shot_id = shot->id;
    document().edit({tr("Give or take back a picture")}, [&](Shoot& shoot) {
        auto& edited = shoot.shots[static_cast<std::size_t>(document().current())];
        if (!job::delivery_of(edited, id)) {
            edited.deliveries.push_back({.outlet = id, .beside = {}, .unknown = {}});
            return;
        }
        std::erase_if(edited.deliveries, [&](const shoot::Delivery& one) { return one.outlet == id; });
        // The one beside it has the picture to itself.
        for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
            const auto* other = job::delivery_of(std::as_const(shoot.shots)[i], id);
            if (!other || other->beside != shot_id) continue;
            for (auto& one : shoot.shots[i].deliveries)
                if (one.outlet == id) one.beside.reset();
        }
    });
}

void OutletsTab::frameUnfit() {
    const auto* own = outlet();
    if (!own || unfit_.empty()) return;
    const Outlet outlet = *own;
    document().edit({tr("Frame for %1").arg(toQt(outlet.name))}, [&](Shoot& shoot) {
        for (const auto i : unfit_) job::frame_for(shoot, i, outlet);
    });
}

void OutletsTab::moveCut(int section, int shot, double right, double down) {
    const auto& outlets = document().shoot().outlets;
    if (section >= static_cast<int>(outlets.size())) return;
    const auto outlet = outlets[static_cast<std::size_t>(section)];
    const auto at = static_cast<std::size_t>(shot);
    const auto* had = job::delivery_of(document().shoot().shots[at], outlet.id);
    if (!had) return;
    const AllShots facts(document());
    auto wanted = *had;
    wanted.right += right, wanted.down += down;
    // No further than there is room for.
    const auto cut = job::cut_for(facts.all[at], outlet, wanted);
    wanted.right = cut.left - (1 - cut.width) / 2, wanted.down = cut.top - (1 - cut.height) / 2;
    if (wanted == *had) return;
    document().edit({tr("Move a cut"), QStringLiteral("cut#%1#%2").arg(section).arg(shot)}, [&](Shoot& shoot) {
        for (auto& one : shoot.shots[at].deliveries)
            if (one.outlet == outlet.id) one = wanted;
    });
}

}  // namespace poquito::desk

#include "desk/day/moc_outlets_tab.moc"
