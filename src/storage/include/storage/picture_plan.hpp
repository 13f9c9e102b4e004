#pragma once

#include "shoot/shoot.hpp"
#include "storage/shoot_file.hpp"

#include <string>

/// A picture that carries the plan it was made from: PNG with an XMP packet (ISO 16684-1) that holds a poquito-shoot of
/// that one shot and its gear.
namespace poquito::storage {

/// The bytes of a PNG with the plan put in. What the picture cannot take comes back as an error.
text::Expected<std::string> png_with_plan(const std::string& png, const shoot::Shoot& shoot, std::size_t shot);

/// The shoot of one shot that a picture carries; an error with its place where it carries none, or what it carries is
/// no plan.
text::Expected<shoot::Shoot> plan_in_picture(const std::string& bytes);

}  // namespace poquito::storage
