// poquito-pictures WHAT: reads a picture on standard input, which is a regular file, by libraries that cannot be kept
// within bounds, within the bounds of this process; answers as storage/picture_answer.hpp has it. Not for people.
#include "storage/picture_answer.hpp"
#include "storage/picture_libraries.hpp"

#include <sys/mman.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <csignal>
#include <cstring>
#include <exception>
#include <new>
#include <string>

namespace {

using namespace poquito::storage;
using answer::Part;

struct NobodyReads {};

void write_all(const char* from, std::size_t size) {
    while (size > 0) {
        const auto count = ::write(STDOUT_FILENO, from, size);
        if (count < 0 && errno == EINTR) continue;
        if (count <= 0) throw NobodyReads();
        from += count;
        size -= static_cast<std::size_t>(count);
    }
}

void tell(Part part, const void* bytes, std::size_t size) {
    const auto length = static_cast<std::uint32_t>(size);
    std::array<char, 1 + sizeof length> head = {static_cast<char>(part)};
    std::memcpy(head.data() + 1, &length, sizeof length);
    write_all(head.data(), head.size());
    write_all(static_cast<const char*>(bytes), size);
}
void tell(Part part, const std::string& text) { tell(part, text.data(), text.size()); }

RowSink told() {
    // Shared by both: the row's length is known from the size.
    static std::size_t length = 0;
    return {.begin =
                [](int width, int height) {
                    const std::array<std::int32_t, 2> pixels = {width, height};
                    tell(Part::size, pixels.data(), sizeof pixels);
                    length = static_cast<std::size_t>(width) * 3;
                    return true;
                },
            .row =
                [](const std::uint8_t* rgb) {
                    tell(Part::row, rgb, length);
                    return true;
                }};
}

void limit(int what, rlim_t most) {
    const rlimit bound{.rlim_cur = most, .rlim_max = most};
    (void)::setrlimit(static_cast<__rlimit_resource_t>(what), &bound);
}

void bound_ourselves(answer::Bounds bounds, std::size_t file) {
#ifndef __SANITIZE_THREAD__  // which takes its own terabytes
    limit(RLIMIT_AS, bounds.memory + file);
#endif
    limit(RLIMIT_CPU, bounds.seconds);
    limit(RLIMIT_CORE, 0);
    limit(RLIMIT_FSIZE, 0);
    ::prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0);
    ::prctl(PR_SET_PDEATHSIG, SIGKILL);  // whoever asked is gone: nobody would read it
    std::signal(SIGPIPE, SIG_IGN);
}

void read(const std::string& wanted, FileBytes file) {
    if (wanted == answer::of_tiff) return tiff_rows(file, told());
    if (wanted == answer::of_raw) return raw_rows(file, told());
    if (wanted == answer::of_exif) return tell(Part::bytes, answer::exif_text(library_exif(file)));
    if (wanted == answer::of_preview) return tell(Part::bytes, raw_preview(file));
    if (wanted == answer::of_plan) return tell(Part::bytes, library_plan(file));
    tell(Part::wrong, "got \"" + wanted + "\", expected tiff, raw, exif, preview or plan");
}

/// Of what was thrown.
std::string what_went_wrong() {
    try {
        throw;
    } catch (const std::bad_alloc&) {
        return "damaged: reading it takes more memory than it may";
    } catch (const std::exception& error) {
        return error.what();
    } catch (...) {
        return "damaged";
    }
}

}  // namespace

int main(int argc, char** argv) {
    struct stat about {};
    if (argc != 2 || ::fstat(STDIN_FILENO, &about) != 0 || !S_ISREG(about.st_mode)) return 2;
    const auto size = static_cast<std::size_t>(about.st_size);
    bound_ourselves(answer::bounds_of(argv[1]), size);
    try {
        void* bytes = size > 0 ? ::mmap(nullptr, size, PROT_READ, MAP_PRIVATE, STDIN_FILENO, 0) : nullptr;
        if (bytes == MAP_FAILED || size == 0) {
            tell(Part::wrong, size == 0 ? "empty" : "cannot be read");
            return 1;
        }
        read(argv[1], {static_cast<const std::uint8_t*>(bytes), size});
        tell(Part::whole, nullptr, 0);
        return 0;
    } catch (...) {  // Exiv2's own, and whatever else a library throws
        try {
            tell(Part::wrong, what_went_wrong());
        } catch (const NobodyReads&) {  // nor wants to know
        }
    }
    return 1;
}
