#pragma once

#include "advice/stations.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/session/document.hpp"

#include <QStackedWidget>

#include <array>

namespace poquito::desk {

class ProofController;
class RunController;
class SubjectLibrary;
class StationPage;

/// The six pages, one on top; each is made when one first goes there.
class StationViews : public QStackedWidget {
    Q_OBJECT
  public:
    StationViews(Document& document, ChosenLight& chosen, RunController& runs, ProofController& proof,
                 SubjectLibrary& library, QWidget* parent = nullptr);

    void show(advice::Station station);
    StationPage* page(advice::Station station);

  Q_SIGNALS:
    void pageMade(advice::Station station, StationPage* page);

  private:
    StationPage* made(advice::Station station);

    Document& document_;
    ChosenLight& chosen_;
    RunController& runs_;
    ProofController& proof_;
    SubjectLibrary& library_;
    std::array<StationPage*, advice::stations.size()> pages_{};
};

}  // namespace poquito::desk
