#pragma once

#include <QString>

class QWidget;

namespace poquito::desk {

/// Asks where to save. `suffix` is put on a name that has none before the dialog looks whether the file is there, so
/// that nothing is overwritten unasked. `suggested`: a path, or a bare name for the documents folder. Empty: cancelled.
QString askSavePath(QWidget* parent, const QString& title, const QString& suggested, const QString& suffix);

/// A bare name in the documents folder, a path as it is.
QString inDocuments(const QString& nameOrPath);

}  // namespace poquito::desk
