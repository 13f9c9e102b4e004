#pragma once

#include "desk/session/document.hpp"
#include "desk/session/worker.hpp"

#include <QDir>
#include <QTimer>

#include <memory>
#include <optional>
#include <vector>

class QLockFile;

namespace poquito::desk {

/// What a program that ended unexpectedly left behind.
struct Leftover {
    QString copy;      // the file to recover from
    QString original;  // where it had been saved; empty: nowhere
};

/// Keeps a copy of unsaved work on disk, written off the interface thread, and finds what a crash left behind. A copy
/// belongs to a running program while its lock is held; a copy without a living owner is a leftover.
class Autosave : public QObject {
    Q_OBJECT
  public:
    Autosave(Document& document, const QDir& folder, QObject* parent = nullptr);
    ~Autosave() override;

    /// Copies without a living owner, newest first; they stay. Locks that guard nothing are cleared away.
    static std::vector<Leftover> leftovers(const QDir& folder);
    static void discard(const Leftover& leftover);
    static QDir defaultFolder();

    /// Milliseconds from the last edit to the copy.
    void setDelay(int milliseconds) { timer_.setInterval(milliseconds); }
    /// Writes now and waits for it.
    void flush();
    QString copyPath() const { return folder_.filePath(name_); }
    /// Milliseconds from a copy that could not be written to the next attempt.
    void setRetryDelay(int milliseconds) { retry_.setInterval(milliseconds); }

  Q_SIGNALS:
    /// A copy could not be written, and why; empty: they can be written again.
    void told(const QString& problem);

  private:
    void schedule();
    void write();
    void wrote(const QString& problem);

    Document& document_;
    QDir folder_;
    QString name_;
    std::unique_ptr<QLockFile> lock_;
    QTimer timer_, retry_;
    bool failed_ = false;
    Worker writer_;  // copies land in order
};

}  // namespace poquito::desk
