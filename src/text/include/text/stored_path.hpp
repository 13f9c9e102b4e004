#pragma once

#include <filesystem>
#include <string>
#include <utility>

namespace poquito::text {

/// A path as files of ours keep it. Names of files are bytes, texts of files are UTF-8: a name that is UTF-8 stands
/// there as it is; any other as a file URI (RFC 8089), byte by byte, so that it comes back whole.
class StoredPath {
  public:
    StoredPath() = default;
    explicit StoredPath(const std::filesystem::path& path);
    /// As it was read from a file.
    static StoredPath of_text(std::string text) {
        StoredPath stored;
        stored.text_ = std::move(text);
        return stored;
    }

    const std::string& text() const { return text_; }
    std::filesystem::path path() const;
    bool empty() const { return text_.empty(); }

    bool operator==(const StoredPath&) const = default;

  private:
    std::string text_;
};

}  // namespace poquito::text
