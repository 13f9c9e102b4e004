#include "text/stored_path.hpp"

#include <boost/locale/utf.hpp>

#include <cctype>
#include <charconv>
#include <string_view>

namespace poquito::text {
namespace {

constexpr std::string_view scheme = "file://";

bool is_utf8(const std::string& bytes) {
    using Traits = boost::locale::utf::utf_traits<char>;
    for (auto at = bytes.begin(); at != bytes.end();)
        if (!boost::locale::utf::is_valid_codepoint(Traits::decode(at, bytes.end()))) return false;
    return true;
}

std::string uri_of(std::string_view bytes) {
    constexpr std::string_view digits = "0123456789ABCDEF";
    std::string text(scheme);
    for (const char c : bytes) {
        const auto byte = static_cast<unsigned char>(c);
        if (byte < 0x80 && (std::isalnum(byte) != 0 || std::string_view("/-._~").find(c) != std::string_view::npos))
            text += c;
        else
            text += {'%', digits[byte >> 4], digits[byte & 15]};
    }
    return text;
}

}  // namespace

// What looks like a URI itself is written as one, so that reading it back is never a guess.
StoredPath::StoredPath(const std::filesystem::path& path)
    : text_(is_utf8(path.native()) && !path.native().starts_with(scheme) ? path.native() : uri_of(path.native())) {}

std::filesystem::path StoredPath::path() const {
    if (!text_.starts_with(scheme)) return text_;
    std::string bytes;
    for (std::size_t i = scheme.size(); i < text_.size(); ++i) {
        unsigned char byte = 0;
        const char* end = text_.data() + i + 3;
        if (text_[i] == '%' && i + 2 < text_.size() &&
            std::from_chars(text_.data() + i + 1, end, byte, 16).ptr == end) {
            bytes += static_cast<char>(byte);
            i += 2;
        } else {
            bytes += text_[i];
        }
    }
    return bytes;
}

}  // namespace poquito::text
