#pragma once

#include "desk/session/autosave.hpp"
#include "desk/session/document.hpp"
#include "desk/session/first_shoots.hpp"
#include "storage/atomic_file.hpp"

#include <QObject>
#include <QStringList>

#include <functional>
#include <memory>
#include <optional>

class QDir;
class QWidget;

namespace poquito::desk {

class RunController;

/// How a shoot comes into the document and gets out of it again: files, pictures that carry a plan, what a crash left
/// behind, and the questions before anything is lost.
class ShootFiles : public QObject {
    Q_OBJECT
  public:
    /// Questions are asked over `window`.
    ShootFiles(Document& document, RunController& runs, QWidget& window);

    // Without questions. True: it is done; else what went wrong is told.
    bool open(const QString& path);  // a shoot, or a picture that carries a plan: its shot joins the open shoot
    bool saveTo(const QString& path);

    // With their dialogs.
    void askOpen();
    bool save();
    bool askSaveAs();
    /// What would be lost may go: it was saved or given up, and no run is on. Nothing is stopped before all is
    /// answered.
    bool mayDropChanges();
    /// As `open`, once what is there may go; a picture takes nothing away.
    void openInPlace(const QString& path);

    /// Offers what a crash left behind; keeps copies of unsaved work from now on.
    void startAutosave(const QDir& folder);

    /// Paths, the last opened or saved first.
    static QStringList recent();

  Q_SIGNALS:
    void problemFound(const QString& problem);  // empty: there is none any more
    void told(const QString& news);

  private:
    /// Of a file that someone else wrote since: the person says which of the two stays there. The one that does not is
    /// kept beside it. True: this shoot is saved.
    bool settleWithOther(const QString& path);
    bool restorePicture(const QString& path);
    void remember(const QString& path);
    int askToSave();  // QMessageBox::Save, Discard or Cancel
    bool mayEndRun();
    void endRun();
    std::optional<Leftover> recoverOrDiscard(const QDir& folder);

    Document& document_;
    RunController& runs_;
    QWidget& window_;
    std::unique_ptr<Autosave> autosave_;
    std::optional<storage::FileMark> mark_;  // of the document's file as it was read or written last
};

}  // namespace poquito::desk
