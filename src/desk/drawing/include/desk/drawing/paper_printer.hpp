#pragma once

#include "advice/advice.hpp"
#include "text/error.hpp"

#include <QString>

#include <optional>
#include <vector>

class QPrinter;

namespace poquito::desk {

/// Writes the run sheet of the whole shoot. To a path that ends in .html as one page with its drawings in it, which
/// reads on a phone, too; else as an A4 PDF: the day and what to pack, then as many shots a page as go there whole.
/// Saving is atomic. Empty: it is done.
text::Expected<void> writePaper(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                                const QString& path);

/// To a printer that was set up by a person.
void printPaper(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer);

}  // namespace poquito::desk
