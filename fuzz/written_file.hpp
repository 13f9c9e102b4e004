#pragma once

#include <unistd.h>
#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>

/// Where the bytes that are tried lie for readers that want a file: in memory, one a process.
namespace poquito::fuzz {

inline std::filesystem::path written_file(const char* ending, const std::uint8_t* data, std::size_t size) {
    static const std::string stem = "/dev/shm/poquito-fuzz-" + std::to_string(getpid());
    const std::filesystem::path path = stem + ending;
    std::ofstream file(path, std::ios::binary | std::ios::trunc);
    file.write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
    if (!file) std::abort();
    return path;
}

}  // namespace poquito::fuzz
