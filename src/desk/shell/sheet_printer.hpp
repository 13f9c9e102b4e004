#pragma once

#include "advice/advice.hpp"
#include "storage/read_error.hpp"

#include <QString>

#include <string>

class QPrinter;

namespace poquito::desk {

/// The run sheet of the whole shoot as one HTML page with its drawings in it; reads on a phone, too.
std::string sheetPage(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments);

/// The run sheet of the whole shoot as an A4 PDF: the day and what to pack, then as many shots a page as go there
/// whole. Saving is atomic. Empty: it is done.
std::optional<storage::ReadError> writeSheetPdf(const shoot::Shoot& shoot,
                                                const std::vector<advice::Assessment>& assessments,
                                                const QString& path);

/// To a printer that was set up by a person.
void printSheet(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer);

}  // namespace poquito::desk
