#include "desk/shell/drawing_area.hpp"

#include "desk/finder/finder_panel.hpp"
#include "desk/set/bench_view.hpp"
#include "desk/set/train_drawing.hpp"
#include "desk/subject/subject_drawing.hpp"
#include "desk/toolkit/caption.hpp"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {
namespace {

QToolButton* linkButton(QWidget* parent, const char* name, const QString& label) {
    auto* made = new QToolButton(parent);
    made->setObjectName(QLatin1String(name));
    made->setText(label);
    made->setAccessibleName(label);
    made->setProperty("link", true);
    return made;
}

void rename(QToolButton* button, const QString& label) {
    button->setText(label);
    button->setAccessibleName(label);
    button->adjustSize();
}

}  // namespace

DrawingArea::DrawingArea(Document& document, ChosenLight& chosen, QWidget* parent)
    : QFrame(parent), document_(document), stack_(new QStackedWidget(this)) {
    setProperty("sheet", true);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(1, 1, 1, 1);
    layout->addWidget(stack_);
    stack_->hide();
    buildBench(chosen);
}

void DrawingArea::buildBench(ChosenLight& chosen) {
    bench_ = new BenchView(document_, chosen, stack_);
    stack_->addWidget(bench_);
    auto* corner = new QHBoxLayout(bench_);
    corner->setContentsMargins(0, 4, 8, 0);
    corner->addStretch();
    own_ = linkButton(bench_, "trainButton", tr("see the train"));
    own_->hide();
    connect(own_, &QToolButton::clicked, this, [this] { showOwn(station_); });
    corner->addWidget(own_, 0, Qt::AlignTop);
    auto* turn = linkButton(bench_, "elevationButton", tr("see from the top"));
    connect(turn, &QToolButton::clicked, this, &DrawingArea::turnBench);
    connect(bench_, &BenchView::elevationChanged, turn, [turn](Elevation elevation) {
        rename(turn, elevation == Elevation::side ? tr("see from the top") : tr("see from the side"));
    });
    corner->addWidget(turn, 0, Qt::AlignTop);
}

void DrawingArea::turnBench() {
    bench_->setElevation(bench_->elevation() == Elevation::side ? Elevation::top : Elevation::side);
}

void DrawingArea::buildSubject() {
    subject_ = new SubjectDrawing(document_, stack_);
    stack_->addWidget(subject_);
    connect(subject_, &SubjectDrawing::benchWanted, this, [this] { showBench(advice::Station::subject); });
}

/// The train pulled apart, with what is about gear in its corner.
void DrawingArea::buildTrain() {
    auto* around = new QWidget(stack_);
    auto* layout = new QVBoxLayout(around);
    layout->setContentsMargins(12, 6, 12, 2);
    train_ = new TrainDrawing(document_, around);
    layout->addWidget(train_);
    auto* corner = new QHBoxLayout(train_);
    corner->setContentsMargins(0, 0, 0, 0);
    corner->setSpacing(4);
    corner->addStretch();
    const auto button = [&](const char* name, const QString& label, const QString& tip, const auto& run) {
        auto* made = linkButton(train_, name, label);
        nameControl(made, {name, label, tip});
        connect(made, &QToolButton::clicked, this, run);
        corner->addWidget(made, 0, Qt::AlignTop);
    };
    button("searchButton", tr("Find a set-up\u2026"), tr("Every way the kit reaches a size, ranked; Ctrl+F"),
           &DrawingArea::setupWanted);
    button("calibrateButton", tr("Measure\u2026"), tr("Measured values in the place of the lens record's; Ctrl+M"),
           &DrawingArea::measureWanted);
    button("kitButton", tr("Kit room\u2026"), tr("Add, change and remove gear; Ctrl+K"), &DrawingArea::kitWanted);
    button("benchButton", tr("see the bench"), tr("The whole set to scale; the other stations always show it"),
           [this] { showBench(advice::Station::reach); });
    stack_->addWidget(around);
    Q_EMIT trainMade(train_);
}

void DrawingArea::buildFinder() {
    finder_ = new FinderPanel(document_, stack_);
    stack_->addWidget(finder_);
    connect(finder_, &FinderPanel::benchWanted, this, [this] { showBench(station_); });
    Q_EMIT finderMade(finder_);
}

void DrawingArea::showBench(advice::Station station) {
    benchInstead_.insert(station);
    show(station_);
}

void DrawingArea::showOwn(advice::Station station) {
    benchInstead_.erase(station);
    show(station_);
}

void DrawingArea::show(advice::Station station) {
    using advice::Station;
    station_ = station;
    const bool bench = benchInstead_.contains(station);
    const bool subject = station == Station::subject && !bench;
    const bool train = station == Station::reach && !bench;
    const bool finder = station != Station::subject && station != Station::reach && !bench;
    if (subject && !subject_) buildSubject();
    if (train && !train_) buildTrain();
    if (finder && !finder_) buildFinder();
    rename(own_, station == Station::subject ? tr("see the subject")
                 : station == Station::reach ? tr("see the train")
                                             : tr("see the finder"));
    own_->setVisible(bench);
    if (finder != finderShown_) {
        finderShown_ = finder;
        Q_EMIT finderShown(finder);
    }
    stack_->setCurrentWidget(subject  ? static_cast<QWidget*>(subject_)
                             : train  ? train_->parentWidget()
                             : finder ? static_cast<QWidget*>(finder_)
                                      : bench_);
    stack_->show();
    if (subject) subject_->refresh();
    if (train) train_->refresh();
    if (finder) finder_->refresh();
}

void DrawingArea::refresh() {
    if (subject_ && subject_->isVisible()) subject_->refresh();
    if (train_ && train_->isVisible()) train_->refresh();
    if (finder_ && finder_->isVisible()) finder_->refresh();
}

}  // namespace poquito::desk

#include "desk/shell/moc_drawing_area.moc"
