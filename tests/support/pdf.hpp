#pragma once

#include <QProcess>
#include <QString>

namespace poquito::test {

/// Text of a PDF by poppler's own tool; empty where it is not installed.
inline QString pdfText(const QString& path) {
    QProcess tool;
    tool.start(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), path, QStringLiteral("-")});
    return tool.waitForFinished() ? QString::fromUtf8(tool.readAllStandardOutput()) : QString();
}

}  // namespace poquito::test
