#include "desk/run/chance_leaf.hpp"

#include "advice/better_odds.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/base/two_lines.hpp"
#include "desk/run/odds_view.hpp"
#include "text/text.hpp"

#include <QApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QShortcut>
#include <QToolButton>
#include <QVBoxLayout>

#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

shoot::Tries& tries(shoot::Shot& shot) { return shot.tries ? *shot.tries : shot.tries.emplace(); }

}  // namespace

ChanceLeaf::ChanceLeaf(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* left = addColumn(4);
    auto* group = addGroup(left, tr("What it hangs on"));
    const auto share = [&](const Caption& caption, double shoot::Tries::*member) {
        return addQuantity(
            group, caption, shareQuantity(text::range::share),
            [member](const Shot& s) { return shoot::tries_of(s).*member; },
            [member](Shot& s, double v) { tries(s).*member = v; });
    };
    calm_ = share({"calmField", tr("Calm"), tr("Share of the time that the air is nearly still")}, &shoot::Tries::calm);
    through_ = addQuantity(
        group,
        {"swayDepthField", tr("To and fro"), tr("How far it swings through focus; half of its sway if not said")},
        lengthQuantity(), [](const Shot& s) { return s.subject.sway_depth.value_or(s.subject.sway_amplitude / 2); },
        [](Shot& s, double v) { s.subject.sway_depth = v; });
    still_ = share({"stillField", tr("Holds still"), tr("Share of the time that it rests; count how often it does")},
                   &shoot::Tries::still);
    trigger_ = share({"triggerShareField", tr("Trigger"), tr("Share of throws that it answers")},
                     &shoot::Tries::trigger_fires);
    aside_ = addQuantity(
        group, {"asideField", tr("Aside"), tr("How far to the sides it comes down: two of three within this")},
        lengthQuantity(),
        [](const Shot& s) { return shoot::tries_of(s).lands_aside.value_or(s.freeze ? s.freeze->scatter : 0); },
        [](Shot& s, double v) { tries(s).lands_aside = v; });
    seconds_ = addQuantity(
        group, {"trySecondsField", tr("A try takes"), tr("With all that belongs to it: load, rinse, wait, look")},
        secondsQuantity(),
        [this](const Shot&) {
            const auto* report = this->document().report();
            return report && report->chance ? report->chance->seconds_a_try : 1.0;  // then it is not shown
        },
        [](Shot& s, double v) { tries(s).seconds = v; });
    addCounting(left);
    left->addStretch();
    odds_ = new OddsView(document, this);
    addDrawing(odds_, 6);
    auto* right = addColumn(7);
    addWays(right);
}

void ChanceLeaf::addCounting(QVBoxLayout* column) {
    auto* heading = addHeading(column, tr("Counted"));
    counted_ = new QLabel(this);
    counted_->setObjectName(QStringLiteral("countedLabel"));
    counted_->setFont(textFont(15, QFont::DemiBold));
    column->addWidget(counted_);
    auto* row = new QHBoxLayout;
    auto* kept = captionedButton({"keptButton", tr("Kept  K"), tr("One more try, and this one is good")}, this);
    auto* missed = captionedButton({"missedButton", tr("Missed  M"), tr("One more try, and it is none")}, this);
    connect(kept, &QPushButton::clicked, this, [this] { count(true); });
    connect(missed, &QPushButton::clicked, this, [this] { count(false); });
    // Wherever the keys are on this station, but for a field that takes letters.
    for (const auto& [key, good] : {std::pair(Qt::Key_K, true), {Qt::Key_M, false}}) {
        auto* shortcut = new QShortcut(key, parentWidget(), nullptr, nullptr, Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, this, [this, good = good] {
            if (isVisible()) count(good);
        });
    }
    row->addWidget(kept);
    row->addWidget(missed);
    column->addLayout(row);
    anew_ = new QToolButton(this);
    nameControl(anew_, {"countAnewButton", tr("Start anew"), tr("Something changed: count from nothing")});
    anew_->setText(tr("Start anew"));
    anew_->setProperty("link", true);
    heading->addWidget(anew_);
    connect(anew_, &QToolButton::clicked, this, [this] {
        document().editShot({tr("Count tries from nothing")},
                            [](Shot& shot) { tries(shot).kept = tries(shot).tried = 0; });
    });
}

void ChanceLeaf::addWays(QVBoxLayout* column) {
    addGroup(column, tr("What would help, as reckoned"));  // of one height with the heading at the left
    none_ = new QLabel(this);
    none_->setObjectName(QStringLiteral("noWayLabel"));
    none_->setWordWrap(true);
    column->addWidget(none_);
    ways_ = new QListWidget(this);
    nameControl(ways_, {"oddsWays", tr("What would help"), tr("The likeliest first; a click or Enter takes it")});
    ways_->setItemDelegate(new TwoLines(6, ways_));
    ways_->setFrameShape(QFrame::NoFrame);
    ways_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    ways_->setResizeMode(QListView::Adjust);
    ways_->setMinimumWidth(150);
    column->addWidget(ways_, 1);
    column->addStretch(0);  // for where the list is not there
    ways_->installEventFilter(this);
    connect(ways_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { take(ways_->row(item)); });
}

void ChanceLeaf::count(bool kept) {
    if (!document().shot()) return;
    document().editShot({kept ? tr("Count one kept") : tr("Count one missed")}, [kept](Shot& shot) {
        ++tries(shot).tried;
        tries(shot).kept += kept;
    });
}

void ChanceLeaf::take(int row) {
    // The second click of a double click would take what has come into that line.
    if (taken_.isValid() && taken_.elapsed() < QApplication::doubleClickInterval()) return;
    const auto way = static_cast<std::size_t>(row);
    const auto* assessment = document().assessment();
    if (!assessment) return;
    const auto all = advice::better_odds(assessment->plan, assessment->report);
    if (way >= all.size()) return;
    taken_.start();
    document().editShot({toQt(all[way].text)}, [&](Shot& shot) { shot = all[way].shot; });
}

bool ChanceLeaf::eventFilter(QObject* watched, QEvent* event) {
    if (watched == ways_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if ((key == Qt::Key_Return || key == Qt::Key_Enter) && ways_->currentRow() >= 0)
            return take(ways_->currentRow()), true;
    }
    return StationPage::eventFilter(watched, event);
}

void ChanceLeaf::showShot(const Shot& shot, const plan::Report& report) {
    const bool sways = shot.subject.sway_amplitude > 0;
    setRowVisible(calm_, sways);
    setRowVisible(through_, sways);
    setRowVisible(still_, !shot.freeze && shot.subject.speed > 0);
    setRowVisible(trigger_, shot.freeze.has_value());
    setRowVisible(aside_, shot.freeze.has_value());
    setRowVisible(seconds_, report.chance.has_value());
    const auto& now = shoot::tries_of(shot);
    counted_->setText(now.tried == 0 ? tr("none yet")
                      : now.tried < plan::enough_tried
                          ? tr("%1 kept of %2; from ten on it counts").arg(now.kept).arg(now.tried)
                          : tr("%1 kept of %2").arg(now.kept).arg(now.tried));
    anew_->setVisible(now.tried > 0);
    odds_->setAccessibleName(odds_->headline() + QStringLiteral(". ") + odds_->meaning());
    odds_->update();

    const auto all = advice::better_odds(document().assessment()->plan, report);
    none_->setVisible(all.empty());
    none_->setText(report.chance ? tr("Nothing that one could do here changes much.") : tr("Nothing needs to."));
    ways_->setVisible(!all.empty());
    // The lines stay where they are while their numbers change.
    while (ways_->count() > static_cast<int>(all.size())) delete ways_->takeItem(ways_->count() - 1);
    while (ways_->count() < static_cast<int>(all.size())) ways_->addItem(QString());
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto& way = all[i];
        auto* item = ways_->item(static_cast<int>(i));
        item->setText(toQt(way.text));
        QStringList what{oddsText(way.chance)};
        if (std::isfinite(way.tries) && way.tries > 1)
            what << tr("%1 tries, %2").arg(toQt(text::number_text(way.tries, 4)), toQt(text::time_text(way.seconds)));
        if (!way.price.empty()) what << toQt(way.price);
        item->setToolTip(what.join(QStringLiteral(" \u00b7 ")));
    }
}

}  // namespace poquito::desk

#include "run/moc_chance_leaf.moc"
