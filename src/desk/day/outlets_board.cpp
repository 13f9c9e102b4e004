#include "desk/day/outlets_tab.hpp"

#include "desk/day/picture_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "shoot/change/view_set.hpp"
#include "text/text.hpp"

#include <QPushButton>

#include <algorithm>
#include <utility>

namespace poquito::desk {

using shoot::Outlet;

namespace {

BoardCell::Part part_of(std::size_t shot, const job::OutletCut& cut) {
    return {.shot = static_cast<int>(shot), .cut = QRectF(cut.left, cut.top, cut.width, cut.height)};
}

/// A picture that the outlet gets: one shot, or two side by side.
BoardCell cell_of(const shoot::Shoot& shoot, const job::AllAssessed& facts, const Outlet& outlet,
                  const job::OutletPicture& picture) {
    BoardCell cell;
    QStringList labels, troubles;
    int wide = 0, high = 0;
    double kept = 1;
    for (const auto i : picture.shots) {
        const auto cut = job::cut_for(facts[i], outlet, *job::delivery_of(shoot.shots[i], outlet.id));
        cell.parts.push_back(part_of(i, cut));
        labels << toQt(shoot.shots[i].view->name);
        for (const auto& words : cut.problems) troubles << toQt(words);
        for (const auto& words : cut.cautions) troubles << toQt(words);
        wide += cut.width_px, high = std::max(high, cut.height_px);
        kept = std::min(kept, cut.kept);
    }
    cell.label = labels.join(QObject::tr(" beside "));
    cell.second = QObject::tr("%1 \u00d7 %2 px").arg(wide).arg(high);
    cell.trouble = troubles.join(QStringLiteral("; "));
    cell.first =
        outlet.first && picture.shots.size() == 1 && shoot.shots[picture.shots.front()].view->name == *outlet.first;
    cell.tip = QObject::tr("%1 \u00d7 %2 px, %3 % of the frame%4")
                   .arg(wide)
                   .arg(high)
                   .arg(std::round(kept * 100))
                   .arg(troubles.isEmpty() ? QString() : QStringLiteral("\n") + troubles.join(QLatin1Char('\n')));
    return cell;
}

/// A shot that it does not get, and why.
BoardCell faded(const shoot::Shot& shot, BoardCell::Part part, const QString& why) {
    BoardCell cell;
    cell.parts = {part};
    cell.label = toQt(shot.view->name);
    cell.second = why;
    cell.faded = true;
    return cell;
}

void sum_up(BoardSection& section, const job::OutletChoice& now, const Outlet& outlet, std::size_t given) {
    QStringList words;
    words << QObject::tr("%1 of %2 at most").arg(given).arg(outlet.most);
    if (now.musts_left_out > 0)
        words << QObject::tr("%1 that have to be shown are not").arg(now.musts_left_out);
    else if (given > 0)
        words << QObject::tr("all that have to be shown are");
    const bool over = given > static_cast<std::size_t>(outlet.most);
    if (over) words << QObject::tr("too many");
    section.words = words.join(QStringLiteral(" \u00b7 "));
    if (over || !now.unfit.empty() || now.musts_left_out > 0) section.colour = theme().caution;
}

QString best_words(const job::OutletChoice& best, const QString& thing, bool as_is) {
    QStringList says;
    says << QObject::tr("Best of \u201c%1\u201d: %2")
                .arg(thing, toQt(text::count_text(static_cast<double>(best.pictures.size()), "picture", "pictures")));
    const auto shared = std::ranges::count_if(best.pictures, [](const auto& p) { return p.shots.size() > 1; });
    if (shared > 0) says << QObject::tr("%1 of them shared by two views").arg(shared);
    if (!best.covered.empty()) says << QObject::tr("%1 seen in a turned one").arg(best.covered.size());
    if (!best.left_out.empty()) says << QObject::tr("%1 left out").arg(best.left_out.size());
    if (!best.unfit.empty()) says << QObject::tr("%1 do not fit its cut").arg(best.unfit.size());
    return says.join(QStringLiteral(", ")) +
           (best.pictures.empty() && !best.unfit.empty() ? QObject::tr(". Frame them for it first.")
            : as_is       ? (best.proven ? QObject::tr(". That is what it gets; no choice is better.")
                                         : QObject::tr(". That is what it gets; searched, not proven."))
            : best.proven ? QObject::tr(". No choice is better.")
                          : QObject::tr(". Searched, not proven."));
}

}  // namespace

/// What one outlet gets of the thing, what it could get, and what it does not.
BoardSection OutletsTab::section(const Outlet& outlet, const job::AllAssessed& facts, const job::OutletChoice& now) {
    const auto& shoot = document().shoot();
    BoardSection section;
    section.heading = toQt(outlet.name);
    for (const auto& picture : now.pictures) section.cells.push_back(cell_of(shoot, facts, outlet, picture));
    const auto given = section.cells.size();
    if (const int free = outlet.most - static_cast<int>(given); free > 0)
        section.cells.emplace_back().label = given > 0 ? tr("%1 more").arg(free) : tr("%1 free").arg(free);
    for (const auto i : now.covered)
        section.cells.push_back(
            faded(shoot.shots[i], {.shot = static_cast<int>(i), .cut = QRectF(0, 0, 1, 1)}, tr("seen in another")));
    for (const auto i : now.left_out) {
        const shoot::Delivery whole{.outlet = outlet.id, .beside = {}, .unknown = {}};
        const auto cut = job::cut_for(facts[i], outlet, whole);
        if (this->outlet() == &outlet && !cut.problems.empty()) unfit_.push_back(i);
        auto& cell = section.cells.emplace_back(faded(shoot.shots[i], part_of(i, cut), tr("not given")));
        cell.trouble = cut.problems.empty() ? QString() : toQt(cut.problems.front());
    }
    sum_up(section, now, outlet, given);
    return section;
}

void OutletsTab::showBoard() {
    const auto& shoot = document().shoot();
    const auto name = thing();
    const bool none = shoot.outlets.empty();
    nothing_->setVisible(none || name.empty());
    nothing_->setText(name.empty() ? tr("No thing here has views yet: make them at Sets. Then it is chosen here what "
                                        "goes where, and how it is cut.")
                                   : tr("No outlet is known yet: a shop, a journal, an archive, with how many pictures "
                                        "it takes of a thing, their shape and their pixels."));
    begin_->setVisible(none);
    const AllShots facts(document());
    std::vector<BoardSection> sections;
    unfit_.clear();
    const auto* own = outlet();
    QString verdict;
    for (const auto& outlet : shoot.outlets) {
        if (name.empty()) break;
        const auto now = job::delivered(shoot, facts.all, outlet, name);
        sections.push_back(section(outlet, facts.all, now));
        if (own != &outlet) continue;
        for (const auto i : now.unfit) unfit_.push_back(i);
        const auto best = job::choose_pictures(shoot, facts.all, outlet, name);
        const bool as_is = std::abs(best.worth - now.worth) < 1e-9 && best.pictures.size() == now.pictures.size();
        verdict = best_words(best, toQt(name), as_is);
        choose_->setEnabled(!as_is);
    }
    verdict_->setText(verdict);
    if (!own || name.empty()) choose_->setEnabled(false);
    chooseAll_->setEnabled(own && !name.empty());
    showActions();
    board_->setSections(std::move(sections), document().current(), true);
}

}  // namespace poquito::desk
