#include "storage/shoot_file.hpp"

#include "storage/atomic_file.hpp"

namespace poquito::storage {

text::Expected<shoot::Shoot> load_shoot(const std::filesystem::path& path) {
    sweep_unfinished(path);
    auto text = read_file(path);
    if (!text) return std::move(text.error());
    return read_shoot(*text);
}

text::Expected<void> save_shoot(const shoot::Shoot& shoot, const std::filesystem::path& path) {
    return replace_file(path, write_shoot(shoot));
}

}  // namespace poquito::storage
