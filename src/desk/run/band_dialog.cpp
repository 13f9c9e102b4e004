#include "desk/run/band_dialog.hpp"

#include "desk/drawing/ruler_view.hpp"
#include "desk/session/picture_file.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/quantity_field.hpp"
#include "imaging/inspect/sharp_band.hpp"
#include "text/text.hpp"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace poquito::desk {

BandDialog::BandDialog(double frameWidth, double magnification, QWidget* parent)
    : QDialog(parent), frameWidth_(frameWidth), magnification_(magnification) {
    setObjectName(QStringLiteral("bandDesk"));
    setWindowTitle(tr("How far focus went"));
    resize(980, 560);
    auto* column = new QVBoxLayout(this);
    auto* words =
        new QLabel(tr("Photograph a rule that leans back, top away from the camera, as a bracket. Put the first "
                      "and the last picture here and click where each is sharpest."),
                   this);
    words->setWordWrap(true);
    column->addWidget(words);
    auto* pictures = new QHBoxLayout;
    const char* names[] = {"firstPictureButton", "lastPictureButton"};
    const QString labels[] = {tr("First picture\u2026"), tr("Last picture\u2026")};
    for (std::size_t i = 0; i < 2; ++i) {
        auto* side = new QVBoxLayout;
        auto* open = captionedButton({names[i], labels[i], tr("Open it; the sharpest row is marked")}, this);
        connect(open, &QPushButton::clicked, this, [this, i] { ask(i); });
        side->addWidget(open, 0, Qt::AlignLeft);
        views_[i] = new RulerView(this);
        views_[i]->setObjectName(i == 0 ? QStringLiteral("firstBandView") : QStringLiteral("lastBandView"));
        views_[i]->setSnapping(false);
        views_[i]->setMarksWanted(1);
        connect(views_[i], &RulerView::marksChanged, this, &BandDialog::refresh);
        side->addWidget(views_[i], 1);
        pictures->addLayout(side);
    }
    column->addLayout(pictures, 1);
    auto* foot = new QHBoxLayout;
    auto* label = new QLabel(tr("It leans back by"), this);
    tilt_ = new QuantityField(angleQuantity(), this);
    nameControl(tilt_,
                {"bandTiltField", tr("It leans back by"), tr("Degrees from standing upright before the camera")});
    tilt_->setValue(45);
    label->setBuddy(tilt_);
    connect(tilt_, &QuantityField::valueEdited, this, &BandDialog::refresh);
    foot->addWidget(label);
    foot->addWidget(tilt_);
    result_ = new QLabel(this);
    result_->setObjectName(QStringLiteral("bandResult"));
    foot->addWidget(result_, 1);
    take_ = captionedButton({"takeBandButton", tr("Take this travel"), tr("Into the reading")}, this);
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    foot->addWidget(take_);
    auto* cancel = captionedButton({"cancelBandButton", tr("Cancel"), tr("Nothing is taken")}, this);
    connect(cancel, &QPushButton::clicked, this, &QDialog::reject);
    foot->addWidget(cancel);
    column->addLayout(foot);
    refresh();
}

void BandDialog::ask(std::size_t which) {
    const auto path =
        QFileDialog::getOpenFileName(this, tr("A picture of the rule"), {}, tr("Pictures (*.jpg *.jpeg *.png)"));
    if (!path.isEmpty()) openPicture(which, path);
}

bool BandDialog::openPicture(std::size_t which, const QString& path) {
    const auto [image, problem] = readPicture(path.toStdString(), Turned::upright);
    if (image.isNull()) {
        result_->setText(tr("This picture cannot be read: %1").arg(problem));
        return false;
    }
    views_[which]->setImage(image);
    if (const auto band = imaging::sharp_band(views_[which]->grey()))
        views_[which]->setFirstMark({.x = image.width() / 2.0, .y = band->row});
    refresh();
    return true;
}

std::optional<double> BandDialog::travel() const {
    const auto &first = views_[0]->marks()[0], &last = views_[1]->marks()[0];
    if (!first || !last || views_[0]->imageSize() != views_[1]->imageSize()) return std::nullopt;
    const double pitch = frameWidth_ / std::max(views_[0]->imageSize().width(), views_[0]->imageSize().height());
    const double way =
        std::abs(imaging::travel_along_axis(first->place.y - last->place.y, pitch, magnification_, tilt_->value()));
    return way > 0 ? std::optional(way) : std::nullopt;
}

void BandDialog::refresh() {
    const auto found = travel();
    take_->setEnabled(found.has_value());
    const bool both = views_[0]->hasImage() && views_[1]->hasImage();
    if (found)
        result_->setText(tr("Focus went %1 along the axis.").arg(toQt(text::length_text(*found))));
    else if (both && views_[0]->imageSize() != views_[1]->imageSize())
        result_->setText(tr("The two pictures are not of the same size."));
    else
        result_->setText(both ? tr("Click where each is sharpest.") : QString());
}

}  // namespace poquito::desk

#include "desk/run/moc_band_dialog.moc"
