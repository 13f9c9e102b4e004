#pragma once

#include "job/outlets.hpp"
#include "proof/cut_picture.hpp"

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

/// The pictures that a shoot's outlets get, as files: a folder an outlet, JPEG of 8 bits in sRGB.
namespace poquito::proof {

struct DeliveryJob {
    std::filesystem::path to;
    std::vector<PicturePart> parts;
    std::optional<double> most_long_px, least_short_px;  // that its outlet takes
};
struct DeliveryPlan {
    std::vector<DeliveryJob> jobs;
    std::vector<std::string> missing;  // for people: what cannot be written, and why
};
/// Names are made of ids and views by storage::safe_name, each once: nothing is written outside of `folder`.
/// Finished pictures are taken from the folder `finished` in `folder`, by the id of their shot; a single frame without
/// one goes as its last run took it.
DeliveryPlan delivery_plan(const shoot::Shoot& shoot, const job::AllAssessed& shots,
                           const std::filesystem::path& folder);

/// What came of one.
struct Delivered {
    int width = 0, height = 0;
    std::string problem;  // empty: it is written, and as its outlet takes it
};
/// With a picture that is there already.
enum class IfThere { keep, replace };
Delivered deliver(const DeliveryJob& job, IfThere there);

}  // namespace poquito::proof
