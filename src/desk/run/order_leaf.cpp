#include "desk/run/order_leaf.hpp"

#include "desk/base/sentence.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/run/day_drawing.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QtConcurrentRun>
#include <QVBoxLayout>

#include <numeric>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;
using namespace advice;
using namespace day;

namespace {

/// What the order depends on, so that other edits do not search anew.
std::string key_of(const schedule::Problem& problem) {
    std::string key;
    const auto add = [&](double value) { key.append(reinterpret_cast<const char*>(&value), sizeof value); };
    add(problem.begin);
    add(problem.waiting_counts);
    for (std::size_t i = 0; i < problem.duration.size(); ++i) {
        add(problem.duration[i]);
        add(problem.not_before[i].value_or(-1));
        add(problem.done_by[i].value_or(-1));
        for (const double change : problem.change[i]) add(change);
        add(-2);
        for (const auto first : problem.after[i]) add(static_cast<double>(first));
    }
    return key;
}

}  // namespace

OrderLeaf::OrderLeaf(Document& document, QWidget* parent) : StationPage(document, parent) {
    // Fields above each other scroll by themselves: the day beside them keeps its height.
    auto* outer = addColumn(4);
    auto* fields = new QScrollArea(this);
    fields->setWidgetResizable(true);
    fields->setFrameShape(QFrame::NoFrame);
    fields->setFocusPolicy(Qt::NoFocus);
    fields->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inner = new QWidget(fields);
    auto* left = new QVBoxLayout(inner);
    left->setContentsMargins(0, 0, 6, 0);
    fields->setWidget(inner);
    fields->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    outer->addWidget(fields, 1);
    addDay(left);
    addTiming(left);
    left->addStretch();
    fields->setMinimumWidth(inner->minimumSizeHint().width() + 14);  // the scroll bar beside them
    auto* right = addColumn(9);
    auto* bar = new QHBoxLayout;
    verdict_ = new Sentence(3, this);
    verdict_->setObjectName(QStringLiteral("orderVerdict"));
    bar->addWidget(verdict_, 1);
    cancel_ = captionedButton({"cancelOrderButton", tr("Enough"), tr("Take the best order found so far")}, this);
    connect(cancel_, &QPushButton::clicked, this, [this] {
        if (enough_) *enough_ = true;
    });
    bar->addWidget(cancel_);
    apply_ = captionedButton({"applyOrderButton", tr("Take this order"), tr("Cards, run sheet and runs follow")}, this);
    connect(apply_, &QPushButton::clicked, this, &OrderLeaf::apply);
    bar->addWidget(apply_);
    right->addLayout(bar);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    drawing_ = new DayDrawing(scroll);
    scroll->setWidget(drawing_);
    scroll->viewport()->setAutoFillBackground(false);
    drawing_->setAutoFillBackground(false);
    right->addWidget(scroll, 1);
    connect(drawing_, &DayDrawing::shotClicked, this, [this](int index) { this->document().select(index); });
    later_.setSingleShot(true);
    later_.setInterval(60);  // after the last of several quick edits
    connect(&later_, &QTimer::timeout, this, &OrderLeaf::search);
    connect(&watcher_, &QFutureWatcherBase::finished, this, &OrderLeaf::found);
    cancel_->hide();
}

OrderLeaf::~OrderLeaf() {
    watcher_.disconnect(this);
    if (enough_) *enough_ = true;
    watcher_.waitForFinished();
}

void OrderLeaf::addDay(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("What a change takes"));
    begin_ = addField(group, {"dayBeginField", tr("Begins"), tr("The first shot may be set up")}, dayTimeQuantity());
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
    column->addWidget(waiting_);
}

void OrderLeaf::addTiming(QVBoxLayout* column) {
    auto* group = addGroup(column, tr("This shot"));
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

void OrderLeaf::showShot(const Shot& shot, const Report&) {
    const auto& day = document().shoot().workday;
    begin_->setValue(day.begin);
    waiting_->setChecked(day.waiting_counts);
    for (auto& [field, member] : prices_) field->setValue(day.prices.*member);
    setRowVisible(notBefore_, shot.timing.not_before.has_value());
    setRowVisible(doneBy_, shot.timing.done_by.has_value());
    if (plan_) drawing_->setPlan(&*plan_, document().current());
    later_.start();
}

void OrderLeaf::search() {
    const auto& shoot = document().shoot();
    std::vector<std::shared_ptr<const advice::Assessment>> assessments;
    std::vector<const Report*> pointers;
    for (int i = 0; i < document().count(); ++i) {
        assessments.push_back(document().sharedAssessment(i));
        pointers.push_back(&assessments.back()->report);
    }
    DayPlan plan{.problem = order_problem(shoot, pointers), .given = {}, .best = {}};
    const auto key = key_of(plan.problem);
    if (key == of_ && plan_) return;
    if (watcher_.isRunning()) {
        *enough_ = true;
        later_.start();
        return;
    }
    of_ = key;
    for (const auto& one : shoot.shots) plan.names.push_back(toQt(one.name));
    verdict_->setText(tr("Looking for the best order \u2026"));
    cancel_->setVisible(plan.names.size() > schedule::most_exact);
    apply_->setEnabled(false);
    enough_ = std::make_shared<std::atomic<bool>>(false);
    watcher_.setFuture(QtConcurrent::run([made = std::move(plan), shots = shoot.shots, enough = enough_]() mutable {
        std::vector<std::size_t> given(made.names.size());
        std::iota(given.begin(), given.end(), std::size_t{0});
        made.given = schedule::day_of(made.problem, given);
        if (const auto circle = schedule::circle_of(made.problem); !circle.empty()) {
            QStringList names;
            for (const auto job : circle) names += made.names[job];
            made.impossible = QObject::tr("These wait for each other: %1.").arg(names.join(QStringLiteral(", ")));
        }
        made.best = schedule::best_order(made.problem, [&] { return !*enough; });
        if (made.impossible.isEmpty() && !made.best.feasible())
            made.impossible = QObject::tr("No order keeps every fixed time; this one comes nearest.");
        made.exact = given.size() <= schedule::most_exact && made.best.feasible();
        for (std::size_t k = 0; k < made.best.order.size(); ++k)
            made.changes.push_back(
                k == 0 ? QObject::tr("first")
                       : toQt(change_text(change_between(shots[made.best.order[k - 1]], shots[made.best.order[k]]))));
        return std::move(made);
    }));
}

void OrderLeaf::found() {
    cancel_->hide();
    drawing_->setPlan(nullptr, -1);
    plan_ = watcher_.result();
    const auto& plan = *plan_;
    const auto minutes = [](double seconds) { return toQt(time_text(seconds)); };
    QString words = plan.impossible;
    if (!words.isEmpty()) words += QLatin1Char(' ');
    const bool in_order = std::is_sorted(plan.best.order.begin(), plan.best.order.end());
    const double saved = plan.given.work - plan.best.work, sooner = plan.given.finish - plan.best.finish;
    words += tr("Changes take %1").arg(minutes(plan.best.work));
    if (saved > 1) words += tr(", %1 less than in the order given").arg(minutes(saved));
    if (saved < -1) words += tr(", %1 more than in the order given").arg(minutes(-saved));
    if (plan.best.waiting > 1) words += tr(", waiting %1").arg(minutes(plan.best.waiting));
    words += tr("; over at %1").arg(toQt(day_time_text(plan.best.finish)));
    if (sooner > 30) words += tr(", %1 sooner").arg(minutes(sooner));
    words += QLatin1Char('.');
    if (!plan.given.feasible() && plan.best.feasible()) words += tr(" The order given misses a fixed time.");
    if (plan.impossible.isEmpty()) words += plan.exact ? tr(" No order is better.") : tr(" Searched, not proven.");
    verdict_->setText(words);
    apply_->setEnabled(!in_order && better(plan.problem, plan.best, plan.given));
    drawing_->setPlan(&plan, document().current());
}

void OrderLeaf::apply() {
    if (!plan_) return;
    const auto order = plan_->best.order;
    if (order.size() != document().shoot().shots.size()) return;
    const auto* shot = document().shot();
    const std::string id = shot ? shot->id : std::string();
    document().edit({tr("Put the shots in order")}, [&](Shoot& shoot) { shoot = in_order(shoot, order); });
    const auto& shots = document().shoot().shots;
    const auto now = std::ranges::find(shots, id, &Shot::id);
    if (now != shots.end()) document().select(static_cast<int>(now - shots.begin()));
}

}  // namespace poquito::desk
