#pragma once

#include <stdlib.h>  // mkdtemp is POSIX's

#include <cstddef>
#include <filesystem>
#include <iterator>
#include <string>

namespace poquito::test {

/// A folder that is gone afterwards.
class Folder {
  public:
    Folder() {
        std::string name = (std::filesystem::temp_directory_path() / "poquito-test-XXXXXX").string();
        if (mkdtemp(name.data())) path_ = name;
    }
    ~Folder() {
        std::error_code ignored;
        std::filesystem::remove_all(path_, ignored);
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
