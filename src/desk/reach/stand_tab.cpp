#include "desk/reach/stand_tab.hpp"

#include "desk/drawing/bench_layout.hpp"
#include "desk/pages/options.hpp"
#include "desk/reach/stand_drawing.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/report.hpp"
#include "shoot/form/form.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

using namespace shoot;

namespace {

Table& own_table(Shot& shot) { return shot.table ? *shot.table : shot.table.emplace(table_of(shot)); }

constexpr double usual_edge = 300;  // mm, where one is first said (common practice)

/// What it reaches for: a length, coarse enough to be set with a tape.
QString tape(double length) { return toQt(text::length_text(std::round(length))); }

}  // namespace

StandTab::StandTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(6);
    auto* sides = new QHBoxLayout;
    sides->setSpacing(14);
    column->addLayout(sides);
    auto* camera = new QVBoxLayout;
    sides->addLayout(camera, 7);
    addCamera(camera);
    camera->addStretch();
    auto* table = new QVBoxLayout;
    sides->addLayout(table, 5);
    addTable(table);
    table->addStretch();
    facts_ = new FactsView("standFacts", tr("From there"), this);
    facts_->setMinimumHeight(110);
    column->addWidget(facts_, 1);
    drawing_ = new StandDrawing(this);
    addDrawing(drawing_, 5);
    connect(drawing_, &StandDrawing::turned, this, [this](double degrees, int drag) {
        this->document().editShot({tr("Tip the camera"), QStringLiteral("tip#%1").arg(drag)},
                                  [&](Shot& shot) { shot.rig.inclination = degrees; });
    });
}

void StandTab::addCamera(QLayout* column) {
    auto* group = addGroup(column, tr("Camera"));
    addChoice(
        group, {"orientationChoice", tr("Held"), tr("The sensor's long side level, or upright")},
        enumerated({"level", "upright"}), [](const Shot& s) { return idOf(s.rig.orientation); },
        [](Shot& s, const std::string& id) { s.rig.orientation = valueOf<Orientation>(id); });
    addQuantity(
        group,
        {"inclinationField", tr("Looks down"),
         tr("0 level, 90 straight down; the table behind the subject is then its background where it comes first")},
        angleQuantity(text::range::inclination), [](const Shot& s) { return s.rig.inclination; },
        [](Shot& s, double v) { s.rig.inclination = v; });
    addChoice(
        group, {"supportChoice", tr("Carried by"), tr("A long rig sags on a small head")},
        [](const gear::Kit&) {
            return Options{{idOf(Support::unstated), "not said"},
                           {idOf(Support::hand), "hand"},
                           {idOf(Support::small_head), "small tripod head"},
                           {idOf(Support::sturdy_head), "sturdy head, collar"}};
        },
        [](const Shot& s) { return idOf(s.rig.support); },
        [](Shot& s, const std::string& id) { s.rig.support = valueOf<Support>(id); });
    standChoice_ = addChoice(
        group, {"standChoice", tr("Stand"), tr("Tripod, column or boom of the bag; what it reaches is checked")},
        [](const gear::Kit& kit) {
            Options options = {{"", "none"}};
            for (const auto& stand : kit.stands) options.emplace_back(stand.id, stand.name);
            return options;
        },
        [](const Shot& s) { return s.rig.stand.value_or(""); },
        [](Shot& s, const std::string& id) { s.rig.stand = id.empty() ? std::nullopt : std::optional(id); });
}

void StandTab::addTable(QLayout* column) {
    auto* group = addGroup(column, tr("Table"));
    addQuantity(
        group,
        {"tableHeightField", tr("High"),
         tr("Over the floor that the stand is on; 0 on the ground, or where both stand on the table")},
        lengthQuantity(text::range::length), [](const Shot& s) { return table_of(s).height; },
        [](Shot& s, double v) { own_table(s).height = v; });
    const auto edge = [&](const char* name, const Caption& caption, std::optional<double> Table::*member) {
        auto* check = addCheck(
            group, {name, caption.label, caption.tip},
            [member](const Shot& s) { return (table_of(s).*member).has_value(); },
            [member](Shot& s, bool on) { own_table(s).*member = on ? std::optional(usual_edge) : std::nullopt; });
        auto* field = addQuantityOn(
            this, caption, lengthQuantity(text::range::length),
            [member](const Shot& s) { return (table_of(s).*member).value_or(usual_edge); },
            [member](Shot& s, double v) { own_table(s).*member = v; });
        // The check is the row's label.
        const int row = group->rowCount() - 1;
        group->removeWidget(check);
        group->addWidget(check, row, 0);
        group->addWidget(field, row, 1);
        return field;
    };
    edgeField_ = edge(
        "edgeCheck", {"edgeField", tr("Edge before"), tr("From the subject's middle to the table's edge on this side")},
        &Table::before);
    farEdgeField_ = edge("farEdgeCheck",
                         {"farEdgeField", tr("Edge behind"), tr("And to the edge behind it, which the frame may show")},
                         &Table::behind);
    auto* row = new QHBoxLayout;
    const auto turn = [&](const Caption& caption, double from_table) {
        auto* button = captionedButton(caption, this);
        connect(button, &QPushButton::clicked, this, [this, from_table] {
            this->document().editShot({tr("Turn the subject")}, [&](Shot& shot) {
                shot.subject.tilt =
                    std::clamp(90 - shot.rig.inclination - from_table, -greatest_view_angle, greatest_view_angle);
            });
        });
        row->addWidget(button);
    };
    turn({"uprightButton", tr("Stands upright"), tr("Turns the subject so that it stands on the table")}, 90);
    turn({"flatButton", tr("Lies flat"), tr("Turns the subject so that it lies on the table, its front up")}, 0);
    static_cast<QVBoxLayout*>(column)->addLayout(row);
}

void StandTab::showShot(const Shot& shot, const plan::Report& report) {
    drawing_->setPlan(document().assessment());
    const auto table = table_of(shot);
    setRowVisible(standChoice_, !document().kit().stands.empty());
    edgeField_->setEnabled(table.before.has_value());
    farEdgeField_->setEnabled(table.behind.has_value());
    const auto& standing = report.camera_position;
    std::vector<Fact> facts;
    if (report.optics.camera_height)
        facts.push_back({tr("Camera over the table"), tape(*report.optics.camera_height),
                         table.height > 0 && standing.over_floor
                             ? tr("%1 over the floor").arg(tape(*standing.over_floor))
                             : QString()});
    // Before a low subject the camera's own base is in the table, unless it stands off it.
    if (const double base = bench_sizes::body_half; report.optics.camera_height && standing.away &&
                                                    *report.optics.camera_height < base &&
                                                    *standing.away < table.before.value_or(1e9))
        facts.push_back({tr("Raised on a block of"), tape(std::ceil(base - *report.optics.camera_height)),
                         tr("or more: the camera's base is below its axis")});
    if (standing.away)
        facts.push_back({tr("Level from the subject"), tape(std::abs(*standing.away)),
                         standing.stand && standing.stand->middle > *standing.away
                             ? tr("%1 to the stand's middle").arg(tape(standing.stand->middle))
                             : QString()});
    if (const auto& on = standing.stand) {
        if (on->legs_free)
            facts.push_back({tr("Legs to the table"), tape(std::abs(*on->legs_free)),
                             *on->legs_free < 0 ? tr("too near") : tr("free"),
                             *on->legs_free < 0 ? theme().caution : QColor()});
        if (on->bag)
            facts.push_back({tr("Sandbag on its foot"), tr("%1 kg").arg(toQt(text::number_text(*on->bag, 2))),
                             tr("at least, a leg under the arm"), theme().caution});
    }
    if (report.optics.table_behind)
        facts.push_back({tr("Axis meets the table"), tape(*report.optics.table_behind), tr("behind the middle")});
    if (const auto& edge = standing.edge)
        facts.push_back({edge->horizon ? tr("Horizon in the frame") : tr("Far edge in the frame"),
                         tr("%1 % from the top").arg(std::lround(edge->place * 100)),
                         edge->up_the_subject > 0 && edge->up_the_subject < 1
                             ? tr("behind the subject, blurred over %1 %").arg(std::lround(edge->blur * 100))
                             : tr("clear of the subject")});
    if (const auto& sweep = standing.sweep)
        facts.push_back({sweep->up > 0 ? tr("Sweep without an edge") : tr("Ground without an edge"),
                         tr("%1 \u00d7 %2").arg(tape(std::ceil(sweep->width)), tape(std::ceil(sweep->length))),
                         sweep->up > 0 ? tr("%1 up the wall, %2 before the subject")
                                             .arg(tape(std::ceil(sweep->up)), tape(std::ceil(sweep->before)))
                                       : tr("%1 of it before the subject").arg(tape(std::ceil(sweep->before)))});
    facts_->setFacts(std::move(facts));
}

}  // namespace poquito::desk

#include "desk/reach/moc_stand_tab.moc"
