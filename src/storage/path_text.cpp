#include "storage/path_text.hpp"

#include <fmt/format.h>
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

}  // namespace poquito::storage
