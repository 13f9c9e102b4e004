#include "storage/shoot_file.hpp"

#include "storage/atomic_file.hpp"

namespace poquito::storage {

ReadResult<shoot::Shoot> load_shoot(const std::filesystem::path& path) {
    sweep_unfinished(path);
    auto text = read_file(path);
    if (auto* error = std::get_if<ReadError>(&text)) return std::move(*error);
    return read_shoot(std::get<std::string>(text));
}

std::optional<ReadError> save_shoot(const shoot::Shoot& shoot, const std::filesystem::path& path) {
    return replace_file(path, write_shoot(shoot));
}

}  // namespace poquito::storage
