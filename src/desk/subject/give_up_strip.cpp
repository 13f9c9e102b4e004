#include "desk/subject/give_up_strip.hpp"

#include "desk/toolkit/caption.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include <algorithm>

namespace poquito::desk {

using namespace shoot;

namespace {

QString loss_name(Loss loss) {
    switch (loss) {
        case Loss::depth:
            return QObject::tr("Depth");
        case Loss::iso:
            return QObject::tr("Low noise");
        case Loss::motion:
            return QObject::tr("Stillness");
        case Loss::background:
            return QObject::tr("Light behind");
        case Loss::time:
            break;
    }
    return QObject::tr("Time");
}

}  // namespace

GiveUpStrip::GiveUpStrip(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), order_(new QListWidget(this)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    auto* label = new QLabel(tr("Goes first"), this);
    label->setBuddy(order_);
    row->addWidget(label);
    order_->setObjectName(QStringLiteral("giveUpList"));
    order_->setAccessibleName(tr("What is given up, first goes first"));
    order_->setToolTip(tr("What is given up first where not everything can be had; drag, or move the chosen one"));
    order_->setFlow(QListView::LeftToRight);
    order_->setDragDropMode(QAbstractItemView::InternalMove);
    order_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    order_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    order_->setProperty("chips", true);
    order_->setSpacing(3);
    for (int i = 0; i < 5; ++i) order_->addItem(QString());
    order_->setFixedHeight(2 * fontMetrics().height());
    row->addWidget(order_);
    for (const auto& [name, text, tip, by] :
         {std::tuple("goesEarlierButton", tr("earlier"), tr("The chosen one goes earlier"), -1),
          {"goesLaterButton", tr("later"), tr("The chosen one goes later"), 1}}) {
        auto* button = captionedButton({name, text, tip}, this);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, steps = by] { move(steps); });
    }
    row->addStretch(1);
    connect(order_->model(), &QAbstractItemModel::rowsMoved, this, &GiveUpStrip::adopt);
}

void GiveUpStrip::adopt() {
    std::vector<Loss> order;
    for (int i = 0; i < order_->count(); ++i)
        order.push_back(static_cast<Loss>(order_->item(i)->data(Qt::UserRole).toInt()));
    document_.editLimits({tr("Change what goes first")}, [&](Limits& all) { all.give_up = order; });
}

void GiveUpStrip::move(int by) {
    const int row = order_->currentRow(), to = row + by;
    if (row < 0 || to < 0 || to >= order_->count()) return;
    auto order = giving_up(document_.limits());
    std::swap(order[static_cast<std::size_t>(row)], order[static_cast<std::size_t>(to)]);
    order_->setCurrentRow(to);
    document_.editLimits({tr("Change what goes first")}, [&](Limits& all) { all.give_up = order; });
}

void GiveUpStrip::refresh() {
    const auto order = giving_up(document_.limits());
    for (int i = 0; i < order_->count(); ++i) {
        const Loss loss = order[static_cast<std::size_t>(i)];
        order_->item(i)->setText(loss_name(loss));
        order_->item(i)->setData(Qt::UserRole, static_cast<int>(loss));
    }
    // As wide as its words.
    order_->doItemsLayout();
    const int beside = order_->spacing() + 2 * order_->frameWidth();
    order_->setFixedWidth(order_->visualItemRect(order_->item(order_->count() - 1)).right() + 1 + beside);
}

}  // namespace poquito::desk

#include "desk/subject/moc_give_up_strip.moc"
