#include "storage/kit_file.hpp"

#include "storage/atomic_file.hpp"
#include "storage/kit_json.hpp"

namespace poquito::storage {
namespace {

gear::Kit read_document(const Json& document) {
    const Node root(document);
    ObjectReader object(root);
    object.member("format", "\"poquito-kit\"").one_of<int>({{"poquito-kit", 0}});
    const Node version = object.member("version", "1");
    if (!version.value().is_number() || version.value() != kit_version)
        version.fail_expecting("1, the version this program reads");
    return read_kit(object.member("kit", "an object"));
}

bool is_csv(const std::filesystem::path& path) { return path.extension() == ".csv"; }

}  // namespace

text::Expected<gear::Kit> read_kit_json(std::string_view text) {
    try {
        return read_document(parse_json(text));
    } catch (text::Error& error) {
        return std::move(error);
    }
}

std::string write_kit_json(const gear::Kit& kit) {
    const Json document = {{"format", "poquito-kit"}, {"version", kit_version}, {"kit", write_kit(kit)}};
    return document.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

text::Expected<gear::Kit> load_kit(const std::filesystem::path& path) {
    auto text = read_file(path);
    if (!text) return std::move(text.error());
    const auto& content = *text;
    return is_csv(path) ? read_kit_csv(content) : read_kit_json(content);
}

text::Expected<void> save_kit(const gear::Kit& kit, const std::filesystem::path& path) {
    return replace_file(path, is_csv(path) ? write_kit_csv(kit) : write_kit_json(kit));
}

}  // namespace poquito::storage
