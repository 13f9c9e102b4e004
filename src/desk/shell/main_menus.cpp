#include "desk/shell/main_window.hpp"

#include "desk/shell/drawing_area.hpp"
#include "desk/shell/gear_windows.hpp"
#include "desk/shell/help.hpp"
#include "desk/shell/shot_cards.hpp"
#include "desk/shell/status_bar.hpp"
#include "desk/subject/start_page.hpp"
#include "desk/toolkit/theme.hpp"

#include <QActionGroup>
#include <QApplication>
#include <QFileInfo>
#include <QMenu>
#include <QSettings>
#include <QUndoGroup>

namespace poquito::desk {

namespace {

constexpr std::array sizes_of_everything = {100, 125, 150, 200};  // per cent

}  // namespace

QAction* MainWindow::action(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                            const std::function<void()>& run) {
    auto* made = menu->addAction(text);
    made->setObjectName(QLatin1String(name));
    made->setShortcut(key);
    connect(made, &QAction::triggered, this, run);
    return made;
}

QAction* MainWindow::shotAction(QMenu* menu, const char* name, const QString& text, const QKeySequence& key,
                                const std::function<void()>& run) {
    shotActions_.push_back(action(menu, name, text, key, run));
    return shotActions_.back();
}

void MainWindow::fillMenus() {
    fillShootMenu(menus_[0]);
    fillEditMenu(menus_[1]);
    fillShotMenu(menus_[2]);
    fillViewMenu(menus_[3]);
    fillHelpMenu(menus_[4]);
}

void MainWindow::fillShootMenu(QMenu* menu) {
    action(menu, "newAction", tr("&New"), QKeySequence::New, [this] {
        if (files_->mayDropChanges()) newShoot();
    });
    action(menu, "openAction", tr("&Open…"), QKeySequence::Open, [this] { files_->askOpen(); });
    recent_ = menu->addMenu(tr("Open &recent"));
    recent_->setToolTipsVisible(true);
    connect(recent_, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    action(menu, "demoAction", tr("Open the &demo"), {}, [this] {
        if (files_->mayDropChanges()) openDemo();
    });
    menu->addSeparator();
    action(menu, "saveAction", tr("&Save"), QKeySequence::Save, [this] { files_->save(); });
    action(menu, "saveAsAction", tr("Save &as…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_S),
           [this] { files_->askSaveAs(); });
    menu->addSeparator();
    action(menu, "quitAction", tr("&Quit"), QKeySequence(Qt::CTRL | Qt::Key_Q), [this] { close(); });
}

void MainWindow::fillEditMenu(QMenu* menu) {
    history_ = new QUndoGroup(this);
    history_->addStack(&document_.undoStack());
    history_->setActiveStack(&document_.undoStack());
    auto* undo = history_->createUndoAction(this, tr("&Undo"));
    undo->setObjectName(QStringLiteral("undoAction"));
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = history_->createRedoAction(this, tr("&Redo"));
    redo->setObjectName(QStringLiteral("redoAction"));
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    menu->addActions({undo, redo});
}

void MainWindow::fillShotMenu(QMenu* menu) {
    action(menu, "addShotAction", tr("&Add"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_N),
           [this] { commands_->add(); });
    shotAction(menu, "duplicateShotAction", tr("&Duplicate"), QKeySequence(Qt::CTRL | Qt::Key_D),
               [this] { commands_->duplicate(); });
    shotAction(menu, "moveUpAction", tr("Move &up"), QKeySequence(Qt::ALT | Qt::Key_Up),
               [this] { commands_->move(-1); });
    shotAction(menu, "moveDownAction", tr("Move do&wn"), QKeySequence(Qt::ALT | Qt::Key_Down),
               [this] { commands_->move(1); });
    shotAction(menu, "removeShotAction", tr("&Remove"), QKeySequence(Qt::CTRL | Qt::Key_Backspace),
               [this] { commands_->remove(); });
    menu->addSeparator();
    shotAction(menu, "previousShotAction", tr("&Previous"), QKeySequence(Qt::CTRL | Qt::Key_PageUp),
               [this] { commands_->step(-1); });
    shotAction(menu, "nextShotAction", tr("&Next"), QKeySequence(Qt::CTRL | Qt::Key_PageDown),
               [this] { commands_->step(1); });
    menu->addSeparator();
    shotAction(menu, "switchLightAction", tr("&Sun or cloud"), QKeySequence(Qt::Key_W),
               [this] { commands_->switchLight(); });
    cards_->addActions(menu->actions());
}

void MainWindow::fillViewMenu(QMenu* menu) {
    for (std::size_t i = 0; i < advice::stations.size(); ++i) {
        const auto station = advice::stations[i];
        const auto name = QByteArray("goTo") + advice::station_name(station);
        action(menu, name.constData(), QLatin1String(advice::station_name(station)),
               QKeySequence(Qt::Key_1 + static_cast<int>(i)), [this, station] { goTo(station); });
    }
    menu->addSeparator();
    action(menu, "daySheetAction", tr("The &day"), QKeySequence(Qt::Key_0), [this] { turnTo(Sheet::day); });
    action(menu, "bookSheetAction", tr("The &book"), QKeySequence(Qt::Key_B), [this] { turnTo(Sheet::book); });
    menu->addSeparator();
    shotAction(menu, "findSetupAction", tr("&Find a set-up\u2026"), QKeySequence(Qt::CTRL | Qt::Key_F),
               [this] { gear_->findSetup(); });
    shotAction(menu, "measureAction", tr("&Measure the lens\u2026"), QKeySequence(Qt::CTRL | Qt::Key_M),
               [this] { gear_->measure(); });
    action(menu, "kitRoomAction", tr("&Kit room\u2026"), QKeySequence(Qt::CTRL | Qt::Key_K), [this] { showKit(); });
    menu->addSeparator();
    action(menu, "elevationAction", tr("Bench from &top or side"), QKeySequence(Qt::CTRL | Qt::Key_E),
           [this] { upper_->turnBench(); });
    action(menu, "themeAction", tr("&Dim theme on or off"), QKeySequence(Qt::CTRL | Qt::Key_T),
           [this] { toggleTheme(); });
    fillSizes(menu->addMenu(tr("&Size of everything")));
}

/// Lettering, drawings and what is touched grow together, so that all keeps its place; from the next start on.
void MainWindow::fillSizes(QMenu* menu) {
    auto* sizes = new QActionGroup(this);
    const int now = QSettings().value(size_key, sizes_of_everything.front()).toInt();
    for (const int percent : sizes_of_everything) {
        auto* made = action(menu, qPrintable(QStringLiteral("size%1Action").arg(percent)), tr("%1 %").arg(percent), {},
                            [this, percent] {
                                QSettings().setValue(size_key, percent);
                                foot_->say(tr("All of it is drawn at %1 % from the next start on").arg(percent));
                            });
        made->setCheckable(true);
        made->setChecked(percent == now);
        sizes->addAction(made);
    }
}

void MainWindow::fillHelpMenu(QMenu* menu) {
    action(menu, "readAction", tr("&Read about this"), QKeySequence(Qt::Key_F1), [this] { read(); });
    action(menu, "handbookAction", tr("&Handbook"), QKeySequence(Qt::SHIFT | Qt::Key_F1),
           [this] { showHandbook(*this); });
    action(menu, "keysAction", tr("&Keys and typing"), QKeySequence(Qt::CTRL | Qt::Key_F1),
           [this] { showKeys(*this); });
    action(menu, "aboutAction", tr("&About Poquito"), {}, [this] { showAbout(*this); });
}

void MainWindow::fillRecent() {
    const auto paths = ShootFiles::recent();
    if (start_) start_->setRecent(paths);
    recent_->clear();
    for (const auto& path : paths) {
        auto* entry = recent_->addAction(QFileInfo(path).fileName());
        entry->setToolTip(path);
        connect(entry, &QAction::triggered, this, [this, path] {
            if (files_->mayDropChanges()) openFile(path);
        });
    }
    if (paths.isEmpty()) recent_->addAction(tr("nothing yet"))->setEnabled(false);
}

void MainWindow::toggleTheme() {
    const auto kind = themeKind() == ThemeKind::light ? ThemeKind::dim : ThemeKind::light;
    applyTheme(*qApp, kind);
    QSettings().setValue(QStringLiteral("dim"), kind == ThemeKind::dim);
    refresh();
}

}  // namespace poquito::desk
