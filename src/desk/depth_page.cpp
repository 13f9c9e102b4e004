#include "desk/depth_page.hpp"

#include "desk/depth_chart.hpp"
#include "desk/sentence.hpp"
#include "shoot/text.hpp"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>

namespace poquito::desk {

using namespace shoot;

namespace {

/// An enum's values as ids of a choice: the position is the value.
template <typename Enum>
std::string id_of(Enum value) {
    return std::to_string(static_cast<int>(value));
}
template <typename Enum>
Enum value_of(const std::string& id) {
    return static_cast<Enum>(std::stoi(id));
}
using Names = std::initializer_list<const char*>;
auto enumerated(Names names) {
    return [list = std::vector<const char*>(names)](const Kit&) {
        std::vector<std::pair<std::string, std::string>> options;
        for (std::size_t i = 0; i < list.size(); ++i) options.emplace_back(std::to_string(i), list[i]);
        return options;
    };
}

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
    auto* first = addColumn(4);
    addSharpness(first);
    first->addStretch();
    auto* second = addColumn(4);
    addCapture(second);
    second->addStretch();
    chart_ = new DepthChart(document, this);
    addDrawing(chart_, 7);
}

void DepthPage::addSharpness(QLayout* column) {
    auto* aperture = addGroup(column, tr("Stop and sharpness"));
    addQuantity(
        aperture,
        {"apertureField", tr("Marked stop"), tr("As engraved on the lens; the working value stands in the ledger")},
        fNumberQuantity(), [](const Shot& s) { return s.exposure.f_number; },
        [](Shot& s, double v) { s.exposure.f_number = v; });
    addChoice(
        aperture, {"blurRuleChoice", tr("Blur limit"), tr("The widest blur disc that still counts as sharp")},
        enumerated({"pixels", "diagonal / 1500", "final output", "stated"}),
        [](const Shot& s) { return id_of(s.sharpness.rule); },
        [this](Shot& s, const std::string& id) {
            s.sharpness.rule = value_of<BlurRule>(id);
            if (s.sharpness.rule == BlurRule::stated && !s.sharpness.stated)
                s.sharpness.stated = this->document().report()->sharpness.blur_limit;  // start from what held so far
        });
    pixels_ = addQuantity(
        aperture, {"pixelsField", tr("Pixels"), tr("How many pixel pitches may blur together")}, ratioQuantity(0.1, 20),
        [](const Shot& s) { return s.sharpness.pixels; }, [](Shot& s, double v) { s.sharpness.pixels = v; });
    stated_ = addQuantity(
        aperture, {"statedField", tr("Disc"), tr("Diameter at the sensor")}, lengthQuantity(false),
        [](const Shot& s) { return s.sharpness.stated.value_or(0); },
        [](Shot& s, double v) { s.sharpness.stated = v; });
    output_ = addChoice(
        aperture, {"outputChoice", tr("Seen as"), tr("A print at a distance, or a file of a given width")},
        enumerated({"print", "file"}), [](const Shot& s) { return id_of(s.sharpness.output); },
        [](Shot& s, const std::string& id) { s.sharpness.output = value_of<OutputKind>(id); });
    printWidth_ = addQuantity(
        aperture, {"printWidthField", tr("Print width"), tr("Of the whole picture")}, lengthQuantity(false),
        [](const Shot& s) { return s.sharpness.print.width; }, [](Shot& s, double v) { s.sharpness.print.width = v; });
    viewingDistance_ = addQuantity(
        aperture, {"viewingDistanceField", tr("Seen from"), tr("Eye to print")}, lengthQuantity(false),
        [](const Shot& s) { return s.sharpness.print.viewing_distance; },
        [](Shot& s, double v) { s.sharpness.print.viewing_distance = v; });
    deliveredWidth_ = addQuantity(
        aperture, {"deliveredWidthField", tr("File width"), tr("Pixels of the delivered picture")}, countQuantity(),
        [](const Shot& s) { return s.sharpness.delivery.width_px; },
        [](Shot& s, double v) { s.sharpness.delivery.width_px = std::max(1.0, v); });
    crop_ = addQuantity(
        aperture, {"cropField", tr("Crop keeps"), tr("Share of the frame's width that the picture keeps")},
        shareQuantity(0.01, 1), [](const Shot& s) { return s.sharpness.print.crop; },
        [](Shot& s, double v) { s.sharpness.print.crop = s.sharpness.delivery.crop = v; });
    addQuantity(
        aperture, {"wavelengthField", tr("Wavelength"), tr("For diffraction; 550 nm is green light")},
        wavelengthQuantity(), [](const Shot& s) { return s.sharpness.wavelength; },
        [](Shot& s, double v) { s.sharpness.wavelength = v; });
    ruleText_ = new Sentence(4, this);
    column->addWidget(ruleText_);
}

void DepthPage::addCapture(QLayout* column) {
    auto* capture = addGroup(column, tr("One frame or a stack"));
    addChoice(
        capture, {"modeChoice", tr("Frames"), tr("One frame, or several stepped through the depth and combined")},
        enumerated({"one frame", "a stack"}), [](const Shot& s) { return id_of(s.capture.mode); },
        [](Shot& s, const std::string& id) { s.capture.mode = value_of<CaptureMode>(id); });
    addChoice(
        capture, {"depthRuleChoice", tr("A frame holds"), tr("Which rule says how deep one frame of a stack is")},
        enumerated({"blur limit", "quarter wave", "kept contrast"}),
        [](const Shot& s) { return id_of(s.capture.depth_rule); },
        [](Shot& s, const std::string& id) { s.capture.depth_rule = value_of<DepthRule>(id); });
    kept_ = addQuantity(
        capture,
        {"contrastField", tr("Contrast kept"), tr("Share of the in-focus contrast at the edge of a frame's depth")},
        shareQuantity(0.01, 0.99), [](const Shot& s) { return s.capture.contrast_kept; },
        [](Shot& s, double v) { s.capture.contrast_kept = v; });
    stackOnly_ = {
        addQuantity(
            capture, {"overlapField", tr("Overlap"), tr("Share of a frame's depth that the next one repeats")},
            shareQuantity(0, 0.95), [](const Shot& s) { return s.capture.overlap; },
            [](Shot& s, double v) { s.capture.overlap = v; }),
        addQuantity(
            capture, {"leadField", tr("Lead"), tr("Begin this far in front of the nearest point")}, lengthQuantity(),
            [](const Shot& s) { return s.capture.lead; }, [](Shot& s, double v) { s.capture.lead = v; }),
        addQuantity(
            capture, {"tailField", tr("Tail"), tr("End this far behind the farthest point")}, lengthQuantity(),
            [](const Shot& s) { return s.capture.tail; }, [](Shot& s, double v) { s.capture.tail = v; }),
        addChoice(
            capture,
            {"moverChoice", tr("Moved by"),
             tr("Ring: perspective stays, scale changes. Rail: scale stays, perspective changes")},
            enumerated({"focus ring", "rail"}), [](const Shot& s) { return id_of(s.capture.mover); },
            [](Shot& s, const std::string& id) { s.capture.mover = value_of<Mover>(id); }),
        addQuantity(
            capture,
            {"intervalField", tr("A frame every"),
             tr("Interval set on camera or remote; as fast as it goes is about 0.5 s")},
            secondsQuantity(), [](const Shot& s) { return s.capture.interval.value_or(0.5); },
            [](Shot& s, double v) { s.capture.interval = v; }),
    };
    stackText_ = new Sentence(3, this);
    stackText_->setObjectName(QStringLiteral("stackText"));
    column->addWidget(stackText_);
}

void DepthPage::showShot(const Shot& shot, const Report& report) {
    const auto& sharpness = shot.sharpness;
    const bool output = sharpness.rule == BlurRule::output;
    setRowVisible(pixels_, sharpness.rule == BlurRule::pixel);
    setRowVisible(stated_, sharpness.rule == BlurRule::stated);
    setRowVisible(output_, output);
    setRowVisible(printWidth_, output && sharpness.output == OutputKind::print);
    setRowVisible(viewingDistance_, output && sharpness.output == OutputKind::print);
    setRowVisible(deliveredWidth_, output && sharpness.output == OutputKind::delivery);
    setRowVisible(crop_, output);
    setRowVisible(kept_, shot.capture.depth_rule == DepthRule::contrast);
    const bool stack = shot.capture.mode == CaptureMode::stack;
    for (QWidget* control : stackOnly_) setRowEnabled(control, stack);
    ruleText_->setText(rule_sentence(shot));
    if (report.capture.step) {
        stackText_->setText(tr("%1, a step of %2, each holding %3.")
                                .arg(QString::fromStdString(count_text(report.capture.frames, "frame", "frames")),
                                     QString::fromStdString(length_text(*report.capture.step)),
                                     QString::fromStdString(length_text(*report.capture.frame_depth))));
    } else if (report.capture.frame_depth) {
        stackText_->setText(
            tr("One frame holds %1.").arg(QString::fromStdString(length_text(*report.capture.frame_depth))));
    } else {
        stackText_->setText(tr("One frame is sharp without end."));
    }
    chart_->update();
}

}  // namespace poquito::desk
