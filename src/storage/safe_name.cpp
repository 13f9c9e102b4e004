#include "storage/safe_name.hpp"

#include <fmt/format.h>
#include <boost/crc.hpp>

#include <cctype>

namespace poquito::storage {

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
