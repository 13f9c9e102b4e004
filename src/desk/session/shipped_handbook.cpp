#include "desk/session/shipped_handbook.hpp"

#include "desk/text/to_qt.hpp"

#include <QFile>
#include <QStringList>

namespace poquito::desk {

const handbook::Handbook& shippedHandbook() {
    static const auto shipped = [] {
        QFile file(QStringLiteral(":/data/handbook.json"));
        if (!file.open(QIODevice::ReadOnly)) return handbook::Handbook();
        auto read = handbook::read_handbook(file.readAll().toStdString());
        return read ? std::move(*read) : handbook::Handbook();
    }();
    return shipped;
}

QString explained(const std::vector<const handbook::Word*>& words, std::size_t most) {
    QStringList lines;
    for (std::size_t i = 0; i < std::min(most, words.size()); ++i) {
        QString word = toQt(words[i]->word);
        if (word[0].unicode() < 0x80) word[0] = word[0].toUpper();  // a small mu is one
        lines << QStringLiteral("<p style=\"margin:0 0 4px 0\"><span style=\"font-weight:600\">%1.</span> %2</p>")
                     .arg(word.toHtmlEscaped(), toQt(words[i]->says).toHtmlEscaped());
    }
    return lines.join(QString());
}

}  // namespace poquito::desk
