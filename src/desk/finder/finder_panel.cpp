#include "desk/finder/finder_panel.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/finder/finder_view.hpp"
#include "desk/finder/loupe_view.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "text/text.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <iterator>

namespace poquito::desk {
namespace {

struct Crop {
    const char* name;
    double aspect;
};
constexpr int picture_width = 1920;  // pixels: fills a screen, and stays a small file

constexpr Crop crops[] = {{"3 : 2", 1.5}, {"4 : 3", 4.0 / 3}, {"1 : 1", 1}, {"4 : 5", 0.8}, {"16 : 9", 16.0 / 9}};

/// "5:7", "2.35", "16x9".
std::optional<double> aspectOf(QString text) {
    text.replace(QLatin1Char('x'), QLatin1Char(':')).replace(QChar(0xd7), QLatin1Char(':'));
    const auto aspect = text::parse_magnification(text.toStdString());
    constexpr double least = 0.1, greatest = 10;
    return aspect && *aspect >= least && *aspect <= greatest ? aspect : std::nullopt;
}

}  // namespace

FinderPanel::FinderPanel(Document& document, QWidget* parent)
    : QWidget(parent),
      document_(document),
      finder_(new FinderView(document, this)),
      loupe_(new LoupeView(document, this)),
      side_(new QWidget(this)),
      saving_(new PictureQueue(this)) {
    setObjectName(QStringLiteral("finderPanel"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(12, 6, 12, 8);
    row->setSpacing(12);
    row->addWidget(finder_, 1);
    auto* column = new QVBoxLayout(side_);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* links = new QHBoxLayout;
    links->addStretch();
    const auto link = [&](const char* name, const QString& label, const QString& tip, const auto& run) {
        auto* button = new QToolButton(side_);
        button->setText(label);
        nameControl(button, {name, label, tip});
        button->setProperty("link", true);
        connect(button, &QToolButton::clicked, this, run);
        links->addWidget(button);
    };
    link("savePictureButton", tr("Save\u2026"),
         tr("The frame as PNG with the plan in it; dropped on the window it brings the plan back"), [this] {
             if (!document_.shot()) return;
             const auto path =
                 askSavePath(this, tr("Save picture"), toQt(document_.shot()->name) + QStringLiteral(".png"),
                             QStringLiteral("png"));
             if (!path.isEmpty()) savePicture(path);
         });
    link("benchButton", tr("see the bench"), tr("The whole set to scale"), [this] { Q_EMIT benchWanted(); });
    column->addLayout(links);
    column->addWidget(loupe_);
    addOverlays(column);
    column->addStretch();
    row->addWidget(side_);
    connect(finder_, &FinderView::loupeMoved, loupe_, &LoupeView::setPlace);
}

void FinderPanel::addOverlays(QLayout* column) {
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(10);
    grid->setVerticalSpacing(2);
    int index = 0;
    const auto check = [&](const char* name, const QString& label, const QString& tip, bool FinderOverlays::*member) {
        auto* box = new QCheckBox(label, side_);
        nameControl(box, {name, label, tip});
        box->setChecked(finder_->overlays().*member);
        connect(box, &QCheckBox::toggled, this, [this, member](bool on) {
            auto overlays = finder_->overlays();
            overlays.*member = on;
            finder_->setOverlays(overlays);
        });
        grid->addWidget(box, index / 2, index % 2);
        ++index;
        return box;
    };
    check("sliceCheck", tr("Slice"), tr("Outline of what one frame holds sharp"), &FinderOverlays::slice);
    check("clippingCheck", tr("Clipping"), tr("Stripes where a channel is full, dots where nothing is left"),
          &FinderOverlays::clipping);
    check("thirdsCheck", tr("Thirds"), tr("Lines at a third of width and height"), &FinderOverlays::thirds);
    check("marginCheck", tr("Margin"), tr("Keep 5 % of each side free of what matters"), &FinderOverlays::margin);
    check("fillCheck", tr("Fill"), tr("Box about the subject, and its share of the frame"), &FinderOverlays::fill);
    path_ = check("pathCheck", tr("Path"), tr("Of what falls or is thrown, to scale, with the blur the flash leaves"),
                  &FinderOverlays::path);
    auto* crop = new QComboBox(side_);
    crop->setEditable(true);
    crop->setInsertPolicy(QComboBox::NoInsert);
    crop->addItem(tr("no crop"));
    for (const auto& one : crops) crop->addItem(QLatin1String(one.name));
    nameControl(crop,
                {"cropShapeChoice", tr("Crop"),
                 tr("Shape of the picture that is delivered, kept with the shot; any such as 5 : 7 can be typed")});
    connect(crop, &QComboBox::currentTextChanged, this, [this](const QString& text) {
        const auto shape = aspectOf(text);
        const auto* shot = document_.shot();
        if (!shot || shot->picture_shape == shape) return;
        // While it is typed that is one step back.
        document_.editShot({tr("Shape of the picture"), QStringLiteral("pictureShape")},
                           [&](shoot::Shot& edited) { edited.picture_shape = shape; });
    });
    shape_ = crop;
    // What cannot be a shape does not stay as if it were one.
    connect(crop->lineEdit(), &QLineEdit::editingFinished, this, [this] {
        const auto* shot = document_.shot();
        if (shot && !shot->picture_shape) {
            const QSignalBlocker quiet(shape_);
            shape_->setCurrentIndex(0);
        }
    });
    grid->addWidget(crop, index / 2, index % 2);
    static_cast<QVBoxLayout*>(column)->addLayout(grid);
}

/// What is typed stays as it is, unless the shot says otherwise.
void FinderPanel::showShape() {
    const auto* shot = document_.shot();
    path_->setVisible(shot && (shot->freeze || shoot::tries_of(*shot).perch));
    const auto shape = shot ? shot->picture_shape : std::nullopt;
    auto overlays = finder_->overlays();
    overlays.crop = shape;
    finder_->setOverlays(overlays);
    if (aspectOf(shape_->currentText()) == shape) return;
    const auto known =
        std::ranges::find_if(crops, [&](const Crop& one) { return shape && std::abs(one.aspect - *shape) < 1e-4; });
    const QSignalBlocker quiet(shape_);
    shape_->setCurrentText(!shape                     ? tr("no crop")
                           : known != std::end(crops) ? QLatin1String(known->name)
                                                      : toQt(text::number_text(*shape, 4)));
}

void FinderPanel::refresh() {
    showShape();
    finder_->refresh();
    loupe_->refresh();
}

void FinderPanel::savePicture(const QString& path) {
    saving_->render([this, path, shoot = document_.snapshot(), index = document_.current(),
                     assessment = document_.sharedAssessment(document_.current())](const auto&) -> PictureQueue::Show {
        const auto image =
            thumbnail(shoot->kit, shoot->shots[static_cast<std::size_t>(index)], assessment->report, picture_width, 0);
        return [this, path, shoot, index, image] {
            if (image.isNull()) return Q_EMIT problemFound(tr("Focused at infinity: there is no picture to save."));
            const auto problem = writeWithPlan(image, *shoot, static_cast<std::size_t>(index), path);
            if (problem.isEmpty())
                Q_EMIT saved(path);
            else
                Q_EMIT problemFound(tr("%1 was not saved. %2").arg(QFileInfo(path).fileName(), problem));
        };
    });
}

void FinderPanel::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    // The loupe shows all its pixels where there is room for a finder beside it.
    const bool narrow = width() < 620;
    side_->setFixedWidth(narrow ? 168 : LoupeView::columns);
    loupe_->setFixedHeight((narrow ? 104 : LoupeView::rows) + 18);
}

}  // namespace poquito::desk

#include "desk/finder/moc_finder_panel.moc"
