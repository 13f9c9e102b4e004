#include "desk/day/sets_tab.hpp"

#include "desk/pages/day_paper.hpp"
#include "desk/pages/options.hpp"
#include "desk/toolkit/sentence.hpp"
#include "job/locks.hpp"
#include "shoot/change/view_set.hpp"
#include "shoot/names.hpp"

#include <QFileDialog>
#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

namespace poquito::desk {

using shoot::Lock;
using shoot::PlateRole;
using shoot::Shoot;

QWidget* SetsTab::buildSide() {
    auto* fields = new QWidget;
    auto* column = new QVBoxLayout(fields);
    column->setContentsMargins(14, 8, 14, 8);
    addView(column);
    addLocks(column);
    addPlate(column);
    column->addStretch();
    auto* side = scrollingPaper(fields, this);
    side->setFixedWidth(side_width);
    return side;
}

void SetsTab::addView(QVBoxLayout* column) {
    viewGroup_ = new QWidget(this);
    auto* inner = new QVBoxLayout(viewGroup_);
    inner->setContentsMargins(0, 0, 0, 0);
    auto* group = addGroup(inner, tr("This view"));
    const auto line = [&](const Caption& caption, std::string shoot::View::*member) {
        const auto key = QString::fromLatin1(caption.objectName);
        return addLine(group, caption, [this, member, key](const QString& text) {
            this->document().editShot({tr("Change the view"), key}, [&](Shot& s) {
                if (s.view) (*s.view).*member = text.toStdString();
            });
        });
    };
    viewName_ = line({"viewNameField", tr("Shows"), tr("What of the thing: front, label, clasp")}, &shoot::View::name);
    proves_ =
        line({"viewProvesField", tr("Proves"), tr("What the one who looks wants to be sure of")}, &shoot::View::proves);
    also_ =
        addLine(group,
                {"viewAlsoField", tr("Shows also"),
                 tr("Other views that it shows as well, the thing turned: front, side. An outlet with little room "
                    "may take this one for them")},
                [this](const QString& text) {
                    this->document().editShot({tr("Change the view"), QStringLiteral("viewAlsoField")}, [&](Shot& s) {
                        if (!s.view) return;
                        s.view->also.clear();
                        for (const auto& name : text.split(QLatin1Char(','), Qt::SkipEmptyParts))
                            if (const auto view = name.trimmed(); !view.isEmpty())
                                s.view->also.push_back(view.toStdString());
                    });
                });
    addQuantity(
        group,
        {"viewWorthField", tr("Worth"), tr("Against the thing's other views, where an outlet takes fewer: 10 first")},
        ratioQuantity(text::range::count), [](const Shot& s) { return s.view ? s.view->worth : 1; },
        [](Shot& s, double v) {
            if (s.view) s.view->worth = v;
        });
    addCheck(
        group, {"viewMustCheck", tr("Has to be shown"), tr("Wherever the thing is shown: a flaw, a size mark")},
        [](const Shot& s) { return s.view && s.view->must; },
        [](Shot& s, bool on) {
            if (s.view) s.view->must = on;
        });
    addCheck(
        group,
        {"viewHalfCheck", tr("May share a picture"),
         tr("Side by side with another view that may, where room is short")},
        [](const Shot& s) { return s.view && s.view->half; },
        [](Shot& s, bool on) {
            if (s.view) s.view->half = on;
        });
    column->addWidget(viewGroup_);
}

void SetsTab::addLocks(QVBoxLayout* column) {
    locksGroup_ = new QWidget(this);
    auto* inner = new QVBoxLayout(locksGroup_);
    inner->setContentsMargins(0, 0, 0, 0);
    auto* group = addGroup(inner, tr("Stays as in another shot"));
    addChoice(
        group, {"followsChoice", tr("As in"), tr("The shot that this one is compared with or laid on")},
        [this](const gear::Kit&) {
            Options options{{"", tr("none").toStdString()}};
            const auto* own = this->document().shot();
            for (const auto& shot : this->document().shoot().shots)
                if (!own || shot.id != own->id) options.emplace_back(shot.id, shot.name);
            return options;
        },
        [](const Shot& s) { return s.follows ? s.follows->shot : std::string(); },
        [](Shot& s, const std::string& id) {
            if (id.empty()) return s.follows.reset();
            if (!s.follows)
                s.follows = shoot::Follows{.shot = id, .locks = {Lock::camera, Lock::stop, Lock::light}, .unknown = {}};
            s.follows->shot = id;
        });
    locksChips_ = addChips(
        group, {"locksChips", tr("Locked"), tr("What may not differ; where it does, it is told")},
        [](const gear::Kit&) {
            Options options;
            for (int i = 0; i < shoot::locks; ++i)
                options.emplace_back(idOf(static_cast<Lock>(i)), job::lock_name(static_cast<Lock>(i)));
            return options;
        },
        [](const Shot& s) {
            std::vector<std::string> on;
            if (s.follows)
                for (const Lock lock : s.follows->locks) on.push_back(idOf(lock));
            return on;
        },
        [](Shot& s, const std::vector<std::string>& ids) {
            if (!s.follows) return;
            s.follows->locks.clear();
            for (const auto& id : ids) s.follows->locks.push_back(valueOf<Lock>(id));
        });
    spanRow(group, locksChips_);
    deviations_ = new Sentence(3, this);
    deviations_->setObjectName(QStringLiteral("deviations"));
    inner->addWidget(deviations_);
    auto* row = new QHBoxLayout;
    bringInLine_ = captionedButton(
        {"bringInLineButton", tr("Set back"), tr("Gives this shot what is locked, from the one it goes by")}, this);
    connect(bringInLine_, &QPushButton::clicked, this, [this] {
        this->document().edit({tr("Bring in line")}, [this](Shoot& shoot) {
            job::bring_in_line(shoot, static_cast<std::size_t>(this->document().current()));
        });
    });
    row->addWidget(bringInLine_);
    bringAll_ = captionedButton({"bringAllInLineButton", tr("Set back all"), tr("The same for every shot")}, this);
    connect(bringAll_, &QPushButton::clicked, this, [this] {
        this->document().edit({tr("Bring all in line")}, [](Shoot& shoot) {
            for (std::size_t i = 0; i < shoot.shots.size(); ++i) job::bring_in_line(shoot, i);
        });
    });
    row->addWidget(bringAll_);
    inner->addLayout(row);
    auto* compare = captionedButton({"compareSessionButton", tr("Against an earlier session\u2026"),
                                     tr("What is locked here, held against the same series in another shoot file: the "
                                        "same patient, coin or plant months ago")},
                                    this);
    compare->setProperty("link", true);
    connect(compare, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getOpenFileName(this, tr("Earlier session"), {}, tr("Shoots (*.poquito)"));
        if (!path.isEmpty()) compareWith(path);
    });
    inner->addWidget(compare, 0, Qt::AlignLeft);
    sessions_ = new Sentence(6, this);
    sessions_->setObjectName(QStringLiteral("sessionDeviations"));
    sessions_->hide();
    inner->addWidget(sessions_);
    column->addWidget(locksGroup_);
}

void SetsTab::addPlate(QVBoxLayout* column) {
    addGroup(column, tr("Put together from plates"));
    plateWork_ = new Sentence(3, this);
    plateWork_->setObjectName(QStringLiteral("plateWork"));
    column->addWidget(plateWork_);
    auto* grid = new QGridLayout;
    grid->setSpacing(5);
    int at = 0;
    for (const PlateRole role : {PlateRole::piece, PlateRole::support, PlateRole::clean, PlateRole::shadow,
                                 PlateRole::flash, PlateRole::ambient}) {
        const auto name = QByteArray("plate-") + shoot::name_of(role);
        auto* button = captionedButton(
            {name.constData(), tr("+ %1").arg(tr(job::role_name(role))), tr(job::role_work(role))}, this);
        connect(button, &QPushButton::clicked, this, [this, role] {
            this->document().edit({tr("Add a plate")}, [&](Shoot& shoot) {
                job::add_plates(shoot, static_cast<std::size_t>(this->document().current()), {role});
            });
        });
        plates_.push_back(button);
        grid->addWidget(button, at / 2, at % 2);
        ++at;
    }
    column->addLayout(grid);
}

}  // namespace poquito::desk
