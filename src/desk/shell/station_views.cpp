#include "desk/shell/station_views.hpp"

#include "desk/depth/depth_page.hpp"
#include "desk/light/light_page.hpp"
#include "desk/proof/proof_page.hpp"
#include "desk/reach/reach_page.hpp"
#include "desk/run/run_page.hpp"
#include "desk/subject/subject_page.hpp"
#include "desk/toolkit/theme.hpp"

#include <QScrollArea>
#include <QVBoxLayout>

namespace poquito::desk {
namespace {

/// A page that scrolls where the window is too low for it.
QScrollArea* scrolled(StationPage* page, QWidget* parent) {
    auto* scroll = new QScrollArea(parent);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* inner = new QWidget(scroll);
    auto* layout = new QVBoxLayout(inner);
    layout->setContentsMargins(10, 9, 10, 6);
    layout->addWidget(page);
    scroll->setWidget(inner);
    scroll->viewport()->setAutoFillBackground(false);
    inner->setAutoFillBackground(false);
    return scroll;
}

}  // namespace

StationViews::StationViews(Document& document, ChosenLight& chosen, RunController& runs, ProofController& proof,
                           SubjectLibrary& library, QWidget* parent)
    : QStackedWidget(parent), document_(document), chosen_(chosen), runs_(runs), proof_(proof), library_(library) {}

void StationViews::show(advice::Station station) {
    auto* wanted = page(station);
    for (int i = 0; i < count(); ++i)
        if (widget(i)->isAncestorOf(wanted)) setCurrentIndex(i);
    wanted->refresh();
}

StationPage* StationViews::page(advice::Station station) {
    auto& page = pages_[static_cast<std::size_t>(station)];
    if (page) return page;
    page = made(station);
    page->setObjectName(QLatin1String(advice::station_name(station)) + QLatin1String("Page"));
    addWidget(scrolled(page, this));
    stylePart(widget(count() - 1));
    Q_EMIT pageMade(station, page);
    page->refresh();
    return page;
}

StationPage* StationViews::made(advice::Station station) {
    switch (station) {
        case advice::Station::subject:
            return new SubjectPage(document_, library_);
        case advice::Station::reach:
            return new ReachPage(document_);
        case advice::Station::depth:
            return new DepthPage(document_);
        case advice::Station::light:
            return new LightPage(document_, chosen_);
        case advice::Station::run:
            return new RunPage(document_, runs_, library_);
        case advice::Station::proof:
            break;
    }
    return new ProofPage(document_, proof_, runs_);
}

}  // namespace poquito::desk

#include "desk/shell/moc_station_views.moc"
