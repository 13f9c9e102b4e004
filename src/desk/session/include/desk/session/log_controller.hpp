#pragma once

#include "desk/session/worker.hpp"
#include "log/book.hpp"
#include "log/lessons.hpp"
#include "log/protocol.hpp"
#include "log/review.hpp"
#include "shoot/shoot.hpp"

#include <QObject>
#include <QPointer>
#include <QString>

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace poquito::desk {

class Document;

/// The logbook, away from the interface thread: entries go into it, things are looked up in it.
class LogController : public QObject {
    Q_OBJECT
  public:
    explicit LogController(Document& document, QObject* parent = nullptr);
    ~LogController() override;

    /// Ends with what is asked for so far, and begins nothing that takes long: before the document goes.
    void finish();

    /// Another book; empty: logbook.db in the user's data folder. For tests and tools.
    void setPath(const QString& path);
    QString path() const { return path_; }
    /// A book of a year that never was, of the shots of this shoot, until another one is opened: beside the user's own,
    /// which it does not touch.
    void showMadeUp();
    bool isMadeUp() const { return madeUp_; }
    void endMadeUp();  // back to the user's own
    bool isBusy() const { return jobs_ > 0; }

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
    void forget(std::int64_t entry);
    void exportTo(const QString& file);    // *.json, *.csv
    void importFrom(const QString& file);  // the same
    /// With the pictures of their plans and frames.
    void write(std::vector<log::Entry> entries);

  Q_SIGNALS:
    void changed();  // something was entered or forgotten
    void said(const QString& words);

  private:
    using Job = std::function<void(log::Book& book)>;
    void add(Job job);  // with the book open; not where that fails
    void makeUp();
    void say(const QString& words);
    template <typename Value, typename Answer>
    void answer(const QPointer<QObject>& asker, Value value, Answer answer);

    Document& document_;
    QString path_;
    bool madeUp_ = false;
    std::shared_ptr<const shoot::Shoot> madeUpOf_;  // what it is still to be made of; null: nothing
    int jobs_ = 0;
    std::atomic<bool> closing_ = false;  // read by the worker
    struct Open;
    std::shared_ptr<Open> open_;
    Worker worker_;  // last: its job uses the rest
};

}  // namespace poquito::desk
