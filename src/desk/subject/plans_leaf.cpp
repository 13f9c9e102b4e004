#include "desk/subject/plans_leaf.hpp"

#include "desk/subject/give_up_strip.hpp"
#include "desk/subject/plans_view.hpp"
#include "desk/toolkit/sentence.hpp"

#include <QScrollArea>
#include <QVBoxLayout>

namespace poquito::desk {

PlansLeaf::PlansLeaf(Document& document, QWidget* parent)
    : StationPage(document, parent),
      why_(new Sentence(2, this)),
      order_(new GiveUpStrip(document, this)),
      view_(new PlansView(document)) {
    auto* column = addColumn(1);
    why_->setObjectName(QStringLiteral("plansReason"));
    column->addWidget(why_);
    column->addWidget(order_);
    auto* scroll = new QScrollArea(this);
    scroll->setObjectName(QStringLiteral("plansScroll"));
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(view_);
    column->addWidget(scroll, 1);
    connect(view_, &PlansView::found, why_, &Sentence::setText);
}

void PlansLeaf::showShot(const Shot&, const plan::Report&) {
    order_->refresh();
    view_->refresh();
}

}  // namespace poquito::desk

#include "desk/subject/moc_plans_leaf.moc"
