#pragma once

#include <QString>

#include <string>

namespace poquito::desk {

/// Text of the core, UTF-8, as Qt has it.
inline QString toQt(const std::string& text) { return QString::fromStdString(text); }

}  // namespace poquito::desk
