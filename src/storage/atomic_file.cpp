#include "storage/atomic_file.hpp"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <string>

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

constexpr off_t most_bytes = 1'000'000'000;  // a shoot has a few; more is no file of ours

text::Error system_error(const fs::path& path, const char* doing, int code) {
    return {path.string(), std::string("cannot ") + doing + ", " + std::strerror(code)};
}

constexpr std::string_view unfinished_end = ".XXXXXX";  // of ".NAME.XXXXXX"

/// A file beside the target that removes itself unless it was renamed, with its descriptor. Locked as long as whoever
/// writes it lives: by that `sweep_unfinished` knows.
class TemporaryFile {
  public:
    explicit TemporaryFile(const fs::path& target) {
        const auto pattern =
            (target.parent_path() / ("." + target.filename().string() + std::string(unfinished_end))).string();
        struct stat made {};
        do {  // again where another program swept it away before it was locked
            if (descriptor_ >= 0) ::close(descriptor_);
            name_ = pattern;
            descriptor_ = ::mkostemp(name_.data(), O_CLOEXEC);
        } while (descriptor_ >= 0 && ::flock(descriptor_, LOCK_EX | LOCK_NB) == 0 && ::fstat(descriptor_, &made) == 0 &&
                 made.st_nlink == 0);
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

text::Expected<std::string> read_file(const fs::path& path) {
    // Not waiting for whoever writes into a pipe.
    const int descriptor = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (descriptor < 0) return system_error(path, "read", errno);
    struct stat about {};
    const char* wrong = nullptr;
    if (::fstat(descriptor, &about) != 0)
        wrong = std::strerror(errno);
    else if (S_ISDIR(about.st_mode))
        wrong = "it is a folder";
    else if (!S_ISREG(about.st_mode))
        wrong = "it is a device or a pipe, expected a file";
    else if (about.st_size > most_bytes)
        wrong = "it is larger than 1 GB";
    if (wrong) {
        ::close(descriptor);
        return text::Error{path.string(), std::string("cannot read, ") + wrong};
    }
    std::string content;
    content.reserve(static_cast<std::size_t>(about.st_size));
    ssize_t count = 1;
    while (count != 0 && content.size() <= static_cast<std::size_t>(most_bytes)) {
        char bytes[65536];
        count = ::read(descriptor, bytes, sizeof bytes);
        if (count < 0 && errno == EINTR) continue;
        if (count < 0) break;
        content.append(bytes, static_cast<std::size_t>(count));
    }
    const int code = errno;
    ::close(descriptor);
    if (count == 0) return content;
    return system_error(path, "read to its end", code);
}

text::Expected<void> replace_file(const fs::path& path, std::string_view content) {
    std::error_code code;
    fs::path target = fs::weakly_canonical(fs::absolute(path), code);
    if (code) target = fs::absolute(path);
    sweep_unfinished(target);
    TemporaryFile file(target);
    if (!file.opened()) return system_error(path, "write here", errno);
    if (!file.write(content) || !file.take_mode_of(target)) return system_error(path, "write", errno);
    if (!file.rename_to(target)) return system_error(path, "replace", errno);
    flush_folder(target.parent_path());
    return {};
}

std::error_code rename_file(const fs::path& from, const fs::path& to) {
    if (::renameat2(AT_FDCWD, from.c_str(), AT_FDCWD, to.c_str(), RENAME_NOREPLACE) == 0) return {};
    // Not every file system of a card or a server knows how.
    if (errno != EINVAL && errno != ENOSYS) return {errno, std::generic_category()};
    std::error_code failed;
    if (fs::exists(fs::symlink_status(to, failed))) return std::make_error_code(std::errc::file_exists);
    fs::rename(from, to, failed);
    return failed;
}

std::optional<FileMark> mark_of(const fs::path& path) {
    struct stat about {};
    if (::stat(path.c_str(), &about) != 0) return std::nullopt;
    return FileMark{.inode = about.st_ino,
                    .size = static_cast<std::uintmax_t>(about.st_size),
                    .seconds = about.st_ctim.tv_sec,
                    .nanoseconds = about.st_ctim.tv_nsec};
}

void sweep_unfinished(const fs::path& path) {
    const auto begin = "." + path.filename().string() + ".";
    const auto length = begin.size() + unfinished_end.size() - 1;
    std::error_code failed;
    const auto folder = path.parent_path();
    for (const auto& entry : fs::directory_iterator(folder.empty() ? fs::path(".") : folder, failed)) {
        const auto name = entry.path().filename().string();
        if (name.size() != length || !name.starts_with(begin)) continue;
        const int descriptor = ::open(entry.path().c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOFOLLOW);
        if (descriptor < 0) continue;
        struct stat about {};
        if (::fstat(descriptor, &about) == 0 && S_ISREG(about.st_mode) && ::flock(descriptor, LOCK_EX | LOCK_NB) == 0)
            ::unlink(entry.path().c_str());
        ::close(descriptor);
    }
}

void flush_folder(const fs::path& folder) {
    const int descriptor = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (descriptor < 0) return;
    ::fsync(descriptor);
    ::close(descriptor);
}

}  // namespace poquito::storage
