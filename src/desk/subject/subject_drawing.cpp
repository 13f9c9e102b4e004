#include "desk/subject/subject_drawing.hpp"

#include "shoot/form/form.hpp"

#include "desk/drawing/frame_drawing.hpp"
#include "shoot/change/edit.hpp"

#include <QHBoxLayout>
#include <QToolButton>

namespace poquito::desk {

namespace {

/// Degrees that a subject may be tilted or turned.
Quantity attitude_quantity() {
    return angleQuantity({.least = -shoot::greatest_view_angle, .greatest = shoot::greatest_view_angle});
}

}  // namespace

using namespace shoot;
using Spot = FrameDrawing::Spot;

SubjectDrawing::SubjectDrawing(Document& document, QWidget* parent)
    : StationPage(document, parent), frame_(new FrameDrawing(document, this)) {
    addDrawing(frame_, 1);
    addSizes();
    addPlace();
    addAttitude();
    auto* corner = new QHBoxLayout(frame_);
    corner->setContentsMargins(0, 4, 8, 0);
    corner->addStretch();
    auto* bench = new QToolButton(frame_);
    bench->setText(tr("see the bench"));
    nameControl(bench, {"subjectBenchButton", tr("see the bench"), tr("The whole set to scale")});
    bench->setProperty("link", true);
    connect(bench, &QToolButton::clicked, this, &SubjectDrawing::benchWanted);
    corner->addWidget(bench, 0, Qt::AlignTop);
}

void SubjectDrawing::addSizes() {
    frame_->holdField(Spot::width, addQuantityOn(
                                       frame_, {"widthField", tr("Width"), tr("Across the frame's long side")},
                                       lengthQuantity(text::range::size), [](const Shot& s) { return s.subject.width; },
                                       [](Shot& s, double v) { s.subject.width = v; }));
    frame_->holdField(Spot::height,
                      addQuantityOn(
                          frame_, {"heightField", tr("Height"), tr("Across the frame's short side")},
                          lengthQuantity(text::range::size), [](const Shot& s) { return s.subject.height; },
                          [](Shot& s, double v) { s.subject.height = v; }));
    frame_->holdField(
        Spot::depth,
        addQuantityOn(
            frame_,
            {"depthField", tr("Depth"),
             tr("From the nearest to the farthest point that is to be sharp; the focus plane passes its middle")},
            lengthQuantity(), [](const Shot& s) { return s.subject.depth; },
            [](Shot& s, double v) { s.subject.depth = v; }));
}

void SubjectDrawing::addPlace() {
    frame_->holdField(Spot::fill,
                      addQuantityOn(
                          frame_,
                          {"fillField", tr("Fill"),
                           tr("Share of the frame the subject takes in its tighter direction; sets the magnification")},
                          shareQuantity({.least = 0.001, .greatest = 10}),
                          [this](const Shot&) { return document().report()->optics.fill.value_or(0); },
                          [this](Shot& s, double v) {
                              const double m = magnification_for_fill(sensor_of(document().kit(), s.rig), s.subject, v);
                              s.rig.focus = {.by = FocusBy::magnification, .value = m};
                          }));
    frame_->holdField(Spot::magnification,
                      addQuantityOn(
                          frame_,
                          {"wantedMagnificationField", tr("Magnification"),
                           tr("Image size over subject size, whole train; the focus ring goes where it gives this")},
                          magnificationQuantity(),
                          [this](const Shot& s) {
                              return s.rig.focus.by == FocusBy::magnification
                                         ? s.rig.focus.value
                                         : document().report()->optics.magnification;
                          },
                          [](Shot& s, double v) { s.rig.focus = {.by = FocusBy::magnification, .value = v}; }));
}

void SubjectDrawing::addAttitude() {
    frame_->holdField(Spot::tilt,
                      addQuantityOn(
                          frame_, {"tiltField", tr("Tilt"), tr("The top away from the camera; negative: towards it")},
                          attitude_quantity(), [](const Shot& s) { return s.subject.tilt; },
                          [](Shot& s, double v) { s.subject.tilt = v; }));
    frame_->holdField(
        Spot::turn,
        addQuantityOn(
            frame_, {"turnField", tr("Turn"), tr("The right side away from the camera; negative: towards it")},
            attitude_quantity(), [](const Shot& s) { return s.subject.turn; },
            [](Shot& s, double v) { s.subject.turn = v; }));
}

void SubjectDrawing::showShot(const Shot&, const plan::Report&) {
    frame_->placeFields();
    frame_->update();
}

}  // namespace poquito::desk

#include "desk/subject/moc_subject_drawing.moc"
