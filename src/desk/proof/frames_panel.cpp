#include "desk/proof/frames_panel.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/proof/frame_marks.hpp"
#include "desk/proof/frame_strip.hpp"
#include "desk/proof/frame_view.hpp"
#include "desk/proof/held_frame.hpp"
#include "desk/session/document.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "imaging/inspect/composite.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <utility>

namespace poquito::desk {
namespace {

constexpr int plan_width = 960, composite_width = 960;

QToolButton* linkButton(const Caption& caption, QWidget* parent) {
    auto* made = new QToolButton(parent);
    nameControl(made, caption);
    made->setText(caption.label);
    made->setProperty("link", true);
    return made;
}

}  // namespace

FramesPanel::FramesPanel(Document& document, ProofController& controller, QWidget* parent)
    : QWidget(parent), document_(document), controller_(controller) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(5);
    buildHead(column);
    view_ = new FrameView(this);
    held_ = new HeldFrame(pictures_, *view_, this);
    auto* pair = new QHBoxLayout;
    pair->setSpacing(4);
    pair->addWidget(held_, 1);
    pair->addWidget(view_, 1);
    column->addLayout(pair, 1);
    buildFoot(column);
    connect(strip_, &FrameStrip::chosen, this, qOverload<std::size_t>(&FramesPanel::goTo));
    connect(view_, &FrameView::pixelsWanted, this, [this] {
        const auto* now = look();
        if (show_ != Show::frame || !now || now->frames.files.empty()) return;
        pictures_.picture(now->frames.files[current()], FramePictures::Kind::pixels);
    });
    connect(&pictures_, &FramePictures::arrived, this, [this](const QString& file) {
        const auto* now = look();
        if (now && !now->frames.files.empty() && toQt(now->frames.files[current()].string()) == file) showPicture();
    });
    connect(&queue_, &PictureQueue::idle, this, &FramesPanel::showPicture);
    connect(&document, &Document::opened, this, [this] {
        strip_->setLook(nullptr);
        currents_.clear();
        shot_.clear();
    });
}

void FramesPanel::buildHead(QVBoxLayout* column) {
    auto* head = new QHBoxLayout;
    head->setSpacing(8);
    title_ = new QLabel(this);
    title_->setObjectName(QStringLiteral("frameTitle"));
    title_->setFont(textFont(12, QFont::DemiBold));
    head->addWidget(title_);
    subtitle_ = new Sentence(1, this);
    subtitle_->setObjectName(QStringLiteral("frameSettings"));
    head->addWidget(subtitle_, 1);
    const std::vector<std::pair<Show, Caption>> kinds = {
        {Show::frame, {"showFrame", tr("picture"), tr("The frame as it was taken; Space changes with the plan")}},
        {Show::plan, {"showPlan", tr("plan"), tr("What the finder shows of the plan, at the same place; Space")}},
        {Show::sharp,
         {"showSharp", tr("sharp"), tr("Where this frame is the sharpest of all, a single one of itself; S")}},
        {Show::depth, {"showDepth", tr("depth"), tr("How deep each place lies, by where it was sharp; D")}},
        {Show::composite,
         {"showComposite", tr("composite"), tr("What is sharp somewhere, put together to look at; C")}}};
    for (const auto& [show, caption] : kinds) {
        auto* button = new QToolButton(this);
        nameControl(button, caption);
        button->setText(caption.label);
        button->setCheckable(true);
        button->setProperty("chip", true);
        connect(button, &QToolButton::clicked, this, [this, show = show] { setShow(show); });
        head->addWidget(button);
        shows_[show] = button;
    }
    hold_ = new QToolButton(this);
    nameControl(hold_, {"holdBeside", tr("beside"),
                        tr("Holds this frame beside the one you go to next, at the same place: to compare two, or one "
                           "with the plan; H")});
    hold_->setText(tr("beside"));
    hold_->setCheckable(true);
    hold_->setProperty("chip", true);
    connect(hold_, &QToolButton::clicked, this, &FramesPanel::holdBeside);
    head->addWidget(hold_);
    column->addLayout(head);
}

void FramesPanel::buildFoot(QVBoxLayout* column) {
    auto* line = new QHBoxLayout;
    line->setSpacing(10);
    progress_ = new QLabel(this);
    progress_->setObjectName(QStringLiteral("proofProgress"));
    progress_->setProperty("quiet", true);
    progress_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    line->addWidget(progress_, 1);
    sorted_ =
        linkButton({"toSortingButton", tr("All sorted"), tr("The list of stacks and bursts of the folder")}, this);
    connect(sorted_, &QToolButton::clicked, this, &FramesPanel::sortingWanted);
    cancel_ = linkButton({"cancelProofButton", tr("Stop looking"), tr("What was seen so far stays")}, this);
    again_ = linkButton({"lookAgainButton", tr("Look again"), tr("Against the plan as it is now")}, this);
    runs_ =
        linkButton({"lookAtRunsButton", tr("Frames of the run"), tr("What the bench took of this shot last")}, this);
    auto* choose =
        linkButton({"chooseFramesButton", tr("Choose frames\u2026"), tr("Or drop files and folders here")}, this);
    watch_ = linkButton({"watchFolderButton", tr("Watch a folder\u2026"),
                         tr("Frames that come into it, from a card or a camera, are looked at as they come")},
                        this);
    for (auto* button : {sorted_, cancel_, again_, runs_, choose, watch_}) line->addWidget(button);
    connect(cancel_, &QToolButton::clicked, &controller_, &ProofController::cancel);
    connect(again_, &QToolButton::clicked, this, [this] { controller_.lookAgain(shot_); });
    connect(runs_, &QToolButton::clicked, this, [this] { controller_.lookAtRuns(shot_); });
    connect(choose, &QToolButton::clicked, this, &FramesPanel::framesWanted);
    connect(watch_, &QToolButton::clicked, this, [this] {
        if (controller_.watched().isEmpty())
            Q_EMIT folderWanted();
        else
            controller_.watch({});
    });
    column->addLayout(line);
    foot_ = new QStackedWidget(this);
    foot_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    strip_ = new FrameStrip(pictures_, foot_);
    invitation_ = new Sentence(3, foot_);
    invitation_->setObjectName(QStringLiteral("proofInvitation"));
    foot_->addWidget(strip_);
    foot_->addWidget(invitation_);
    column->addWidget(foot_);
}

const ProofLook* FramesPanel::look() const {
    const auto* now = controller_.look(shot_);
    return now && !now->frames.files.empty() ? now : nullptr;
}

std::size_t FramesPanel::current() const {
    const auto* now = look();
    const auto found = currents_.find(shot_);
    return now && found != currents_.end() ? std::min(found->second, now->frames.files.size() - 1) : 0;
}

void FramesPanel::refresh() {
    const auto* shot = document_.shot();
    const std::string id = shot ? shot->id : std::string();
    if (id != shot_) {
        shot_ = id;
        note_ = -1;
        show_ = Show::frame;
        view_->showWhole();
        holdBeside(false);
    }
    const auto* now = look();
    if (held_->holds() && (!now || std::ranges::find(now->frames.files, held_->file()) == now->frames.files.end()))
        holdBeside(false);
    strip_->setLook(now);
    strip_->setCurrent(current());
    foot_->setCurrentWidget(now ? static_cast<QWidget*>(strip_) : invitation_);
    foot_->setFixedHeight(now ? strip_->height() : invitation_->sizeHint().height());
    showWords();
    showPicture();
}

void FramesPanel::showWords() {
    const auto* now = look();
    const bool many = now && now->frames.files.size() > 1;
    const bool planes = now && now->inspection && now->inspection->stack && now->inspection->stack->look.planes;
    shows_[Show::frame]->setEnabled(now != nullptr);
    shows_[Show::sharp]->setVisible(now != nullptr), shows_[Show::depth]->setVisible(many),
        shows_[Show::composite]->setVisible(many);
    for (const auto show : {Show::sharp, Show::depth, Show::composite}) shows_[show]->setEnabled(planes);
    const bool maps = now && !now->facts.empty() && now->facts[current()] && now->facts[current()]->scan &&
                      !now->facts[current()]->scan->detail.empty();
    shows_[Show::sharp]->setEnabled(planes || maps);
    if (std::exchange(hadFrames_, now != nullptr) != hadFrames_) show_ = now ? Show::frame : Show::plan;
    if (!now) show_ = Show::plan;
    if (!planes && show_ != Show::frame && show_ != Show::plan && !(maps && show_ == Show::sharp)) show_ = Show::frame;
    for (auto& [show, button] : shows_) button->setChecked(show == show_);
    hold_->setVisible(now != nullptr);
    view_->setCaption(!held_->holds()        ? QString()
                      : show_ == Show::frame ? tr("frame %1").arg(current() + 1)
                                             : shows_[show_]->text());
    cancel_->setVisible(now && now->running);
    again_->setVisible(now && !now->running);
    sorted_->setVisible(!controller_.sorted().empty());
    runs_->setVisible(!shoot::runs_of(document_.shoot().runs, shot_).empty() && !(now && now->running));
    watch_->setText(controller_.watched().isEmpty() ? tr("Watch a folder\u2026") : tr("Watch no more"));
    watch_->setToolTip(controller_.watched());
    if (!now) {
        title_->setText(tr("The plan's picture"));
        subtitle_->setText(tr("no frames of this shot yet"));
        progress_->setText(controller_.watched().isEmpty()
                               ? QString()
                               : tr("Waiting for frames in %1").arg(QFileInfo(controller_.watched()).fileName()));
        invitation_->setText(tr(
            "Drop the frames of this shot here, files or a folder, before the set is taken down: ends, gaps, knocks, "
            "misfires and settings are seen in seconds. A run on the bench brings its own."));
        return;
    }
    const auto count = now->frames.files.size();
    const auto at = current();
    title_->setText(count == 1 ? tr("The frame") : tr("Frame %1 of %2").arg(at + 1).arg(count));
    QStringList says;
    if (now->frames.planes.size() == count || (now->inspection && now->inspection->planes.size() == count)) {
        const auto& all =
            now->inspection && !now->inspection->planes.empty() ? now->inspection->planes : now->frames.planes;
        says << (all[at] < 0 ? tr("plane %1 in front").arg(lengthText(-all[at]))
                             : tr("plane %1").arg(lengthText(all[at])));
    }
    if (const auto& facts = now->facts[at]; facts && facts->exif.known) {
        const auto& exif = facts->exif;
        if (exif.f_number > 0 && exif.shutter > 0 && exif.iso > 0)
            says << toQt(text::exposure_text(exif.f_number, exif.shutter, exif.iso));
    }
    subtitle_->setText(says.join(QStringLiteral(" \u00b7 ")));
    subtitle_->setToolTip(toQt(now->frames.files[at].string()));
    // Not as a shutter's time is written.
    const auto seconds = [](double s) { return s < 1 ? tr("less than a second") : toQt(text::time_text(s)); };
    const QString watching = controller_.watched().isEmpty()
                                 ? QString()
                                 : tr("watching %1 \u00b7 ").arg(QFileInfo(controller_.watched()).fileName());
    if (now->running && now->done < count)
        progress_->setText(
            watching +
            tr("%1 of %2 looked at, %3 left").arg(now->done).arg(count).arg(seconds(std::max(1.0, now->secondsLeft))));
    else if (now->running)
        progress_->setText(watching + tr("%1 read, laid on one another").arg(count));
    else if (!now->inspection)
        progress_->setText(watching + tr("stopped: %1 of %2 looked at").arg(now->done).arg(count));
    else
        progress_->setText(watching + tr("%1 looked at in %2")
                                          .arg(toQt(text::count_text(static_cast<double>(count), "frame", "frames")),
                                               seconds(now->seconds)));
    progress_->setToolTip(now->frames.from);
}

void FramesPanel::goTo(std::size_t frame) {
    const auto* now = look();
    if (!now) return;
    frame = std::min(frame, now->frames.files.size() - 1);
    currents_[shot_] = frame;
    if (show_ == Show::plan || show_ == Show::depth || show_ == Show::composite) show_ = Show::frame;
    strip_->setCurrent(frame);
    showWords();
    showPicture();
    Q_EMIT currentChanged(frame);
}

void FramesPanel::goTo(std::size_t frame, const QRectF& place) {
    goTo(frame);
    const auto* now = look();
    if (!now) return;
    const auto* facts = now->facts[current()].get();
    view_->goTo(turnedUp(place, sizeOf(facts), facts ? facts->exif.orientation : 1));
}

void FramesPanel::holdBeside(bool hold) {
    const auto* now = look();
    if (hold && now) {
        const auto* facts = now->facts[current()].get();
        held_->hold(now->frames.files[current()], turnedUp(sizeOf(facts), facts ? facts->exif.orientation : 1),
                    tr("held: frame %1").arg(current() + 1));
        if (current() + 1 < now->frames.files.size())
            goTo(current() + 1);
        else if (current() > 0)
            goTo(current() - 1);
        else
            setShow(Show::plan);
    } else {
        held_->letGo();
    }
    hold_->setChecked(held_->holds());
    hold_->setVisible(now != nullptr);
    showWords();
}

void FramesPanel::mark(int note) {
    note_ = note;
    showMarks();
}

void FramesPanel::setShow(Show show) {
    show_ = show;
    showWords();
    showPicture();
}

// ---- what is seen ------------------------------------------------------------------------------------------------

void FramesPanel::showPicture() {
    const auto* now = look();
    if (!now || show_ == Show::plan) {
        askPlan();
        QSize size = plan_.size();
        if (now) {
            const auto* facts = now->facts[current()].get();
            if (const QSize file = sizeOf(facts); !file.isEmpty()) size = turnedUp(file, facts->exif.orientation);
        }
        view_->setPicture(
            plan_, size,
            queue_.isIdle() ? tr("No picture of a plan that is focused at infinity.") : tr("The plan is drawn\u2026"));
        view_->setMarks({.shape = shape(), .words = now && !held_->holds() ? tr("as planned") : QString()});
        return;
    }
    const auto at = current();
    const auto* facts = now->facts[at].get();
    const QSize size = turnedUp(sizeOf(facts), facts ? facts->exif.orientation : 1);
    if (show_ == Show::depth) {
        view_->setPicture(depthPicture(*now, at), size);
    } else if (show_ == Show::composite) {
        askComposite();
        view_->setPicture(composite_, size, tr("Put together\u2026"));
    } else {
        const auto& file = now->frames.files[at];
        QImage image = pictures_.picture(file, FramePictures::Kind::preview);
        if (!view_->isWhole() && image.width() < size.width())
            if (const auto pixels = pictures_.picture(file, FramePictures::Kind::pixels); !pixels.isNull())
                image = pixels;
        const bool bad = facts && !facts->scan;
        view_->setPicture(image, size.isEmpty() ? image.size() : size,
                          bad ? tr("This file cannot be read.") : tr("Read\u2026"));
        // Those beside it, so that a key shows them at once.
        for (const std::size_t beside : {at + 1, at + 2, at - 1})
            if (beside < now->frames.files.size()) pictures_.ahead(now->frames.files[beside]);
    }
    showMarks();
}

std::optional<double> FramesPanel::shape() const {
    return document_.shot() ? document_.shot()->picture_shape : std::nullopt;
}

void FramesPanel::showMarks() {
    const auto* now = look();
    if (!now || show_ == Show::plan) return;
    auto marks = marksOf(*now, current(), show_, note_);
    marks.shape = shape();
    view_->setMarks(std::move(marks));
}

void FramesPanel::askPlan() {
    const auto at = document_.current();
    if (at < 0) return;
    auto assessment = document_.sharedAssessment(at);
    if (planOf_ == assessment) return;
    planOf_ = assessment;
    queue_.render([this, assessment, shoot = document_.snapshot()](const std::function<bool()>&) -> PictureQueue::Show {
        auto image = thumbnail(shoot->kit, assessment->plan.shot, assessment->report, plan_width, 0);
        return [this, image] {
            plan_ = image;
            if (show_ == Show::plan) showPicture();
        };
    });
}

/// From previews of all frames, beside the interface.
void FramesPanel::askComposite() {
    const auto* now = look();
    if (compositeOf_ == now->inspection) return;
    compositeOf_ = now->inspection;
    composite_ = {};
    queue_.render([this, inspection = now->inspection](const std::function<bool()>& go_on) -> PictureQueue::Show {
        const auto& stack = *inspection->stack;
        std::vector<QImage> pictures;
        std::vector<imaging::CompositeFrame> frames;
        const double shrink =
            std::min(1.0, static_cast<double>(composite_width) / inspection->frames[stack.frames.front()].scan->width);
        std::vector<std::size_t> used;  // of the look
        for (std::size_t f = 0; f < stack.frames.size(); ++f) {
            const auto& findings = inspection->frames[stack.frames[f]].findings;
            // What is to be taken again is not put in.
            if (!std::ranges::any_of(findings, [](const auto& one) { return one.level == proof::Level::stop; }))
                used.push_back(f);
        }
        for (const auto f : used) {
            auto image = FramePictures::read(inspection->frames[stack.frames[f]].file, FramePictures::Kind::preview);
            if (image.isNull()) return {};
            const auto* scan = inspection->frames[stack.frames[f]].scan.get();
            // As it lies in the file, where the maps are.
            const int turn = inspection->frames[stack.frames[f]].exif.orientation;
            image = turnedUp(image, turn == 6 ? 8 : turn == 8 ? 6 : turn);
            const QSize size(static_cast<int>(scan->width * shrink), static_cast<int>(scan->height * shrink));
            pictures.push_back(image.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                                   .convertToFormat(QImage::Format_RGB888));
        }
        if (pictures.empty()) return {};
        for (std::size_t i = 0; i < pictures.size(); ++i) {
            const auto f = used[i];
            auto to_frame = stack.look.to_frame[f];
            to_frame.dx *= shrink, to_frame.dy *= shrink;
            frames.push_back({.picture = {.bytes = pictures[i].constBits(),
                                          .width = pictures[i].width(),
                                          .height = pictures[i].height(),
                                          .stride = static_cast<std::size_t>(pictures[i].bytesPerLine())},
                              .to_frame = to_frame,
                              .plane = stack.look.planes->frames[f]});
        }
        std::ranges::stable_sort(frames, {}, &imaging::CompositeFrame::plane);
        const auto made = imaging::composite(frames, stack.look.planes->depth, stack.look.tile * shrink, go_on);
        if (made.empty()) return {};
        const int width = pictures.front().width(), height = pictures.front().height();
        const QImage image = QImage(made.data(), width, height, qsizetype{3} * width, QImage::Format_RGB888)
                                 .convertToFormat(QImage::Format_RGB32);
        const int turn = inspection->frames[stack.frames.front()].exif.orientation;
        return [this, image, turn, inspection] {
            if (compositeOf_ == inspection) composite_ = turnedUp(image, turn);
            if (show_ == Show::composite) showPicture();
        };
    });
}

// ---- keys --------------------------------------------------------------------------------------------------------

bool FramesPanel::take(QKeyEvent* event) {
    const auto* now = look();
    if (!now || event->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) return false;
    const auto at = current();
    switch (event->key()) {
        case Qt::Key_Left:
            if (at > 0) goTo(at - 1);
            return true;
        case Qt::Key_Right:
            goTo(at + 1);
            return true;
        case Qt::Key_Home:
            goTo(std::size_t{0});
            return true;
        case Qt::Key_End:
            goTo(now->frames.files.size() - 1);
            return true;
        case Qt::Key_Space:
            setShow(show_ == Show::plan ? Show::frame : Show::plan);
            return true;
        case Qt::Key_S:
        case Qt::Key_D:
        case Qt::Key_C: {
            const auto wanted = event->key() == Qt::Key_S   ? Show::sharp
                                : event->key() == Qt::Key_D ? Show::depth
                                                            : Show::composite;
            if (shows_[wanted]->isEnabled() && !shows_[wanted]->isHidden())
                setShow(show_ == wanted ? Show::frame : wanted);
            return true;
        }
        case Qt::Key_H:
            holdBeside(!held_->holds());
            return true;
        case Qt::Key_Plus:
        case Qt::Key_Equal:
            view_->zoomBy(1.5);
            return true;
        case Qt::Key_Minus:
            view_->zoomBy(1 / 1.5);
            return true;
        default:
            return false;
    }
}

void FramesPanel::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    subtitle_->setVisible(width() > 520);
}

}  // namespace poquito::desk

#include "desk/proof/moc_frames_panel.moc"
