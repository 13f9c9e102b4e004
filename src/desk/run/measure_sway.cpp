#include "desk/run/measure_sway.hpp"

#include "desk/pages/station_page.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/assess.hpp"
#include "plan/motion/chance.hpp"
#include "text/text.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

bool byHand(const Document& document) {
    return document.shot() && document.shot()->rig.support == shoot::Support::hand;
}

bool sways(const Document& document) { return document.shot() && document.shot()->subject.sway_amplitude > 0; }

std::optional<double> numberIn(const QLineEdit* field) {
    const auto numbers = plan::typed_readings(field->text().toStdString());
    return numbers && numbers->size() == 1 ? std::optional(numbers->front()) : std::nullopt;
}

}  // namespace

bool MeasureSway::asks(const Document& document) { return byHand(document) || sways(document); }

MeasureSway::MeasureSway(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("measureSway"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(10);
    const auto small = [this](const char* name, const QString& label, const QString& text) {
        auto* field = new QLineEdit(text, this);
        nameControl(field, {name, label, label});
        field->setFixedWidth(64);
        connect(field, &QLineEdit::textChanged, this, &MeasureSway::refresh);
        return field;
    };
    along_ =
        addPart(column, "alongReadings", tr("Hands, to and fro"),
                tr("Lean a rule back by 45\u00b0. Hold the camera as you would, focus once, take ten frames without "
                   "focusing again. Type where on the rule each is sharpest, in mm."));
    lean_ = small("leanField", tr("Degrees that the rule leans back"), QStringLiteral("45"));
    auto* leans = new QHBoxLayout;
    leans->addWidget(new QLabel(tr("leans back by, degrees"), along_.all));
    leans->addWidget(lean_);
    leans->addStretch();
    static_cast<QVBoxLayout*>(along_.all->layout())->insertLayout(2, leans);
    across_ =
        addPart(column, "acrossReadings", tr("Hands, across"),
                tr("Ten frames at this size and shutter time. Type how many pixels a fine line of the rule is drawn "
                   "out by in each, 0 where it is sharp."));
    auto* kept = new QHBoxLayout;
    holdName_ = new QLineEdit(this);
    nameControl(holdName_, {"holdNameField", tr("Name of this way of holding"), tr("Such as: elbows on the wall")});
    holdName_->setPlaceholderText(tr("elbows on the wall"));
    keep_ = captionedButton(
        {"keepHoldButton", tr("Keep in the bag"), tr("Offered from then on wherever hands hold it")}, this);
    kept->addWidget(holdName_, 1);
    kept->addWidget(keep_);
    static_cast<QVBoxLayout*>(across_.all->layout())->addLayout(kept);
    connect(keep_, &QPushButton::clicked, this, &MeasureSway::keepHold);
    connect(holdName_, &QLineEdit::textChanged, this, &MeasureSway::refresh);
    wind_ = addPart(
        column, "windReadings", tr("Wind"),
        tr("Stand a rule beside it and take ten frames at any moment. Type where the tip stands in each, in mm. "
           "Or film it for ten seconds and count how often it swings."));
    auto* film = new QHBoxLayout;
    swings_ = small("swingsField", tr("Swings counted in the film"), {});
    seconds_ = small("filmSecondsField", tr("Seconds of film"), QStringLiteral("10"));
    film->addWidget(swings_);
    film->addWidget(new QLabel(tr("swings in"), wind_.all));
    film->addWidget(seconds_);
    film->addWidget(new QLabel(tr("s"), wind_.all));
    film->addStretch();
    static_cast<QVBoxLayout*>(wind_.all->layout())->insertLayout(3, film);
    column->addStretch();
    connect(along_.use, &QPushButton::clicked, this, &MeasureSway::useAlong);
    connect(across_.use, &QPushButton::clicked, this, &MeasureSway::useAcross);
    connect(wind_.use, &QPushButton::clicked, this, &MeasureSway::useWind);
    refresh();
}

MeasureSway::Part MeasureSway::addPart(QVBoxLayout* column, const char* name, const QString& heading,
                                       const QString& how) {
    Part part{.all = new QWidget(this)};
    auto* rows = new QVBoxLayout(part.all);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(4);
    auto* title = new QLabel(heading, part.all);
    title->setFont(textFont(12, QFont::DemiBold));
    rows->addWidget(title);
    auto* words = new QLabel(how, part.all);
    words->setWordWrap(true);
    words->setProperty("quiet", true);
    rows->addWidget(words);
    part.readings = new QLineEdit(part.all);
    nameControl(part.readings, {name, heading, tr("Numbers, divided by spaces")});
    part.readings->setPlaceholderText(tr("ten numbers, divided by spaces"));
    rows->addWidget(part.readings);
    auto* end = new QHBoxLayout;
    part.result = new QLabel(part.all);
    part.result->setWordWrap(true);
    part.use = captionedButton({"", tr("Use it"), tr("For this shot")}, part.all);
    part.use->setObjectName(QString::fromLatin1(name) + QStringLiteral("Use"));
    end->addWidget(part.result, 1);
    end->addWidget(part.use);
    rows->addLayout(end);
    column->addWidget(part.all);
    connect(part.readings, &QLineEdit::textChanged, this, &MeasureSway::refresh);
    return part;
}

std::optional<plan::MeasuredSway> MeasureSway::measured(const Part& part) const {
    const auto readings = plan::typed_readings(part.readings->text().toStdString());
    const auto* assessment = document_.assessment();
    if (!readings || !assessment) return std::nullopt;
    if (part.all == along_.all) {
        const auto lean = numberIn(lean_);
        constexpr double flat = 90;
        return lean && *lean > 0 && *lean <= flat ? plan::sway_along(*readings, *lean) : std::nullopt;
    }
    return part.all == across_.all ? plan::shake_over_usual(*readings, assessment->plan)
                                   : plan::swing_amplitude(*readings);
}

/// What follows, or what is missing for it to follow.
void MeasureSway::say(const Part& part, const std::optional<plan::MeasuredSway>& sway, const QString& of) {
    const auto text = part.readings->text().trimmed();
    const auto readings = plan::typed_readings(text.toStdString());
    part.use->setEnabled(sway.has_value());
    const auto number = [](double value) { return toQt(text::number_text(value, 2)); };
    if (sway)
        part.result->setText(of.arg(number(sway->value), number(sway->least), number(sway->greatest)) +
                             (sway->frames < 8 ? tr(" Ten frames say it closer.") : QString()));
    else if (text.isEmpty())
        part.result->clear();
    else if (!readings)
        part.result->setText(tr("Numbers only, divided by spaces."));
    else if (readings->size() < plan::least_readings)
        part.result->setText(tr("%1 of ten.").arg(readings->size()));
    else
        part.result->setText(tr("Not one differs from the others: read them finer."));
}

void MeasureSway::refresh() {
    if (!keep_ || !wind_.use || !seconds_) return;  // while it is built
    along_.all->setVisible(byHand(document_));
    across_.all->setVisible(byHand(document_));
    wind_.all->setVisible(sways(document_));
    const auto along = measured(along_), across = measured(across_), wind = measured(wind_);
    say(along_, along, tr("They sway by %1 mm to and fro (%2 to %3, nine times of ten)."));
    say(across_, across, tr("They shake %1 times as much as usual (%2 to %3)."));
    say(wind_, wind, tr("It swings by %1 mm to either side (%2 to %3)."));
    const auto swings = numberIn(swings_), seconds = numberIn(seconds_);
    const bool filmed = swings && seconds && *swings > 0 && *seconds > 0;
    if (filmed)
        wind_.result->setText(wind_.result->text() + QLatin1Char(' ') +
                              tr("%1 swings a second.").arg(toQt(text::number_text(*swings / *seconds, 2))));
    wind_.use->setEnabled(wind || filmed);
    keep_->setEnabled(!holdName_->text().trimmed().isEmpty() && document_.shot() &&
                      shoot::tries_of(*document_.shot()).hands);
}

void MeasureSway::useAlong() {
    const auto sway = measured(along_);
    const auto* assessment = document_.assessment();
    if (!sway || !assessment) return;
    auto hands = plan::hands_of(assessment->plan);
    hands.along = sway->value;
    frames_ = sway->frames;
    document_.editShot({tr("Hands as measured, to and fro")},
                       [&](shoot::Shot& shot) { shoot::own_tries(shot).hands = hands; });
    refresh();
}

void MeasureSway::useAcross() {
    const auto sway = measured(across_);
    const auto* assessment = document_.assessment();
    if (!sway || !assessment) return;
    auto hands = plan::hands_of(assessment->plan);
    hands.shift = plan::HandShake::shifting * sway->value;
    hands.turn = plan::HandShake::turning * sway->value;
    frames_ = sway->frames;
    document_.editShot({tr("Hands as measured, across")},
                       [&](shoot::Shot& shot) { shoot::own_tries(shot).hands = hands; });
    refresh();
}

void MeasureSway::useWind() {
    const auto sway = measured(wind_);
    const auto swings = numberIn(swings_), seconds = numberIn(seconds_);
    document_.editShot({tr("Wind as measured")}, [&](shoot::Shot& shot) {
        if (sway) {
            // What goes to and fro keeps its part of it.
            const double times = sway->value / shot.subject.sway_amplitude;
            if (shot.subject.sway_depth) *shot.subject.sway_depth *= times;
            shot.subject.sway_amplitude = sway->value;
        }
        if (swings && seconds && *swings > 0 && *seconds > 0) shot.subject.sway_frequency = *swings / *seconds;
    });
    refresh();
}

/// In the kit of this shoot, and with it in the bag: under a name that is there it takes its place.
void MeasureSway::keepHold() {
    const auto name = holdName_->text().trimmed().toStdString();
    const auto* shot = document_.shot();
    if (!shot || name.empty() || !shoot::tries_of(*shot).hands) return;
    const auto hands = *shoot::tries_of(*shot).hands;
    document_.learn({tr("Keep a way of holding")}, [&](shoot::Shoot& shoot) {
        auto& holds = shoot.kit.holds;
        auto found = std::ranges::find(holds, name, &gear::Hold::name);
        if (found == holds.end()) {
            int number = 1;
            const auto id = [&] { return "hold-" + std::to_string(number); };
            while (gear::find_gear(holds, id())) ++number;
            found = holds.insert(holds.end(), {.id = id(), .name = name});
        }
        found->shift = hands.shift, found->turn = hands.turn, found->along = hands.along;
        found->frames = frames_;
    });
    refresh();
}

}  // namespace poquito::desk

#include "desk/run/moc_measure_sway.moc"
