#include "desk/subject/subject_leaf.hpp"

#include "desk/base/colour_field.hpp"
#include "desk/base/options.hpp"
#include "desk/base/sentence.hpp"
#include "desk/subject/frame_drawing.hpp"
#include "desk/subject/subject_library.hpp"
#include "shoot/edit.hpp"

#include <QAbstractItemView>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QImageReader>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStandardItemModel>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

SubjectLeaf::SubjectLeaf(Document& document, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent), library_(library) {
    auto* fields = addColumn(0);

    auto* size = addGroup(fields, tr("Subject"));
    name_ = new QLineEdit(this);
    name_->setObjectName(QStringLiteral("nameField"));
    name_->setAccessibleName(tr("Name of the shot"));
    size->addWidget(name_, 1, 0, 1, 2);
    connect(name_, &QLineEdit::editingFinished, this, [this] { ++nameVisit_; });
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& text) {
        this->document().editShot({tr("Rename shot"), QStringLiteral("name#%1").arg(nameVisit_)},
                                  [&](Shot& shot) { shot.name = text.toStdString(); });
    });
    addLibrary(size);
    addQuantity(
        size, {"widthField", tr("Width"), tr("Across the frame's long side")}, lengthQuantity(text::range::size),
        [](const Shot& s) { return s.subject.width; }, [](Shot& s, double v) { s.subject.width = v; });
    addQuantity(
        size, {"heightField", tr("Height"), tr("Across the frame's short side")}, lengthQuantity(text::range::size),
        [](const Shot& s) { return s.subject.height; }, [](Shot& s, double v) { s.subject.height = v; });
    addQuantity(
        size,
        {"depthField", tr("Depth"),
         tr("From the nearest to the farthest point that is to be sharp; the focus plane passes its middle")},
        lengthQuantity(), [](const Shot& s) { return s.subject.depth; },
        [](Shot& s, double v) { s.subject.depth = v; });
    addQuantity(
        size, {"reflectanceField", tr("Reflectance"), tr("Mid grey is 18 %, white paper about 90 %, black card 4 %")},
        shareQuantity(text::range::share), [](const Shot& s) { return s.subject.reflectance; },
        [](Shot& s, double v) { s.subject.reflectance = v; });

    auto* frame = addGroup(fields, tr("In the frame"));
    addQuantity(
        frame,
        {"fillField", tr("Fill"),
         tr("Share of the frame the subject takes in its tighter direction; sets the magnification")},
        shareQuantity({.least = 0.001, .greatest = 10}),
        [this](const Shot&) { return this->document().report()->optics.fill.value_or(0); },
        [this](Shot& s, double v) {
            const double m = magnification_for_fill(sensor_of(this->document().kit(), s.rig), s.subject, v);
            s.rig.focus = {.by = FocusBy::magnification, .value = m};
        });
    addQuantity(
        frame,
        {"wantedMagnificationField", tr("Magnification"),
         tr("Image size over subject size, whole train; the focus ring goes where it gives this")},
        magnificationQuantity(),
        [this](const Shot& s) {
            return s.rig.focus.by == FocusBy::magnification ? s.rig.focus.value
                                                            : this->document().report()->optics.magnification;
        },
        [](Shot& s, double v) { s.rig.focus = {.by = FocusBy::magnification, .value = v}; });
    assumed_ = new Sentence(4, this);
    assumed_->setObjectName(QStringLiteral("assumed"));
    fields->addWidget(assumed_);
    fields->addStretch();

    auto* second = addColumn(0);
    addForm(second);
    auto* motion = addGroup(second, tr("Movement"));
    addQuantity(
        motion, {"speedField", tr("Speed"), tr("Steady movement across the frame")}, speedQuantity(),
        [](const Shot& s) { return s.subject.speed; }, [](Shot& s, double v) { s.subject.speed = v; });
    addQuantity(
        motion, {"swayField", tr("Sway"), tr("Swing in the wind or on a hand, from the middle to the extreme")},
        lengthQuantity(), [](const Shot& s) { return s.subject.sway_amplitude; },
        [](Shot& s, double v) { s.subject.sway_amplitude = v; });
    addQuantity(
        motion,
        {"nearestField", tr("Lets you come"),
         tr("How near to it the lens may come before it leaves; 0: as near as you like")},
        lengthQuantity(), [](const Shot& s) { return s.subject.nearest.value_or(0); },
        [](Shot& s, double v) { s.subject.nearest = v > 0 ? std::optional(v) : std::nullopt; });
    swayFrequency_ = addQuantity(
        motion, {"swayFrequencyField", tr("Swings"), tr("Full swings a second")}, frequencyQuantity(),
        [](const Shot& s) { return s.subject.sway_frequency; },
        [](Shot& s, double v) { s.subject.sway_frequency = v; });
    second->addStretch();

    frame_ = new FrameDrawing(document, this);
    addDrawing(frame_, 1);
}

// ---- the library -------------------------------------------------------------------------------------------------

void SubjectLeaf::addLibrary(QGridLayout* group) {
    choice_ = new QComboBox(this);
    nameControl(choice_,
                {"libraryChoice", tr("From the library"),
                 tr("A generic subject fills size, form, movement and care; everything stays yours to change")});
    choice_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    choice_->setMinimumContentsLength(10);
    choice_->setMaxVisibleItems(20);
    choice_->view()->setMinimumWidth(250);
    group->addWidget(choice_, group->rowCount(), 0, 1, 2);
    connect(choice_, &QComboBox::activated, this, [this](int index) {
        const auto id = choice_->itemData(index).toString();
        if (id == QLatin1String("keep")) return keep();
        const auto& subjects = library_.subjects();
        const auto found = std::ranges::find(subjects, id.toStdString(), &LibrarySubject::id);
        if (found == subjects.end()) return refresh();
        document().editShot({tr("Fill in \u201c%1\u201d").arg(QString::fromStdString(found->name))}, [&](Shot& shot) {
            fill_from(shot, document().kit(), *found);
            add_checks(shot, library_.checks(), found->kind);
        });
    });
    connect(&library_, &SubjectLibrary::changed, this, &SubjectLeaf::listLibrary);
    listLibrary();
}

void SubjectLeaf::listLibrary() {
    choice_->clear();
    choice_->addItem(tr("From the library\u2026"), QString());
    std::string kind;
    for (const auto& subject : library_.subjects()) {
        if (subject.kind != kind) {
            kind = subject.kind;
            choice_->addItem(QString::fromStdString(kind));
            auto* heading = static_cast<QStandardItemModel*>(choice_->model())->item(choice_->count() - 1);
            heading->setFlags(Qt::NoItemFlags);
        }
        choice_->addItem(QStringLiteral("   ") + QString::fromStdString(subject.name),
                         QString::fromStdString(subject.id));
    }
    choice_->insertSeparator(choice_->count());
    choice_->addItem(tr("Keep this one as my own"), QStringLiteral("keep"));
}

void SubjectLeaf::keep() {
    const auto problem = library_.keep(*document().shot());
    if (!problem.isEmpty()) Q_EMIT problemFound(tr("The subject was not kept. %1").arg(problem));
    const auto id = "own-" + document().shot()->name;
    document().editShot({tr("Keep the subject")}, [&](Shot& shot) { shot.subject.library = id; });
}

void SubjectLeaf::addForm(QVBoxLayout* column) {
    auto* form = addGroup(column, tr("Form"));
    addChoice(
        form,
        {"formChoice", tr("Form"),
         tr("What the finder shows and how deep each part lies; the size is what you measured")},
        [](const Kit&) {
            Options options;
            for (const auto& one : forms()) options.emplace_back(idOf(one.form), one.name);
            return options;
        },
        [](const Shot& s) { return idOf(s.subject.form); },
        [this](Shot& s, const std::string& id) {
            const auto wanted = valueOf<Form>(id);
            if (wanted != Form::height_map || s.subject.height_map)
                s.subject.form = wanted;
            else  // once this choice is done
                QMetaObject::invokeMethod(this, &SubjectLeaf::askHeightMap, Qt::QueuedConnection);
        });
    addQuantity(
        form, {"tiltField", tr("Tilt"), tr("The top away from the camera; negative: towards it")}, attitudeQuantity(),
        [](const Shot& s) { return s.subject.tilt; }, [](Shot& s, double v) { s.subject.tilt = v; });
    addQuantity(
        form, {"turnField", tr("Turn"), tr("The right side away from the camera; negative: towards it")},
        attitudeQuantity(), [](const Shot& s) { return s.subject.turn; },
        [](Shot& s, double v) { s.subject.turn = v; });
    addColour(
        form, {"subjectColourField", tr("Colour"), tr("Hue and strength; how bright it is, reflectance says")},
        [](const Shot& s) { return s.subject.colour; },
        [](Shot& s, const std::optional<Colour>& colour) { s.subject.colour = colour; });
    auto* load = captionedButton(
        {"heightMapButton", tr("Load a height map\u2026"), tr("A grey picture: bright is near. It becomes the form.")},
        this);
    connect(load, &QPushButton::clicked, this, &SubjectLeaf::askHeightMap);
    form->addWidget(load, form->rowCount(), 0, 1, 2);
}

void SubjectLeaf::askHeightMap() {
    const auto path = QFileDialog::getOpenFileName(this, tr("Height map"), {},
                                                   tr("Pictures (*.png *.jpg *.jpeg *.pgm *.bmp);;All files (*)"));
    if (!path.isEmpty()) loadHeightMap(path);
}

bool SubjectLeaf::loadHeightMap(const QString& path) {
    const auto refuse = [&](const QString& why) {
        Q_EMIT problemFound(tr("%1 is no height map: %2").arg(QFileInfo(path).fileName(), why));
        return false;
    };
    QImageReader reader(path);
    reader.setAutoTransform(true);
    constexpr int largest = 20000;
    if (std::max(reader.size().width(), reader.size().height()) > largest)
        return refuse(tr("wider or higher than %1 pixels").arg(largest));
    QImage image = reader.read();
    if (image.isNull()) return refuse(tr("%1, expected a picture").arg(reader.errorString().toLower()));
    if (std::max(image.width(), image.height()) > greatest_height_map)
        image = image.scaled(greatest_height_map, greatest_height_map, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    if (image.width() < 2 || image.height() < 2)
        return refuse(tr("got %1 × %2 pixels, expected 2 or more each way").arg(image.width()).arg(image.height()));
    image = image.convertToFormat(QImage::Format_Grayscale8);
    HeightMap map{.width = image.width(), .height = image.height(), .heights = {}};
    for (int y = 0; y < map.height; ++y)
        map.heights.insert(map.heights.end(), image.constScanLine(y), image.constScanLine(y) + map.width);
    if (const auto [low, high] = std::ranges::minmax(map.heights); low == high)
        return refuse(tr("it has the same grey everywhere, expected bright for near and dark for far"));
    document().editShot({tr("Load a height map")}, [&](Shot& shot) {
        shot.subject.form = Form::height_map;
        shot.subject.height_map = map;
    });
    return true;
}

void SubjectLeaf::showShot(const Shot& shot, const Report&) {
    const auto name = QString::fromStdString(shot.name);
    if (name_->text() != name) name_->setText(name);
    setRowEnabled(swayFrequency_, shot.subject.sway_amplitude > 0);
    frame_->update();
    const auto id = shot.subject.library ? QString::fromStdString(*shot.subject.library) : QString();
    choice_->setCurrentIndex(std::max(0, choice_->findData(id)));
    QStringList words;
    for (const auto& one : assumed(shot, library_.subjects())) words << QString::fromStdString(one);
    assumed_->setText(words.isEmpty() ? QString()
                                      : tr("Assumed from the library: %1.").arg(words.join(QStringLiteral(", "))));
}

}  // namespace poquito::desk
