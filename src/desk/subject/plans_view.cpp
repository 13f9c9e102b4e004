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

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double gap = 6, inset = 8, button_height = 25;

/// One of what a plan gives, as a bar of how much of it there is.
struct Measure {
    QString name, value;
    double share;  // of what is wanted, or of what is tolerated
    bool good;
};

std::vector<Measure> measures(const advice::WholePlan& plan, double wanted, const shoot::Limits& limits) {
    const double held = std::max(0.0, wanted - plan.losses.depth);
    const double steps = std::log2(plan.shot.exposure.iso / 100),
                 most = std::max(1.0, std::log2(limits.iso.value_or(12800) / 100));
    constexpr double hopeless = 200;  // px
    return {{QObject::tr("sharp"),
             QObject::tr("%1 of %2").arg(toQt(text::number_text(held, 2)), toQt(text::length_text(wanted))),
             wanted > 0 ? held / wanted : 1, plan.losses.depth < 0.005},
            {QObject::tr("still"),
             plan.losses.motion < 0.05 ? QObject::tr("held")
             : plan.losses.motion > hopeless
                 ? QObject::tr("gone")
                 : QObject::tr("%1 px over").arg(toQt(text::number_text(plan.losses.motion, 2))),
             plan.losses.motion < 0.05 ? 1 : 1 / (1 + plan.losses.motion), plan.losses.motion < 0.05},
            {QObject::tr("clean"), QObject::tr("ISO %1").arg(toQt(text::number_text(plan.shot.exposure.iso, 6))),
             1 - std::clamp(steps / most, 0.0, 0.95), plan.excess.iso <= 0}};
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
    const int width = static_cast<int>(150 * devicePixelRatioF());
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
    QString text = tr("For this subject and place: %1. %2").arg(tr(advice::school_name(best.school)), toQt(best.why));
    if (!best.changes.empty()) text += tr(" With %1, which the wanted size asks for.").arg(toQt(best.changes));
    return text;
}

QRectF PlansView::cardRect(std::size_t index) const {
    const auto count = static_cast<double>(std::max<std::size_t>(plans_.size(), 4));
    const double wide = (width() - gap * (count - 1)) / count;
    return QRectF(static_cast<double>(index) * (wide + gap), 0, wide, height()).adjusted(1, 1, -1, -1);
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
    const bool best = index == 0, now = taken() == index, fits = plan.keeps_limits && !plan.stopped;
    const bool cursor = (hasFocus() && index == marked_) || static_cast<int>(index) == hovered_;
    drawCard(painter, card, best && fits ? t.focusWash : t.panel,
             cursor ? QPen(t.link, 2)
             : now  ? QPen(t.focus, 2)
                    : QPen(t.hairline, 1));

    const double left = card.left() + inset, room = card.width() - 2 * inset;
    const QColor quiet = best && fits ? t.ink : t.quiet;
    double y = card.top() + 5;
    const auto line = [&](const QFont& font, const QColor& colour, const QString& words, double step = 15) {
        painter.setFont(font);
        painter.setPen(colour);
        drawLine(painter, QRectF(left, y, room, step), Qt::AlignLeft | Qt::AlignVCenter, elided(font, words, room));
        y += step;
    };
    const bool narrow = card.width() < 125;
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(t.ink);
    const double name_height = narrow ? 31 : 18;  // two lines where one is too short
    painter.drawText(QRectF(left, y, room + 4, name_height), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                     tr(advice::school_name(plan.school)));
    y += name_height;

    // The rest of the card stands on its foot; the picture takes what is left above it.
    constexpr double lines = 3 * 15 + 3 * 19;
    const QString losses = toQt(plan.sentence);
    painter.setFont(textFont(11));
    const double below = card.bottom() - y - lines - button_height - 12;
    const double words_height = std::clamp(below - 60, 0.0, 60.0);
    const double aspect = 1.5, picture_height = std::clamp(below - words_height - 6, 0.0, room / aspect);
    if (picture_height > 24) {
        QRectF picture(0, 0, picture_height * aspect, picture_height);
        picture.moveTo(left, y + 2);
        if (index < pictures_.size() && !pictures_[index].isNull())
            painter.drawImage(picture, pictures_[index]);
        else
            painter.fillRect(picture, t.hairline);
        y = picture.bottom() + 6;
    }
    const auto& exposure = plan.shot.exposure;
    line(textFont(12, QFont::DemiBold), t.ink,
         tr("%1  %2").arg(toQt(text::f_number_text(exposure.f_number)), toQt(text::shutter_text(exposure.shutter))));
    line(textFont(11), quiet, lights_text(plan));
    line(textFont(11), quiet, frames_text(plan));
    const double wanted = plan.report.sharpness.zone.value_or(plan.report.extent.depth);
    for (const auto& measure : measures(plan, wanted, document_.shoot().limits)) {
        painter.setFont(textFont(11));
        const double beside = room - lineWidth(painter.font(), measure.value) - 4;
        painter.setPen(quiet);
        if (beside > 16)
            drawLine(painter, QRectF(left, y, beside, 13), Qt::AlignLeft | Qt::AlignVCenter,
                     elided(painter.font(), measure.name, beside));
        painter.setPen(measure.good ? t.ink : t.caution);
        drawLine(painter, QRectF(left, y, room, 13), Qt::AlignRight | Qt::AlignVCenter, measure.value);
        const QRectF bar(left, y + 14, room, 3);
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.hairline);
        painter.drawRect(bar);
        painter.setBrush(measure.good ? t.focus : t.caution);
        painter.drawRect(QRectF(bar.left(), bar.top(), bar.width() * measure.share, bar.height()));
        y += 19;
    }
    y += 3;
    const QRectF button(left, card.bottom() - button_height - 5, room, button_height);
    painter.setFont(textFont(11));
    painter.setPen(fits ? quiet : t.caution);
    constexpr double text_line = 14;
    const double lines_below = std::floor((button.top() - y) / text_line);
    if (lines_below >= 2)
        painter.drawText(QRectF(left, y, room, lines_below * text_line),
                         Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                         plan.stopped ? tr("Cannot be taken so. ") + losses : losses);
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
    document_.editShot({tr("Take \u201c%1\u201d").arg(tr(advice::school_name(plan.school)))},
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
    if (over == hovered_) return;
    hovered_ = over;
    update();
}

void PlansView::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void PlansView::keyPressEvent(QKeyEvent* event) {
    switch (cardKey(*event, marked_, plans_.size())) {
        case CardKey::marked:
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
