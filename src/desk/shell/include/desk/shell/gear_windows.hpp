#pragma once

#include "desk/session/bag.hpp"

#include <QObject>

namespace poquito::desk {

class MeasureDialog;
class ReachFinder;

/// The bag and the windows about gear; each is made when it is first wanted and belongs to `window`.
class GearWindows : public QObject {
    Q_OBJECT
  public:
    GearWindows(Document& document, QWidget* window);

    Bag& bag();
    void findSetup();
    void measure();

  Q_SIGNALS:
    void problemFound(const QString& problem);  // with the bag's file

  private:
    void askWhoseBag();

    Document& document_;
    QWidget* window_;
    Bag* bag_ = nullptr;
    ReachFinder* finder_ = nullptr;
    MeasureDialog* measure_ = nullptr;
    bool asking_ = false;
};

}  // namespace poquito::desk
