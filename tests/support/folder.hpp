#pragma once

#include <stdlib.h>  // mkdtemp is POSIX's

#include <cstddef>
#include <filesystem>
#include <iterator>
#include <string>

namespace poquito::test {

/// A folder that is gone afterwards. Its own name is always the same: by it the bench draws what chance does to frames.
class Folder {
  public:
    explicit Folder(const std::string& name = "frames") {
        std::string around = (std::filesystem::temp_directory_path() / "poquito-test-XXXXXX").string();
        if (!mkdtemp(around.data())) return;
        path_ = std::filesystem::path(around) / name;
        std::filesystem::create_directory(path_);
    }
    ~Folder() {
        std::error_code ignored;
        if (!path_.empty()) std::filesystem::remove_all(path_.parent_path(), ignored);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    const std::filesystem::path& path() const { return path_; }
    std::filesystem::path operator/(const char* name) const { return path_ / name; }
    std::size_t files() const {
        using Entries = std::filesystem::directory_iterator;
        return static_cast<std::size_t>(std::distance(Entries(path_), Entries()));
    }

  private:
    std::filesystem::path path_;
};

}  // namespace poquito::test
