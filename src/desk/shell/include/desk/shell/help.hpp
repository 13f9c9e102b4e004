#pragma once

#include <QString>

class QWidget;

/// What the Help menu shows, each over `window`.
namespace poquito::desk {

/// `place`: what is shown, by its object name, or the id of a page; empty: where it was.
void showHandbook(QWidget& window, const QString& place = {});
void showKeys(QWidget& window);
void showAbout(QWidget& window);

}  // namespace poquito::desk
