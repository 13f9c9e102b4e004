#pragma once

#include "desk/session/document.hpp"
#include "storage/atomic_file.hpp"

#include <QString>

#include <optional>
#include <utility>

namespace poquito::desk {

/// The gear its owner has, kept in the user's data folder and copied into every new shoot. A document without shots:
/// edits, undo and redo are a document's. Every change is on the disk at once, unless another window changed the file
/// since: then nothing is written until one of the two was chosen.
class Bag : public QObject {
    Q_OBJECT
  public:
    /// `path` empty: bag.json in the user's data folder.
    explicit Bag(const QString& path = {}, QObject* parent = nullptr);

    Document& document() { return document_; }
    const gear::Kit& kit() const { return document_.kit(); }
    QString path() const { return path_; }
    /// Why the file was not read or written; empty: all is well. A file that cannot be read is set aside, not lost.
    QString problem() const { return problem_; }

    /// What another window wrote takes the place of what is here, which Ctrl+Z brings back.
    void takeTheirs();
    /// What is here takes the place of what another window wrote, which stays beside it under another name.
    void keepOurs();

  Q_SIGNALS:
    void problemChanged();
    void changedElsewhere();  // and here as well: takeTheirs() or keepOurs()

  private:
    void load();
    QString limitsPath() const;  // beside it: how far this person goes
    void save();
    void write();
    std::pair<std::optional<storage::FileMark>, std::optional<storage::FileMark>> marks() const;

    Document document_;
    std::pair<std::optional<storage::FileMark>, std::optional<storage::FileMark>> marks_;  // as read or written last
    QString path_;
    QString problem_;
};

/// The generic gear that ships with the application, and what a bag begins with.
gear::Kit catalogue();
gear::Kit starterKit();

}  // namespace poquito::desk
