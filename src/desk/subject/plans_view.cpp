#include "desk/subject/plans_view.hpp"

#include "desk/base/card_keys.hpp"
#include "desk/base/drafting.hpp"
#include "desk/base/rendering.hpp"
#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/shell/document.hpp"
#include "plan/lighting.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double gap = 6, inset = 10, row_height = 104, button_width = 92, button_height = 26;
constexpr double settings_width = 220, profile_width = 190;

/// One of what a plan gives, as a bar of how much of it is kept.
struct Kept {
    QString name;
    double share;
};

/// Every quality in its order, so that bars of one place compare from plan to plan.
std::vector<Kept> profile(const advice::Worth& worth) {
    std::vector<Kept> all;
    for (const auto& part : worth.parts)
        if (part.quality != advice::Quality::possible)
            all.push_back({QObject::tr(advice::row_of(part.quality).name), part.kept});
    return all;
}

/// The two of which least is left, in words.
QString worst(const std::vector<Kept>& all) {
    auto sorted = all;
    std::ranges::stable_sort(sorted, {}, &Kept::share);
    constexpr double unnoticed = 0.9;
    QStringList words;
    for (std::size_t i = 0; i < 2 && i < sorted.size(); ++i)
        if (sorted[i].share < unnoticed)
            words << QObject::tr("%1 %2 %").arg(sorted[i].name).arg(std::round(sorted[i].share * 100));
    return words.isEmpty() ? QObject::tr("nothing that is felt is lost") : words.join(QStringLiteral(", "));
}

QString lights_text(const advice::WholePlan& plan) {
    QStringList powers;
    bool lamps = false;
    for (std::size_t i = 0; i < plan.shot.lights.size(); ++i) {
        const auto& light = plan.shot.lights[i];
        lamps |= light.lamp.has_value();
        if (plan::is_flash(light) && !light.off && light.power)
            powers << QObject::tr("%1 %2").arg(toQt(plan::light_label(plan.shot, i)),
                                               toQt(text::power_text(*light.power)));
    }
    if (!powers.isEmpty()) return QObject::tr("flash %1").arg(powers.join(QStringLiteral(", ")));
    return lamps ? QObject::tr("lamps as they are") : QObject::tr("light that is there");
}

QString frames_text(const advice::WholePlan& plan) {
    const auto& capture = plan.report.capture;
    const QString frames = toQt(text::count_text(capture.frames, "frame", "frames"));
    return capture.frames > 1 ? QObject::tr("%1, %2").arg(toQt(text::time_text(capture.paced_duration)), frames)
                              : frames;
}

}  // namespace

PlansView::PlansView(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("plansView"));
    setAccessibleName(tr("Whole plans, best first"));
    setToolTip(tr("A click takes a plan, Ctrl+Z brings the old one back"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void PlansView::refresh() {
    if (!document_.shot() || !isVisible()) return;
    if (isCurrent() && !plans_.empty()) return update();
    const int width = static_cast<int>(130 * devicePixelRatioF());
    const auto find = [this, shoot = document_.snapshot(), index = static_cast<std::size_t>(document_.current()),
                       width](bool pictures) {
        return [=, this](const std::function<bool()>& go_on) -> PictureQueue::Show {
            const auto& shot = shoot->shots[index];
            auto plans = advice::whole_plans(shoot->kit, shot, shoot->limits);
            std::vector<QImage> images;
            for (const auto& plan : plans) {
                if (!pictures) break;
                if (!go_on()) return {};
                images.push_back(thumbnail(shoot->kit, plan.shot, plan.report, width, 0.0));
            }
            return [=, this] {
                if (document_.snapshot() != shoot || document_.current() != static_cast<int>(index)) return;
                plans_ = plans;
                of_ = shoot;
                ofShot_ = static_cast<int>(index);
                if (pictures || images.size() != pictures_.size()) pictures_ = images;
                marked_ = taken().value_or(0);
                Q_EMIT found(reason());
                setMinimumHeight(sizeHint().height());
                updateGeometry();
                update();
            };
        };
    };
    if (!isCurrent()) pictures_.clear();
    queue_.render(find(false), find(true));
}

bool PlansView::isCurrent() const { return of_ == document_.snapshot() && ofShot_ == document_.current(); }

QString PlansView::reason() const {
    if (plans_.empty())
        return tr("No school has a plan yet: say what light there is (Light, Exposure) or put a flash into the bag.");
    const auto& best = plans_.front();
    QString text = tr("For this subject and place: %1. %2").arg(toQt(advice::plan_name(best)), toQt(best.why));
    if (!best.changes.empty()) text += tr(" With %1, which the wanted size asks for.").arg(toQt(best.changes));
    return text;
}

QRectF PlansView::cardRect(std::size_t index) const {
    return QRectF(0, static_cast<double>(index) * (row_height + gap), width(), row_height).adjusted(1, 1, -1, -1);
}

QSize PlansView::sizeHint() const {
    const auto rows = static_cast<double>(std::max<std::size_t>(plans_.size(), 1));
    return {300, static_cast<int>(rows * (row_height + gap))};
}

std::optional<std::size_t> PlansView::taken() const {
    if (!document_.shot()) return std::nullopt;
    const auto same = [&](const advice::WholePlan& plan) {
        const auto &a = plan.shot, &b = *document_.shot();
        return a.exposure == b.exposure && a.capture == b.capture && a.lights == b.lights && a.rig == b.rig;
    };
    const auto found = std::ranges::find_if(plans_, same);
    if (found == plans_.end()) return std::nullopt;
    return static_cast<std::size_t>(found - plans_.begin());
}

void PlansView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    for (std::size_t i = 0; i < plans_.size(); ++i) paintCard(painter, i);
    if (plans_.empty() && hasFocus()) drawFocusRing(painter, rect());
}

void PlansView::paintCard(QPainter& painter, std::size_t index) const {
    const Theme& t = theme();
    const auto& plan = plans_[index];
    const QRectF card = cardRect(index);
    const bool best = index == 0, now = taken() == index, fits = plan.fits();
    const bool cursor = (hasFocus() && index == marked_) || static_cast<int>(index) == hovered_;
    drawCard(painter, card, best && fits ? t.focusWash : t.panel,
             cursor ? QPen(t.link, 2)
             : now  ? QPen(t.focus, 2)
                    : QPen(t.hairline, 1));
    const QColor quiet = best && fits ? t.ink : t.quiet;
    const QRectF inner = card.adjusted(inset, inset, -inset, -inset);

    // The picture, where there is room beside the words.
    double left = inner.left();
    constexpr double aspect = 1.5, roomy = 700;
    if (card.width() > roomy) {
        const QRectF picture(left, inner.top(), inner.height() * aspect, inner.height());
        if (index < pictures_.size() && !pictures_[index].isNull())
            painter.drawImage(picture, pictures_[index]);
        else
            painter.fillRect(picture, t.hairline);
        left = picture.right() + inset;
    }

    // Settings, large: what one turns at the camera.
    double y = inner.top();
    const auto line = [&](const QFont& font, const QColor& colour, const QString& words, double step) {
        painter.setFont(font);
        painter.setPen(colour);
        drawLine(painter, QRectF(left, y, settings_width, step), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(font, words, settings_width));
        y += step;
    };
    const auto& exposure = plan.shot.exposure;
    line(textFont(12, QFont::DemiBold), t.ink, toQt(advice::plan_name(plan)), 18);
    line(textFont(16, QFont::DemiBold), t.ink,
         tr("%1  %2").arg(toQt(text::f_number_text(exposure.f_number)), toQt(text::shutter_text(exposure.shutter))),
         24);
    line(textFont(13), t.ink, tr("ISO %1").arg(toQt(text::number_text(exposure.iso, 6))), 18);
    line(textFont(11), quiet, tr("%1, %2").arg(frames_text(plan), lights_text(plan)), 16);
    left += settings_width + inset;

    // What is kept of each quality.
    const auto kept = profile(plan.worth);
    const double step = (profile_width - 24) / static_cast<double>(kept.size()), foot = inner.bottom() - 36;
    for (std::size_t i = 0; i < kept.size(); ++i) {
        const QRectF full(left + static_cast<double>(i) * step, inner.top(), step - 3, foot - inner.top());
        painter.fillRect(full, t.hairline);
        const double height = full.height() * kept[i].share;
        constexpr double felt = 0.8;
        painter.fillRect(QRectF(full.left(), foot - height, full.width(), height),
                         kept[i].share >= felt ? t.focus : t.caution);
    }
    const QRectF words(left, foot + 4, profile_width - 12, inner.bottom() - foot - 4);
    painter.setFont(textFont(11));
    painter.setPen(quiet);
    painter.drawText(words, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, worst(kept));
    left += profile_width;

    // What it gives up, and why it stands here: whole sentences.
    const QRectF button(inner.right() - button_width, inner.center().y() - button_height / 2, button_width,
                        button_height);
    const QRectF sentences(left, inner.top(), button.left() - inset - left, inner.height());
    const QString gives = (plan.stopped ? tr("Something stands against it. ") : QString()) + toQt(plan.sentence);
    const QString all = best ? gives : gives + QLatin1Char(' ') + toQt(plan.why);
    for (int size : {12, 11, 10}) {  // never cut: smaller where the window is small
        painter.setFont(textFont(size));
        const auto needs = painter.boundingRect(sentences, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, all);
        if (needs.height() <= sentences.height() || size == 10) break;
    }
    painter.setPen(fits ? t.ink : t.caution);
    painter.drawText(sentences, Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap, all);

    if (now) {
        painter.setFont(textFont(12, QFont::DemiBold));
        painter.setPen(t.focus);
        drawLine(painter, button, Qt::AlignCenter, tr("As it is \u2713"));
        return;
    }
    painter.setPen(best && fits ? QPen(Qt::NoPen) : QPen(t.hairline, 1));
    painter.setBrush(best && fits ? t.focus : t.panel);
    painter.drawRoundedRect(button, 3, 3);
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(best && fits ? t.panel : t.ink);
    drawLine(painter, button, Qt::AlignCenter, tr("Take it"));
}

void PlansView::take(std::size_t index) {
    if (index >= plans_.size() || !isCurrent()) return;
    const auto plan = plans_[index];
    document_.editShot({tr("Take \u201c%1\u201d").arg(toQt(advice::plan_name(plan)))},
                       [&](shoot::Shot& shot) { shot = plan.shot; });
}

void PlansView::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < plans_.size(); ++i)
        if (cardRect(i).contains(event->position())) return take(i);
}

void PlansView::mouseMoveEvent(QMouseEvent* event) {
    int over = -1;
    for (std::size_t i = 0; i < plans_.size(); ++i)
        if (cardRect(i).contains(event->position())) over = static_cast<int>(i);
    setToolTip(over < 0 ? QString() : barTip(static_cast<std::size_t>(over), event->position()));
    if (over == hovered_) return;
    hovered_ = over;
    update();
}

/// What the bar under the pointer stands for; elsewhere how a plan is taken.
QString PlansView::barTip(std::size_t index, QPointF at) const {
    const auto kept = profile(plans_[index].worth);
    const double bars = profileLeft(index), step = (profile_width - 24) / static_cast<double>(kept.size());
    const double place = (at.x() - bars) / step;
    if (place < 0 || place >= static_cast<double>(kept.size()))
        return tr("A click takes a plan, Ctrl+Z brings the old one back");
    const auto& one = kept[static_cast<std::size_t>(place)];
    return tr("%1: %2 % kept").arg(one.name).arg(std::round(one.share * 100));
}

double PlansView::profileLeft(std::size_t index) const {
    const QRectF inner = cardRect(index).adjusted(inset, inset, -inset, -inset);
    constexpr double aspect = 1.5, roomy = 700;
    const double picture = cardRect(index).width() > roomy ? inner.height() * aspect + inset : 0;
    return inner.left() + picture + settings_width + inset;
}

void PlansView::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void PlansView::keyPressEvent(QKeyEvent* event) {
    switch (cardKey(*event, marked_, plans_.size())) {
        case CardKey::marked:
            if (auto* scroll = qobject_cast<QScrollArea*>(parentWidget() ? parentWidget()->parentWidget() : nullptr)) {
                const QPoint middle = cardRect(marked_).center().toPoint();
                scroll->ensureVisible(middle.x(), middle.y(), 0, static_cast<int>(row_height / 2));
            }
            return update();
        case CardKey::taken:
            return take(marked_);
        case CardKey::none:
            QWidget::keyPressEvent(event);
    }
}

void PlansView::resizeEvent(QResizeEvent*) { update(); }
void PlansView::showEvent(QShowEvent*) { refresh(); }

}  // namespace poquito::desk

#include "subject/moc_plans_view.moc"
