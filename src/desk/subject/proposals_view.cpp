#include "desk/subject/proposals_view.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/card_keys.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "plan/light/lighting.hpp"
#include "text/text.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double gap = 6, inset = 10, button_height = 26, aspect = 1.5;

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

/// That of which least is left, in words.
QString worst(const std::vector<Kept>& all) {
    auto sorted = all;
    std::ranges::stable_sort(sorted, {}, &Kept::share);
    constexpr double unnoticed = 0.9;
    if (sorted.front().share >= unnoticed) return QObject::tr("nothing felt is lost");
    return QObject::tr("%1 %2 %").arg(sorted.front().name).arg(std::round(sorted.front().share * 100));
}

QString lights_text(const advice::Proposal& plan) {
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

QString frames_text(const advice::Proposal& plan) {
    const auto& capture = plan.report.capture;
    const QString frames = toQt(text::count_text(capture.frames, "frame", "frames"));
    return capture.frames > 1 ? QObject::tr("%1, %2").arg(toQt(text::time_text(capture.paced_duration)), frames)
                              : frames;
}

}  // namespace

ProposalsView::ProposalsView(Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("plansView"));
    setAccessibleName(tr("Whole plans, best first"));
    setToolTip(tr("A click takes a plan, Ctrl+Z brings the old one back"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void ProposalsView::refresh() {
    if (!document_.shot() || !isVisible()) return;
    if (isCurrent() && !plans_.empty()) return update();
    const int width = static_cast<int>(130 * devicePixelRatioF());
    const auto find = [this, shoot = document_.snapshot(), index = static_cast<std::size_t>(document_.current()),
                       width](bool pictures) {
        return [=, this](const std::function<bool()>& go_on) -> PictureQueue::Show {
            const auto& shot = shoot->shots[index];
            auto plans = advice::proposals_for(shoot->kit, shot, shoot::terms_of(*shoot, shot));
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

bool ProposalsView::isCurrent() const { return of_ == document_.snapshot() && ofShot_ == document_.current(); }

QString ProposalsView::reason() const {
    if (plans_.empty())
        return tr("No school has a plan yet: say what light there is (Light, Exposure) or put a flash into the bag.");
    const auto& best = plans_.front();
    QString text = tr("For this subject and place: %1. %2").arg(toQt(advice::plan_name(best)), toQt(best.why));
    if (!best.changes.empty()) text += tr(" With %1, which the wanted size asks for.").arg(toQt(best.changes));
    return text;
}

QRectF ProposalsView::cardRect(std::size_t index) const {
    return QRectF(0, static_cast<double>(index) * (rowHeight() + gap), width(), rowHeight()).adjusted(1, 1, -1, -1);
}

bool ProposalsView::isRoomy() const {
    constexpr int enough = 560;
    return width() > enough;
}

double ProposalsView::rowHeight() const { return isRoomy() ? 112 : 132; }

QSize ProposalsView::sizeHint() const {
    const auto rows = static_cast<double>(std::max<std::size_t>(plans_.size(), 1));
    return {300, static_cast<int>(rows * (rowHeight() + gap))};
}

std::optional<std::size_t> ProposalsView::taken() const {
    if (!document_.shot()) return std::nullopt;
    const auto same = [&](const advice::Proposal& plan) {
        const auto &a = plan.shot, &b = *document_.shot();
        return a.exposure == b.exposure && a.capture == b.capture && a.lights == b.lights && a.rig == b.rig;
    };
    const auto found = std::ranges::find_if(plans_, same);
    if (found == plans_.end()) return std::nullopt;
    return static_cast<std::size_t>(found - plans_.begin());
}

void ProposalsView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    for (std::size_t i = 0; i < plans_.size(); ++i) paintCard(painter, i);
    if (plans_.empty() && hasFocus()) drawFocusRing(painter, rect());
}

/// With room the picture stands beside all words; without, beside name and settings alone, and the sentences below.
ProposalsView::Places ProposalsView::placesOf(std::size_t index) const {
    const QRectF inner = cardRect(index).adjusted(inset, inset, -inset, -inset);
    const QRectF side(inner.right() - side_width, inner.top(), side_width, inner.height());
    constexpr double head = 42;
    const double high = isRoomy() ? inner.height() : head + 6;
    const QRectF picture(inner.left(), inner.top(), high * aspect, high);
    const double left = picture.right() + inset, right = side.left() - inset;
    const double from = isRoomy() ? left : inner.left(), below = isRoomy() ? inner.top() + head : picture.bottom() + 4;
    return {.picture = picture,
            .head = QRectF(left, inner.top(), right - left, head),
            .sentences = QRectF(from, below, right - from, inner.bottom() - below),
            .side = side};
}

void ProposalsView::paintCard(QPainter& painter, std::size_t index) const {
    const Theme& t = theme();
    const auto& plan = plans_[index];
    const bool best = index == 0 && plan.fits(), now = taken() == index;
    const bool cursor = (hasFocus() && index == marked_) || static_cast<int>(index) == hovered_;
    drawCard(painter, cardRect(index), best ? t.focusWash : t.panel,
             cursor ? QPen(t.link, 2)
             : now  ? QPen(t.focus, 2)
                    : QPen(t.hairline, 1));
    const Places places = placesOf(index);
    if (index < pictures_.size() && !pictures_[index].isNull())
        painter.drawImage(places.picture, pictures_[index]);
    else
        painter.fillRect(places.picture, t.hairline);
    paintHead(painter, places.head, plan, best ? t.ink : t.quiet);
    paintSentences(painter, places.sentences, index);
    paintKept(painter, places.side, plan, best ? t.ink : t.quiet);
    const QRectF button = places.side.adjusted(0, places.side.height() - button_height, 0, 0);
    painter.setFont(textFont(12, QFont::DemiBold));
    if (now) {
        painter.setPen(t.focus);
        return drawLine(painter, button, Qt::AlignCenter, tr("As it is \u2713"));
    }
    painter.setPen(best ? QPen(Qt::NoPen) : QPen(t.hairline, 1));
    painter.setBrush(best ? t.focus : t.panel);
    painter.drawRoundedRect(button, 3, 3);
    painter.setPen(best ? t.panel : t.ink);
    drawLine(painter, button, Qt::AlignCenter, tr("Take it"));
}

/// Its name and what it takes, then the settings, large: what one turns at the camera.
void ProposalsView::paintHead(QPainter& painter, const QRectF& head, const advice::Proposal& plan,
                              const QColor& quiet) {
    constexpr double line = 17, least = 40;
    const QFont bold = textFont(12, QFont::DemiBold), small = textFont(11);
    const QString name = elided(bold, toQt(advice::plan_name(plan)), head.width());
    painter.setFont(bold);
    painter.setPen(theme().ink);
    drawLine(painter, QRectF(head.left(), head.top(), head.width(), line), Qt::AlignLeft | Qt::AlignVCenter, name);
    const double beside = lineWidth(bold, name) + 10;
    painter.setFont(small);
    painter.setPen(quiet);
    if (const double room = head.width() - beside; room > least)
        drawLine(painter, QRectF(head.left() + beside, head.top(), room, line), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(small, tr("%1, %2").arg(frames_text(plan), lights_text(plan)), room));
    const auto& exposure = plan.shot.exposure;
    const QString settings =
        tr("%1   %2   ISO %3")
            .arg(toQt(text::f_number_text(exposure.f_number)), toQt(text::shutter_text(exposure.shutter)),
                 toQt(text::number_text(exposure.iso, 6)));
    QFont large = textFont(16, QFont::DemiBold);
    if (lineWidth(large, settings) > head.width()) large = textFont(13, QFont::DemiBold);
    painter.setFont(large);
    painter.setPen(theme().ink);
    drawLine(painter, head.adjusted(0, line, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
             elided(large, settings, head.width()));
}

/// What it gives up, and why it stands here: whole sentences, smaller where the window is small.
void ProposalsView::paintSentences(QPainter& painter, const QRectF& place, std::size_t index) const {
    const auto& plan = plans_[index];
    const QString gives = (plan.stopped ? tr("Something stands against it. ") : QString()) + toQt(plan.sentence);
    const QString all = index == 0 ? gives : gives + QLatin1Char(' ') + toQt(plan.why);
    for (const int size : {12, 11, 10, 9}) {
        painter.setFont(textFont(size));
        const auto needs = painter.boundingRect(place, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, all);
        if (needs.height() <= place.height()) break;
    }
    painter.setPen(plan.fits() ? theme().ink : theme().caution);
    painter.drawText(place, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, all);
}

/// What is kept of each quality, the same place the same quality in every row.
void ProposalsView::paintKept(QPainter& painter, const QRectF& side, const advice::Proposal& plan,
                              const QColor& quiet) {
    const auto kept = profile(plan.worth);
    const double step = side.width() / static_cast<double>(kept.size()), foot = side.bottom() - button_height - 22;
    constexpr double felt = 0.8;
    for (std::size_t i = 0; i < kept.size(); ++i) {
        const QRectF full(side.left() + static_cast<double>(i) * step, side.top(), step - 3, foot - side.top());
        painter.fillRect(full, theme().hairline);
        painter.fillRect(full.adjusted(0, full.height() * (1 - kept[i].share), 0, 0),
                         kept[i].share >= felt ? theme().focus : theme().caution);
    }
    const QFont small = textFont(11);
    painter.setFont(small);
    painter.setPen(quiet);
    drawLine(painter, QRectF(side.left(), foot + 3, side.width(), 15), Qt::AlignLeft | Qt::AlignVCenter,
             elided(small, worst(kept), side.width()));
}

void ProposalsView::take(std::size_t index) {
    if (index >= plans_.size() || !isCurrent()) return;
    const auto plan = plans_[index];
    document_.editShot({tr("Take \u201c%1\u201d").arg(toQt(advice::plan_name(plan)))},
                       [&](shoot::Shot& shot) { shot = plan.shot; });
}

void ProposalsView::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < plans_.size(); ++i)
        if (cardRect(i).contains(event->position())) return take(i);
}

void ProposalsView::mouseMoveEvent(QMouseEvent* event) {
    int over = -1;
    for (std::size_t i = 0; i < plans_.size(); ++i)
        if (cardRect(i).contains(event->position())) over = static_cast<int>(i);
    setToolTip(over < 0 ? QString() : barTip(static_cast<std::size_t>(over), event->position()));
    if (over == hovered_) return;
    hovered_ = over;
    update();
}

/// What the bar under the pointer stands for; elsewhere how a plan is taken.
QString ProposalsView::barTip(std::size_t index, QPointF at) const {
    const auto kept = profile(plans_[index].worth);
    const QRectF side = placesOf(index).side;
    const double place = (at.x() - side.left()) / side.width() * static_cast<double>(kept.size());
    const bool on_bars = at.y() < side.bottom() - button_height && place >= 0;
    if (!on_bars || place >= static_cast<double>(kept.size()))
        return tr("A click takes a plan, Ctrl+Z brings the old one back");
    const auto& one = kept[static_cast<std::size_t>(place)];
    return tr("%1: %2 % kept").arg(one.name).arg(std::round(one.share * 100));
}

void ProposalsView::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void ProposalsView::keyPressEvent(QKeyEvent* event) {
    switch (cardKey(*event, marked_, plans_.size())) {
        case CardKey::marked:
            if (auto* scroll = qobject_cast<QScrollArea*>(parentWidget() ? parentWidget()->parentWidget() : nullptr)) {
                const QPoint middle = cardRect(marked_).center().toPoint();
                scroll->ensureVisible(middle.x(), middle.y(), 0, static_cast<int>(rowHeight() / 2));
            }
            return update();
        case CardKey::taken:
            return take(marked_);
        case CardKey::none:
            QWidget::keyPressEvent(event);
    }
}

void ProposalsView::resizeEvent(QResizeEvent*) {
    setMinimumHeight(sizeHint().height());
    update();
}
void ProposalsView::showEvent(QShowEvent*) { refresh(); }

}  // namespace poquito::desk

#include "desk/subject/moc_proposals_view.moc"
