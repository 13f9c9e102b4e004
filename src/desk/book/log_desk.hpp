#pragma once

#include "desk/base/worker.hpp"
#include "log/book.hpp"
#include "log/happened.hpp"
#include "log/lessons.hpp"
#include "log/protocol.hpp"
#include "log/review.hpp"
#include "proof/inspection.hpp"

#include <QObject>
#include <QPointer>
#include <QString>
#include <QTimer>

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace poquito::desk {

class Document;
class ProofDesk;

/// Enters what happens in the logbook and looks things up in it, away from the interface thread. What is edited and
/// taken back at once was nothing.
class LogDesk : public QObject {
    Q_OBJECT
  public:
    LogDesk(Document& document, log::ClassOf classOf, QObject* parent = nullptr);
    ~LogDesk() override;

    /// Enters what waits to be entered, and no more: before the document goes.
    void finish();

    /// Another book; empty: logbook.db in the user's data folder. For tests and tools.
    void setPath(const QString& path);
    QString path() const { return path_; }
    /// A book of a year that never was, of the shots of this shoot, until another one is opened: beside the user's own,
    /// which it does not touch.
    void showMadeUp();
    bool isMadeUp() const { return madeUp_; }
    void setPatience(int milliseconds) { settle_.setInterval(milliseconds); }
    bool isBusy() const { return jobs_ > 0 || settle_.isActive(); }

    struct Found {
        std::vector<log::Entry> entries;  // newest first
        std::size_t all = 0;              // that the query finds
        std::vector<std::string> classes;
    };
    /// Answers come back on the interface thread, as long as `asker` lives.
    void search(const log::Query& query, QObject* asker, std::function<void(Found)> answer);
    void look(std::int64_t entry, QObject* asker, std::function<void(std::optional<log::Entry>)> answer);
    void learn(QObject* asker, std::function<void(std::vector<log::Lesson>)> answer);
    /// Of this shoot on that day, ISO; empty: on the last one that was logged. With the days there are, newest first.
    void review(const std::string& day, QObject* asker,
                std::function<void(log::Review, std::vector<std::string> days)> answer);
    /// Of its shots of series, and of those that were logged on two days or more.
    void protocols(QObject* asker, std::function<void(std::vector<log::Protocol>)> answer);
    /// Their finder pictures as JPEG, on the gear of this shoot; empty: one has none.
    void drawShots(std::vector<shoot::Shot> shots, QObject* asker,
                   std::function<void(std::vector<std::string>)> answer);
    /// All frames that were looked at by that desk are entered once they are judged.
    void enterLooks(ProofDesk& proof);
    /// What was just edited came out of the log: it happened once.
    void overlookEdit();
    /// A line as read from notes of a day, of now; what has no place is said.
    void writeDown(const QString& line);
    log::ClassOf classOf() const { return classOf_; }

    void forget(std::int64_t entry);
    void exportTo(const QString& file);    // *.json, *.csv
    void importFrom(const QString& file);  // the same; *.txt: notes of a day in the field, by the shots of this shoot
    void write(std::vector<log::Entry> entries);
    /// Before that shot one thing was changed; what takes seconds or hours was none.
    void enterChange(const std::string& what, const std::string& shot, double seconds);

    /// What came of an exercise or a rehearsal: its id, its name, whether it went well, and what was said of it.
    void enterPractice(const std::string& id, const std::string& name, bool well, const std::string& said);

  Q_SIGNALS:
    void changed();  // something was entered or forgotten
    void said(const QString& words);

  private:
    using Job = std::function<void(log::Book& book)>;
    void add(Job job);  // with the book open; not where that fails
    void settled();
    void makeUp();
    void readNotes(const QString& file);
    void enterNotes(const std::string& text, const std::string& day);
    void say(const QString& words);
    template <typename Value, typename Answer>
    void answer(const QPointer<QObject>& asker, Value value, Answer answer);

    Document& document_;
    log::ClassOf classOf_;
    QString path_;
    std::shared_ptr<const shoot::Shoot> known_;   // what is entered so far
    std::shared_ptr<const shoot::Shoot> latest_;  // what is to be entered, once it has settled
    std::string workedOn_;                        // the shot that was selected as it was edited
    bool madeUp_ = false;
    std::shared_ptr<const shoot::Shoot> madeUpOf_;  // what it is still to be made of; null: nothing
    QTimer settle_;
    int jobs_ = 0;
    std::map<std::string, std::shared_ptr<const proof::Inspection>> entered_;  // by shot, the last that was
    std::atomic<bool> closing_ = false;                                        // read by the worker
    struct Open;
    std::shared_ptr<Open> open_;
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
