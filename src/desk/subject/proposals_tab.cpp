#include "desk/subject/proposals_tab.hpp"

#include "desk/subject/give_up_strip.hpp"
#include "desk/subject/proposals_view.hpp"
#include "desk/subject/wishes_tab.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"

#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

namespace poquito::desk {

ProposalsTab::ProposalsTab(Document& document, QWidget* parent)
    : StationPage(document, parent),
      why_(new Sentence(2, this)),
      wishes_(captionedButton({"wishesButton", tr("Wishes"), tr("What the picture is to look like")}, this)),
      order_(new GiveUpStrip(document, this)),
      view_(new ProposalsView(document)) {
    auto* column = addColumn(1);
    why_->setObjectName(QStringLiteral("plansReason"));
    auto* top = new QHBoxLayout;
    top->setSpacing(14);
    top->addWidget(why_, 1);
    wishes_->setFixedWidth(ProposalsView::side_width);
    wishes_->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    top->addWidget(wishes_, 0, Qt::AlignTop);
    column->addLayout(top);
    connect(wishes_, &QPushButton::clicked, this, &ProposalsTab::unfoldWishes);
    column->addWidget(order_);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("plansScroll"));
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(view_);
    column->addWidget(scroll, 1);
    connect(view_, &ProposalsView::found, why_, &Sentence::setText);
}

void ProposalsTab::takeKeys() { view_->setFocus(); }

/// Beside the plans' pictures and settings, which stay in sight while they are ranked anew.
void ProposalsTab::unfoldWishes() {
    auto* sheet = new QFrame(this, Qt::Popup);
    sheet->setObjectName(QStringLiteral("wishesSheet"));
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->setProperty("sheet", true);
    auto* wishes = new WishesTab(document(), sheet);
    (new QVBoxLayout(sheet))->addWidget(wishes);
    connect(&document(), &Document::shootChanged, wishes, &WishesTab::refresh);
    wishes->refresh();
    constexpr int wide = 270;
    sheet->setFixedWidth(wide);
    for (auto* child : sheet->findChildren<QWidget*>()) child->ensurePolished();  // as high as it will be seen
    constexpr int border = 1;  // of the style, which margins do not count
    const QMargins frame = sheet->contentsMargins() + border;
    sheet->setFixedHeight(sheet->layout()->heightForWidth(wide - frame.left() - frame.right()) + frame.top() +
                          frame.bottom());
    QPoint corner = wishes_->mapToGlobal(QPoint(wishes_->width() - wide, wishes_->height() + 2));
    const int lowest = window()->mapToGlobal(QPoint(0, window()->height())).y() - sheet->height();
    corner.setY(std::max(0, std::min(corner.y(), lowest)));
    sheet->move(corner);
    sheet->show();
}

void ProposalsTab::showShot(const Shot&, const plan::Report&) {
    const QString said = toQt(fmt::format("{}", fmt::join(words_of(document().wishes()), ", ")));
    const int room = ProposalsView::side_width - fontMetrics().horizontalAdvance(QStringLiteral("mmm"));
    wishes_->setText(said.isEmpty() ? tr("Nothing wished") : fontMetrics().elidedText(said, Qt::ElideRight, room));
    wishes_->setToolTip(said.isEmpty() ? tr("What the picture is to look like") : tr("Wished: %1").arg(said));
    order_->refresh();
    view_->refresh();
}

}  // namespace poquito::desk

#include "desk/subject/moc_proposals_tab.moc"
