#pragma once

#include "proof/inspection.hpp"
#include "storage/atomic_file.hpp"
#include "support/folder.hpp"
#include "support/photographs.hpp"

#include <catch2/catch.hpp>

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <functional>
#include <iterator>
#include <string>
#include <variant>
#include <vector>

/// Stacks of made-up photographs as files of a camera.
namespace poquito::test {

inline constexpr int frames_of_scene = 14;  // of a whole stack of the scene

inline std::vector<Photographs::Frame> whole() {
    std::vector<Photographs::Frame> all;
    for (int i = 0; i < frames_of_scene; ++i) all.push_back({.focus = static_cast<double>(i)});
    return all;
}

/// The files of a stack, as a camera numbers them.
class Stack {
  public:
    explicit Stack(const Photographs& scene) : scene_(scene) {}

    storage::FrameExif exif = {.f_number = 5.6, .shutter = 1.0 / 160, .iso = 100, .focal_length = 90, .flash = true};

    /// What is changed in each picture before it is written.
    std::function<void(storage::FramePicture& picture, int number)> touch;

    std::filesystem::path put(const Photographs::Frame& frame, int number) { return put(frame, number, exif); }
    std::filesystem::path put(const Photographs::Frame& frame, int number, const storage::FrameExif& said) {
        const auto path = folder_.path() / fmt::format("IMG_{:04}.jpg", number);
        auto picture = scene_.picture(frame, number);
        if (touch) touch(picture, number);
        const auto bytes = storage::frame_file(picture, said).value();
        REQUIRE(storage::replace_file(path, bytes));
        files_.push_back(path);
        return path;
    }
    Stack& put(const std::vector<Photographs::Frame>& all) {
        for (const auto& frame : all) put(frame, static_cast<int>(files_.size()) + 1);
        return *this;
    }
    proof::Inspection look(bool singles = false) const {
        return *proof::inspect({.files = files_, .singles = singles});
    }
    std::vector<std::filesystem::path>& files() { return files_; }
    const test::Folder& folder() const { return folder_; }

  private:
    const Photographs& scene_;
    test::Folder folder_;
    std::vector<std::filesystem::path> files_;
};

/// Made once: its blurred textures take longer than a stack of pictures.
inline const Photographs& scene() {
    static const Photographs made({});
    return made;
}

inline std::vector<proof::Code> codes(const std::vector<proof::Finding>& findings) {
    std::vector<proof::Code> all;
    for (const auto& finding : findings) all.push_back(finding.code);
    return all;
}
/// Of the whole inspection.
inline std::vector<proof::Code> codes(const proof::Inspection& inspection) {
    std::vector<proof::Code> all = inspection.stack ? codes(inspection.stack->findings) : std::vector<proof::Code>();
    for (const auto& frame : inspection.frames) std::ranges::copy(codes(frame.findings), std::back_inserter(all));
    return all;
}
inline const std::vector<proof::Code> nothing;

}  // namespace poquito::test
