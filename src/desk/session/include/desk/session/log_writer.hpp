#pragma once

#include "log/diff.hpp"
#include "proof/inspection.hpp"
#include "shoot/shoot.hpp"

#include <QObject>
#include <QString>
#include <QTimer>

#include <map>
#include <memory>
#include <string>

namespace poquito::desk {

class Document;
class LogController;
class ProofController;

/// Enters in the logbook what happens: runs, verdicts, what gear teaches, looks at frames, changes of the set-up,
/// exercises, and what is written down by hand. What is edited and taken back at once was nothing.
class LogWriter : public QObject {
    Q_OBJECT
  public:
    LogWriter(Document& document, LogController& book, log::ClassOf classOf, QObject* parent = nullptr);

    LogController& book() { return book_; }
    log::ClassOf classOf() const { return classOf_; }

    /// Enters what waits to be entered, and no more: before the document goes.
    void finish();
    void setPatience(int milliseconds) { settle_.setInterval(milliseconds); }
    bool isBusy() const;  // or the book is

    /// All frames that were looked at by that desk are entered once they are judged.
    void enterLooks(ProofController& proof);
    /// What was just edited came out of the log: it happened once.
    void overlookEdit();
    /// Before that shot one thing was changed; what takes seconds or hours was none.
    void enterChange(const std::string& what, const std::string& shot, double seconds);
    /// What came of an exercise or a rehearsal: its id, its name, whether it went well, and what was said of it.
    void enterPractice(const std::string& id, const std::string& name, bool well, const std::string& said);
    /// A line as read from notes of a day, of now; what has no place is said.
    void writeDown(const QString& line);
    /// Notes of a day in the field, a text file, by the shots of this shoot, on the day that it was last written.
    void readNotes(const QString& file);

  Q_SIGNALS:
    void said(const QString& words);

  private:
    void settled();
    void enterNotes(const std::string& text, const std::string& day);

    Document& document_;
    LogController& book_;
    log::ClassOf classOf_;
    std::shared_ptr<const shoot::Shoot> known_;   // what is entered so far
    std::shared_ptr<const shoot::Shoot> latest_;  // what is to be entered, once it has settled
    std::string workedOn_;                        // the shot that was selected as it was edited
    QTimer settle_;
    std::map<std::string, std::shared_ptr<const proof::Inspection>> entered_;  // by shot, the last that was
};

}  // namespace poquito::desk
