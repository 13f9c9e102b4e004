#pragma once

#include "shoot/view_set.hpp"

#include <QObject>
#include <QString>

#include <cstddef>
#include <vector>

namespace poquito::desk {

/// The sets of views that ship with the application, and the user's own, kept beside the bag. What is kept is on the
/// disk at once.
class ViewSetLibrary : public QObject {
    Q_OBJECT
  public:
    /// `path` of the user's own; empty: view-sets.json in the user's data folder.
    explicit ViewSetLibrary(const QString& path = {}, QObject* parent = nullptr);

    const std::vector<shoot::ViewSet>& sets();  // the user's own first; read when first asked for
    /// In the place of one of that id. Empty: done; else what went wrong.
    QString keep(shoot::ViewSet set);

  Q_SIGNALS:
    void changed();

  private:
    void load();

    QString path_;
    bool loaded_ = false;
    std::size_t own_ = 0;
    std::vector<shoot::ViewSet> sets_;
};

}  // namespace poquito::desk
