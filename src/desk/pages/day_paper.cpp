#include "desk/pages/day_paper.hpp"

#include "desk/session/document.hpp"

#include <QVBoxLayout>

namespace poquito::desk {

QFrame* paperOn(QWidget* parent) {
    auto* frame = new QFrame(parent);
    frame->setProperty("sheet", true);
    return frame;
}

QScrollArea* scrollingOn(QWidget* inner, QWidget* parent) {
    auto* scroll = new QScrollArea(parent);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    return scroll;
}

QFrame* scrollingPaper(QWidget* fields, QWidget* parent) {
    auto* paper = paperOn(parent);
    auto* column = new QVBoxLayout(paper);
    column->setContentsMargins(1, 1, 1, 1);
    column->addWidget(scrollingOn(fields, paper));
    return paper;
}

QWidget* sideOf(QFrame* facts, QWidget* fields, QWidget* parent) {
    auto* side = new QWidget(parent);
    side->setFixedWidth(side_width);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    column->addWidget(facts);
    column->addWidget(scrollingPaper(fields, side), 1);
    return side;
}

AllShots::AllShots(const Document& document) {
    for (int i = 0; i < document.count(); ++i) {
        held.push_back(document.sharedAssessment(i));
        all.push_back({&held.back()->plan, &held.back()->report});
    }
}

}  // namespace poquito::desk
