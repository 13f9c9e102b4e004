#include "desk/shell/shoot_files.hpp"

#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "shoot/change/edit.hpp"
#include "storage/atomic_file.hpp"
#include "storage/picture_plan.hpp"
#include "storage/shoot_file.hpp"

#include <QDateTime>
#include <QDir>
#include <QEventLoop>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QTimer>

namespace poquito::desk {
namespace {

constexpr int most_recent = 8;
const auto recent_key = QStringLiteral("recent");
const auto file_filter = QStringLiteral("Poquito shoots and pictures with a plan (*.poquito *.png);;All files (*)");

bool isPicture(const QString& path) { return path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive); }

}  // namespace

ShootFiles::ShootFiles(Document& document, RunController& runs, QWidget& window)
    : QObject(&window), document_(document), runs_(runs), window_(window) {}

bool ShootFiles::open(const QString& path) {
    if (isPicture(path)) return restorePicture(path);
    const auto mark = storage::mark_of(path.toStdString());
    auto loaded = storage::load_shoot(path.toStdString());
    if (!loaded) {
        Q_EMIT problemFound(
            tr("%1 was not opened. %2").arg(QFileInfo(path).fileName(), toQt(text::message(loaded.error()))));
        return false;
    }
    Q_EMIT problemFound({});
    mark_ = mark;
    document_.open(std::move(*loaded), QFileInfo(path).absoluteFilePath());
    remember(document_.path());
    return true;
}

/// The plan in a picture becomes a shot of this shoot: in the place of the one with its id, else behind the selected
/// one.
bool ShootFiles::restorePicture(const QString& path) {
    const auto name = QFileInfo(path).fileName();
    const auto bytes = storage::read_file(path.toStdString());
    auto plan = bytes ? storage::plan_in_picture(*bytes) : bytes.error();
    if (!plan) {
        Q_EMIT problemFound(tr("%1 brings no plan. %2").arg(name, toQt(text::message(plan.error()))));
        return false;
    }
    Q_EMIT problemFound({});
    shoot::Adopted adopted;
    document_.edit({tr("Restore a plan")}, [&](shoot::Shoot& shoot) {
        const auto after = document_.current() < 0 ? shoot.shots.size() : static_cast<std::size_t>(document_.current());
        adopted = shoot::adopt(shoot, *plan, after);
    });
    document_.select(static_cast<int>(adopted.index));
    const auto shot = toQt(document_.shot()->name);
    Q_EMIT told(adopted.replaced ? tr("\u201c%1\u201d is as %2 has it; Ctrl+Z takes it back").arg(shot, name)
                                 : tr("Added \u201c%1\u201d from %2; Ctrl+Z takes it back").arg(shot, name));
    return true;
}

bool ShootFiles::saveTo(const QString& path) {
    if (const auto saved = storage::save_shoot(document_.shoot(), path.toStdString()); !saved) {
        Q_EMIT problemFound(
            tr("The shoot was not saved, and the file is as it was. %1").arg(toQt(text::message(saved.error()))));
        return false;
    }
    Q_EMIT problemFound({});
    mark_ = storage::mark_of(path.toStdString());
    document_.setSaved(QFileInfo(path).absoluteFilePath());
    remember(document_.path());
    Q_EMIT told(tr("Saved %1").arg(QFileInfo(path).fileName()));
    return true;
}

bool ShootFiles::save() {
    const auto path = document_.path();
    if (path.isEmpty()) return askSaveAs();
    const auto now = storage::mark_of(path.toStdString());
    return !now || now == mark_ ? saveTo(path) : settleWithOther(path);
}

bool ShootFiles::settleWithOther(const QString& path) {
    const QFileInfo file(path);
    QMessageBox box(QMessageBox::NoIcon, tr("The file was changed elsewhere"),
                    tr("%1 was written by another window or program since it was opened here.\n"
                       "Whichever of the two stays there, the other is kept beside it.")
                        .arg(file.fileName()),
                    QMessageBox::Cancel, &window_);
    box.setObjectName(QStringLiteral("changedElsewhereQuestion"));
    const auto* both = box.addButton(tr("Save this as\u2026"), QMessageBox::AcceptRole);
    const auto* ours = box.addButton(tr("Replace the other"), QMessageBox::DestructiveRole);
    const auto* theirs = box.addButton(tr("Open the other"), QMessageBox::DestructiveRole);
    box.setDefaultButton(QMessageBox::Cancel);
    box.exec();
    if (box.clickedButton() == both) return askSaveAs();
    if (box.clickedButton() != ours && box.clickedButton() != theirs) return false;
    const bool keeps_ours = box.clickedButton() == ours;
    const auto beside = file.dir().filePath(
        QStringLiteral("%1-%2-%3.poquito")
            .arg(file.completeBaseName(), keeps_ours ? QStringLiteral("other") : QStringLiteral("mine"),
                 QDateTime::currentDateTime().toString(QStringLiteral("yyyyMMdd-hhmmss-zzz"))));
    const bool kept = keeps_ours ? QFile::copy(path, beside)
                                 : storage::save_shoot(document_.shoot(), beside.toStdString()).has_value();
    if (!kept) {
        Q_EMIT problemFound(tr("Nothing was changed: %1 cannot be written.").arg(beside));
        return false;
    }
    if (keeps_ours) return saveTo(path);
    open(path);
    return false;
}

bool ShootFiles::askSaveAs() {
    QString suggested = document_.path();
    if (suggested.isEmpty())
        suggested = toQt(shoot::unique_shot_id({}, document_.shoot().title)) + QStringLiteral(".poquito");
    const QString path = askSavePath(&window_, tr("Save shoot"), suggested, QStringLiteral("poquito"));
    return !path.isEmpty() && saveTo(path);
}

void ShootFiles::askOpen() {
    if (!mayDropChanges()) return;
    const QString path = QFileDialog::getOpenFileName(&window_, tr("Open shoot"),
                                                      QFileInfo(inDocuments(document_.path())).path(), file_filter);
    if (!path.isEmpty()) open(path);
}

/// What is on belongs to this shoot: a run is stopped and logged before the shoot goes, which is a change to save.
bool ShootFiles::mayDropChanges() {
    const bool running = runs_.isRunning();
    if (running && !mayEndRun()) return false;
    const auto answer = running || document_.isUnsaved() ? askToSave() : QMessageBox::Discard;
    if (answer == QMessageBox::Cancel) return false;
    if (running) endRun();
    return answer == QMessageBox::Discard || save();
}

/// Asks only: nothing is stopped while something else may still be cancelled.
bool ShootFiles::mayEndRun() {
    QMessageBox box(
        QMessageBox::NoIcon, tr("A run is on"),
        tr("Stop the run of \u201c%1\u201d? What was taken is kept and logged.").arg(toQt(runs_.plan().shot_name)),
        QMessageBox::Cancel, &window_);
    box.setObjectName(QStringLiteral("runQuestion"));
    auto* stop = box.addButton(tr("Stop it"), QMessageBox::AcceptRole);
    box.exec();
    return box.clickedButton() == stop;
}

/// Stops the run and lets what is in the camera's buffer reach the card, while the window goes on answering.
void ShootFiles::endRun() {
    QEventLoop loop;
    connect(&runs_, &RunController::ended, &loop, &QEventLoop::quit);
    runs_.stop();
    if (!runs_.isRunning()) return;
    // Nearly always it takes a moment only; a window that comes and goes would be noise.
    QTimer::singleShot(250, &loop, &QEventLoop::quit);
    loop.exec(QEventLoop::ExcludeUserInputEvents);
    if (!runs_.isRunning()) return;
    QMessageBox box(QMessageBox::NoIcon, tr("Stopping the run"),
                    tr("Stopping. Frames in the camera's buffer still reach the card."), QMessageBox::NoButton,
                    &window_);
    box.setObjectName(QStringLiteral("stoppingRun"));
    auto* leave = box.addButton(tr("Do not wait"), QMessageBox::RejectRole);
    leave->setToolTip(tr("Frames that have not reached the card count as missing"));
    connect(&runs_, &RunController::ended, &box, &QDialog::accept);
    box.exec();
    if (runs_.isRunning()) runs_.shutDown();
}

int ShootFiles::askToSave() {
    QMessageBox box(QMessageBox::NoIcon, tr("Unsaved changes"),
                    tr("Save the changes to “%1”?").arg(toQt(document_.shoot().title)),
                    QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, &window_);
    box.setObjectName(QStringLiteral("unsavedQuestion"));
    box.setDefaultButton(QMessageBox::Save);
    const int answer = box.exec();
    return answer == QMessageBox::Save || answer == QMessageBox::Discard ? answer : QMessageBox::Cancel;
}

void ShootFiles::remember(const QString& path) {
    QSettings settings;
    auto paths = settings.value(recent_key).toStringList();
    paths.removeAll(path);
    paths.prepend(path);
    settings.setValue(recent_key, QStringList(paths.mid(0, most_recent)));
}

void ShootFiles::startAutosave(const QDir& folder) {
    const auto recovered = recoverOrDiscard(folder);
    autosave_ = std::make_unique<Autosave>(document_, folder);
    connect(autosave_.get(), &Autosave::told, this, &ShootFiles::problemFound);
    if (document_.isUnsaved()) autosave_->flush();
    if (recovered) Autosave::discard(*recovered);  // only now that this window's own copy is on the disk
}

/// The newest leftover that can be read, if it was wanted back; the rest wait for the next start.
std::optional<Leftover> ShootFiles::recoverOrDiscard(const QDir& folder) {
    for (const auto& leftover : Autosave::leftovers(folder)) {
        auto loaded = storage::load_shoot(leftover.copy.toStdString());
        if (!loaded) continue;
        auto& shoot = *loaded;
        QMessageBox box(QMessageBox::NoIcon, tr("Unsaved work found"),
                        tr("Poquito ended unexpectedly with unsaved changes to “%1” (%2).\nRecover them?")
                            .arg(toQt(shoot.title),
                                 QFileInfo(leftover.copy).lastModified().toString(QStringLiteral("d MMM yyyy hh:mm"))),
                        QMessageBox::Yes | QMessageBox::No | QMessageBox::Cancel, &window_);
        box.setObjectName(QStringLiteral("recoverQuestion"));
        box.button(QMessageBox::Yes)->setText(tr("Recover"));
        box.button(QMessageBox::No)->setText(tr("Discard"));
        box.button(QMessageBox::Cancel)->setText(tr("Ask again next time"));
        box.setEscapeButton(QMessageBox::Cancel);
        const int answer = box.exec();
        if (answer == QMessageBox::Yes) {
            // Of a file that was written after the copy nobody here knows what it says: saving over it asks.
            const bool newer = QFileInfo(leftover.original).lastModified() > QFileInfo(leftover.copy).lastModified();
            mark_ = newer ? std::nullopt : storage::mark_of(leftover.original.toStdString());
            document_.recover(std::move(shoot), leftover.original);
            return leftover;
        }
        if (answer != QMessageBox::No) return std::nullopt;
        Autosave::discard(leftover);
    }
    return std::nullopt;
}

void ShootFiles::openInPlace(const QString& path) {
    if (isPicture(path) || mayDropChanges()) open(path);
}

QStringList ShootFiles::recent() { return QSettings().value(recent_key).toStringList(); }

}  // namespace poquito::desk

#include "desk/shell/moc_shoot_files.moc"
