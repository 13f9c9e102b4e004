#pragma once

#include "text/error.hpp"

#include <QObject>
#include <QString>

/// Files of the user's own: the bag, and what is kept beside it.
namespace poquito::desk {

/// `path`, or where it is empty `name` in the user's data folder.
QString userFile(const QString& path, const char* name);

/// Moves a file that could not be read out of the way of the next one: someone may have changed it by hand, or a later
/// version have written it. What to say of it; `whose` begins the sentence, as "The bag".
QString setAside(const QString& path, const QString& whose, const text::Error& why);

/// Says with `say` what is wrong with a library's file, if anything, once whoever listens to `page` does.
template <typename Library, typename Page>
void tellProblem(Library& library, Page* page, void (Page::*say)(const QString& words)) {
    QMetaObject::invokeMethod(
        page,
        [&library, page, say] {
            if (const auto words = library.takeProblem(); !words.isEmpty()) (page->*say)(words);
        },
        Qt::QueuedConnection);
}

}  // namespace poquito::desk
