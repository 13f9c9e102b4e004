#include "picture_process.hpp"

#include "exif_tags.hpp"
#include "storage/picture_answer.hpp"
#include "wrong_picture.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <poll.h>
#include <signal.h>
#include <spawn.h>
#include <sys/mman.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <utility>
#include <vector>

namespace poquito::storage {
namespace {

namespace fs = std::filesystem;

/// Beside this program as it is built, or where it is installed.
const std::string& program() {
    static const std::string found = [] {
        std::error_code failed;
        const auto folder = fs::read_symlink("/proc/self/exe", failed).parent_path();
        for (const auto& path : {folder / "poquito-pictures", folder / "../libexec/poquito/poquito-pictures"})
            if (fs::is_regular_file(path, failed)) return path.string();
        return std::string();
    }();
    return found;
}

class Descriptor {
  public:
    explicit Descriptor(int number = -1) : number_(number) {}
    ~Descriptor() {
        if (number_ >= 0) ::close(number_);
    }
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    int number() const { return number_; }
    void reset(int number) {
        if (number_ >= 0) ::close(number_);
        number_ = number;
    }

  private:
    int number_;
};

/// The process, and what it writes. It does not outlive this.
class Apart {
  public:
    Apart(int file, const char* wanted) : bounds_(answer::bounds_of(wanted)) {
        if (program().empty()) throw WrongPicture("poquito-pictures, which reads such files, is not installed");
        int ends[2] = {};
        if (::pipe2(ends, O_CLOEXEC) != 0) throw WrongPicture(std::strerror(errno));
        from_.reset(ends[0]);
        const Descriptor to(ends[1]);
        posix_spawn_file_actions_t actions;
        posix_spawn_file_actions_init(&actions);
        posix_spawn_file_actions_adddup2(&actions, file, STDIN_FILENO);
        posix_spawn_file_actions_adddup2(&actions, to.number(), STDOUT_FILENO);
        posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, "/dev/null", O_WRONLY, 0);
        posix_spawn_file_actions_addclosefrom_np(&actions, STDERR_FILENO + 1);
        std::string name = program(), argument = wanted;
        std::array<char*, 3> arguments = {name.data(), argument.data(), nullptr};
        const int failed = ::posix_spawn(&process_, name.c_str(), &actions, nullptr, arguments.data(), environ);
        posix_spawn_file_actions_destroy(&actions);
        if (failed != 0) {
            process_ = -1;
            throw WrongPicture(fmt::format("poquito-pictures cannot be started, {}", std::strerror(failed)));
        }
    }
    ~Apart() { (void)end(); }
    Apart(const Apart&) = delete;
    Apart& operator=(const Apart&) = delete;

    struct Part {
        answer::Part kind = answer::Part::whole;
        std::string bytes;
    };
    /// The next one; throws what is wrong with the file, or how the process ended.
    Part next() {
        answer::Head head;
        std::array<char, 1 + sizeof head.length> bytes{};
        take(bytes.data(), bytes.size());
        head.part = bytes[0];
        std::memcpy(&head.length, bytes.data() + 1, sizeof head.length);
        Part part{.kind = static_cast<answer::Part>(head.part), .bytes = {}};
        constexpr std::uint32_t most = 512'000'000;  // a preview, or a row of a picture that is one row
        if (head.length > most) throw WrongPicture("damaged");
        part.bytes.resize(head.length);
        take(part.bytes.data(), part.bytes.size());
        if (part.kind == answer::Part::wrong) throw WrongPicture(part.bytes);
        return part;
    }

  private:
    using Clock = std::chrono::steady_clock;

    answer::Bounds bounds_;
    pid_t process_ = -1;
    Descriptor from_;
    // Its own limit is of the processor's time; this one is for a process that waits, and for a machine that is busy.
    Clock::time_point until_ = Clock::now() + std::chrono::seconds(6 * bounds_.seconds);

    void take(char* to, std::size_t size) {
        while (size > 0) {
            const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(until_ - Clock::now()).count();
            pollfd wait{.fd = from_.number(), .events = POLLIN, .revents = 0};
            const int ready = left > 0 ? ::poll(&wait, 1, static_cast<int>(left)) : 0;
            if (ready < 0 && errno == EINTR) continue;
            if (ready == 0) throw WrongPicture("damaged: reading it comes to no end");
            const auto got = ::read(from_.number(), to, size);
            if (got < 0 && errno == EINTR) continue;
            if (got <= 0) throw WrongPicture(how_it_ended());
            to += got;
            size -= static_cast<std::size_t>(got);
        }
    }
    /// Its status; ends it where it has not ended.
    int end() {
        if (process_ < 0) return 0;
        int status = 0;
        // Where it closed its output it is about to end by itself, and how it does is what we want to know.
        for (int i = 0; i < 100; ++i) {
            if (::waitpid(process_, &status, WNOHANG) != 0) return process_ = -1, status;
            if (i == 0) from_.reset(-1);
            ::usleep(1000);
        }
        ::kill(process_, SIGKILL);
        while (::waitpid(process_, &status, 0) < 0 && errno == EINTR) {
        }
        process_ = -1;
        return status;
    }
    std::string how_it_ended() {
        const int status = end();
        const int signal = WIFSIGNALED(status) ? WTERMSIG(status) : 0;
        if (signal == SIGXCPU || signal == SIGKILL)
            return fmt::format("damaged: reading it takes more than {} s", bounds_.seconds);
        return "damaged: whatever reads it breaks down";
    }
};

std::string bytes_apart(int file, const char* wanted) {
    Apart reader(file, wanted);
    const auto part = reader.next();
    if (part.kind != answer::Part::bytes) throw WrongPicture("damaged");
    return part.bytes;
}

}  // namespace

void rows_apart(int file, RowsOf format, const RowSink& sink) {
    Apart reader(file, format == RowsOf::tiff ? answer::of_tiff : answer::of_raw);
    const auto size = reader.next();
    std::array<std::int32_t, 2> pixels{};
    if (size.kind != answer::Part::size || size.bytes.size() != sizeof pixels) throw WrongPicture("damaged");
    std::memcpy(pixels.data(), size.bytes.data(), sizeof pixels);
    check_size(pixels[0], pixels[1]);
    if (!sink.begin(pixels[0], pixels[1])) return;
    const auto length = static_cast<std::size_t>(pixels[0]) * 3;
    for (std::int32_t y = 0; y < pixels[1]; ++y) {
        const auto row = reader.next();
        if (row.kind != answer::Part::row || row.bytes.size() != length) throw WrongPicture("damaged or cut off");
        if (!sink.row(reinterpret_cast<const std::uint8_t*>(row.bytes.data()))) return;
    }
}

FrameExif exif_apart(int file) {
    const auto exif = answer::exif_from_text(bytes_apart(file, answer::of_exif));
    if (!exif) throw WrongPicture("damaged");
    return *exif;
}

std::string preview_apart(int file) { return bytes_apart(file, answer::of_preview); }

std::string plan_apart(const std::string& bytes) {
    const Descriptor file(::memfd_create("picture", MFD_CLOEXEC));
    for (std::size_t written = 0; written < bytes.size();) {
        const auto count = ::write(file.number(), bytes.data() + written, bytes.size() - written);
        if (count < 0 && errno == EINTR) continue;
        if (count <= 0) throw WrongPicture(std::strerror(errno));
        written += static_cast<std::size_t>(count);
    }
    return bytes_apart(file.number(), answer::of_plan);
}

namespace answer {

std::string exif_text(const FrameExif& exif) {
    const nlohmann::json text = {exif.camera,           exif.lens,   exif.time,         exif.f_number,
                                 exif.shutter,          exif.iso,    exif.focal_length, exif.flash,
                                 exif.subject_distance, exif.remark, exif.orientation,  exif.known};
    return text.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

std::optional<FrameExif> exif_from_text(const std::string& text) {
    try {
        const auto read = nlohmann::json::parse(text);
        const auto number = [&](std::size_t at) { return read.at(at).is_null() ? 0 : read.at(at).get<double>(); };
        return FrameExif{.camera = read.at(0),
                         .lens = read.at(1),
                         .time = read.at(2),
                         .f_number = number(3),
                         .shutter = number(4),
                         .iso = number(5),
                         .focal_length = number(6),
                         .flash = read.at(7),
                         .subject_distance = number(8),
                         .remark = read.at(9),
                         .orientation = read.at(10),
                         .known = read.at(11)};
    } catch (const nlohmann::json::exception&) {
        return std::nullopt;
    }
}

}  // namespace answer

}  // namespace poquito::storage
