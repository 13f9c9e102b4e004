#include "desk/run/steps_tab.hpp"

#include "desk/run/band_dialog.hpp"
#include "desk/run/steps_chart.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "devices/clock.hpp"
#include "plan/plan.hpp"
#include "plan/stack/step_sizes.hpp"
#include "text/text.hpp"

#include <QGridLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using namespace text;
using namespace gear;
using namespace shoot;
using namespace plan;

namespace {}  // namespace

StepsTab::StepsTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* left = addColumn(5);
    auto* camera = addGroup(left, tr("The camera"));
    settings_ = addField(
        camera, {"stepSettingsField", tr("Settings 1 to"), tr("How many widths of step it offers; 0: it names none")},
        countQuantity());
    connect(settings_, &QuantityField::valueEdited, this, [this](double v) {
        editCamera(tr("Change the step settings"),
                   [v](Camera& body) { body.bracket.step_settings = static_cast<int>(std::clamp(v, 0.0, 1000.0)); });
    });
    auto* reading = addGroup(left, tr("A photographed rule"));
    setting_ = addField(reading, {"readingSettingField", tr("Setting"), tr("That the bracket was taken with")},
                        ratioQuantity({.least = 0.1, .greatest = 1000}));
    setting_->setValue(5);
    stop_ = addField(reading, {"readingStopField", tr("Marked stop"), tr("That the bracket was taken at")},
                     fNumberQuantity());
    frames_ =
        addField(reading, {"readingFramesField", tr("Frames"), tr("In the bracket, two or more")}, countQuantity());
    frames_->setValue(20);
    travel_ = addField(reading,
                       {"readingTravelField", tr("Focus went"), tr("Along the axis, from the first frame to the last")},
                       lengthQuantity(text::range::size));
    travel_->setValue(5);
    auto* row = new QHBoxLayout;
    row->setSpacing(4);
    const auto button = [&](const Caption& caption, void (StepsTab::*run)()) {
        auto* made = captionedButton(caption, this);
        connect(made, &QPushButton::clicked, this, run);
        row->addWidget(made);
        return made;
    };
    button({"bandPicturesButton", tr("Two pictures\u2026"), tr("Marks where the first and the last are sharp")},
           &StepsTab::fromPictures);
    button({"enterReadingButton", tr("Enter it"), tr("Adds the reading to the camera's record, here and in the bag")},
           &StepsTab::enter);
    row->addStretch();
    left->addLayout(row);
    left->addStretch();

    auto* middle = addColumn(4);
    auto* head = addHeading(middle, tr("Readings"));
    remove_ = captionedButton({"removeReadingButton", tr("Remove"), tr("The chosen reading")}, this);
    connect(remove_, &QPushButton::clicked, this, &StepsTab::remove);
    head->addWidget(remove_);
    table_ = new QTableWidget(0, 4, this);
    table_->setTabKeyNavigation(false);  // Tab goes on; arrows go from cell to cell
    table_->setObjectName(QStringLiteral("readingsTable"));
    table_->setAccessibleName(tr("Readings with this lens"));
    table_->setHorizontalHeaderLabels({tr("Set"), tr("Stop"), tr("n"), tr("mm")});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table_->horizontalHeader()->setToolTip(tr("Setting, marked stop, frames in the bracket, how far focus went"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(21);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->setMinimumWidth(150);
    middle->addWidget(table_, 1);
    verdict_ = new Sentence(4, this);
    verdict_->setObjectName(QStringLiteral("stepsVerdict"));
    middle->addWidget(verdict_);
    chart_ = new StepsChart(document, this);
    addDrawing(chart_, 9);
}

void StepsTab::editCamera(const QString& label, const std::function<void(Camera&)>& change) {
    const auto* shot = document().shot();
    if (!shot) return;
    const auto id = shot->rig.camera;
    document().learn({label}, [&](Shoot& shoot) { change(*std::ranges::find(shoot.kit.cameras, id, &Camera::id)); });
}

void StepsTab::enter() {
    const auto* shot = document().shot();
    if (!shot) return;
    const auto& plan = document().assessment()->plan;
    const auto step = ring_step_of(plan.train, plan.at.ring, travel_->value(), std::max(2.0, frames_->value()));
    if (!step || !(*step > 0) || *step > 1)
        return Q_EMIT problemFound(tr("From this focus the ring cannot take the plane %1 further away: was it another "
                                      "magnification?")
                                       .arg(toQt(length_text(travel_->value()))));
    editCamera(tr("Enter a step reading"), [&](Camera& camera) {
        camera.step_readings.push_back({.lens = shot->rig.lens,
                                        .setting = setting_->value(),
                                        .f_number = stop_->value(),
                                        .magnification = plan.at.magnification,
                                        .frames = std::max(2.0, frames_->value()),
                                        .travel = travel_->value(),
                                        .ring_step = *step,
                                        .time = devices::local_time()});
        camera.bracket.step_settings = std::max(camera.bracket.step_settings, usual_step_settings);
    });
}

void StepsTab::remove() {
    const int row = table_->currentRow();
    const auto* shot = document().shot();
    if (row < 0 || !shot) return;
    const auto lens = shot->rig.lens;
    editCamera(tr("Remove a step reading"), [&](Camera& camera) {
        int seen = 0;
        for (auto at = camera.step_readings.begin(); at != camera.step_readings.end(); ++at)
            if (at->lens == lens && seen++ == row) {
                camera.step_readings.erase(at);
                return;
            }
    });
}

void StepsTab::fromPictures() {
    const auto* shot = document().shot();
    if (!shot) return;
    const auto& plan = document().assessment()->plan;
    auto* dialog = new BandDialog(std::max(plan.sensor.width, plan.sensor.height), plan.at.magnification, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &QDialog::accepted, this, [this, dialog] {
        if (const auto travel = dialog->travel()) travel_->setValue(*travel);
    });
    dialog->open();
}

void StepsTab::showReadings(std::vector<StepReading> readings) {
    listed_ = true;
    shown_ = std::move(readings);
    table_->setRowCount(static_cast<int>(shown_.size()));
    for (int row = 0; row < table_->rowCount(); ++row) {
        const auto& reading = shown_[static_cast<std::size_t>(row)];
        const QString cells[] = {toQt(number_text(reading.setting)), toQt(f_number_text(reading.f_number)),
                                 toQt(number_text(reading.frames, 5)), toQt(number_text(reading.travel, 3))};
        for (int column = 0; column < 4; ++column) {
            auto* item = new QTableWidgetItem(cells[column]);
            item->setTextAlignment(Qt::AlignCenter);
            item->setToolTip(tr("at %1, %2").arg(toQt(magnification_text(reading.magnification)), toQt(reading.time)));
            table_->setItem(row, column, item);
        }
    }
    remove_->setEnabled(!shown_.empty());
}

void StepsTab::showShot(const Shot& shot, const Report& report) {
    const auto& plan = document().assessment()->plan;
    settings_->setValue(plan.camera.bracket.step_settings);
    if (shotShown_ != shot.id) {
        shotShown_ = shot.id;
        stop_->setValue(shot.exposure.f_number);
    }
    std::vector<StepReading> readings;
    for (const auto& reading : plan.camera.step_readings)
        if (reading.lens == plan.lens.id) readings.push_back(reading);
    if (readings != shown_ || !listed_) showReadings(std::move(readings));
    const auto fit = fit_steps(plan.camera.step_readings, plan.lens.id);
    QString words;
    if (!fit) {
        words = plan.camera.bracket.step_settings > 0
                    ? tr("Until a rule is read, frames are counted by the rule, and the camera's steps are a guess.")
                    : tr("This camera names no widths of step.");
    } else {
        words = tr("Read to within %1 %.").arg(toQt(number_text(fit->spread * 100, 2)));
        if (!fit->setting_fitted) words += tr(" One setting only: others are taken in proportion.");
        if (!fit->stop_fitted) words += tr(" One stop only.");
        const auto& stack = report.capture.stack;
        if (stack && stack->bracket() && stack->bracket()->choice)
            words += tr(" Here: setting %1, %2.")
                         .arg(toQt(number_text(stack->bracket()->choice->setting)),
                              toQt(count_text(report.capture.frames, "frame", "frames")));
    }
    verdict_->setText(words);
    chart_->refresh();
}

}  // namespace poquito::desk

#include "desk/run/moc_steps_tab.moc"
