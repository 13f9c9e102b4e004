#pragma once

class QWidget;

/// What the Help menu shows, each over `window`.
namespace poquito::desk {

void showHandbook(QWidget& window);
void showKeys(QWidget& window);
void showAbout(QWidget& window);

}  // namespace poquito::desk
