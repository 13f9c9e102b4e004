#include "desk/subject_page.hpp"

#include "desk/frame_drawing.hpp"
#include "shoot/edit.hpp"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>

namespace poquito::desk {

using namespace shoot;

SubjectPage::SubjectPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* fields = addColumn(0);

    auto* size = addGroup(fields, tr("Subject"));
    name_ = new QLineEdit(this);
    name_->setObjectName(QStringLiteral("nameField"));
    name_->setAccessibleName(tr("Name of the shot"));
    size->addWidget(name_, 1, 0, 1, 2);
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& text) {
        this->document().editShot({tr("Rename shot"), QStringLiteral("name")},
                                  [&](Shot& shot) { shot.name = text.toStdString(); });
    });
    addQuantity(
        size, {"widthField", tr("Width"), tr("Across the frame's long side")}, lengthQuantity(false),
        [](const Shot& s) { return s.subject.width; }, [](Shot& s, double v) { s.subject.width = v; });
    addQuantity(
        size, {"heightField", tr("Height"), tr("Across the frame's short side")}, lengthQuantity(false),
        [](const Shot& s) { return s.subject.height; }, [](Shot& s, double v) { s.subject.height = v; });
    addQuantity(
        size,
        {"depthField", tr("Depth"),
         tr("From the nearest to the farthest point that is to be sharp; the focus plane passes its middle")},
        lengthQuantity(), [](const Shot& s) { return s.subject.depth; },
        [](Shot& s, double v) { s.subject.depth = v; });
    addQuantity(
        size, {"reflectanceField", tr("Reflectance"), tr("Mid grey is 18 %, white paper about 90 %, black card 4 %")},
        shareQuantity(0, 1), [](const Shot& s) { return s.subject.reflectance; },
        [](Shot& s, double v) { s.subject.reflectance = v; });

    auto* frame = addGroup(fields, tr("In the frame"));
    addQuantity(
        frame,
        {"fillField", tr("Fill"),
         tr("Share of the frame the subject takes in its tighter direction; sets the magnification")},
        shareQuantity(0.001, 10), [this](const Shot&) { return this->document().report()->optics.fill.value_or(0); },
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
    fields->addStretch();

    auto* second = addColumn(0);
    auto* motion = addGroup(second, tr("Movement"));
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
    auto* traits = addGroup(second, tr("Calls for care"));
    for (const auto& trait : subject_traits()) {
        const std::string id = trait.id;
        const QByteArray name = QByteArray("trait-") + trait.id;
        addCheck(
            traits, {name.constData(), tr(trait.name), tr("Brings up the cautions that go with it")},
            [id](const Shot& s) { return has_trait(s.subject, id); },
            [id](Shot& s, bool on) {
                std::erase(s.subject.traits, id);
                if (on) s.subject.traits.push_back(id);
            });
    }
    second->addStretch();

    frame_ = new FrameDrawing(document, this);
    addDrawing(frame_, 1);
}

void SubjectPage::showShot(const Shot& shot, const Report&) {
    const auto name = QString::fromStdString(shot.name);
    if (name_->text() != name) name_->setText(name);
    setRowEnabled(swayFrequency_, shot.subject.sway_amplitude > 0);
    frame_->update();
}

}  // namespace poquito::desk
