#pragma once

#include "text/text.hpp"

#include <QString>

#include <string>

namespace poquito::desk {

/// Text of the core, UTF-8, as Qt has it.
inline QString toQt(const std::string& text) { return QString::fromStdString(text); }

/// +0.1, −7.2, 0.0.
inline QString stopsText(double stops) { return toQt(text::stops_text(stops)); }

/// 12 µm, 3.4 mm.
inline QString lengthText(double mm) { return toQt(text::length_text(mm)); }

/// A share of one, to three digits unless asked otherwise: 12.5 %.
inline QString percentText(double share, int digits = 3) {
    return toQt(text::number_text(share * 100, digits)) + QStringLiteral(" %");
}

}  // namespace poquito::desk
