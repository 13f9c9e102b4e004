#pragma once

#include <QColor>
#include <QFont>

class QApplication;

/// The look in one place: a drafting table by day, and a dim one for dark studios. Colours go by meaning; lettering on
/// paper, panel and washes has a contrast of 4.5 or more in both.
namespace poquito::desk {

/// `print`: ink on white paper.
enum class ThemeKind { light, dim, print };

struct Theme {
    QColor paper;     // the table
    QColor panel;     // a sheet on it
    QColor ink;       // lettering and outlines
    QColor quiet;     // second lettering
    QColor hairline;  // rules and frames; never lettering
    QColor focus;     // focus plane and depth
    QColor focusWash;
    QColor light;  // lamps, beams
    QColor lightText;
    QColor change;  // work between the pictures; no lettering
    QColor caution;
    QColor cautionWash;
    QColor stop;
    QColor stopWash;
    QColor link;  // links and selection
    QColor linkWash;
    QColor greyScale[4];  // black, dark, grey and white as a picture shows them; the same in both themes
    QColor overPicture;   // lines on a photograph, light over dark; the same in both themes
    QColor underPicture;
    QColor shadePicture;  // what a crop leaves out
    QColor foot;          // the foot line and its lettering
    QColor footText;
};

const Theme& theme();
ThemeKind themeKind();

/// While it lives, what is drawn is drawn in that theme; the application's own stays as it is.
class ThemeScope {
  public:
    explicit ThemeScope(ThemeKind kind);
    ~ThemeScope();
    ThemeScope(const ThemeScope&) = delete;
    ThemeScope& operator=(const ThemeScope&) = delete;

  private:
    ThemeKind before_;
};

/// Fonts, palette and style for the whole application. What is seen is in the new theme at once.
void applyTheme(QApplication& application, ThemeKind kind);

/// Gives a part of the window, and all that is on it, the desk's style sheet. To style two thousand widgets takes
/// seconds: after a change of theme a part that is not seen has it when it shows, or when there is nothing else to do.
/// Parts do not lie on one another, and what holds several of them has no style of its own. Windows are parts by
/// themselves, but for those that hold parts (`holdsParts`).
void stylePart(QWidget* part);
void holdsParts(QWidget* window);

/// The application's face in the sizes that are used: second lines 11, text 12, values and titles up to 15 pixels.
QFont textFont(int pixels = 12, QFont::Weight weight = QFont::Normal);

}  // namespace poquito::desk
