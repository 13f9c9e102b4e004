#pragma once

#include "advice/advice.hpp"
#include "storage/read_error.hpp"

#include <QString>

class QPrinter;

namespace poquito::desk {

/// The run sheet of the whole shoot as an A4 PDF. Saving is atomic. Empty: it is done.
std::optional<storage::ReadError> writeSheetPdf(const shoot::Shoot& shoot,
                                                const std::vector<advice::Assessment>& assessments,
                                                const QString& path);

/// To a printer that was set up by a person.
void printSheet(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer);

}  // namespace poquito::desk
