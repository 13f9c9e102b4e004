#include "proof/incoming.hpp"

#include "storage/frame_reader.hpp"

#include <algorithm>
#include <system_error>

namespace poquito::proof {

namespace fs = std::filesystem;

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
    if (!all)
        for (const auto& file : frames_in({folder_})) files_[file].given = true;
}

std::vector<fs::path> Incoming::whole() {
    std::vector<fs::path> found;
    for (const auto& file : frames_in({folder_})) {
        auto& one = files_[file];
        if (one.given) continue;
        std::error_code failed;
        const auto size = fs::file_size(file, failed);
        one.quiet = !failed && size > 0 && size == one.size ? one.quiet + 1 : 0;
        one.size = failed ? 0 : size;
        constexpr int enough = 2;
        if (one.quiet < enough) continue;
        one.given = true;
        found.push_back(file);
    }
    return found;
}

bool Incoming::any_growing() const {
    return std::ranges::any_of(files_, [](const auto& file) { return !file.second.given; });
}

}  // namespace poquito::proof
