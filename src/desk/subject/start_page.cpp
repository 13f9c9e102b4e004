#include "desk/subject/start_page.hpp"

#include "advice/stations.hpp"
#include "desk/session/bag.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/subject/specimen_board.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/choice_chips.hpp"
#include "desk/toolkit/theme.hpp"
#include "gear/rows.hpp"
#include "shoot/change/edit.hpp"
#include "shoot/change/kit_edit.hpp"
#include "shoot/change/mount.hpp"

#include <QButtonGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStandardItemModel>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using namespace shoot;

namespace {

QHBoxLayout* line(QVBoxLayout* column, const QString& question, QWidget* parent) {
    auto* row = new QHBoxLayout;
    row->setSpacing(5);
    auto* label = new QLabel(question, parent);
    label->setFont(textFont(13, QFont::DemiBold));
    label->setFixedWidth(96);
    row->addWidget(label);
    column->addLayout(row);
    return row;
}

}  // namespace

StartPage::StartPage(Document& document, SubjectLibrary& library, std::function<Bag&()> bag, QWidget* parent)
    : QFrame(parent), document_(document), library_(library), bag_(std::move(bag)), catalogue_(catalogue()) {
    setProperty("sheet", true);
    setObjectName(QStringLiteral("startSheet"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(20, 14, 20, 14);
    row->setSpacing(28);
    auto* column = new QVBoxLayout;
    column->setSpacing(9);
    row->addLayout(column, 1);
    heading_ = new QLabel(this);
    heading_->setFont(textFont(15, QFont::DemiBold));
    heading_->setWordWrap(true);
    column->addWidget(heading_);
    addWhat(column);
    addWhere(column);
    addForWhat(column);
    addLook(column);
    addWithWhat(column);
    addEnd(column);
    doors_ = doors();
    row->addWidget(doors_);
    connect(&library_, &SubjectLibrary::changed, this, &StartPage::refresh);
}

// ---- the five questions ------------------------------------------------------------------------------------------

void StartPage::addWhat(QVBoxLayout* column) {
    auto* head = line(column, tr("What is it?"), this);
    kinds_ = new ChoiceChips(this);
    nameControl(kinds_, {"startKindChips", tr("Class of subject"), tr("The library's classes; one's own come first")});
    head->addWidget(kinds_, 1);
    constexpr int as_low_as_a_chip = 6;
    if (auto* label = head->itemAt(0)->widget()) {
        label->setContentsMargins(0, as_low_as_a_chip, 0, 0);
        head->setAlignment(label, Qt::AlignTop);
    }
    connect(kinds_, &ChoiceChips::chosen, this, [this](const std::vector<std::string>& ids) {
        for (const auto& id : ids)
            if (id != kind_) {
                kind_ = id;
                break;
            }
        refresh();
    });
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    board_ = new SpecimenBoard(scroll);
    scroll->setWidget(board_);
    scroll->viewport()->setAutoFillBackground(false);
    board_->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    connect(board_, &SpecimenBoard::chosen, this, &StartPage::take);
}

QToolButton* StartPage::answer(QLayout* row, QButtonGroup* group, const char* name, const QString& label,
                               const QString& tip, const std::function<void(Shoot&, Shot&)>& change,
                               const std::function<bool(const Shot&)>& given) {
    auto* made = new QToolButton(this);
    nameControl(made, {name, label, tip});
    made->setText(label);
    made->setCheckable(true);
    group->addButton(made);
    row->addWidget(made);
    connect(made, &QToolButton::clicked, this, [this, label, change] { edit(label, change); });
    answers_.push_back({made, given});
    return made;
}

void StartPage::addWhere(QVBoxLayout* column) {
    auto* row = line(column, tr("Where?"), this);
    auto* place = new QButtonGroup(this);
    const auto lit_as = [](Place at) {
        return [=](Shoot&, Shot& shot) {
            shot.ambient = ambient_at(at);
            std::erase(shot.subject.traits, "outdoors");
            if (at == Place::field) shot.subject.traits.emplace_back("outdoors");
        };
    };
    const auto is_lit_as = [](Place at) {
        return [=](const Shot& shot) { return shot.ambient && shot.ambient->kind == ambient_at(at).kind; };
    };
    answer(row, place, "startTableButton", tr("On a table"), tr("In a lit room, EV 6; your lights do the rest"),
           lit_as(Place::table), is_lit_as(Place::table));
    answer(row, place, "startWindowButton", tr("At a window"), tr("A bright window from the left, EV 9"),
           lit_as(Place::window), is_lit_as(Place::window));
    answer(row, place, "startFieldButton", tr("In the field"), tr("Under an open, hazy sky, EV 13"),
           lit_as(Place::field), is_lit_as(Place::field));
    row->addSpacing(16);
    auto* held = new QButtonGroup(this);
    answer(
        row, held, "startHandButton", tr("By hand"), tr("Your hands limit the time"),
        [](Shoot&, Shot& shot) {
            shot.rig.support = Support::hand;
            shot.rig.rail.reset();
        },
        [](const Shot& shot) { return shot.rig.support == Support::hand; });
    answer(
        row, held, "startStandButton", tr("On a stand"), tr("On the rail where the kit has one"),
        [](Shoot& shoot, Shot& shot) {
            shot.rig.support = Support::sturdy_head;
            if (!shoot.kit.rails.empty() && !shot.rig.rail) shot.rig.rail = shoot.kit.rails.front().id;
        },
        [](const Shot& shot) {
            return shot.rig.support == Support::sturdy_head || shot.rig.support == Support::small_head;
        });
    row->addStretch();
}

void StartPage::addForWhat(QVBoxLayout* column) {
    auto* row = line(column, tr("For what?"), this);
    auto* purpose = new QButtonGroup(this);
    const auto made_for = [](const std::optional<Output>& output) {
        return [=](Shoot& shoot, Shot& shot) {
            const double crop = shot.sharpness.output.print.crop;
            shoot.purpose = output;
            shot.sharpness.rule = output ? BlurRule::output : BlurRule::diagonal;
            if (output) shot.sharpness.output = *output;
            shot.sharpness.output.print.crop = shot.sharpness.output.delivery.crop = crop;
        };
    };
    const auto is_for = [](OutputKind kind) {
        return [=](const Shot& shot) {
            return shot.sharpness.rule == BlurRule::output && shot.sharpness.output.kind == kind;
        };
    };
    answer(row, purpose, "startPrintButton", tr("A print, 30 cm"), tr("What an eye takes for sharp from 40 cm"),
           made_for(Output{.kind = OutputKind::print}), is_for(OutputKind::print));
    answer(row, purpose, "startScreenButton", tr("A screen, a shop"), tr("2000 pixels wide"),
           made_for(Output{.kind = OutputKind::delivery}), is_for(OutputKind::delivery));
    answer(row, purpose, "startFileButton", tr("Not known yet"), tr("The sensor's diagonal over 1500 counts as sharp"),
           made_for(std::nullopt), [](const Shot& shot) { return shot.sharpness.rule == BlurRule::diagonal; });
    square_ = new QCheckBox(tr("square"), this);
    nameControl(square_, {"startSquareCheck", tr("Square"), tr("The picture keeps a square of the frame")});
    connect(square_, &QCheckBox::clicked, this, [this](bool on) {
        edit(tr("Square or not"), [on](Shoot& shoot, Shot& shot) {
            const auto& sensor = sensor_of(shoot.kit, shot.rig);
            const double crop = on ? sensor.height / sensor.width : 1;
            shot.sharpness.output.print.crop = shot.sharpness.output.delivery.crop = crop;
            shot.picture_shape = on ? std::optional(1.0) : std::nullopt;
        });
    });
    row->addSpacing(16);
    row->addWidget(square_);
    row->addStretch();
}

void StartPage::addLook(QVBoxLayout* column) {
    auto* row = line(column, tr("Looks?"), this);
    auto* look = new QButtonGroup(this);
    const auto add = [&](const char* name, const QString& label, const QString& tip, const Wishes& wished) {
        answer(
            row, look, name, label, tip,
            [wished](Shoot&, Shot& shot) {
                shot.wishes.ground = wished.ground, shot.wishes.softness = wished.softness;
            },
            [wished](const Shot& shot) {
                return shot.wishes.ground == wished.ground && shot.wishes.softness == wished.softness;
            });
    };
    constexpr double clearly_soft = 0.08;  // of the frame's width
    add("startPlainLookButton", tr("As it comes"), tr("Nothing is wished of what lies behind"), {});
    add("startBlackButton", tr("Black behind"), tr("Five stops under mid grey, or darker"),
        {.ground = WantedGround::black});
    add("startWhiteButton", tr("White behind"), tr("Two stops over mid grey, or more"),
        {.ground = WantedGround::white});
    add("startSoftButton", tr("Soft behind"), tr("A point becomes a disc of 8 % of the frame's width"),
        {.softness = clearly_soft});
    row->addStretch();
}

QComboBox* StartPage::gear(QLayout* row, const char* name, const QString& label, std::string_view list,
                           std::function<std::string(const Shot&)> given) {
    auto* box = new QComboBox(this);
    nameControl(box, {name, label, tr("Of this shoot's kit; below it the catalogue, from which it joins kit and bag")});
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(12);
    box->setMaxVisibleItems(24);
    row->addWidget(box);
    connect(box, &QComboBox::activated, this,
            [this, box, list](int index) { takeGear(list, box->itemData(index).toString().toStdString()); });
    gear_.push_back({box, list, std::move(given)});
    return box;
}

void StartPage::addWithWhat(QVBoxLayout* column) {
    auto* row = line(column, tr("With what?"), this);
    gear(row, "startCameraChoice", tr("Camera"), "cameras", [](const Shot& shot) { return shot.rig.camera; });
    gear(row, "startLensChoice", tr("Lens"), "lenses", [](const Shot& shot) { return shot.rig.lens; });
    gear(row, "startLightChoice", tr("Light"), "flashes",
         [](const Shot& shot) { return shot.lights.empty() ? std::string() : shot.lights.front().flash; });
    row->addStretch();
}

void StartPage::addEnd(QVBoxLayout* column) {
    auto* row = new QHBoxLayout;
    plans_ = captionedButton({"startPlansButton", tr("Show the whole plans"),
                              tr("Complete settings for each way of taking it, best first; one click takes one")},
                             this);
    plans_->setDefault(true);
    connect(plans_, &QPushButton::clicked, this, &StartPage::plansWanted);
    row->addWidget(plans_);
    auto* leave = captionedButton(
        {"welcomeAddButton", tr("Skip: I fill the stations in myself"), tr("A plain shot, at the first station")},
        this);
    leave->setProperty("link", true);
    connect(leave, &QPushButton::clicked, this, [this] {
        if (document_.count() == 0) Q_EMIT shotWanted();
        Q_EMIT left();
    });
    row->addWidget(leave);
    row->addStretch();
    column->addLayout(row);
}

// ---- beside an empty shoot ---------------------------------------------------------------------------------------

QWidget* StartPage::doors() {
    auto* side = new QWidget(this);
    side->setFixedWidth(290);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    const auto heading = [&](const QString& text) {
        auto* label = new QLabel(text, side);
        label->setFont(textFont(13, QFont::DemiBold));
        column->addWidget(label);
    };
    heading(tr("Or go on with"));
    const auto door = [&](const char* name, const QString& caption, auto wanted) {
        auto* made = new QPushButton(caption, side);
        made->setObjectName(QLatin1String(name));
        made->setProperty("link", true);
        column->addWidget(made, 0, Qt::AlignLeft);
        connect(made, &QPushButton::clicked, this, wanted);
    };
    door("welcomeOpenButton", tr("Open a shoot\u2026"), &StartPage::openWanted);
    door("welcomeDemoButton", tr("Look at the demo shoot"), &StartPage::demoWanted);
    recent_ = new QVBoxLayout;
    recent_->setSpacing(1);
    column->addLayout(recent_);
    column->addSpacing(14);
    heading(tr("The order of work"));
    const QString steps[] = {tr("How big, how deep, how it moves; what fills the frame."),
                             tr("Lens, tubes, close-up lens: the magnification, and what it costs."),
                             tr("The stop, the slice in focus; one frame or a stack."),
                             tr("Window or flash, power and distance, what freezes."),
                             tr("The checklist, the stack and its cost."),
                             tr("What was shot, what to correct, what to keep.")};
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        auto* name = new QLabel(
            QStringLiteral("%1   %2").arg(i + 1).arg(QLatin1String(advice::station_name(advice::stations[i]))), side);
        name->setFont(textFont(12, QFont::DemiBold));
        column->addWidget(name);
        auto* step = new QLabel(steps[i], side);
        step->setProperty("quiet", true);
        step->setWordWrap(true);
        step->setIndent(19);
        column->addWidget(step);
        column->addSpacing(3);
    }
    column->addStretch();
    return side;
}

void StartPage::setRecent(const QStringList& paths) {
    while (auto* item = recent_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const auto& path : paths) {
        auto* link = new QPushButton(QFileInfo(path).fileName(), this);
        link->setToolTip(path);
        link->setProperty("link", true);
        connect(
            link, &QPushButton::clicked, this, [this, path] { Q_EMIT fileWanted(path); }, Qt::QueuedConnection);
        recent_->addWidget(link, 0, Qt::AlignLeft);
    }
}

// ---- answers -----------------------------------------------------------------------------------------------------

void StartPage::edit(const QString& text, const std::function<void(Shoot&, Shot&)>& change) {
    if (document_.count() == 0) Q_EMIT shotWanted();
    if (!document_.shot()) return refresh();
    const auto index = static_cast<std::size_t>(document_.current());
    document_.edit({text}, [&](Shoot& shoot) {
        Shot shot = std::as_const(shoot.shots)[index];
        change(shoot, shot);
        shoot.shots[index] = std::move(shot);
    });
    refresh();
}

void StartPage::take(const std::string& subject) {
    const auto& all = library_.subjects();
    const auto found = std::ranges::find(all, subject, &LibrarySubject::id);
    if (found == all.end()) return;
    const LibrarySubject& entry = *found;
    edit(tr("Take \u201c%1\u201d").arg(toQt(entry.name)), [&](Shoot& shoot, Shot& shot) {
        // A name that nobody typed follows the subject.
        const auto named_after = [&](const LibrarySubject& one) { return shot.name == one.name; };
        if (shot.name.starts_with("New shot") || std::ranges::any_of(all, named_after)) shot.name = entry.name;
        fill_from(shot, shoot.kit, entry);
        add_checks(shot, library_.checks(), entry.kind);
        if (has_trait(shot.subject, "outdoors")) {
            shot.ambient = ambient_at(Place::field);
            shot.rig.support = Support::hand;
        }
    });
}

void StartPage::takeGear(std::string_view list, const std::string& id) {
    const auto& kind = gear::gear_kind(list);
    const auto index_in = [&](const gear::Kit& kit) { return gear::find_index(kind, kit, id); };
    if (!id.empty() && !index_in(document_.kit())) {
        const auto piece = index_in(catalogue_);
        if (!piece) return;
        if (!index_in(bag_().kit()))
            bag_().document().edit({tr("Take it from the catalogue")},
                                   [&](Shoot& bag) { put_gear(kind, bag.kit, catalogue_, *piece); });
        if (document_.count() == 0) Q_EMIT shotWanted();
        document_.edit({tr("Take it from the catalogue")},
                       [&](Shoot& shoot) { put_gear(kind, shoot.kit, catalogue_, *piece); });
    }
    edit(tr("Choose gear"), [&](Shoot& shoot, Shot& shot) {
        if (list == "flashes") {
            if (id.empty()) {
                shot.lights.clear();
            } else if (shot.lights.empty()) {
                shot.lights.push_back({.flash = id, .position = {.distance = 400, .azimuth = -40, .elevation = 45}});
            } else {
                shot.lights.front().flash = id;
                shot.lights.front().lamp.reset();
                shot.lights.front().reflector.reset();
            }
            return;
        }
        // Another sensor or lens, the same picture: the subject stays as large in the frame.
        const auto filling = [&] { return magnification_for_fill(sensor_of(shoot.kit, shot.rig), shot.subject, 1); };
        const double fill = shot.rig.focus.value / filling();
        (void)put_on(shoot.kit, shot.rig, list, id, 0);
        settle_rig(shoot.kit, shot.rig);
        if (shot.rig.focus.by == FocusBy::magnification) shot.rig.focus.value = fill * filling();
    });
}

void StartPage::fillGear(QComboBox* box, std::string_view list, const std::string& chosen) {
    const QSignalBlocker quiet(box);
    const auto& kind = gear::gear_kind(list);
    box->clear();
    if (list == "flashes") box->addItem(tr("no flash"), QString());
    std::vector<std::string> there;
    for (std::size_t i = 0; i < kind.count(document_.kit()); ++i) {
        there.push_back(kind.id(document_.kit(), i));
        box->addItem(toQt(kind.name(document_.kit(), i)), toQt(there.back()));
    }
    bool headed = false;
    for (std::size_t i = 0; i < kind.count(catalogue_); ++i) {
        const auto id = kind.id(catalogue_, i);
        if (std::ranges::count(there, id) > 0) continue;
        if (!std::exchange(headed, true)) {
            box->addItem(tr("From the catalogue"));
            static_cast<QStandardItemModel*>(box->model())->item(box->count() - 1)->setFlags(Qt::NoItemFlags);
        }
        box->addItem(QStringLiteral("   ") + toQt(kind.name(catalogue_, i)), toQt(id));
    }
    box->setCurrentIndex(std::max(0, box->findData(toQt(chosen))));
}

void StartPage::showEvent(QShowEvent*) { refresh(); }

void StartPage::refresh() {
    if (!isVisible()) return;
    const auto* shot = document_.shot();
    doors_->setVisible(document_.count() == 0);
    heading_->setText(shot ? tr("%1: what you say of it shows at the right at once").arg(toQt(shot->name))
                           : tr("Plan the picture before the camera comes out of the bag"));
    std::vector<std::pair<std::string, std::string>> kinds;
    for (const auto& subject : library_.subjects()) {
        if (std::ranges::none_of(kinds, [&](const auto& one) { return one.first == subject.kind; }))
            kinds.emplace_back(subject.kind, subject.kind);
        if (kind_.empty()) kind_ = subject.kind;
    }
    kinds_->show(kinds, {kind_});
    std::vector<LibrarySubject> of_kind;
    for (const auto& subject : library_.subjects())
        if (subject.kind == kind_) of_kind.push_back(subject);
    board_->show(std::move(of_kind), shot ? shot->subject.library : std::nullopt);
    for (const auto& [button, given] : answers_) {
        auto* group = button->group();
        group->setExclusive(false);
        button->setChecked(shot && given(*shot));
        group->setExclusive(true);
    }
    square_->setChecked(shot && shot->sharpness.output.print.crop < 1);
    for (const auto& [box, list, given] : gear_) fillGear(box, list, shot ? given(*shot) : std::string());
    plans_->setEnabled(shot != nullptr);
}

}  // namespace poquito::desk

#include "desk/subject/moc_start_page.moc"
