#pragma once

#include "desk/base/to_qt.hpp"
#include "storage/atomic_file.hpp"
#include "storage/read_error.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QString>

#include <algorithm>
#include <cstddef>
#include <functional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace poquito::desk {

/// Records with an id: the user's own, kept in a file beside the bag, before those that ship. Read when first asked
/// for; what is kept is on the disk at once.
template <typename Record>
class KeptRecords {
  public:
    struct Kinds {
        const char* file;  // its name in the user's data folder
        storage::ReadResult<std::vector<Record>> (*read)(std::string_view text);
        std::string (*write)(const std::vector<Record>& records);
        std::function<std::vector<Record>()> shipped;
    };
    /// `path` of the user's own; empty: in the user's data folder.
    KeptRecords(Kinds kinds, const QString& path) : kinds_(std::move(kinds)), path_(path) {
        if (path_.isEmpty())
            path_ = QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation))
                        .filePath(QLatin1String(kinds_.file));
    }

    /// Those of a file; none where it cannot be read.
    std::vector<Record> in(const QString& path) const {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly)) return {};
        auto loaded = kinds_.read(file.readAll().toStdString());
        auto* records = std::get_if<std::vector<Record>>(&loaded);
        return records ? std::move(*records) : std::vector<Record>();
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
        load();
        auto mine = mine_now();
        std::erase_if(mine, [&](const auto& one) { return one.id == record.id; });
        mine.push_back(std::move(record));
        return write(std::move(mine));
    }
    QString forget(const std::string& id) {
        load();
        auto mine = mine_now();
        std::erase_if(mine, [&](const auto& one) { return one.id == id; });
        return write(std::move(mine));
    }

  private:
    void load() {
        if (std::exchange(loaded_, true)) return;
        records_ = in(path_);
        own_ = records_.size();
        for (auto& one : kinds_.shipped()) records_.push_back(std::move(one));
    }
    std::vector<Record> mine_now() const {
        return {records_.begin(), records_.begin() + static_cast<std::ptrdiff_t>(own_)};
    }
    QString write(std::vector<Record> mine) {
        QDir().mkpath(QFileInfo(path_).path());
        if (const auto error = storage::replace_file(path_.toStdString(), kinds_.write(mine)))
            return toQt(storage::message(*error));
        records_.erase(records_.begin(), records_.begin() + static_cast<std::ptrdiff_t>(own_));
        own_ = mine.size();
        records_.insert(records_.begin(), mine.begin(), mine.end());
        return {};
    }

    Kinds kinds_;
    QString path_;
    bool loaded_ = false;
    std::size_t own_ = 0;
    std::vector<Record> records_;
};

}  // namespace poquito::desk
