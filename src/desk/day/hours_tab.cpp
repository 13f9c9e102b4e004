#include "desk/day/hours_tab.hpp"

#include "desk/day/day_drawing.hpp"
#include "desk/drawing/paper_printer.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/facts_view.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/motion/lapse.hpp"
#include "text/text.hpp"

#include <QButtonGroup>
#include <QCheckBox>
#include <QFileInfo>
#include <QLabel>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

#include <cmath>
#include <map>
#include <utility>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;
using namespace advice;
using namespace day;

namespace {}  // namespace

HoursTab::HoursTab(Document& document, RunController& runs, QWidget* parent)
    : StationPage(document, parent), runs_(runs), search_([this](DayPlan plan) { found(std::move(plan)); }) {
    addDrawing(buildDay(), 1);
    addDrawing(buildSide(), 0);
    later_.setSingleShot(true);
    later_.setInterval(60);  // after the last of several quick edits
    connect(&later_, &QTimer::timeout, this, &HoursTab::search);
    cancel_->hide();
}

// ---- the hours ---------------------------------------------------------------------------------------------------

QWidget* HoursTab::buildDay() {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(6);
    auto* bar = new QHBoxLayout;
    const auto view = [&](const Caption& caption) {
        auto* made = new QToolButton(page);
        nameControl(made, caption);
        made->setText(caption.label);
        made->setCheckable(true);
        made->setProperty("chip", true);
        bar->addWidget(made);
        return made;
    };
    listed_ = view({"listedOrderButton", tr("As listed"), tr("The order of the cards; drag a line to move its shot")});
    least_ = view({"leastOrderButton", tr("Least work"), tr("The order with the fewest and cheapest changes")});
    listed_->setChecked(true);
    auto* which = new QButtonGroup(this);
    which->addButton(listed_);
    which->addButton(least_);
    connect(which, &QButtonGroup::buttonClicked, this, &HoursTab::showPlan);
    verdict_ = new Sentence(2, page);
    verdict_->setObjectName(QStringLiteral("orderVerdict"));
    bar->addSpacing(6);
    bar->addWidget(verdict_, 1);
    cancel_ = captionedButton({"cancelOrderButton", tr("Enough"), tr("Take the best order found so far")}, page);
    connect(cancel_, &QPushButton::clicked, this, [this] { search_.stop(); });
    bar->addWidget(cancel_);
    apply_ = captionedButton({"applyOrderButton", tr("Take least work"), tr("Cards, run sheet and runs follow")}, page);
    connect(apply_, &QPushButton::clicked, this, &HoursTab::apply);
    bar->addWidget(apply_);
    column->addLayout(bar);
    drawing_ = new DayDrawing(page);
    column->addWidget(scrollingOn(drawing_, page), 1);
    connect(drawing_, &DayDrawing::shotClicked, this, [this](int index) { this->document().select(index); });
    connect(drawing_, &DayDrawing::shotWanted, this, &HoursTab::shotWanted);
    connect(drawing_, &DayDrawing::shotMoved, this, &HoursTab::moveShot);
    connect(drawing_, &DayDrawing::timeDragged, this, [this](int index, bool notBefore, double time) {
        const QString key = QStringLiteral("fence#%1#%2").arg(index).arg(notBefore);
        this->document().edit({tr("Move a fixed time"), key}, [&](Shoot& shoot) {
            auto& timing = shoot.shots[static_cast<std::size_t>(index)].timing;
            (notBefore ? timing.not_before : timing.done_by) = time;
        });
    });
    auto* foot = new QHBoxLayout;
    auto* add =
        captionedButton({"dayAddShotButton", tr("+ Add a shot"), tr("Behind the selected one; Ctrl+Shift+N")}, page);
    add->setProperty("link", true);
    connect(add, &QPushButton::clicked, this, &HoursTab::addWanted);
    foot->addWidget(add);
    foot->addStretch();
    const auto legend = [&](const QColor& colour, const QString& words) {
        auto* label =
            new QLabel(QStringLiteral("<span style=\"color:%1\">\u25a0</span> %2").arg(colour.name(), words), page);
        label->setTextFormat(Qt::RichText);
        foot->addWidget(label);
        foot->addSpacing(8);
    };
    legend(theme().change, tr("changing"));
    legend(theme().focus, tr("frames"));
    auto* hint = new QLabel(tr("drag a line, or a bracket; a double click opens the shot"), page);
    hint->setProperty("quiet", true);
    foot->addWidget(hint);
    column->addLayout(foot);
    return page;
}

QWidget* HoursTab::buildSide() {
    auto* day = paperOn(this);
    auto* dayColumn = new QVBoxLayout(day);
    dayColumn->setContentsMargins(14, 8, 14, 8);
    whole_ = new FactsView("wholeDayFacts", tr("The whole day"), day);
    whole_->setMinimumHeight(206);
    dayColumn->addWidget(whole_);
    addWays(dayColumn);
    auto* fields = new QWidget;
    auto* fieldColumn = new QVBoxLayout(fields);
    fieldColumn->setContentsMargins(14, 6, 14, 8);
    addTiming(fieldColumn);
    addPrices(fieldColumn);
    fieldColumn->addStretch();
    return sideOf(day, fields, this);
}

// ---- what goes out of it -----------------------------------------------------------------------------------------

void HoursTab::addWays(QVBoxLayout* column) {
    auto* sheets = new QHBoxLayout;
    sheets->setSpacing(5);
    auto* label = new QLabel(tr("Run sheet"), this);
    sheets->addWidget(label);
    sheets->addStretch();
    const auto button = [&](QHBoxLayout* row, const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, this);
        connect(made, &QPushButton::clicked, this, run);
        row->addWidget(made);
        return made;
    };
    button(sheets, {"exportPdfButton", tr("PDF\u2026"), tr("Export the run sheet of the whole shoot as PDF")},
           [this] { askAndExport(QStringLiteral("pdf")); });
    button(sheets,
           {"exportHtmlButton", tr("HTML\u2026"), tr("Export the run sheet of the whole shoot as one HTML page")},
           [this] { askAndExport(QStringLiteral("html")); });
    button(sheets, {"printButton", tr("Print\u2026"), tr("Print the run sheet of the whole shoot")},
           [this] { askAndPrint(); });
    column->addLayout(sheets);
    run_ = captionedButton({"runAllButton", QString(), tr("This shot and all below it, with a pause for gear")}, this);
    connect(run_, &QPushButton::clicked, this, [this] {
        std::vector<std::string> ids;
        const auto& shots = this->document().shoot().shots;
        for (auto i = static_cast<std::size_t>(this->document().current()); i < shots.size(); ++i)
            ids.push_back(shots[i].id);
        runs_.start(std::move(ids), false);
        if (runs_.isRunning()) Q_EMIT runShown();
    });
    column->addWidget(run_);
}

bool HoursTab::exportPaper(const QString& path) {
    const auto written = writePaper(document().shoot(), document().assessments(), path);
    if (!written)
        QMessageBox::warning(this, tr("Run sheet"),
                             tr("The run sheet was not written.\n%1").arg(toQt(text::message(written.error()))));
    return written.has_value();
}

void HoursTab::askAndExport(const QString& ending) {
    const QFileInfo file(document().path());
    const QString suggested = document().path().isEmpty() ? QStringLiteral("run-sheet.") + ending
                                                          : file.path() + QLatin1Char('/') + file.completeBaseName() +
                                                                QLatin1Char('.') + ending;
    const QString path = askSavePath(this, tr("Export run sheet"), suggested, ending);
    if (!path.isEmpty()) exportPaper(path);
}

void HoursTab::askAndPrint() {
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() == QDialog::Accepted) printPaper(document().shoot(), document().assessments(), printer);
}

/// What a morning and an afternoon come to, and the work that follows.
void HoursTab::showWhole() {
    const auto& shoot = document().shoot();
    double frames = 0, megabytes = 0, exposures = 0, combined = 0, taking = 0;
    std::map<std::string, double> charge, flashes;  // shares of a camera's battery, full flashes of a light
    std::vector<const Report*> reports;
    QStringList doubtful, runs_on;
    int settled = 0;
    for (int i = 0; i < document().count(); ++i) {
        const auto& assessment = document().assessment(i);
        const auto& capture = assessment.report.capture;
        reports.push_back(&assessment.report);
        const auto yield = plan::yield_of(assessment.plan, assessment.report);
        frames += yield.frames;
        megabytes += yield.data_mb;
        exposures += assessment.plan.shot.lapse ? yield.frames : capture.cost.exposures;
        if (yield.runs_on > 0)
            runs_on << tr("%1, %2").arg(toQt(assessment.plan.shot.name), toQt(time_text(yield.runs_on)));
        taking += capture.cost.seconds;
        if (capture.frames > 1) combined += capture.cost.exposures;
        if (yield.charge_share) charge[assessment.plan.camera.name] += *yield.charge_share;
        const auto status = advice::status_of(assessment);
        settled += status == advice::Status::settled ? 1 : 0;
        if (status == advice::Status::doubtful) doubtful << toQt(assessment.plan.shot.name);
    }
    const auto day = day::given_day(shoot, reports);
    const auto& work = shoot.workday;
    std::vector<Fact> facts;
    const double finish = day.finish;
    facts.push_back(
        {tr("Begins, over at"), tr("%1, %2").arg(toQt(day_time_text(work.begin)), toQt(day_time_text(finish)))});
    facts.push_back({tr("Changing, taking"), tr("%1, %2").arg(toQt(time_text(day.work)), toQt(time_text(taking))),
                     day.waiting > 1 ? tr("and waiting %1").arg(toQt(time_text(day.waiting))) : QString()});
    facts.push_back({tr("Frames, data"), tr("%1, %2").arg(toQt(number_text(frames, 6)), toQt(data_text(megabytes)))});
    if (!runs_on.isEmpty()) facts.push_back({tr("Goes on by itself"), runs_on.join(QStringLiteral("; "))});
    facts.push_back({tr("Work afterwards"), toQt(time_text(exposures * work.sorting + combined * work.combining))});
    // Its light stands then, with a stand-in in its place.
    QStringList food;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        if (!has_trait(shoot.shots[i].subject, "food")) continue;
        const bool there = i > 0 && shoot.shots[i].view && shoot.shots[i - 1].view &&
                           shoot.shots[i].view->thing == shoot.shots[i - 1].view->thing &&
                           !day::change_between(shoot.shots[i - 1], shoot.shots[i]).fresh;
        if (!there) food << toQt(day_time_text(day.start[i]));
    }
    if (!food.isEmpty())
        facts.push_back({tr("Food made for"), food.mid(0, 4).join(QStringLiteral(", ")),
                         tr("its light set with a stand-in until then")});
    for (const auto& [name, share] : charge)
        facts.push_back({tr("Charges of %1").arg(toQt(name)), toQt(number_text(std::ceil(share), 3))});
    facts.push_back({tr("Shots"),
                     settled > 0 ? tr("%1, %2 settled").arg(document().count()).arg(settled)
                                 : tr("%1, none settled").arg(document().count()),
                     doubtful.isEmpty() ? QString() : tr("doubtful: %1").arg(doubtful.join(QStringLiteral(", "))),
                     doubtful.isEmpty() ? QColor() : theme().caution});
    whole_->setFacts(std::move(facts));
}

// ---- what it goes by ---------------------------------------------------------------------------------------------

void HoursTab::addPrices(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("What a change takes"));
    begin_ =
        addField(group, {"dayBeginField", tr("Day begins"), tr("The first shot may be set up")}, dayTimeQuantity());
    connect(begin_, &QuantityField::valueEdited, this, [this](double v) {
        this->document().edit({tr("Change the day's begin"), QStringLiteral("dayBegin#%1").arg(begin_->visit())},
                              [v](Shoot& shoot) { shoot.workday.begin = v; });
    });
    waiting_ = new QCheckBox(tr("Waiting counts"), this);
    nameControl(waiting_, {"waitingCheck", tr("Waiting counts as work"),
                           tr("On: the day that ends first. Off: the fewest changes, however long one waits")});
    connect(waiting_, &QCheckBox::clicked, this, [this](bool on) {
        this->document().edit({tr("Count waiting or not")}, [on](Shoot& shoot) { shoot.workday.waiting_counts = on; });
    });
    const auto price = [&](const Caption& caption, double ChangePrices::*member) {
        auto* field = addField(group, caption, durationQuantity());
        connect(field, &QuantityField::valueEdited, this, [this, member, field](double v) {
            this->document().edit(
                {tr("Change a price"), QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit())},
                [&](Shoot& shoot) { shoot.workday.prices.*member = v; });
        });
        prices_.emplace_back(field, member);
    };
    price({"cameraPriceField", tr("Camera, rail"), tr("Off one tripod head, onto the other, aligned")},
          &ChangePrices::camera);
    price({"lensPriceField", tr("Lens"), tr("Changed, focused")}, &ChangePrices::lens);
    price({"tubesPriceField", tr("Tubes"), tr("All that is screwed between or in front")}, &ChangePrices::tubes);
    price({"lightPriceField", tr("Light"), tr("Set up anew, test frame included")}, &ChangePrices::light);
    price({"backgroundPriceField", tr("Card"), tr("Another card or place")}, &ChangePrices::background);
    price({"subjectPriceField", tr("Subject"), tr("Placed and dressed, for every shot")}, &ChangePrices::subject);
    price(
        {"turnPriceField", tr("Next view"), tr("A thing that stands there is turned round for its next view or plate")},
        &ChangePrices::turn);
    column->addWidget(waiting_);
}

void HoursTab::addTiming(QVBoxLayout* column) {
    timingOf_ = new QLabel(this);
    timingOf_->setObjectName(QStringLiteral("timingOf"));
    timingOf_->setFont(textFont(12, QFont::DemiBold));
    column->addWidget(timingOf_);
    auto* group = addGroup(column, {});
    addCheck(
        group,
        {"notBeforeCheck", tr("Not before \u2026"), tr("Daylight, hot food: its first frame waits for the time")},
        [](const Shot& s) { return s.timing.not_before.has_value(); },
        [this](Shot& s, bool on) {
            s.timing.not_before = on ? std::optional(this->document().shoot().workday.begin) : std::nullopt;
        });
    notBefore_ = addQuantity(
        group, {"notBeforeField", tr("\u2026 at"), tr("Time of day")}, dayTimeQuantity(),
        [](const Shot& s) { return s.timing.not_before.value_or(9 * 3600); },
        [](Shot& s, double v) { s.timing.not_before = v; });
    addCheck(
        group, {"doneByCheck", tr("Done by \u2026"), tr("A borrowed piece goes back, the light goes: its last frame")},
        [](const Shot& s) { return s.timing.done_by.has_value(); },
        [this](Shot& s, bool on) {
            s.timing.done_by = on ? std::optional(this->document().shoot().workday.begin + 6 * 3600) : std::nullopt;
        });
    doneBy_ = addQuantity(
        group, {"doneByField", tr("\u2026 at"), tr("Time of day")}, dayTimeQuantity(),
        [](const Shot& s) { return s.timing.done_by.value_or(15 * 3600); },
        [](Shot& s, double v) { s.timing.done_by = v; });
    auto* after = addGroup(column, tr("\u2026 comes after"));
    after_ = addChips(
        after, {"afterChips", tr("After"), tr("Shots that have to be done before this one")},
        [this](const Kit&) {
            Options options;
            const auto* own = this->document().shot();
            for (const auto& shot : this->document().shoot().shots)
                if (!own || shot.id != own->id) options.emplace_back(shot.id, shot.name);
            return options;
        },
        [](const Shot& s) { return s.timing.after; },
        [](Shot& s, const std::vector<std::string>& ids) { s.timing.after = ids; });
    spanRow(after, after_);
}

void HoursTab::showShot(const Shot& shot, const Report&) {
    const auto& day = document().shoot().workday;
    begin_->setValue(day.begin);
    waiting_->setChecked(day.waiting_counts);
    for (auto& [field, member] : prices_) field->setValue(day.prices.*member);
    timingOf_->setText(toQt(shot.name));
    setRowVisible(notBefore_, shot.timing.not_before.has_value());
    setRowVisible(doneBy_, shot.timing.done_by.has_value());
    run_->setText(tr("Run from \u201c%1\u201d on").arg(toQt(shot.name)));
    run_->setEnabled(!runs_.isRunning() && !runs_.waitsForGear());
    showWhole();
    showPlan();
    later_.start();
}

}  // namespace poquito::desk

#include "desk/day/moc_hours_tab.moc"
