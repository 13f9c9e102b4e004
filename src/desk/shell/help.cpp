#include "desk/shell/help.hpp"

#include "desk/shell/handbook_window.hpp"

#include <QMessageBox>

namespace poquito::desk {

void showHandbook(QWidget& window, const QString& place) {
    auto* handbook = window.findChild<HandbookWindow*>();
    if (!handbook) handbook = new HandbookWindow(&window);
    handbook->show();
    handbook->raise();
    handbook->activateWindow();
    if (!place.isEmpty()) handbook->goTo(place);
}

void showKeys(QWidget& window) {
    QMessageBox box(&window);
    box.setObjectName(QStringLiteral("keysHelp"));
    box.setWindowTitle(QObject::tr("Keys and typing"));
    box.setTextFormat(Qt::RichText);
    box.setText(QObject::tr(
        "<p><b>Sheets</b> 0 the day, B the book, the same key again goes back &nbsp; <b>Stations</b> 1 to 6 &nbsp; "
        "<b>Shots</b> Ctrl+PageUp, Ctrl+PageDown; Alt+Up and Alt+Down move one</p>"
        "<p><b>Reading</b> F1 opens the page about what is shown, or about the number that has the keys, and explains "
        "the words of whatever has them; F1 or Escape closes it. Shift+F1 the whole handbook</p>"
        "<p><b>Numbers</b> arrow keys and wheel step along the field's own scale, thirds of a stop where there are "
        "any; "
        "Page Up and Page Down step ten. Escape takes back what is half typed.</p>"
        "<p><b>Typing</b> f/5.6 · 1/200 · 2\" (seconds in times, inches in lengths) · 1/8 +0.3 · 3/4\" · 250 um · "
        "3.5 cm · 1:2 · 25 %</p>"
        "<p><b>At the right</b> a click or Enter opens a headline, the working of a number, or takes what a note "
        "offers. "
        "<b>Day</b> arrow keys choose a line, with Alt they move it. <b>Light</b> W switches between sun and cloud. "
        "<b>Bench</b> lights and background are "
        "dragged, a light is turned by the circle on its beam; Ctrl+E turns the bench.</p>"
        "<p><b>Train</b> arrow keys choose a piece, with Shift they move it; Delete takes it off; R turns the lens "
        "round. <b>Gear</b> Ctrl+F finds a set-up, Ctrl+M measures the lens, Ctrl+K or B opens the kit room.</p>"
        "<p><b>Finder</b> a click focuses there, a drag or the arrow keys (finer with Shift) move the loupe, Enter "
        "focuses "
        "where it is. <b>Ladder</b> and <b>judgement</b> arrow keys choose; Enter takes.</p>"
        "<p><b>Balance</b> arrow keys move the dot by a third of a stop. <b>Freeze</b> F takes the brightest power "
        "that "
        "freezes by its aperture, I by ISO. <b>Test frame</b> Enter opens its picture.</p>"));
    box.exec();
}

void showAbout(QWidget& window) {
    QMessageBox box(&window);
    box.setObjectName(QStringLiteral("aboutPoquito"));
    box.setWindowTitle(QObject::tr("About Poquito"));
    box.setTextFormat(Qt::RichText);
    box.setText(QObject::tr("<b>Poquito " POQUITO_VERSION "</b><p>Plans, runs and checks close-up photographs.</p>"
                            "<p>Free software under the GNU General Public License, version 3 or later. "
                            "Lettering: Inter, SIL Open Font License 1.1, with tabular figures.</p>"));
    box.exec();
}

}  // namespace poquito::desk
