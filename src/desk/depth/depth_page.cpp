#include "desk/depth/depth_page.hpp"

#include "desk/depth/depth_chart.hpp"
#include "desk/depth/judgement_strip.hpp"
#include "desk/depth/ladder_view.hpp"
#include "desk/depth/lapse_form.hpp"
#include "desk/depth/plane_drawing.hpp"
#include "desk/drawing/card_swatches.hpp"
#include "desk/drawing/rendering.hpp"
#include "desk/pages/options.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/file_dialogs.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/tabs.hpp"
#include "plan/assess.hpp"
#include "plan/set/background_blur.hpp"
#include "render/scene.hpp"
#include "text/text.hpp"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

using namespace text;
using namespace shoot;
using namespace plan;

namespace {

/// The ladder, the plane and the long settings take the whole sheet.
bool tab_has_room(int index) { return index == 0 || index == 3; }

QString rule_sentence(const Shot& shot) {
    switch (shot.sharpness.rule) {
        case BlurRule::pixel:
            return QObject::tr("Sharp is what the sensor's own pixels cannot tell from a point: the strictest school.");
        case BlurRule::diagonal:
            return QObject::tr(
                "Sharp is what a whole picture of ordinary size shows as a point: the depth scales on lenses.");
        case BlurRule::output:
            return QObject::tr("Sharp is what the finished picture shows as a point, print or screen, crop included.");
        case BlurRule::stated:
            return QObject::tr("Sharp is what you say.");
    }
    return {};
}

}  // namespace

DepthPage::DepthPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* column = addColumn(1);
    column->setSpacing(4);
    tabs_ = new Tabs(this);
    column->addWidget(tabs_, 1);
    connect(tabs_, &Tabs::turned, this, [this](int index) {
        strip_->setVisible(tab_has_room(index));
        refresh();
    });
    tabs_->addTab({"chartTab", tr("Blur and verdict"), tr("Blur over the marked stop, and what counts as sharp")},
                  chartTab());
    ladder_ = new LadderView(document, this);
    connect(ladder_, &LadderView::sheetWanted, this, &DepthPage::saveSheet);
    tabs_->addTab({"ladderTab", tr("Ladder"), tr("The frame at a row of stops, side by side")}, ladder_);
    tabs_->addTab({"planeTab", tr("Plane"), tr("What turning the camera or the subject saves in depth")}, planeTab());
    tabs_->addTab({"backgroundTab", tr("Background"), tr("What becomes of it, and which card sets the subject off")},
                  backgroundTab());
    tabs_->addTab({"settingsTab", tr("Stack"), tr("One frame or a stack, and how it steps")}, settingsTab());
    strip_ = new JudgementStrip(document, this);
    column->addWidget(strip_);
}

QWidget* DepthPage::chartTab() {
    auto* tab = new QWidget(this);
    auto* row = new QHBoxLayout(tab);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    auto* fields = new QVBoxLayout;
    addSharpness(fields);
    ruleText_ = new Sentence(3, this);
    fields->addWidget(ruleText_);
    fields->addStretch();
    row->addLayout(fields, 3);
    chart_ = new DepthChart(document(), this);
    row->addWidget(chart_, 8);
    return tab;
}

QWidget* DepthPage::planeTab() {
    auto* tab = new QWidget(this);
    auto* row = new QHBoxLayout(tab);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    auto* column = new QVBoxLayout;
    column->setSpacing(4);
    planeText_ = new Sentence(5, this);
    planeText_->setObjectName(QStringLiteral("planeText"));
    column->addWidget(planeText_);
    const auto button = [&](const char* name, const QString& label, const QString& tip, const auto& run) {
        auto* made = captionedButton({name, label, tip}, this);
        connect(made, &QPushButton::clicked, this, run);
        column->addWidget(made);
        return made;
    };
    button("leastDepthButton", tr("Find the least depth"),
           tr("The attitude within 45\u00b0 that presents the least depth"),
           [this] { propose(shoot::least_depth(this->document().shot()->subject)); });
    button("planePointsButton", tr("Click three points\u2026"),
           tr("Three points on the subject that are to be sharp together; Escape gives it up"),
           [this] { Q_EMIT planePointsWanted(); });
    turnButton_ =
        button("turnButton", tr("Turn it so"), tr("Turns the subject, which is the camera's going round it"), [this] {
            if (!proposal_) return;
            const auto attitude = *proposal_;
            this->document().editShot({tr("Turn the subject")}, [&](Shot& shot) {
                shot.subject = shoot::faced(shot.subject, attitude);
                shot.sharpness.focus_offset = 0;
            });
            propose(std::nullopt);
        });
    column->addStretch();
    row->addLayout(column, 3);
    plane_ = new PlaneDrawing(document(), this);
    row->addWidget(plane_, 5);
    return tab;
}

QWidget* DepthPage::backgroundTab() {
    auto* tab = new QWidget(this);
    auto* row = new QHBoxLayout(tab);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    auto* fields = new QVBoxLayout;
    auto* group = addGroup(fields, {});
    const auto behind = [](Shot& s, const auto& change) {
        if (s.background) change(*s.background);
    };
    backgroundOnly_ = {
        addQuantity(
            group, {"discDistanceField", tr("Behind"), tr("From the subject's centre")}, lengthQuantity(),
            [](const Shot& s) { return s.background ? s.background->distance : 0; },
            [behind](Shot& s, double v) { behind(s, [&](Background& b) { b.distance = v; }); }),
        addChoice(
            group, {"backgroundKindChoice", tr("Kind"), tr("A plain card, or a place with detail and highlights")},
            enumerated({"card", "scene"}),
            [](const Shot& s) { return idOf(s.background ? s.background->kind : BackgroundKind::card); },
            [behind](Shot& s, const std::string& id) {
                behind(s, [&](Background& b) { b.kind = valueOf<BackgroundKind>(id); });
            }),
        addQuantity(
            group, {"discDetailField", tr("Detail"), tr("Size of a detail one might recognise in it")},
            lengthQuantity(text::range::size), [](const Shot& s) { return s.background ? s.background->detail : 10; },
            [behind](Shot& s, double v) { behind(s, [&](Background& b) { b.detail = v; }); }),
    };
    backgroundColour_ = addColour(
        group, {"backgroundColourField", tr("Colour"), tr("Hue and strength; how bright, reflectance says")},
        [](const Shot& s) { return s.background ? s.background->colour : std::nullopt; },
        [behind](Shot& s, const std::optional<Colour>& colour) {
            behind(s, [&](Background& b) { b.colour = colour; });
        });
    backgroundOnly_.push_back(backgroundColour_);
    fields->addStretch();
    row->addLayout(fields, 3);
    auto* right = new QVBoxLayout;
    backgroundText_ = new Sentence(3, this);
    backgroundText_->setObjectName(QStringLiteral("backgroundText"));
    right->addWidget(backgroundText_);
    cards_ = new CardSwatches("cardSwatches", tr("Cards that set the subject off"), this);
    connect(cards_, &CardSwatches::cardTaken, this, [this](const Colour& colour, double reflectance) {
        document().editShot({tr("Take a card")}, [&](Shot& shot) {
            if (!shot.background) shot.background.emplace();
            shot.background->colour = colour;
            shot.background->kind = BackgroundKind::card;
            shot.background->reflectance = reflectance;
        });
    });
    right->addWidget(cards_);
    right->addStretch();
    row->addLayout(right, 6);
    return tab;
}

QWidget* DepthPage::settingsTab() {
    auto* tab = new QWidget(this);
    auto* row = new QHBoxLayout(tab);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(20);
    auto* column = new QVBoxLayout;
    addCapture(column);
    column->addStretch();
    row->addLayout(column, 3);
    auto* beside = new QVBoxLayout;
    stackText_ = new Sentence(3, this);
    stackText_->setObjectName(QStringLiteral("stackText"));
    beside->addWidget(stackText_);
    lapse_ = new LapseForm(document(), this);
    beside->addWidget(lapse_);
    beside->addStretch();
    row->addLayout(beside, 4);
    return tab;
}

void DepthPage::addSharpness(QLayout* column) {
    auto* aperture = addGroup(column, {});
    // A camera that displays the working value is stepped by it: thirds of what one sees.
    aperture_ = addQuantity(
        aperture,
        {"apertureField", tr("Marked stop"), tr("As engraved on the lens; the working value stands in the ledger")},
        fNumberQuantity(), [this](const Shot& s) { return s.exposure.f_number * shownFactor(); },
        [this](Shot& s, double v) { s.exposure.f_number = v / shownFactor(); });
    addChoice(
        aperture, {"blurRuleChoice", tr("Blur limit"), tr("The widest blur disc that still counts as sharp")},
        enumerated({"pixels", "diagonal / 1500", "final output", "stated"}),
        [](const Shot& s) { return idOf(s.sharpness.rule); },
        [this](Shot& s, const std::string& id) {
            s.sharpness.rule = valueOf<BlurRule>(id);
            if (s.sharpness.rule == BlurRule::stated && !s.sharpness.stated)
                s.sharpness.stated = this->document().report()->sharpness.blur_limit;  // start from what held so far
        });
    pixels_ = addQuantity(
        aperture, {"pixelsField", tr("Pixels"), tr("How many pixel pitches may blur together")},
        ratioQuantity(text::range::pixels), [](const Shot& s) { return s.sharpness.pixels; },
        [](Shot& s, double v) { s.sharpness.pixels = v; });
    stated_ = addQuantity(
        aperture, {"statedField", tr("Disc"), tr("Diameter at the sensor")}, lengthQuantity(text::range::disc),
        [](const Shot& s) { return s.sharpness.stated.value_or(0); },
        [](Shot& s, double v) { s.sharpness.stated = v; });
    output_ = addChoice(
        aperture, {"outputChoice", tr("Seen as"), tr("A print at a distance, or a file of a given width")},
        enumerated({"print", "file"}), [](const Shot& s) { return idOf(s.sharpness.output.kind); },
        [](Shot& s, const std::string& id) { s.sharpness.output.kind = valueOf<OutputKind>(id); });
    printWidth_ = addQuantity(
        aperture, {"printWidthField", tr("Print width"), tr("Of the whole picture")}, lengthQuantity(text::range::size),
        [](const Shot& s) { return s.sharpness.output.print.width; },
        [](Shot& s, double v) { s.sharpness.output.print.width = v; });
    viewingDistance_ = addQuantity(
        aperture, {"viewingDistanceField", tr("Seen from"), tr("Eye to print")}, lengthQuantity(text::range::size),
        [](const Shot& s) { return s.sharpness.output.print.viewing_distance; },
        [](Shot& s, double v) { s.sharpness.output.print.viewing_distance = v; });
    deliveredWidth_ = addQuantity(
        aperture, {"deliveredWidthField", tr("File width"), tr("Pixels of the delivered picture")},
        countQuantity(text::range::sensor_pixels), [](const Shot& s) { return s.sharpness.output.delivery.width_px; },
        [](Shot& s, double v) { s.sharpness.output.delivery.width_px = std::max(1.0, v); });
    crop_ = addQuantity(
        aperture, {"cropField", tr("Crop keeps"), tr("Share of the frame's width that the picture keeps")},
        shareQuantity(text::range::crop), [](const Shot& s) { return s.sharpness.output.print.crop; },
        [](Shot& s, double v) { s.sharpness.output.print.crop = s.sharpness.output.delivery.crop = v; });
}

void DepthPage::addCapture(QLayout* column) {
    auto* capture = addGroup(column, tr("One frame or a stack"));
    addChoice(
        capture, {"modeChoice", tr("Frames"), tr("One frame, or several stepped through the depth and combined")},
        enumerated({"one frame", "a stack"}), [](const Shot& s) { return idOf(s.capture.mode); },
        [](Shot& s, const std::string& id) { s.capture.mode = valueOf<CaptureMode>(id); });
    addChoice(
        capture, {"depthRuleChoice", tr("Its depth by"), tr("Which rule says how deep one frame of a stack is")},
        enumerated({"blur limit", "quarter wave", "kept contrast"}),
        [](const Shot& s) { return idOf(s.capture.depth_rule); },
        [](Shot& s, const std::string& id) { s.capture.depth_rule = valueOf<DepthRule>(id); });
    kept_ = addQuantity(
        capture,
        {"contrastField", tr("Contrast kept"), tr("Share of the in-focus contrast at the edge of a frame's depth")},
        shareQuantity(text::range::kept), [](const Shot& s) { return s.capture.contrast_kept; },
        [](Shot& s, double v) { s.capture.contrast_kept = v; });
    stackOnly_ = {
        addQuantity(
            capture, {"overlapField", tr("Overlap"), tr("Share of a frame's depth that the next one repeats")},
            shareQuantity(text::range::overlap), [](const Shot& s) { return s.capture.overlap; },
            [](Shot& s, double v) { s.capture.overlap = v; }),
        addQuantity(
            capture, {"leadField", tr("Begins before"), tr("Begin this far in front of the nearest point")},
            lengthQuantity(), [](const Shot& s) { return s.capture.lead; },
            [](Shot& s, double v) { s.capture.lead = v; }),
        addQuantity(
            capture, {"tailField", tr("Ends behind"), tr("End this far behind the farthest point")}, lengthQuantity(),
            [](const Shot& s) { return s.capture.tail; }, [](Shot& s, double v) { s.capture.tail = v; }),
        addChoice(
            capture,
            {"moverChoice", tr("Moved by"),
             tr("Ring: perspective stays, scale changes. Rail: scale stays, perspective changes")},
            enumerated({"focus ring", "rail", "hand, in bursts"}), [](const Shot& s) { return idOf(s.capture.mover); },
            [](Shot& s, const std::string& id) { s.capture.mover = valueOf<Mover>(id); }),
        addQuantity(
            capture,
            {"intervalField", tr("A frame every"),
             tr("Interval set on camera or remote; as fast as it goes is about 0.5 s")},
            secondsQuantity(), [](const Shot& s) { return s.capture.interval.value_or(0.5); },
            [](Shot& s, double v) { s.capture.interval = v; }),
    };
    addQuantity(
        capture, {"wavelengthField", tr("Wavelength"), tr("For diffraction; 550 nm is green light")},
        wavelengthQuantity(), [](const Shot& s) { return s.sharpness.wavelength; },
        [](Shot& s, double v) { s.sharpness.wavelength = v; });
}

void DepthPage::showShot(const Shot& shot, const Report& report) {
    lapse_->refresh();
    showLimits(shot);
    if (report.capture.step) {
        stackText_->setText(tr("%1, a step of %2, each holding %3.")
                                .arg(toQt(count_text(report.capture.frames, "frame", "frames")),
                                     toQt(length_text(*report.capture.step)),
                                     toQt(length_text(*report.capture.frame_depth))));
    } else if (report.capture.frame_depth) {
        stackText_->setText(tr("One frame holds %1.").arg(toQt(length_text(*report.capture.frame_depth))));
    } else {
        stackText_->setText(tr("One frame is sharp without end."));
    }
    for (QWidget* control : backgroundOnly_) setRowEnabled(control, shot.background.has_value());
    backgroundText_->setText(toQt(background_sentence(document().assessment()->plan, report)));
    cards_->setSubject(shot.subject, shot.background ? shot.background->colour : std::nullopt);
    showPlaneText(shot, report);
    chart_->refresh();
    ladder_->refresh();
    strip_->refresh();
}

double DepthPage::shownFactor() {
    const auto& plan = document().assessment()->plan;
    return plan.camera.aperture_display == gear::ApertureDisplay::working ? plan.working_factor : 1;
}

void DepthPage::showLimits(const Shot& shot) {
    const bool working = document().assessment()->plan.camera.aperture_display == gear::ApertureDisplay::working;
    if (auto* label = findChild<QLabel*>(QStringLiteral("apertureFieldLabel")))
        label->setText(working ? tr("Shown stop") : tr("Marked stop"));
    aperture_->setToolTip(working ? tr("As this camera displays it close up: %1 marked on the lens")
                                        .arg(toQt(f_number_text(shot.exposure.f_number)))
                                  : tr("As engraved on the lens; the working value stands in the ledger"));
    const auto& sharpness = shot.sharpness;
    const bool output = sharpness.rule == BlurRule::output;
    setRowVisible(pixels_, sharpness.rule == BlurRule::pixel);
    setRowVisible(stated_, sharpness.rule == BlurRule::stated);
    setRowVisible(output_, output);
    setRowVisible(printWidth_, output && sharpness.output.kind == OutputKind::print);
    setRowVisible(viewingDistance_, output && sharpness.output.kind == OutputKind::print);
    setRowVisible(deliveredWidth_, output && sharpness.output.kind == OutputKind::delivery);
    setRowVisible(crop_, output);
    setRowVisible(kept_, shot.capture.depth_rule == DepthRule::contrast);
    const bool stack = shot.capture.mode == CaptureMode::stack;
    for (QWidget* control : stackOnly_) setRowEnabled(control, stack);
    ruleText_->setText(rule_sentence(shot));
}

// ---- plane -------------------------------------------------------------------------------------------------------

void DepthPage::propose(std::optional<Attitude> attitude) {
    proposal_ = attitude;
    plane_->setProposal(attitude);
    if (document().shot()) showPlaneText(*document().shot(), *document().report());
}

void DepthPage::setLoupe(imaging::Place place) { ladder_->setLoupe(place); }

void DepthPage::showPlane(const std::vector<QPointF>& places) {
    const render::Viewpoint view(document().assessment()->plan);
    const Surface surface(document().shot()->subject);
    std::array<Point3, 3> points;
    for (std::size_t i = 0; i < points.size() && i < places.size(); ++i) {
        const auto ray = view.ray({places[i].x(), places[i].y()});
        const auto hit = surface.hit(ray);
        if (!hit) return;
        points[i] = {ray.x + ray.dx * hit->z, ray.y + ray.dy * hit->z, hit->z};
    }
    const auto attitude = facing_plane(document().shot()->subject, points);
    if (!attitude)
        Q_EMIT problemFound(
            tr("Those three points span no plane that the camera could face: click three that form a wide triangle."));
    propose(attitude);
}

void DepthPage::showPlaneText(const Shot& shot, const Report& report) {
    const auto length = [](double mm) { return toQt(length_text(mm)); };
    turnButton_->setEnabled(proposal_.has_value());
    plane_->update();
    const Attitude now{shot.subject.tilt, shot.subject.turn};
    QString text = tr("It presents %1 of depth, tilted %2\u00b0 and turned %3\u00b0.")
                       .arg(length(report.extent.depth))
                       .arg(now.tilt, 0, 'g', 3)
                       .arg(now.turn, 0, 'g', 3);
    if (proposal_) {
        const auto then = document().reportTurned(*proposal_);
        text += tr(" With the camera %1\u00b0 round it presents %2")
                    .arg(angle_between(now, *proposal_), 0, 'f', 1)
                    .arg(length(then.extent.depth));
        if (report.capture.frames > 1)
            text += tr(": %1 in place of %2")
                        .arg(toQt(count_text(then.capture.frames, "frame", "frames")),
                             toQt(number_text(report.capture.frames, 9)));
        const auto &best_now = report.sharpness.best_single_f_number, &best_then = then.sharpness.best_single_f_number;
        if (best_now && best_then)
            text += tr("; best single stop %1 in place of %2")
                        .arg(toQt(f_number_text(*best_then)), toQt(f_number_text(*best_now)));
        text += QLatin1Char('.');
    }
    planeText_->setText(text);
}

// ---- contact sheet -----------------------------------------------------------------------------------------------

void DepthPage::saveSheet() {
    if (!document().shot()) return;
    const auto path = askSavePath(this, tr("Save contact sheet"),
                                  tr("%1, ladder.png").arg(toQt(document().shot()->name)), QStringLiteral("png"));
    if (path.isEmpty()) return;
    ladder_->makeSheet([this, path, shoot = document().snapshot(),
                        index = static_cast<std::size_t>(document().current())](const QImage& sheet) {
        const auto problem = writeWithPlan(sheet, *shoot, index, path);
        if (problem.isEmpty())
            Q_EMIT saved(path);
        else
            Q_EMIT problemFound(tr("%1 was not saved. %2").arg(path, problem));
    });
}

}  // namespace poquito::desk

#include "desk/depth/moc_depth_page.moc"
