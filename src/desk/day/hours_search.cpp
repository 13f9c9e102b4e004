#include "desk/day/hours_tab.hpp"

#include "desk/day/day_drawing.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "plan/motion/lapse.hpp"
#include "shoot/change/edit.hpp"
#include "text/text.hpp"

#include <QPushButton>
#include <QToolButton>

#include <algorithm>
#include <utility>

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
        add(static_cast<double>(problem.enters[i]));
        add(problem.first[i]);
        add(-2);
        for (const auto first : problem.after[i]) add(static_cast<double>(first));
    }
    for (const auto& row : problem.change)
        for (const double change : row) add(change);
    for (const auto& block : problem.blocks) {
        add(-3);
        for (const auto job : block) add(static_cast<double>(job));
    }
    return key;
}

}  // namespace

void HoursTab::search() {
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
    if (search_.isRunning()) {
        search_.stop();
        later_.start();
        return;
    }
    of_ = key;
    for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
        plan.names.push_back(toQt(std::as_const(shoot.shots)[i].name));
        plan.works.push_back(toQt(count_text(
            plan::yield_of(assessments[static_cast<std::size_t>(i)]->plan, *pointers[i]).frames, "frame", "frames")));
    }
    verdict_->setText(tr("Looking for the best order \u2026"));
    cancel_->setVisible(plan.names.size() > schedule::most_exact);
    apply_->setEnabled(false);
    search_.begin([plan = std::move(plan), shots = shoot.shots](const auto& go_on) {
        auto made = plan;
        auto orders = day::orders_of(made.problem, [&] { return go_on(0); });
        if (!orders.circle.empty()) {
            QStringList names;
            for (const auto job : orders.circle) names += made.names[job];
            made.impossible = QObject::tr("These wait for each other: %1.").arg(names.join(QStringLiteral(", ")));
        } else if (!orders.best.feasible()) {
            made.impossible = QObject::tr("No order keeps every fixed time; this one comes nearest.");
        }
        made.exact = orders.exact;
        const auto changes_of = [&](const schedule::Day& day) {
            std::vector<QString> words;
            for (const auto& change : day::changes_of(shots, day.order))
                words.push_back(words.empty()  ? QObject::tr("first")
                                : change.any() ? toQt(day::change_text(change))
                                               : QObject::tr("nothing to change"));
            return words;
        };
        made.givenChanges = changes_of(orders.given);
        made.bestChanges = changes_of(orders.best);
        made.given = std::move(orders.given);
        made.best = std::move(orders.best);
        return made;
    });
}

void HoursTab::found(DayPlan found) {
    cancel_->hide();
    drawing_->setPlan(nullptr, true, -1);
    plan_ = std::move(found);
    const auto& plan = *plan_;
    const auto minutes = [](double seconds) { return toQt(time_text(seconds)); };
    QString words = plan.impossible;
    if (!words.isEmpty()) words += QLatin1Char(' ');
    const bool in_order = std::is_sorted(plan.best.order.begin(), plan.best.order.end());
    const double saved = plan.given.work - plan.best.work, sooner = plan.given.finish - plan.best.finish;
    words += tr("Changes take %1 as listed").arg(minutes(plan.given.work));
    QStringList gains;
    if (saved > 1) gains << tr("saves %1").arg(minutes(saved));
    if (saved < -1) gains << tr("takes %1 more").arg(minutes(-saved));
    if (sooner > 30) gains << tr("is over %1 sooner").arg(minutes(sooner));
    if (!gains.isEmpty()) words += tr("; the best order %1").arg(gains.join(tr(" and ")));
    words += QLatin1Char('.');
    if (plan.given.late > 0 && plan.best.feasible()) words += tr(" The order given misses a fixed time.");
    if (plan.given.broken > 0 && plan.best.feasible())
        words += tr(" The order given splits plates, or takes a shot before one it comes after.");
    if (plan.impossible.isEmpty())
        words += !plan.exact       ? tr(" Searched, not proven.")
                 : gains.isEmpty() ? tr(" No order is better.")
                                   : tr(" None is better than that.");
    verdict_->setText(words);
    apply_->setEnabled(!in_order && better(plan.problem, plan.best, plan.given));
    showPlan();
}

/// A plan of another number of shots is one from before the last edit: the next is on its way.
void HoursTab::showPlan() {
    const bool whole = plan_ && static_cast<int>(plan_->names.size()) == document().count();
    drawing_->setPlan(whole ? &*plan_ : nullptr, listed_->isChecked(), document().current());
}

void HoursTab::moveShot(int from, int to) {
    if (from == to) return;
    document().edit({tr("Move shot")}, [&](Shoot& shoot) {
        shoot::move_shot(shoot, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
    });
    document().select(to);
}

void HoursTab::apply() {
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
