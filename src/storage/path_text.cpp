#include "storage/path_text.hpp"

#include <fmt/format.h>
#include <boost/crc.hpp>
#include <nlohmann/json.hpp>

#include <cctype>
#include <charconv>
#include <string_view>

namespace poquito::storage {
namespace {

constexpr std::string_view scheme = "file://";

bool is_utf8(const std::string& bytes) {
    try {
        (void)nlohmann::json(bytes).dump();
        return true;
    } catch (const nlohmann::json::type_error&) {
        return false;
    }
}

}  // namespace

std::string path_text(const std::filesystem::path& path) {
    const std::string& bytes = path.native();
    // What looks like a URI itself is written as one, so that reading it back is never a guess.
    if (is_utf8(bytes) && !bytes.starts_with(scheme)) return bytes;
    std::string text(scheme);
    for (const char c : bytes) {
        const auto byte = static_cast<unsigned char>(c);
        const bool plain =
            byte < 0x80 && (std::isalnum(byte) || std::string_view("/-._~").find(c) != std::string::npos);
        text += plain ? std::string(1, c) : fmt::format("%{:02X}", byte);
    }
    return text;
}

std::filesystem::path path_of(const std::string& text) {
    if (!text.starts_with(scheme)) return text;
    std::string bytes;
    for (std::size_t i = scheme.size(); i < text.size(); ++i) {
        unsigned char byte = 0;
        const char* end = text.data() + i + 3;
        if (text[i] == '%' && i + 2 < text.size() && std::from_chars(text.data() + i + 1, end, byte, 16).ptr == end) {
            bytes += static_cast<char>(byte);
            i += 2;
        } else {
            bytes += text[i];
        }
    }
    return bytes;
}

std::filesystem::path frame_path(const std::string& folder, const std::string& file) {
    return path_of(folder) / path_of(file);
}

std::string safe_name(const std::string& text) {
    constexpr std::size_t most = 80;
    std::string name;
    for (const char c : text)
        name += std::isalnum(static_cast<unsigned char>(c)) != 0 || ((c == '-' || c == '_') && !name.empty()) ? c
                : name.empty()                                                                                ? 'x'
                                                                                                              : '-';
    if (name.empty()) return "x";
    if (name.size() <= most) return name;
    boost::crc_32_type crc;
    crc.process_bytes(text.data(), text.size());
    const auto check = fmt::format("-{:08x}", crc.checksum());
    return name.substr(0, most - check.size()) + check;
}

}  // namespace poquito::storage
