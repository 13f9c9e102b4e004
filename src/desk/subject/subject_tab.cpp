#include "desk/subject/subject_tab.hpp"

#include "desk/pages/options.hpp"
#include "desk/session/picture_file.hpp"
#include "desk/session/subject_library.hpp"
#include "desk/session/user_file.hpp"
#include "desk/subject/specimen_board.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/sentence.hpp"
#include "shoot/change/edit.hpp"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

SubjectTab::SubjectTab(Document& document, SubjectLibrary& library, QWidget* parent)
    : StationPage(document, parent), library_(library) {
    auto* fields = addColumn(0);
    fields->setSpacing(4);
    auto* group = addGroup(fields, tr("What it is"));
    addForm(group);
    addMovement(group);
    heightMap_ = captionedButton(
        {"heightMapButton", tr("Another height map\u2026"), tr("A grey picture: bright is near. It becomes the form.")},
        this);
    connect(heightMap_, &QPushButton::clicked, this, &SubjectTab::askHeightMap);
    group->addWidget(heightMap_, group->rowCount(), 0, 1, 2);
    fields->addStretch();
    addLibrary(addColumn(1));
    tellProblem(library_, this, &SubjectTab::problemFound);
}

void SubjectTab::addForm(QGridLayout* form) {
    name_ = new LineField(this);
    name_->setObjectName(QStringLiteral("nameField"));
    name_->setAccessibleName(tr("Name of the shot"));
    name_->setToolTip(tr("Name of the shot"));
    form->addWidget(name_, 1, 0, 1, 2);
    connect(name_, &QLineEdit::editingFinished, this, [this] { ++nameVisit_; });
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& text) {
        this->document().editShot({tr("Rename shot"), QStringLiteral("name#%1").arg(nameVisit_)},
                                  [&](Shot& shot) { shot.name = text.toStdString(); });
    });
    wordsOf_ = new LineField(this);
    nameControl(wordsOf_, {"shotWordsField", tr("Species or title"),
                           tr("What else it is looked for by, in the log and in other years: a species, a title, whose "
                              "it is")});
    wordsOf_->setPlaceholderText(tr("species, title, whose it is"));
    form->addWidget(wordsOf_, form->rowCount(), 0, 1, 2);
    connect(wordsOf_, &QLineEdit::editingFinished, this, [this] { ++nameVisit_; });
    connect(wordsOf_, &QLineEdit::textEdited, this, [this](const QString& text) {
        this->document().editShot({tr("Words of the shot"), QStringLiteral("words#%1").arg(nameVisit_)},
                                  [&](Shot& shot) { shot.words = text.toStdString(); });
    });
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
                QMetaObject::invokeMethod(this, &SubjectTab::askHeightMap, Qt::QueuedConnection);
        });
    addChoice(
        form,
        {"textureChoice", tr("Surface"),
         tr("What it is like close to, and what the loupe is sharp or soft of; as usual: by form and care")},
        [](const Kit&) {
            Options options;
            for (const auto& one : textures()) options.emplace_back(idOf(one.texture), one.name);
            return options;
        },
        [](const Shot& s) { return idOf(s.subject.texture); },
        [](Shot& s, const std::string& id) { s.subject.texture = valueOf<Texture>(id); });
    addQuantity(
        form, {"reflectanceField", tr("Reflectance"), tr("Mid grey is 18 %, white paper about 90 %, black card 4 %")},
        shareQuantity(text::range::share), [](const Shot& s) { return s.subject.reflectance; },
        [](Shot& s, double v) {
            s.subject.reflectance = v;
            s.subject.transmittance = std::min(s.subject.transmittance, 1 - v);
            if (s.subject.highlight_reflectance && *s.subject.highlight_reflectance <= v)
                s.subject.highlight_reflectance.reset();
        });
    addQuantity(
        form,
        {"highlightField", tr("Brightest"),
         tr("Reflectance of its brightest part: a glint, a tooth, white glaze; it decides what clips")},
        shareQuantity(text::range::share),
        [](const Shot& s) { return s.subject.highlight_reflectance.value_or(s.subject.reflectance); },
        [](Shot& s, double v) {
            s.subject.highlight_reflectance.reset();
            if (v > s.subject.reflectance) s.subject.highlight_reflectance = v;
        });
    addQuantity(
        form,
        {"transmittanceField", tr("Lets through"),
         tr("Of light from behind, diffusely: a petal 20 to 40 %, a leaf 10 to 20 %; 0: none")},
        shareQuantity(text::range::share), [](const Shot& s) { return s.subject.transmittance; },
        [](Shot& s, double v) { s.subject.transmittance = std::min(v, 1 - s.subject.reflectance); });
    addColour(
        form, {"subjectColourField", tr("Colour"), tr("Hue and strength; how bright it is, reflectance says")},
        [](const Shot& s) { return s.subject.colour; },
        [](Shot& s, const std::optional<Colour>& colour) { s.subject.colour = colour; });
}

void SubjectTab::addMovement(QGridLayout* motion) {
    addQuantity(
        motion, {"speedField", tr("Speed"), tr("Steady movement across the frame")}, speedQuantity(),
        [](const Shot& s) { return s.subject.speed; }, [](Shot& s, double v) { s.subject.speed = v; });
    addQuantity(
        motion, {"swayField", tr("Sway"), tr("Swing in the wind or on a hand, from the middle to the extreme")},
        lengthQuantity(), [](const Shot& s) { return s.subject.sway_amplitude; },
        [](Shot& s, double v) { s.subject.sway_amplitude = v; });
    swayFrequency_ = addQuantity(
        motion, {"swayFrequencyField", tr("Swings"), tr("Full swings a second")}, frequencyQuantity(),
        [](const Shot& s) { return s.subject.sway_frequency; },
        [](Shot& s, double v) { s.subject.sway_frequency = v; });
    addQuantity(
        motion,
        {"nearestField", tr("Lets you come"),
         tr("How near to it the lens may come before it leaves; 0: as near as you like")},
        lengthQuantity(), [](const Shot& s) { return s.subject.nearest.value_or(0); },
        [](Shot& s, double v) { s.subject.nearest = v > 0 ? std::optional(v) : std::nullopt; });
}

// ---- the library -------------------------------------------------------------------------------------------------

void SubjectTab::addLibrary(QVBoxLayout* column) {
    column->setSpacing(4);
    auto* head = addHeading(column, tr("Library"));
    kinds_ = new QComboBox(this);
    nameControl(kinds_, {"libraryKind", tr("Class of subjects"), tr("Which subjects are shown")});
    kinds_->setMaxVisibleItems(20);
    kinds_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    kinds_->setMinimumContentsLength(6);
    kinds_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    kinds_->setMaximumWidth(210);
    head->insertWidget(1, kinds_, 1);
    auto* keeper = new QToolButton(this);
    keeper->setText(tr("Keep this one"));
    keeper->setProperty("link", true);
    nameControl(keeper, {"keepSubjectButton", tr("Keep this one"),
                         tr("Among the library's, as your own: with size, form, movement and care")});
    head->addWidget(keeper);
    connect(keeper, &QToolButton::clicked, this, &SubjectTab::keep);
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setMinimumHeight(120);
    board_ = new SpecimenBoard(scroll);
    board_->setObjectName(QStringLiteral("libraryBoard"));
    board_->setDense();
    scroll->setWidget(board_);
    scroll->viewport()->setAutoFillBackground(false);
    board_->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    assumed_ = new Sentence(2, this);
    assumed_->setObjectName(QStringLiteral("assumed"));
    column->addWidget(assumed_);
    connect(kinds_, &QComboBox::activated, this, [this] { showBoard(kinds_->currentText().toStdString()); });
    connect(board_, &SpecimenBoard::chosen, this, &SubjectTab::take);
    connect(&library_, &SubjectLibrary::changed, this, &SubjectTab::refresh);
}

void SubjectTab::take(const std::string& id) {
    const auto& subjects = library_.subjects();
    const auto found = std::ranges::find(subjects, id, &LibrarySubject::id);
    if (found == subjects.end()) return;
    document().editShot({tr("Fill in \u201c%1\u201d").arg(toQt(found->name))}, [&](Shot& shot) {
        fill_from(shot, document().kit(), *found);
        add_checks(shot, library_.checks(), found->kind);
    });
}

void SubjectTab::showBoard(const std::string& kind) {
    QStringList kinds;
    std::vector<LibrarySubject> shown;
    for (const auto& subject : library_.subjects()) {
        const auto name = toQt(subject.kind);
        if (!kinds.contains(name)) kinds << name;
        if (subject.kind == kind) shown.push_back(subject);
    }
    QStringList listed;
    for (int i = 0; i < kinds_->count(); ++i) listed << kinds_->itemText(i);
    if (listed != kinds) {
        kinds_->clear();
        kinds_->addItems(kinds);
    }
    kinds_->setCurrentText(toQt(kind));
    board_->show(std::move(shown), document().shot()->subject.library);
}

void SubjectTab::keep() {
    const auto problem = library_.keep(*document().shot());
    if (!problem.isEmpty()) Q_EMIT problemFound(tr("The subject was not kept. %1").arg(problem));
    const auto id = "own-" + document().shot()->name;
    document().editShot({tr("Keep the subject")}, [&](Shot& shot) { shot.subject.library = id; });
}

void SubjectTab::askHeightMap() {
    const auto path = QFileDialog::getOpenFileName(this, tr("Height map"), {},
                                                   tr("Pictures (*.png *.jpg *.jpeg *.pgm *.bmp);;All files (*)"));
    if (!path.isEmpty()) loadHeightMap(path);
}

bool SubjectTab::loadHeightMap(const QString& path) {
    const auto refuse = [&](const QString& why) {
        Q_EMIT problemFound(tr("%1 is no height map: %2").arg(QFileInfo(path).fileName(), why));
        return false;
    };
    auto [image, problem] = readPicture(path.toStdString(), Turned::upright);
    if (image.isNull()) return refuse(tr("%1, expected a picture").arg(problem.toLower()));
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

void SubjectTab::showShot(const Shot& shot, const Report&) {
    const auto name = toQt(shot.name);
    if (name_->text() != name) name_->setText(name);
    if (const auto words = toQt(shot.words); wordsOf_->text() != words) wordsOf_->setText(words);
    setRowVisible(swayFrequency_, shot.subject.sway_amplitude > 0);
    heightMap_->setVisible(shot.subject.form == Form::height_map);
    const auto& subjects = library_.subjects();
    // The class of what it is; a class that was looked into stays until another subject comes.
    const auto own =
        shot.subject.library ? std::ranges::find(subjects, *shot.subject.library, &LibrarySubject::id) : subjects.end();
    const auto shown = std::pair(shot.id, shot.subject.library);
    const bool another = shownFor_ != shown || kinds_->count() == 0;
    shownFor_ = shown;
    const auto now = kinds_->currentText().toStdString();
    showBoard(!another || (own == subjects.end() && !now.empty()) ? now
              : own != subjects.end()                             ? own->kind
              : subjects.empty()                                  ? std::string()
                                                                  : subjects.front().kind);
    QStringList words;
    for (const auto& one : assumed(shot, subjects)) words << toQt(one);
    assumed_->setText(words.isEmpty() ? QString()
                                      : tr("Assumed from the library: %1.").arg(words.join(QStringLiteral(", "))));
    assumed_->setVisible(!words.isEmpty());
}

}  // namespace poquito::desk

#include "desk/subject/moc_subject_tab.moc"
