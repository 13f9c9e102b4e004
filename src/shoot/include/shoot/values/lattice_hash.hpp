#pragma once

#include <cstdint>

namespace poquito::shoot {

/// A number in [0, 1) that depends on a whole place and a salt alone: made-up forms and textures are the same on every
/// machine. Mixing after the finaliser of 32-bit Murmur hashing.
inline double lattice_hash(int x, int y, int salt) {
    std::uint32_t h = static_cast<std::uint32_t>(x) * 0x9E3779B9u ^ static_cast<std::uint32_t>(y) * 0x85EBCA6Bu ^
                      static_cast<std::uint32_t>(salt) * 0xC2B2AE35u;
    h ^= h >> 16;
    h *= 0x85EBCA6Bu;
    h ^= h >> 13;
    h *= 0xC2B2AE35u;
    h ^= h >> 16;
    return h / 4294967296.0;
}

}  // namespace poquito::shoot
