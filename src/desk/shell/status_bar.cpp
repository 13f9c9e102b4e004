#include "desk/shell/status_bar.hpp"

#include "day/order.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/motion/lapse.hpp"
#include "text/text.hpp"

#include <QPainter>
#include <QTimer>

namespace poquito::desk {

StatusBar::StatusBar(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("footLine"));
    setAccessibleName(tr("Running cost"));
    setFixedHeight(27);
    quiet_.setSingleShot(true);
    quiet_.setInterval(1500);
    connect(&quiet_, &QTimer::timeout, this, [this] { since_.reset(); });
    connect(&document, &Document::shootChanged, this, &StatusBar::compare);
    connect(&document, &Document::selected, this, &StatusBar::compare);
    connect(&document, &Document::shootChanged, this, qOverload<>(&QWidget::update));
    connect(&document, &Document::selected, this, qOverload<>(&QWidget::update));
}

void StatusBar::say(const QString& message) {
    message_ = message;
    update();
    QTimer::singleShot(6000, this, [this, message] {
        if (message_ != message) return;
        message_.clear();
        update();
    });
}

namespace {

/// What is felt elsewhere when something is changed: name, value, how it is written.
struct Felt {
    QString name;
    std::optional<double> before, after;
    std::string (*text)(double);
};

QString change_between(const plan::Report& before, const plan::Report& after) {
    const Felt all[] = {
        {QObject::tr("size"), before.optics.magnification, after.optics.magnification,
         [](double v) { return text::magnification_text(v); }},
        {QObject::tr("air"), before.optics.working_distance, after.optics.working_distance,
         [](double v) { return text::length_text(v); }},
        {QObject::tr("depth"), before.sharpness.depth_of_field, after.sharpness.depth_of_field,
         [](double v) { return text::length_text(v); }},
        {QObject::tr("frames"), before.capture.frames, after.capture.frames,
         [](double v) { return text::number_text(v, 6); }},
        {QObject::tr("light"), before.light.front_total, after.light.front_total,
         [](double v) { return text::stops_text(v); }},
        {QObject::tr("behind"), before.light.background, after.light.background,
         [](double v) { return text::stops_text(v); }},
    };
    QStringList words;
    for (const auto& [name, was, is, write] : all) {
        if (!was || !is) continue;
        const auto then = write(*was), now = write(*is);
        if (then != now) words << QObject::tr("%1 %2 to %3").arg(name, toQt(then), toQt(now));
    }
    return words.join(QStringLiteral(" \u00b7 "));
}

}  // namespace

void StatusBar::compare() {
    const int current = document_.current();
    const auto now = current >= 0 ? document_.sharedAssessment(current) : nullptr;
    const bool same_shot = now && before_ && now->report.id == before_->report.id;
    if (same_shot && now != before_) {
        // A drag or a run of typing is one change: what it began from stays until it is quiet.
        if (!since_) since_ = before_;
        const QString change = change_between(since_->report, now->report);
        if (!change.isEmpty()) say(change);
        quiet_.start();
    } else if (!same_shot) {
        since_.reset();
    }
    before_ = now;
}

QString StatusBar::shotText() const {
    const auto* report = document_.report();
    if (!report) return tr("No shot yet");
    const auto& capture = report->capture;
    const auto yield = plan::yield_of(document_.assessment()->plan, *report);
    QString text = tr("This shot: %1 · %2 · %3")
                       .arg(toQt(text::count_text(yield.frames, "frame", "frames")),
                            toQt(text::time_text(yield.runs_on > 0 ? yield.runs_on : capture.paced_duration)),
                            toQt(text::data_text(yield.data_mb)));
    double flashes = 0;
    for (const auto& source : report->light.sources)
        if (source.fires && !source.continuous) flashes += yield.runs_on > 0 ? yield.frames : capture.cost.exposures;
    if (flashes > 0) text += tr(" · %1").arg(toQt(text::count_text(flashes, "flash", "flashes")));
    return text;
}

QString StatusBar::shootText() const {
    if (document_.count() == 0) return {};
    double frames = 0, seconds = 0, megabytes = 0;
    for (int i = 0; i < document_.count(); ++i) {
        const auto yield = plan::yield_of(document_.assessment(i).plan, document_.report(i));
        frames += yield.frames;
        seconds += document_.report(i).capture.paced_duration;
        megabytes += yield.data_mb;
    }
    std::vector<const plan::Report*> reports;
    reports.reserve(static_cast<std::size_t>(document_.count()));
    for (int i = 0; i < document_.count(); ++i) reports.push_back(&document_.report(i));
    const auto day = day::given_day(document_.shoot(), reports);
    return tr("Whole shoot: %1 · %2 · %3 of frames · %4 · the day from %5 to %6")
        .arg(toQt(text::count_text(document_.count(), "shot", "shots")),
             toQt(text::count_text(frames, "frame", "frames")), toQt(text::time_text(seconds)),
             toQt(text::data_text(megabytes)), toQt(text::day_time_text(document_.shoot().workday.begin)),
             toQt(text::day_time_text(day.finish)));
}

void StatusBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme().foot);
    if (!document_.isOpen()) return;  // nothing to say of a shoot that is not read yet
    painter.setFont(textFont(12));
    painter.setPen(theme().footText);
    const QRectF area = QRectF(rect()).adjusted(16, 0, -16, 0);
    const QString right = shootText();
    const double beside = area.width() - lineWidth(painter.font(), right) - 20;
    drawLine(painter, area, Qt::AlignRight | Qt::AlignVCenter, right);
    drawLine(painter, area, Qt::AlignLeft | Qt::AlignVCenter,
             elided(painter.font(), message_.isEmpty() ? shotText() : message_, beside));
}

}  // namespace poquito::desk

#include "desk/shell/moc_status_bar.moc"
