#include "desk/run/running_view.hpp"

#include "desk/drawing/stack_bands.hpp"
#include "desk/session/document.hpp"
#include "desk/session/picture_file.hpp"
#include "desk/session/run_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QApplication>
#include <QCheckBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double at_once = 0.04;  // s

using run::FrameState;
using run::Phase;

constexpr double edge = 18;  // pixels
constexpr double strip_height = 96;
constexpr double tall_strip = 250;  // of few frames: test frames are there to be looked at
constexpr std::size_t few_frames = 4;
constexpr double buttons_height = 64;
constexpr int far_text = 42;  // the smallest that is read from two metres

}  // namespace

RunningView::RunningView(Document& document, RunController& runs, QWidget* parent)
    : QWidget(parent), document_(document), runs_(runs) {
    setObjectName(QStringLiteral("runningView"));
    setAccessibleName(tr("The run"));
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(static_cast<int>(edge), 0, static_cast<int>(edge), 12);
    column->addStretch();
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    const auto button = [&](const Caption& caption, const auto& run) {
        auto* made = captionedButton(caption, this);
        made->setFont(textFont(20, QFont::DemiBold));
        made->setProperty("large", true);
        made->setMinimumHeight(46);
        connect(made, &QPushButton::clicked, this, run);
        row->addWidget(made);
        return made;
    };
    pause_ = button({"pauseRunButton", tr("Pause"), tr("After the frame that is being taken; Space")}, [this] {
        const auto status = runs_.status();
        const bool held = !runs_.isRunning() || (status && status->phase == Phase::paused);
        held ? runs_.resume() : runs_.pause();
    });
    stop_ =
        button({"stopRunButton", tr("Stop"), tr("At once; what was taken is kept; Escape")}, [this] { runs_.stop(); });
    skip_ = button({"skipFrameButton", tr("Skip"), tr("Leave out the frame that is next")}, [this] { runs_.skip(); });
    redo_ = button(
        {"redoFrameButton", tr("Redo from 1"), tr("This frame and all behind it again; click a frame to choose")},
        [this] {
            chosenByHand_ = false;
            runs_.redoFrom(chosen_);
        });
    notice_ =
        captionedButton({"noticeButton", tr("Something is wrong"), tr("Say so, and what you take it for; N")}, this);
    notice_->setFont(textFont(20, QFont::DemiBold));
    notice_->setProperty("large", true);
    notice_->setMinimumHeight(46);
    auto* takenFor = new QMenu(notice_);
    takenFor->setObjectName(QStringLiteral("takenForMenu"));
    takenFor->setFont(textFont(20));
    takenFor->addAction(tr("I do not know what"), this, [this] { runs_.notice(std::nullopt); });
    for (const auto& one : run::mishap_words())
        takenFor->addAction(tr(one.name), this, [this, kind = one.kind] { runs_.notice(kind); });
    notice_->setMenu(takenFor);
    row->addWidget(notice_);
    row->addStretch();
    sounds_ = new QCheckBox(tr("Sounds"), this);
    nameControl(sounds_, {"soundsCheck", tr("Sounds"), tr("A tone when it is done and when it needs you")});
    sounds_->setChecked(QSettings().value(QStringLiteral("bench/sounds"), false).toBool());
    connect(sounds_, &QCheckBox::toggled, this,
            [](bool on) { QSettings().setValue(QStringLiteral("bench/sounds"), on); });
    row->addWidget(sounds_);
    leave_ = button({"leaveRunButton", tr("To the desk"), tr("The run goes on meanwhile")},
                    [this] { Q_EMIT leaveWanted(); });
    column->addLayout(row);
    connect(&runs_, &RunController::changed, this, &RunningView::refresh);
    connect(&runs_, &RunController::begun, this, &RunningView::refresh);
    connect(&document_, &Document::shootChanged, this, qOverload<>(&QWidget::update));
    refresh();
}

QString RunningView::frameText() const {
    const auto status = runs_.status();
    if (!status) return {};
    const auto planned = status->frames.size();
    if (status->phase == Phase::complete || status->phase == Phase::stopped) {
        const auto taken = std::ranges::count_if(
            status->frames, [](FrameState s) { return s == FrameState::saved || s == FrameState::dim; });
        return tr("%1 of %2").arg(taken).arg(planned);
    }
    return tr("%1 of %2").arg(status->frame + 1).arg(planned);
}

QString RunningView::phaseText() const {
    const auto status = runs_.status();
    if (!status) return tr("nothing runs");
    if (runs_.waitsForGear()) return tr("change gear");
    switch (status->phase) {
        case Phase::starting:
            return tr("getting ready");
        case Phase::moving:
            return tr("moving");
        case Phase::settling:
            return tr("settling");
        case Phase::charging:
            return status->flash_ready_in ? tr("flash charges") : tr("waits for the flash");
        case Phase::waiting:
            return tr("waiting");
        case Phase::exposing:
            return tr("exposing");
        case Phase::saving:
            return tr("to the card");
        case Phase::paused:
            return status->problem.empty() ? tr("paused") : tr("needs you");
        case Phase::complete:
            return tr("complete");
        case Phase::stopped:
            return tr("stopped");
        case Phase::broken:
            return tr("broken off");
    }
    return {};
}

QString RunningView::flashText() const {
    const auto status = runs_.status();
    if (!status) return {};
    const auto& flash = status->flash_ready_in;
    if (!flash) return tr("not charging");
    return *flash > at_once ? tr("in %1 s").arg(*flash, 0, 'f', 1) : tr("ready");
}

QString RunningView::problemText() const {
    const auto status = runs_.status();
    return status ? toQt(status->problem) : QString();
}

void RunningView::refresh() {
    const auto status = runs_.status();
    if (runs_.plan().id != shownRun_) {
        shownRun_ = runs_.plan().id;
        thumbnails_.clear();
        picture_ = {};
        chosen_ = 0;
        chosenByHand_ = false;
        heard_.reset();
    }
    const bool on = runs_.isRunning();
    const bool held = status && status->phase == Phase::paused;
    if (status && !chosenByHand_) chosen_ = status->frame > 0 ? status->frame - 1 : 0;
    pause_->setText(runs_.waitsForGear() ? tr("Next shot") : held ? tr("Go on") : tr("Pause"));
    pause_->setAccessibleName(pause_->text());
    pause_->setEnabled(on || runs_.waitsForGear());
    stop_->setEnabled(on || runs_.waitsForGear());
    skip_->setEnabled(on);
    redo_->setText(tr("Redo from %1").arg(chosen_ + 1));
    redo_->setEnabled(on);
    notice_->setVisible(on && runs_.isRehearsal());
    if (status) sound(*status);
    setAccessibleDescription(
        QStringList{toQt(runs_.plan().shot_name), frameText(), phaseText(), boxText()}.join(QStringLiteral(", ")));
    update();
}

void RunningView::sound(const run::RunStatus& status) {
    if (heard_ == status.phase) return;
    heard_ = status.phase;
    const bool needs = status.phase == Phase::complete || status.phase == Phase::broken ||
                       (status.phase == Phase::paused && !status.problem.empty());
    if (needs && sounds_->isChecked()) QApplication::beep();
}

// ---- painting ----------------------------------------------------------------------------------------------------

RunningView::Strip RunningView::strip() const {
    const auto status = runs_.status();
    const bool few = status && status->frames.size() <= few_frames && height() > 560;
    const double high = few ? tall_strip : strip_height;
    Strip made{.area = QRectF(edge, height() - buttons_height - high - 8, width() - 2 * edge, high)};
    if (!status || status->frames.empty()) return made;
    // As many as stay apart from each other, about the one that is being taken.
    constexpr double least = 34;
    const auto room = static_cast<std::size_t>(std::max(1.0, made.area.width() / least));
    made.count = std::min(status->frames.size(), room);
    const auto half = made.count / 2;
    made.first = std::min(status->frame > half ? status->frame - half : 0, status->frames.size() - made.count);
    made.width = std::min(made.area.width() / static_cast<double>(made.count), high * 1.4);
    return made;
}

QRectF RunningView::cellRect(std::size_t frame) const {
    const auto s = strip();
    if (frame < s.first || frame >= s.first + s.count) return {};
    return {s.area.left() + static_cast<double>(frame - s.first) * s.width, s.area.top(), s.width - 4, s.area.height()};
}

const QImage* RunningView::thumbnail(const run::RunStatus& status, std::size_t frame) {
    if (status.frames[frame] != FrameState::saved && status.frames[frame] != FrameState::dim) {
        thumbnails_.remove(frame);  // taken again
        return nullptr;
    }
    if (const auto found = thumbnails_.constFind(frame); found != thumbnails_.cend()) return &*found;
    const auto& plan = runs_.plan();
    const int wanted = status.frames.size() <= few_frames ? 640 : 192;
    auto picture = readPicture(plan.folder / plan.file_of(frame), Turned::asItLies, {wanted, wanted}).image;
    if (picture.isNull()) return nullptr;
    return &*thumbnails_.insert(frame, std::move(picture));
}

void RunningView::paintEvent(QPaintEvent*) {
    const Theme& t = theme();
    QPainter painter(this);
    painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    const auto status = runs_.status();
    if (!status) return;
    const bool good = status->phase == Phase::complete;
    const bool bad = status->phase == Phase::broken || (status->phase == Phase::paused && !status->problem.empty());
    const double right_edge = width() - edge;

    // Which shot, and what happens.
    const auto title_font = textFont(far_text, QFont::DemiBold);
    const QString phase = phaseText();
    const double phase_width = lineWidth(title_font, phase);
    painter.setFont(title_font);
    painter.setPen(t.ink);
    QString title = toQt(runs_.plan().shot_name);
    if (runs_.isTest()) title = tr("Test frames: %1").arg(title);
    drawLine(painter, QRectF(edge, 6, right_edge - edge - phase_width - 24, 56), Qt::AlignLeft | Qt::AlignVCenter,
             elided(title_font, title, right_edge - edge - phase_width - 24));
    painter.setPen(bad ? t.stop : good ? t.focus : t.quiet);
    drawLine(painter, QRectF(right_edge - phase_width, 6, phase_width, 56), Qt::AlignRight | Qt::AlignVCenter, phase);

    const auto bottom = strip().area.top() - 12;
    const double left_width = (right_edge - edge) * 0.46;
    const QRectF left(edge, 66, left_width, bottom - 66);
    const QRectF right(edge + left_width + 24, 74, right_edge - edge - left_width - 24, bottom - 80);
    paintNumbers(painter, left, *status);
    runs_.isRehearsal() ? paintPicture(painter, right, *status) : paintSubject(painter, right, *status);
    paintStrip(painter, *status);
}

void RunningView::paintNumbers(QPainter& painter, const QRectF& area, const run::RunStatus& status) const {
    const Theme& t = theme();
    const bool good = status.phase == Phase::complete;
    // Frame k of n, as large as there is room.
    const QString frames = frameText();
    int size = std::clamp(static_cast<int>(area.height() * 0.42), 90, 190);
    while (size > 60 && lineWidth(textFont(size, QFont::DemiBold), frames) > area.width()) size -= 4;
    painter.setFont(textFont(size, QFont::DemiBold));
    painter.setPen(good ? t.focus : t.ink);
    drawLine(painter, QRectF(area.left(), area.top() - 6, area.width(), size * 1.15), Qt::AlignLeft | Qt::AlignVCenter,
             frames);
    double y = area.top() + size * 1.15 + 4;
    if (const QString words = boxText(); !words.isEmpty())
        return paintBox(painter, QRectF(area.left(), y, area.width(), area.bottom() - y), words,
                        !status.problem.empty() ? t.stopWash : t.linkWash);
    const auto line = [&](const QString& name, const QString& value, const QColor& colour) {
        if (y + far_text > area.bottom() + 6) return;
        painter.setFont(textFont(24));
        painter.setPen(t.quiet);
        const double name_width = 148;
        drawLine(painter, QRectF(area.left(), y, name_width, far_text * 1.25), Qt::AlignLeft | Qt::AlignVCenter, name);
        const auto font = textFont(far_text, QFont::DemiBold);
        painter.setFont(font);
        painter.setPen(colour);
        drawLine(painter, QRectF(area.left() + name_width, y, area.width() - name_width, far_text * 1.25),
                 Qt::AlignLeft | Qt::AlignVCenter, elided(font, value, area.width() - name_width));
        y += far_text * 1.25;
    };
    const bool over = status.phase == Phase::complete || status.phase == Phase::stopped;
    if (over) {
        line(tr("too dark"), status.dim > 0 ? QString::number(status.dim) : tr("none"),
             status.dim > 0 ? t.stop : t.focus);
        const auto& log = document_.shoot().runs;
        const bool logged = std::ranges::any_of(log, [&](const auto& of_shot) {
            return std::ranges::any_of(of_shot.second, [&](const auto& run) { return run->id == runs_.plan().id; });
        });
        line(tr("in the log"), logged ? tr("yes") : tr("no"), logged ? t.focus : t.stop);
        return;
    }
    line(tr("left"), status.seconds_left > 0 ? toQt(text::time_text(std::ceil(status.seconds_left))) : tr("none"),
         t.ink);
    const auto& flash = status.flash_ready_in;
    line(tr("flash"), flashText(), !flash ? t.stop : *flash > at_once ? t.lightText : t.focus);
    const double plane = status.plane;
    line(tr("plane"),
         std::abs(plane) < 1e-9 ? tr("nearest")
                                : toQt(text::length_text(std::abs(plane))) + (plane < 0 ? tr(" before") : tr(" deep")),
         t.focus);
}

QString RunningView::boxText() const {
    const auto status = runs_.status();
    if (!status) return {};
    if (runs_.waitsForGear()) return tr("Next: %1. %2.").arg(runs_.nextShot(), runs_.gearToChange());
    if (!status->problem.empty()) return toQt(status->problem);
    if (runs_.isRunning() || !runs_.rehearsal()) return {};
    const auto& report = *runs_.rehearsal();
    QStringList said;
    for (const auto& one : {report.happened, report.noticed, report.cost, report.next})
        if (!one.empty()) said << toQt(one);
    return said.join(QLatin1Char('\n'));
}

void RunningView::paintBox(QPainter& painter, const QRectF& box, const QString& words, const QColor& wash) const {
    painter.setPen(Qt::NoPen);
    painter.setBrush(wash);
    painter.drawRoundedRect(box, 6, 6);
    painter.setPen(theme().ink);
    constexpr int largest = 34, least = 15;
    int letter = largest;
    const QRectF inner = box.adjusted(14, 8, -14, -8);
    while (letter > least) {
        painter.setFont(textFont(letter, QFont::DemiBold));
        const QRectF needed = painter.boundingRect(inner, Qt::TextWordWrap, words);
        if (needed.height() <= inner.height() && needed.width() <= inner.width()) break;
        letter -= 1;
    }
    painter.drawText(inner, Qt::TextWordWrap | Qt::AlignVCenter, words);
}

/// As on a screen beside the camera: the latest picture large, or the one that is chosen in the strip.
void RunningView::paintPicture(QPainter& painter, const QRectF& area, const run::RunStatus& status) {
    const auto& plan = runs_.plan();
    std::optional<std::size_t> shown;
    if (chosenByHand_) shown = chosen_;
    for (std::size_t i = status.frames.size(); !shown && i-- > 0;)
        if (status.frames[i] == FrameState::saved || status.frames[i] == FrameState::dim) shown = i;
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme().panel);
    painter.drawRoundedRect(area, 4, 4);
    if (!shown) return;
    const QString file = toQt((plan.folder / plan.file_of(*shown)).string());
    const QRectF place = area.adjusted(8, 8, -8, -38);
    if (file != pictureFile_ || picture_.isNull()) {
        picture_ = readPicture(plan.folder / plan.file_of(*shown), Turned::asItLies, place.size().toSize()).image;
        pictureFile_ = file;
    }
    if (!picture_.isNull()) {
        QRectF at(QPointF(), QSizeF(picture_.size()).scaled(place.size(), Qt::KeepAspectRatio));
        at.moveCenter(place.center());
        painter.drawImage(at, picture_);
    }
    painter.setFont(textFont(24));
    painter.setPen(theme().quiet);
    drawLine(painter, QRectF(area.left() + 8, area.bottom() - 34, area.width() - 16, 28),
             Qt::AlignLeft | Qt::AlignVCenter, tr("frame %1; a click in the strip shows another").arg(*shown + 1));
}

void RunningView::paintSubject(QPainter& painter, const QRectF& area, const run::RunStatus& status) const {
    const auto& shots = document_.shoot().shots;
    const auto found = std::ranges::find(shots, runs_.shot(), &shoot::Shot::id);
    if (found == shots.end()) return;
    const Theme& t = theme();
    const auto& report = document_.report(static_cast<int>(found - shots.begin()));
    const auto& frames = runs_.plan().frames;
    double low = 0, high = std::max(report.extent.depth, 1e-3);
    for (const auto& frame : frames) {
        if (!std::isfinite(frame.plane)) return;
        low = std::min(low, frame.plane);
        high = std::max(high, frame.plane);
    }
    const double margin = (high - low) * 0.07;
    low -= margin;
    high += margin;
    const QRectF field = area.adjusted(0, 8, 0, -34);
    const auto x = [&](double depth) { return field.left() + (depth - low) / (high - low) * field.width(); };
    painter.setPen(Qt::NoPen);
    painter.setBrush(t.panel);
    painter.drawRoundedRect(area, 4, 4);
    // What has been taken, as washes between the planes.
    const auto cell = [&](std::size_t i) {
        const double before = i > 0 ? (frames[i - 1].plane + frames[i].plane) / 2 : frames[i].plane - margin / 2;
        const double after =
            i + 1 < frames.size() ? (frames[i].plane + frames[i + 1].plane) / 2 : frames[i].plane + margin / 2;
        return QRectF(QPointF(x(before), field.top()), QPointF(x(after), field.bottom()));
    };
    for (std::size_t i = 0; i < frames.size() && i < status.frames.size(); ++i) {
        const auto state = status.frames[i];
        if (state == FrameState::dim || state == FrameState::skipped)
            painter.fillRect(cell(i), t.stopWash);
        else if (state >= FrameState::exposed)
            painter.fillRect(cell(i), t.focusWash);
    }
    painter.setOpacity(0.6);
    drawSection(painter, field.adjusted(0, 6, 0, -6), *found, report, low, high);
    painter.setOpacity(1);
    painter.setPen(QPen(t.focus, 7, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(QPointF(x(status.plane), field.top() - 4), QPointF(x(status.plane), field.bottom() + 4));
    painter.setFont(textFont(24));
    painter.setPen(t.quiet);
    drawLine(painter, QRectF(area.left() + 8, field.bottom() + 4, area.width() / 2, 28),
             Qt::AlignLeft | Qt::AlignVCenter, tr("nearest"));
    drawLine(painter, QRectF(area.center().x(), field.bottom() + 4, area.width() / 2 - 8, 28),
             Qt::AlignRight | Qt::AlignVCenter, tr("farthest"));
}

void RunningView::paintStrip(QPainter& painter, const run::RunStatus& status) {
    const Theme& t = theme();
    const auto s = strip();
    for (std::size_t i = s.first; i < s.first + s.count; ++i) {
        const QRectF cell = cellRect(i);
        const QRectF picture = cell.adjusted(0, 0, 0, -22);
        const auto state = status.frames[i];
        painter.setPen(QPen(t.hairline, 1));
        painter.setBrush(state == FrameState::dim || state == FrameState::skipped ? t.stopWash
                         : state >= FrameState::exposed                           ? t.focusWash
                                                                                  : t.panel);
        painter.drawRect(picture);
        if (const auto* image = thumbnail(status, i)) drawFilling(painter, picture, *image);
        const bool now = i == status.frame && runs_.isRunning();
        if (now || (runs_.isRunning() && i == chosen_ && chosenByHand_)) {
            painter.setPen(QPen(now ? t.focus : t.link, 4));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(picture.adjusted(1, 1, -1, -1));
        }
        painter.setFont(textFont(16, now ? QFont::DemiBold : QFont::Normal));
        painter.setPen(now ? t.focus : state == FrameState::dim ? t.stop : t.quiet);
        const QString words = state == FrameState::dim       ? tr("dark")
                              : state == FrameState::skipped ? tr("out")
                                                             : QString::number(i + 1);
        drawLine(painter, QRectF(cell.left(), cell.bottom() - 20, cell.width(), 20),
                 Qt::AlignHCenter | Qt::AlignVCenter, words);
    }
}

void RunningView::mousePressEvent(QMouseEvent* event) {
    const auto s = strip();
    for (std::size_t i = s.first; i < s.first + s.count; ++i)
        if (cellRect(i).contains(event->position())) {
            chosen_ = i;
            chosenByHand_ = true;
            return refresh();
        }
}

void RunningView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space) return pause_->click();
    if (event->key() == Qt::Key_N && notice_->isVisible()) return notice_->showMenu();
    if (event->key() == Qt::Key_Escape && stop_->isEnabled()) return stop_->click();
    QWidget::keyPressEvent(event);
}

}  // namespace poquito::desk

#include "desk/run/moc_running_view.moc"
