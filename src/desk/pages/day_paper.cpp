#include "desk/pages/day_paper.hpp"

#include "desk/session/document.hpp"

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

AllShots::AllShots(const Document& document) {
    for (int i = 0; i < document.count(); ++i) {
        held.push_back(document.sharedAssessment(i));
        all.push_back({&held.back()->plan, &held.back()->report});
    }
}

}  // namespace poquito::desk
