#pragma once

#include <QDir>
#include <QImage>
#include <QProcess>
#include <QString>

#include <vector>

namespace poquito::test {

/// Text of a PDF by poppler's own tool; empty where it is not installed.
inline QString pdfText(const QString& path) {
    QProcess tool;
    tool.start(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), path, QStringLiteral("-")});
    return tool.waitForFinished() ? QString::fromUtf8(tool.readAllStandardOutput()) : QString();
}

/// Its pictures in their order, by another of them, left in `folder`.
inline std::vector<QImage> pdfPictures(const QString& path, const QDir& folder) {
    QProcess::execute(QStringLiteral("pdfimages"), {QStringLiteral("-png"), path, folder.filePath("picture")});
    std::vector<QImage> pictures;
    for (const auto& name : folder.entryList({QStringLiteral("picture-*.png")}, QDir::Files, QDir::Name))
        pictures.emplace_back(folder.filePath(name));
    return pictures;
}

}  // namespace poquito::test
