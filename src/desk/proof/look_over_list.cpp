#include "desk/proof/look_over_list.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"

#include <QGridLayout>
#include <QLabel>
#include <QToolButton>

#include <algorithm>

namespace poquito::desk {

LookOverList::LookOverList(QWidget* parent) : QWidget(parent), grid_(new QGridLayout(this)) {
    grid_->setContentsMargins(0, 0, 4, 0);
    grid_->setHorizontalSpacing(4);
    grid_->setVerticalSpacing(2);
    grid_->setColumnStretch(0, 1);
}

LookOverList::Row LookOverList::makeRow(int place) {
    const auto label = [&] {
        auto* made = new QLabel(this);
        made->setWordWrap(true);
        return made;
    };
    const auto button = [&](const QString& text, bool good) {
        auto* made = new QToolButton(this);
        made->setText(text);
        made->setCheckable(true);
        made->setProperty("chip", true);
        made->setObjectName((good ? QStringLiteral("good-%1") : QStringLiteral("notSo-%1")).arg(place));
        connect(made, &QToolButton::clicked, this, [this, place, good](bool given) { answer(place, good, given); });
        return made;
    };
    const Row row{
        .seen = label(), .otherwise = label(), .good = button(tr("yes"), true), .notSo = button(tr("no"), false)};
    row.otherwise->setProperty("problem", true);
    grid_->addWidget(row.seen, 2 * place, 0, Qt::AlignTop);
    grid_->addWidget(row.good, 2 * place, 1, Qt::AlignTop);
    grid_->addWidget(row.notSo, 2 * place, 2, Qt::AlignTop);
    grid_->addWidget(row.otherwise, 2 * place + 1, 0, 1, 3);
    return row;
}

void LookOverList::setPoints(std::vector<advice::ProofPoint> points) {
    const auto same = [](const advice::ProofPoint& one, const advice::ProofPoint& other) {
        return one.id == other.id && one.seen == other.seen && one.otherwise == other.otherwise;
    };
    if (std::ranges::equal(points, points_, same)) return;
    points_ = std::move(points);
    grid_->setRowStretch(2 * static_cast<int>(rows_.size()), 0);
    while (rows_.size() < points_.size()) rows_.push_back(makeRow(static_cast<int>(rows_.size())));
    grid_->setRowStretch(2 * static_cast<int>(rows_.size()), 1);  // what room is left stays below
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const auto& row = rows_[i];
        const bool used = i < points_.size();
        row.seen->setVisible(used);
        row.good->setVisible(used);
        row.notSo->setVisible(used);
        if (!used) {
            row.otherwise->hide();
            continue;
        }
        row.seen->setText(toQt(points_[i].seen));
        row.otherwise->setText(toQt(points_[i].otherwise));
        row.good->setAccessibleName(tr("Yes: %1").arg(toQt(points_[i].seen)));
        row.notSo->setAccessibleName(tr("No: %1").arg(toQt(points_[i].seen)));
    }
    std::erase_if(good_, [&](const auto& answer) {
        return std::ranges::find(points_, answer.first, &advice::ProofPoint::id) == points_.end();
    });
    showAnswers();
}

void LookOverList::forgetAnswers() {
    good_.clear();
    showAnswers();
}

std::vector<advice::ProofPoint> LookOverList::notSo() const {
    std::vector<advice::ProofPoint> found;
    for (const auto& point : points_)
        if (const auto answer = good_.find(point.id); answer != good_.end() && !answer->second) found.push_back(point);
    return found;
}

void LookOverList::answer(int place, bool good, bool given) {
    const auto& id = points_[static_cast<std::size_t>(place)].id;
    if (given)
        good_[id] = good;
    else
        good_.erase(id);
    showAnswers();
    Q_EMIT answered();
}

void LookOverList::showAnswers() {
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const auto answer = good_.find(points_[i].id);
        const bool given = answer != good_.end();
        rows_[i].good->setChecked(given && answer->second);
        rows_[i].notSo->setChecked(given && !answer->second);
        rows_[i].otherwise->setVisible(given && !answer->second);
    }
}

}  // namespace poquito::desk

#include "desk/proof/moc_look_over_list.moc"
