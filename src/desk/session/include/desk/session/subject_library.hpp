#pragma once

#include "desk/session/kept_records.hpp"
#include "shoot/change/subject_library.hpp"

#include <QObject>
#include <QString>

namespace poquito::desk {

/// The subjects that ship with the application, and the user's own, kept beside the bag. What is kept is on the disk at
/// once.
class SubjectLibrary : public QObject {
    Q_OBJECT
  public:
    /// `path` of the user's own; empty: subjects.json in the user's data folder.
    explicit SubjectLibrary(const QString& path = {}, QObject* parent = nullptr);

    const std::vector<shoot::LibrarySubject>& subjects() { return kept_.all(); }  // the user's own first
    /// What could not be read of them, once; empty: nothing.
    QString takeProblem();
    /// Keeps the subject of a shot under the shot's name, in the place of one that has it. Empty: done; else what went
    /// wrong.
    QString keep(const shoot::Shot& shot);

    /// The class of the subject that the shot was filled from; empty: of none.
    QString kindOf(const shoot::Shot& shot);
    /// What the user looks at by class of subject, kept beside the bag as well.
    const std::vector<shoot::KindCheck>& checks();
    QString keepCheck(const QString& kind, const QString& text);
    QString forgetCheck(const QString& text);

  Q_SIGNALS:
    void changed();

  private:
    void loadChecks();
    QString checksPath() const;
    QString saveChecks();

    KeptRecords<shoot::LibrarySubject> kept_;
    bool checksLoaded_ = false;
    QString checksProblem_;
    std::vector<shoot::KindCheck> checks_;
};

}  // namespace poquito::desk
