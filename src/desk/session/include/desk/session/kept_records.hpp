#pragma once

#include "desk/session/user_file.hpp"
#include "desk/text/to_qt.hpp"
#include "storage/atomic_file.hpp"
#include "text/error.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QString>

#include <algorithm>
#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace poquito::desk {

/// Records with an id: the user's own, kept in a file beside the bag, before those that ship. Read when first asked
/// for; what is kept is on the disk at once, beside what other windows kept meanwhile. A file that cannot be read is
/// set aside, never written over.
template <typename Record>
class KeptRecords {
  public:
    struct Kinds {
        const char* file;  // its name in the user's data folder
        QString whose;     // what it is called where it cannot be read, at the beginning of a sentence
        text::Expected<std::vector<Record>> (*read)(std::string_view text);
        std::string (*write)(const std::vector<Record>& records);
        std::function<std::vector<Record>()> shipped;
    };
    /// `path` of the user's own; empty: in the user's data folder.
    KeptRecords(Kinds kinds, const QString& path) : kinds_(std::move(kinds)), path_(userFile(path, kinds_.file)) {}

    const QString& path() const { return path_; }
    /// Those of a file that ships with the application.
    std::vector<Record> in(const QString& path) const {
        auto read = from(path);
        return read ? std::move(*read) : std::vector<Record>();
    }
    /// What went wrong with the user's own, once; empty: nothing.
    QString takeProblem() {
        load();
        return std::exchange(problem_, {});
    }

    const std::vector<Record>& all() {
        load();
        return records_;
    }
    std::size_t own() {
        load();
        return own_;
    }

    /// In the place of one of that id. Empty: done; else what went wrong.
    QString keep(Record record) {
        loadAnew();
        auto mine = mine_now();
        std::erase_if(mine, [&](const auto& one) { return one.id == record.id; });
        mine.push_back(std::move(record));
        return write(std::move(mine));
    }
    QString forget(const std::string& id) {
        loadAnew();
        auto mine = mine_now();
        std::erase_if(mine, [&](const auto& one) { return one.id == id; });
        return write(std::move(mine));
    }

  private:
    /// What another window wrote since.
    void loadAnew() {
        if (loaded_ && storage::mark_of(path_.toStdString()) != mark_) {
            loaded_ = false;
            records_.clear();
        }
        load();
    }
    void load() {
        if (std::exchange(loaded_, true)) return;
        mark_ = storage::mark_of(path_.toStdString());
        if (QFileInfo::exists(path_)) {
            auto read = from(path_);
            if (!read)
                problem_ = setAside(path_, kinds_.whose, read.error());
            else
                records_ = std::move(*read);
        }
        own_ = records_.size();
        for (auto& one : kinds_.shipped()) records_.push_back(std::move(one));
    }
    text::Expected<std::vector<Record>> from(const QString& path) const {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly)) return text::Error{path.toStdString(), file.errorString().toStdString()};
        return kinds_.read(file.readAll().toStdString());
    }
    std::vector<Record> mine_now() const {
        return {records_.begin(), records_.begin() + static_cast<std::ptrdiff_t>(own_)};
    }
    QString write(std::vector<Record> mine) {
        QDir().mkpath(QFileInfo(path_).path());
        if (const auto written = storage::replace_file(path_.toStdString(), kinds_.write(mine)); !written)
            return toQt(text::message(written.error()));
        mark_ = storage::mark_of(path_.toStdString());
        records_.erase(records_.begin(), records_.begin() + static_cast<std::ptrdiff_t>(own_));
        own_ = mine.size();
        records_.insert(records_.begin(), mine.begin(), mine.end());
        return {};
    }

    Kinds kinds_;
    QString path_;
    QString problem_;
    std::optional<storage::FileMark> mark_;  // of the file as it was read or written last
    bool loaded_ = false;
    std::size_t own_ = 0;
    std::vector<Record> records_;
};

}  // namespace poquito::desk
