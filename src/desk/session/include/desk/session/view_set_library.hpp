#pragma once

#include "desk/session/kept_records.hpp"
#include "shoot/change/view_set.hpp"

#include <QObject>
#include <QString>

#include <vector>

namespace poquito::desk {

/// The sets of views that ship with the application, and the user's own.
class ViewSetLibrary : public QObject {
    Q_OBJECT
  public:
    /// `path` of the user's own; empty: view-sets.json in the user's data folder.
    explicit ViewSetLibrary(const QString& path = {}, QObject* parent = nullptr);

    const std::vector<shoot::ViewSet>& sets() { return kept_.all(); }  // the user's own first
    QString takeProblem() { return kept_.takeProblem(); }              // what could not be read, once; empty: nothing
    /// In the place of one of that id. Empty: done; else what went wrong.
    QString keep(shoot::ViewSet set);

  Q_SIGNALS:
    void changed();

  private:
    KeptRecords<shoot::ViewSet> kept_;
};

}  // namespace poquito::desk
