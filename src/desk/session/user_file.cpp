#include "desk/session/user_file.hpp"

#include "desk/text/to_qt.hpp"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>

namespace poquito::desk {

QString userFile(const QString& path, const char* name) {
    if (!path.isEmpty()) return path;
    return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation)).filePath(QLatin1String(name));
}

QString setAside(const QString& path, const QString& whose, const text::Error& why) {
    const QString aside = path + QDateTime::currentDateTime().toString(QStringLiteral("'.unread-'yyyyMMdd-hhmmss"));
    // Where that fails nothing can be written there either: the new one takes its place by a rename as well.
    QFile::rename(path, aside);
    return QCoreApplication::translate("UserFile", "%1 could not be read and stands aside as %2. %3")
        .arg(whose, QFileInfo(aside).fileName(), toQt(text::message(why)));
}

}  // namespace poquito::desk
