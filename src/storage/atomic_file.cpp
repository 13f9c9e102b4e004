#include "storage/atomic_file.hpp"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>

namespace poquito::storage {
namespace {

namespace fs = std::filesystem;

/// What the user does not want others to do with new files. It can only be read by setting it, which is for all
/// threads: done once, before there are any.
const mode_t file_mask = [] {
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return mask;
}();

ReadError system_error(const fs::path& path, const char* doing, int code) {
    return {path.string(), std::string("cannot ") + doing + ", " + std::strerror(code)};
}

/// A file beside the target that removes itself unless it was renamed, with its descriptor.
class TemporaryFile {
  public:
    explicit TemporaryFile(const fs::path& target)
        : name_((target.parent_path() / ("." + target.filename().string() + ".XXXXXX")).string()) {
        descriptor_ = ::mkostemp(name_.data(), O_CLOEXEC);
    }
    ~TemporaryFile() {
        if (descriptor_ >= 0) ::close(descriptor_);
        if (descriptor_ >= 0 && !renamed_) ::unlink(name_.c_str());
    }
    TemporaryFile(const TemporaryFile&) = delete;
    TemporaryFile& operator=(const TemporaryFile&) = delete;

    bool opened() const { return descriptor_ >= 0; }

    /// Everything down to the disk; false leaves errno.
    bool write(std::string_view content) const {
        while (!content.empty()) {
            const auto written = ::write(descriptor_, content.data(), content.size());
            if (written < 0 && errno == EINTR) continue;
            if (written < 0) return false;
            content.remove_prefix(static_cast<std::size_t>(written));
        }
        return ::fsync(descriptor_) == 0;
    }
    bool take_mode_of(const fs::path& target) const {
        struct stat old {};
        if (::stat(target.c_str(), &old) == 0) return ::fchmod(descriptor_, old.st_mode & 07777) == 0;
        return ::fchmod(descriptor_, 0666 & ~file_mask) == 0;
    }
    bool rename_to(const fs::path& target) {
        renamed_ = ::rename(name_.c_str(), target.c_str()) == 0;
        return renamed_;
    }

  private:
    std::string name_;
    int descriptor_ = -1;
    bool renamed_ = false;
};

}  // namespace

ReadResult<std::string> read_file(const fs::path& path) {
    const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    if (descriptor < 0) return system_error(path, "read", errno);
    std::string content;
    ssize_t count = 1;
    while (count != 0) {
        char bytes[65536];
        count = ::read(descriptor, bytes, sizeof bytes);
        if (count < 0 && errno == EINTR) continue;
        if (count < 0) break;
        content.append(bytes, static_cast<std::size_t>(count));
    }
    const int code = errno;
    ::close(descriptor);
    if (count == 0) return content;
    if (code == EISDIR) return ReadError{path.string(), "cannot read, it is a folder"};
    return system_error(path, "read to its end", code);
}

std::optional<ReadError> replace_file(const fs::path& path, std::string_view content) {
    std::error_code code;
    fs::path target = fs::weakly_canonical(fs::absolute(path), code);
    if (code) target = fs::absolute(path);
    TemporaryFile file(target);
    if (!file.opened()) return system_error(path, "write here", errno);
    if (!file.write(content) || !file.take_mode_of(target)) return system_error(path, "write", errno);
    if (!file.rename_to(target)) return system_error(path, "replace", errno);
    flush_folder(target.parent_path());
    return std::nullopt;
}

void flush_folder(const fs::path& folder) {
    const int descriptor = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (descriptor < 0) return;
    ::fsync(descriptor);
    ::close(descriptor);
}

}  // namespace poquito::storage
