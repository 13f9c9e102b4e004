#include "desk/day/seasons_tab.hpp"

#include "desk/day/seasons_page.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/session/log_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"

#include <QDate>
#include <QFile>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace poquito::desk {

SeasonsTab::SeasonsTab(Document& document, LogController& log, QWidget* parent)
    : StationPage(document, parent), log_(log) {
    QFile file(QStringLiteral(":/data/seasons.json"));
    if (file.open(QIODevice::ReadOnly)) {
        auto read = log::read_seasons(file.readAll().toStdString());
        if (read) common_ = std::move(*read);
    }
    auto* paper = paperOn(this);
    auto* column = new QVBoxLayout(paper);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* bar = new QHBoxLayout;
    words_ = new LineField(paper);
    nameControl(words_, {"seasonWordsField", tr("Look for"), tr("Only what has these letters in its name")});
    words_->setPlaceholderText(tr("insect, fungi, dew \u2026"));
    words_->setFixedWidth(220);
    connect(words_, &QLineEdit::textChanged, this, &SeasonsTab::showRows);
    bar->addWidget(words_);
    ahead_ = new Sentence(2, paper);
    ahead_->setObjectName(QStringLiteral("seasonsAhead"));
    bar->addWidget(ahead_, 1, Qt::AlignVCenter);
    auto* print = captionedButton(
        {"printSeasonsButton", tr("Print for the wall\u2026"), tr("On one sheet, or into a file")}, paper);
    bar->addWidget(print);
    column->addLayout(bar);
    page_ = new SeasonsPage(paper);
    column->addWidget(scrollingOn(page_, paper), 1);
    connect(print, &QPushButton::clicked, page_, &SeasonsPage::askAndPrint);
    addDrawing(paper, 1);
    connect(&log, &LogController::changed, this, [this] {
        if (isVisible()) look();
    });
}

void SeasonsTab::showEvent(QShowEvent* event) {
    StationPage::showEvent(event);
    look();
}

void SeasonsTab::look() {
    log_.search({.most = 100000}, this, [this](LogController::Found found) {
        logged_ = std::move(found.entries);
        showRows();
    });
}

void SeasonsTab::showShot(const Shot&, const plan::Report&) { showRows(); }

void SeasonsTab::showRows() {
    const auto& site = document().shoot().site;
    const auto day = site.date.empty() ? QDate::currentDate().toString(Qt::ISODate).toStdString() : site.date;
    const int week = log::week_of(day);
    auto rows = log::season_rows(common_, logged_, site.latitude.value_or(1) < 0, week);
    const auto wanted = words_->text().trimmed();
    std::erase_if(rows, [&](const log::SeasonRow& row) {
        return !wanted.isEmpty() && !toQt(row.name + " " + row.note).contains(wanted, Qt::CaseInsensitive);
    });
    // A week by its Monday or what is nearest: the year is cut into weeks from its first day.
    const QDate today = QDate::fromString(toQt(day), Qt::ISODate);
    const auto best = log::best_weeks(rows, week);
    QStringList next;
    for (const auto& one : best) {
        QStringList things;
        constexpr std::size_t most = 3;
        for (std::size_t i = 0; i < std::min(most, one.things.size()); ++i) things << toQt(one.things[i]);
        if (one.things.size() > most) things << tr("%1 more").arg(one.things.size() - most);
        const int away = ((one.week - week) % log::weeks + log::weeks) % log::weeks;
        next << tr("%1: %2").arg(
            QLocale(QLocale::English).toString(today.addDays(qint64{7} * away), QStringLiteral("d MMMM")),
            things.join(QStringLiteral(", ")));
    }
    ahead_->setText(next.isEmpty() ? tr("Nothing of these is there in the next four months.")
                                   : tr("Best weeks ahead, about %1.").arg(next.join(QStringLiteral("; "))));
    page_->setRows(std::move(rows), week, best);
}

}  // namespace poquito::desk

#include "desk/day/moc_seasons_tab.moc"
