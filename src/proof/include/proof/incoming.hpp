#pragma once

#include <cstdint>
#include <filesystem>
#include <map>
#include <vector>

namespace poquito::proof {

/// Files that may be frames, by name; folders opened, not those within them. Sorted.
std::vector<std::filesystem::path> frames_in(const std::vector<std::filesystem::path>& paths);

/// Frames that come into a folder while it is watched, as from a card that is copied or a camera that sends them.
class Incoming {
  public:
    /// What is there already is not what comes, unless `all`.
    explicit Incoming(std::filesystem::path folder, bool all = false);

    /// Those that are whole now and were not yet given, in the order of their names: a file is whole when it did not
    /// change between three questions. One that changes after it was given, as when a copy had stalled, is given again.
    /// To be asked a few times a second.
    std::vector<std::filesystem::path> whole();
    /// Some are there that changed lately; those of no bytes, and those that were taken away, do not count for ever.
    bool any_growing() const;

  private:
    struct One {
        std::uintmax_t size = 0;
        std::filesystem::file_time_type written = {};
        int quiet = 0;  // questions in a row at which it was as it was
        bool given = false;
    };
    std::filesystem::path folder_;
    std::map<std::filesystem::path, One> files_;
};

}  // namespace poquito::proof
