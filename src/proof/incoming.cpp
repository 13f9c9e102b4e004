#include "proof/incoming.hpp"

#include "storage/frame_reader.hpp"

#include <algorithm>
#include <system_error>

namespace poquito::proof {

namespace fs = std::filesystem;

namespace {

constexpr int enough = 2;  // questions in a row at which a file is as it was

}  // namespace

std::vector<fs::path> frames_in(const std::vector<fs::path>& paths) {
    std::vector<fs::path> files;
    for (const auto& path : paths) {
        std::error_code failed;
        if (!fs::is_directory(path, failed)) {
            if (storage::may_be_frame(path)) files.push_back(path);
            continue;
        }
        for (fs::directory_iterator at(path, failed), end; !failed && at != end; at.increment(failed)) {
            std::error_code gone;  // meanwhile
            if (at->is_regular_file(gone) && storage::may_be_frame(at->path())) files.push_back(at->path());
        }
    }
    std::ranges::sort(files);
    return files;
}

Incoming::Incoming(fs::path folder, bool all) : folder_(std::move(folder)) {
    if (all) return;
    for (const auto& file : frames_in({folder_})) {
        std::error_code ignored;
        files_[file] = {
            .size = fs::file_size(file, ignored), .written = fs::last_write_time(file, ignored), .given = true};
    }
}

std::vector<fs::path> Incoming::whole() {
    std::vector<fs::path> found;
    const auto now = frames_in({folder_});
    for (const auto& file : now) {
        auto& one = files_[file];
        std::error_code no_size, no_time;
        const auto size = fs::file_size(file, no_size);
        const auto written = fs::last_write_time(file, no_time);
        if (no_size || no_time) continue;  // gone meanwhile
        if (size == one.size && written == one.written)
            ++one.quiet;
        else
            one.quiet = 0, one.given = false;
        one.size = size, one.written = written;
        if (one.given || size == 0 || one.quiet < enough) continue;
        one.given = true;
        found.push_back(file);
    }
    std::erase_if(files_, [&](const auto& file) { return !std::ranges::binary_search(now, file.first); });
    return found;
}

bool Incoming::any_growing() const {
    return std::ranges::any_of(files_,
                               [](const auto& file) { return !file.second.given && file.second.quiet < enough; });
}

}  // namespace poquito::proof
