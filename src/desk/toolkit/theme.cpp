#include "desk/toolkit/theme.hpp"

#include "desk/toolkit/plain_text.hpp"

#include <QApplication>
#include <QFontDatabase>
#include <QHash>
#include <QPainter>
#include <QPalette>
#include <QProxyStyle>
#include <QStyleFactory>
#include <QTimer>
#include <QWidget>

#include <algorithm>
#include <utility>
#include <vector>

namespace poquito::desk {
namespace {

ThemeKind current = ThemeKind::light;

const Theme light_theme = {.paper = "#F4EFE4",
                           .panel = "#FBF8F1",
                           .ink = "#1D2B30",
                           .quiet = "#5A676B",
                           .hairline = "#D3CAB8",
                           .focus = "#0B716C",
                           .focusWash = "#CFE5DF",
                           .light = "#C58A12",
                           .lightText = "#7A5200",
                           .change = "#C9A26B",
                           .caution = "#8A5000",
                           .cautionWash = "#F6E4C3",
                           .stop = "#9E3522",
                           .stopWash = "#F3D9D0",
                           .link = "#2F557F",
                           .linkWash = "#DCE5EF",
                           .greyScale = {"#15191B", "#454B4D", "#9A9F9F", "#FFFFFF"},
                           .overPicture = "#D2FFFFFF",
                           .underPicture = "#96000000",
                           .shadePicture = "#8C000000",
                           .foot = "#1D2B30",
                           .footText = "#F4EFE4"};

const Theme dim_theme = {.paper = "#141B20",
                         .panel = "#1B242A",
                         .ink = "#E6DFD0",
                         .quiet = "#A3A79F",
                         .hairline = "#3A464C",
                         .focus = "#5FC2B6",
                         .focusWash = "#1D4643",
                         .light = "#E0AC4A",
                         .lightText = "#E8BE6E",
                         .change = "#8A7146",
                         .caution = "#E9B25C",
                         .cautionWash = "#40331B",
                         .stop = "#EE9482",
                         .stopWash = "#4A2720",
                         .link = "#9DBEE4",
                         .linkWash = "#263847",
                         .greyScale = {"#15191B", "#454B4D", "#9A9F9F", "#FFFFFF"},
                         .overPicture = "#D2FFFFFF",
                         .underPicture = "#96000000",
                         .shadePicture = "#8C000000",
                         .foot = "#0C1114",
                         .footText = "#E6DFD0"};

QPalette palette_of(const Theme& t) {
    QPalette palette;
    palette.setColor(QPalette::Window, t.paper);
    palette.setColor(QPalette::WindowText, t.ink);
    palette.setColor(QPalette::Base, t.panel);
    palette.setColor(QPalette::AlternateBase, t.paper);
    palette.setColor(QPalette::Text, t.ink);
    palette.setColor(QPalette::PlaceholderText, t.quiet);
    palette.setColor(QPalette::Button, t.panel);
    palette.setColor(QPalette::ButtonText, t.ink);
    palette.setColor(QPalette::BrightText, t.stop);
    palette.setColor(QPalette::Highlight, t.link);
    palette.setColor(QPalette::HighlightedText, t.panel);
    palette.setColor(QPalette::Link, t.link);
    palette.setColor(QPalette::LinkVisited, t.link);
    palette.setColor(QPalette::ToolTipBase, t.panel);
    palette.setColor(QPalette::ToolTipText, t.ink);
    palette.setColor(QPalette::Mid, t.hairline);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, t.quiet);
    return palette;
}

QString style_sheet(const Theme& t) {
    QString sheet = R"(
QMenuBar { background: @paper; color: @ink; padding: 1px 6px; }
QMenuBar::item { padding: 3px 9px; border-radius: 3px; background: transparent; }
QMenuBar::item:selected { background: @linkWash; }
QMenu { background: @panel; color: @ink; border: 1px solid @hairline; padding: 4px; }
QMenu::item { padding: 4px 22px 4px 12px; border-radius: 3px; }
QMenu::item:selected { background: @linkWash; }
QMenu::item:disabled { color: @quiet; }
QMenu::separator { height: 1px; background: @hairline; margin: 4px 6px; }
QToolTip { background: @panel; color: @ink; border: 1px solid @hairline; padding: 4px; }
QAbstractSpinBox, QLineEdit, QComboBox, QPlainTextEdit {
  background: @panel; color: @ink; border: 1px solid @hairline; border-radius: 3px; padding: 1px 6px; min-height: 20px;
  selection-background-color: @link; selection-color: @panel; }
QAbstractSpinBox:focus, QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus { border: 2px solid @link; padding: 0px 5px; }
QLineEdit[bare="true"] { background: transparent; border: 1px solid transparent; }
QLineEdit[bare="true"]:hover { border-color: @hairline; }
QLineEdit[bare="true"]:focus { background: @panel; border: 2px solid @link; }
QAbstractSpinBox[wrong="true"], QLineEdit[wrong="true"] { border: 2px solid @stop; padding: 0px 5px; }
QAbstractSpinBox:disabled, QComboBox:disabled { color: @quiet; background: @paper; }
QAbstractSpinBox::up-button, QAbstractSpinBox::down-button { width: 0px; }
QComboBox::drop-down { border: none; width: 18px; }
QComboBox::down-arrow { image: url(:/data/chevron.svg); width: 12px; height: 12px; }
QComboBox QAbstractItemView { background: @panel; color: @ink; border: 1px solid @hairline; selection-background-color: @linkWash;
  selection-color: @ink; outline: none; }
QPushButton, QToolButton { background: @panel; color: @ink; border: 1px solid @hairline; border-radius: 3px; padding: 2px 9px; min-height: 20px; }
QPushButton:hover, QToolButton:hover { border-color: @link; }
QPushButton:focus, QToolButton:focus { border: 2px solid @link; padding: 1px 8px; }
QPushButton:disabled, QToolButton:disabled { color: @quiet; background: @paper; }
QFileDialog QToolButton { padding: 2px; }
QToolButton[chip="true"] { padding: 1px 6px; min-height: 18px; }
QToolButton[chip="true"]:focus { padding: 0px 5px; }
QToolButton:checked, QPushButton:checked { background: @linkWash; border-color: @link; font-weight: 600; }
QToolButton[link="true"] { background: transparent; border: 1px solid transparent; color: @link; font-weight: 600; padding: 0px 2px; min-height: 18px; text-align: left; }
QPushButton[link="true"] { background: transparent; border: 1px solid transparent; color: @link; font-weight: 600; padding: 0px; min-height: 18px; text-align: left; }
QPushButton[link="true"]:focus { border: 1px solid @link; }
QToolButton[sheetButton="true"] { background: transparent; border: 1px solid transparent; padding: 3px 10px; color: @quiet; }
QToolButton[sheetButton="true"]:hover { border-color: @hairline; color: @ink; }
QToolButton[sheetButton="true"]:focus { border: 1px solid @link; padding: 3px 10px; }
QToolButton[sheetButton="true"]:checked { background: @linkWash; border-color: @link; color: @ink; font-weight: 600; }
QToolButton[sheetButton="true"]:checked:focus { border: 2px solid @link; padding: 2px 9px; }
QToolButton::menu-indicator { image: none; }
QToolButton[link="true"]:hover, QPushButton[link="true"]:hover { text-decoration: underline; }
QToolButton[link="true"]:focus { border: 1px solid @link; }
QCheckBox, QRadioButton { color: @ink; spacing: 5px; min-height: 20px; }
QCheckBox:focus, QRadioButton:focus { color: @link; }
QCheckBox::indicator, QRadioButton::indicator, QListView::indicator { width: 12px; height: 12px; background: @panel; border: 1px solid @quiet; border-radius: 2px; }
QRadioButton::indicator { border-radius: 7px; }
QCheckBox::indicator:focus, QRadioButton::indicator:focus { border: 1px solid @link; }
QCheckBox::indicator:checked, QListView::indicator:checked { image: url(:/data/check.svg); border-color: @focus; }
QRadioButton::indicator:checked { image: url(:/data/dot.svg); border-color: @focus; }
QLabel[quiet="true"] { color: @quiet; }
QLabel[problem="true"] { color: @stop; }
QLabel[wash="true"] { background: @linkWash; border-radius: 3px; padding: 5px 7px; }
QFrame[sheet="true"] { background: @panel; border: 1px solid @hairline; border-radius: 4px; }
QScrollArea { background: transparent; border: none; }
QListView, QTableView, QTreeView, QTextBrowser { background: @panel; color: @ink; border: 1px solid @hairline; border-radius: 3px; outline: none; }
QListView[bare="true"], QTextBrowser[bare="true"] { background: transparent; border: none; }
QTextBrowser:focus, QTableView:focus, QListView:focus { border: 2px solid @link; }
QListView[bare="true"]:focus { border: none; }
QListView[chips="true"] { background: transparent; border: 1px solid @paper; }
QListView[chips="true"]:focus { border: 1px solid @link; }
QListView[chips="true"]::item { background: @panel; color: @ink; border: 1px solid @hairline; border-radius: 3px; padding: 1px 5px; }
QListView[chips="true"]::item:selected { background: @linkWash; border: 1px solid @link; }
QTextBrowser[bare="true"]:focus { border: none; border-left: 2px solid @link; padding-left: 4px; }
QHeaderView::section { background: @panel; color: @quiet; border: none; border-bottom: 1px solid @hairline; padding: 2px 6px; }
QScrollBar:vertical { background: transparent; width: 9px; margin: 0; }
QScrollBar:horizontal { background: transparent; height: 9px; margin: 0; }
QScrollBar::handle { background: @hairline; border-radius: 4px; min-height: 24px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page { background: none; width: 0; height: 0; }
QSlider::groove:horizontal { height: 2px; background: @hairline; }
QSlider::handle:horizontal { width: 11px; height: 16px; margin: -8px 0; background: @focus; border: 1px solid @panel; border-radius: 3px; }
QSlider:focus { border: 1px solid @link; border-radius: 3px; }
)";
    const std::pair<const char*, QColor> names[] = {// longer names first: @link is also the beginning of @linkWash
                                                    {"@cautionWash", t.cautionWash},
                                                    {"@focusWash", t.focusWash},
                                                    {"@stopWash", t.stopWash},
                                                    {"@linkWash", t.linkWash},
                                                    {"@hairline", t.hairline},
                                                    {"@caution", t.caution},
                                                    {"@paper", t.paper},
                                                    {"@panel", t.panel},
                                                    {"@quiet", t.quiet},
                                                    {"@focus", t.focus},
                                                    {"@stop", t.stop},
                                                    {"@link", t.link},
                                                    {"@ink", t.ink}};
    for (const auto& [name, colour] : names) sheet.replace(QLatin1String(name), colour.name());
    return sheet;
}

void load_face(const char* face) {
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/PoquitoSans-%1.otf").arg(QLatin1String(face)));
}

/// The faces nearly everything is lettered in. Reading one takes longer than drawing a drawing: the third comes with
/// the first font that asks for it.
void load_fonts() {
    static bool loaded = false;
    if (loaded) return;
    loaded = true;
    for (const char* face : {"Regular", "SemiBold"}) load_face(face);
}

}  // namespace

const Theme& theme() {
    static const Theme print_theme = [] {
        Theme made = light_theme;
        made.paper = made.panel = Qt::white;
        return made;
    }();
    return current == ThemeKind::dim ? dim_theme : current == ThemeKind::print ? print_theme : light_theme;
}
ThemeScope::ThemeScope(ThemeKind kind) : before_(std::exchange(current, kind)) {}
ThemeScope::~ThemeScope() { current = before_; }
ThemeKind themeKind() { return current; }

namespace {

/// The toolkit's plain style with the desk's own marks in its questions: a stop is a square, a caution a triangle, what
/// is asked and what is only said a disc, as everywhere on the desk.
class DeskStyle : public QProxyStyle {
  public:
    DeskStyle() : QProxyStyle(QStyleFactory::create(QStringLiteral("Fusion"))) {}

    int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget,
                  QStyleHintReturn* data) const override {
        if (hint == SH_DialogButtonBox_ButtonsHaveIcons) return 0;
        return QProxyStyle::styleHint(hint, option, widget, data);
    }
    /// What lies between two parts of the window shows nothing of itself.
    void drawControl(ControlElement element, const QStyleOption* option, QPainter* painter,
                     const QWidget* widget) const override {
        if (element != CE_Splitter) QProxyStyle::drawControl(element, option, painter, widget);
    }
    QIcon standardIcon(StandardPixmap which, const QStyleOption* option, const QWidget* widget) const override {
        switch (which) {
            case SP_MessageBoxCritical:
            case SP_MessageBoxWarning:
            case SP_MessageBoxQuestion:
            case SP_MessageBoxInformation:
                return mark(which);
            default:
                return QProxyStyle::standardIcon(which, option, widget);
        }
    }

  private:
    static QIcon mark(StandardPixmap which) {
        constexpr int size = 128;  // drawn large and scaled down, for screens of any fineness
        QPixmap drawn(size, size);
        drawn.fill(Qt::transparent);
        QPainter painter(&drawn);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.scale(size / 32.0, size / 32.0);
        const Theme& t = theme();
        const bool stop = which == SP_MessageBoxCritical, caution = which == SP_MessageBoxWarning;
        painter.setPen(QPen(stop      ? t.stop
                            : caution ? t.caution
                                      : t.link,
                            2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        painter.setBrush(stop ? t.stopWash : caution ? t.cautionWash : t.linkWash);
        if (stop)
            painter.drawRect(QRectF(5, 5, 22, 22));
        else if (caution)
            painter.drawPolygon(QPolygonF({QPointF(16, 4), QPointF(29, 27), QPointF(3, 27)}));
        else
            painter.drawEllipse(QRectF(4, 4, 24, 24));
        QFont font = textFont(15, QFont::Bold);
        painter.setFont(font);
        painter.setPen(t.ink);
        painter.drawText(QRectF(0, caution ? 5 : 0, 32, 32), Qt::AlignCenter,
                         which == SP_MessageBoxQuestion      ? QStringLiteral("?")
                         : which == SP_MessageBoxInformation ? QStringLiteral("i")
                                                             : QStringLiteral("!"));
        return QIcon(drawn);
    }
};

constexpr const char* holds_parts = "holdsParts";

/// Keeps a part in the theme that is on.
class PartStyle : public QObject {
  public:
    explicit PartStyle(QWidget* part) : QObject(part), part_(part) {
        all().push_back(this);
        part->installEventFilter(this);
        freshen();
    }
    ~PartStyle() override { std::erase(all(), this); }

    static void restyle(const QString& sheet) {
        if (sheet == sheetNow()) return;
        sheetNow() = sheet;
        // Making one new may make others: those that are here now.
        const auto now = all();
        for (auto* part : now)
            if (part->part_->isVisible()) part->freshen();
        idle();
    }
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Show) freshen();
        return false;
    }

  private:
    static std::vector<PartStyle*>& all() {
        static std::vector<PartStyle*> parts;
        return parts;
    }
    static QString& sheetNow() {
        static QString sheet;
        return sheet;
    }
    /// One at a time, so that what a person does comes between.
    static void idle() {
        static QTimer* timer = [] {
            auto* made = new QTimer(qApp);
            made->setInterval(0);
            QObject::connect(made, &QTimer::timeout, made, [made] {
                const auto stale = std::ranges::find_if(all(), [](auto* part) { return part->sheet_ != sheetNow(); });
                if (stale == all().end()) return made->stop();
                (*stale)->freshen();
            });
            return made;
        }();
        timer->start();
    }
    void freshen() {
        if (sheet_ == sheetNow()) return;
        sheet_ = sheetNow();
        part_->setStyleSheet(sheet_);
    }

    QWidget* part_;
    QString sheet_;  // it has
};

/// Dialogs, menus and whatever else opens over the desk.
class WindowStyles : public QObject {
  public:
    using QObject::QObject;
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() != QEvent::Polish || !watched->isWidgetType()) return false;
        auto* widget = static_cast<QWidget*>(watched);
        // Tips take the style of what they are about.
        if (!widget->isWindow() || widget->property(holds_parts).toBool() || widget->inherits("QTipLabel"))
            return false;
        for (const QObject* on = widget; on; on = on->parent())
            for (const auto* child : on->children())
                if (dynamic_cast<const PartStyle*>(child)) return false;
        stylePart(widget);
        return false;
    }
};

}  // namespace

void applyTheme(QApplication& application, ThemeKind kind) {
    current = kind;
    load_fonts();
    static bool styled = false;  // once
    if (!std::exchange(styled, true)) {
        QApplication::setStyle(new DeskStyle);
        QApplication::setFont(textFont());
        new PlainText(&application);
        application.installEventFilter(new WindowStyles(&application));
    }
    QApplication::setPalette(palette_of(theme()));
    PartStyle::restyle(style_sheet(theme()));
}

void stylePart(QWidget* part) { new PartStyle(part); }
void holdsParts(QWidget* window) { window->setProperty(holds_parts, true); }

QFont textFont(int pixels, QFont::Weight weight) {
    // Copies of one QFont share what Qt looked up for it; drawings ask for the same few fonts again and again.
    static QHash<std::pair<int, int>, QFont> made;
    const std::pair key(pixels, static_cast<int>(weight));
    if (const auto known = made.constFind(key); known != made.constEnd()) return *known;
    static bool medium = false;
    if (weight == QFont::Medium && !std::exchange(medium, true)) load_face("Medium");
    QFont font(QStringLiteral("Poquito Sans"));
    font.setPixelSize(pixels);
    font.setWeight(weight);
    font.setHintingPreference(QFont::PreferVerticalHinting);
    made.insert(key, font);
    return font;
}

}  // namespace poquito::desk
