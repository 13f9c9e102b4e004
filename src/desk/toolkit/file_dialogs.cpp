#include "desk/toolkit/file_dialogs.hpp"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QStandardPaths>

namespace poquito::desk {

QString askSavePath(QWidget* parent, const QString& title, const QString& suggested, const QString& suffix) {
    const QFileInfo file(inDocuments(suggested));
    QFileDialog dialog(parent, title, file.path(), QStringLiteral("*.%1;;*").arg(suffix));
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix(suffix);
    dialog.selectFile(file.fileName());
    return dialog.exec() == QDialog::Accepted ? dialog.selectedFiles().value(0) : QString();
}

QString inDocuments(const QString& nameOrPath) {
    if (nameOrPath.contains(QLatin1Char('/'))) return nameOrPath;
    return QDir(QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation)).filePath(nameOrPath);
}

}  // namespace poquito::desk
