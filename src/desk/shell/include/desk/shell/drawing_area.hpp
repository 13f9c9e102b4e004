#pragma once

#include "advice/stations.hpp"
#include "desk/session/chosen_light.hpp"
#include "desk/session/document.hpp"

#include <QFrame>

#include <set>

class QStackedWidget;
class QToolButton;

namespace poquito::desk {

class BenchView;
class FinderPanel;
class SubjectDrawing;
class TrainDrawing;

/// Above the station's sheet: the bench, or the drawing that the station has of its own: subject, train or finder, each
/// made when one first goes where it is.
class DrawingArea : public QFrame {
    Q_OBJECT
  public:
    DrawingArea(Document& document, ChosenLight& chosen, QWidget* parent = nullptr);

    void show(advice::Station station);
    void refresh();
    /// The station's own drawing in place of the bench.
    void showOwn(advice::Station station);

    BenchView* bench() const { return bench_; }
    FinderPanel* finder() const { return finder_; }  // null: not made yet
    void turnBench();

  Q_SIGNALS:
    void trainMade(TrainDrawing* train);
    void finderMade(FinderPanel* finder);
    void finderShown(bool shown);  // it takes more of the height than a drawing of the set
    void setupWanted();
    void measureWanted();
    void kitWanted();

  private:
    void buildBench(ChosenLight& chosen);
    void buildSubject();
    void buildTrain();
    void buildFinder();
    void showBench(advice::Station station);

    Document& document_;
    advice::Station station_ = advice::Station::subject;
    QStackedWidget* stack_;
    BenchView* bench_ = nullptr;
    QToolButton* own_ = nullptr;  // from the bench back to the station's own drawing
    SubjectDrawing* subject_ = nullptr;
    TrainDrawing* train_ = nullptr;
    FinderPanel* finder_ = nullptr;
    /// Stations where the bench was asked for in place of their own drawing; at Light and Run it is until the finder
    /// is.
    std::set<advice::Station> benchInstead_ = {advice::Station::light, advice::Station::run};
    bool finderShown_ = false;
};

}  // namespace poquito::desk
