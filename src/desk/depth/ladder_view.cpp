#include "desk/depth/ladder_view.hpp"

#include "desk/drawing/rendering.hpp"
#include "desk/session/document.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace poquito::desk {
namespace {

constexpr double bar_height = 30, text_height = 99, apart = 6;

/// What a rung gives and costs, a line each.
QStringList lines_of(const advice::Rung& rung) {
    const auto& sharp = rung.report.sharpness;
    QStringList lines;
    lines << (sharp.depth_of_field ? QObject::tr("%1 deep").arg(toQt(text::length_text(*sharp.depth_of_field)))
                                   : QObject::tr("deep without end"));
    lines << (rung.ends_blur ? QObject::tr("ends %1").arg(toQt(text::length_text(*rung.ends_blur))) : QString());
    lines << (sharp.background_disc_share ? QObject::tr("behind %1").arg(percentText(*sharp.background_disc_share, 2))
                                          : QObject::tr("nothing behind"));
    const double frames = rung.report.capture.frames;
    lines
        << (std::abs(rung.light_needed) < 0.05
                ? toQt(text::count_text(frames, "frame", "frames"))
                : QObject::tr("%1 fr., %2 st.").arg(toQt(text::number_text(frames, 6)), stopsText(rung.light_needed)));
    return lines;
}

/// A rung as drawn: the frame, the loupe's part of it, the value, and what it gives and costs.
struct Painted {
    const advice::Rung& rung;
    advice::LadderOf of;
    const QImage& frame;
    const QImage& loupe;  // null: no room for it
    double aspect;
};
void paintRung(QPainter& painter, const QRectF& area, const Painted& what) {
    const auto& rung = what.rung;
    const int pictures = what.loupe.isNull() ? 1 : 2;
    const double height = std::min(area.width() / what.aspect, (area.height() - text_height) / pictures - 4);
    QRectF picture(0, 0, height * what.aspect, height);
    picture.moveCenter({area.center().x(), area.top() + height / 2});
    painter.fillRect(picture, theme().greyScale[0]);
    if (!what.frame.isNull()) painter.drawImage(picture, what.frame);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(rung.is_own ? QPen(theme().focus, 2.4) : QPen(theme().hairline, 1));
    painter.drawRect(picture);
    double y = picture.bottom() + 4;
    if (!what.loupe.isNull()) {
        const QRectF close = picture.translated(0, height + 4);
        const double ratio = painter.device()->devicePixelRatioF();
        const QSizeF shown(close.width() * ratio, close.height() * ratio);  // pixel for pixel
        const QRectF source(
            QPointF((what.loupe.width() - shown.width()) / 2, (what.loupe.height() - shown.height()) / 2), shown);
        painter.drawImage(close, what.loupe, source);
        painter.setPen(QPen(theme().hairline, 1));
        painter.drawRect(close);
        y = close.bottom() + 4;
    }
    painter.setFont(textFont(12, QFont::DemiBold));
    painter.setPen(rung.is_own ? theme().focus : theme().ink);
    const auto line = [&](const QString& words, double step) {
        drawLine(painter, QRectF(area.left(), y, area.width(), step), Qt::AlignHCenter | Qt::AlignTop,
                 elided(painter.font(), words, area.width()));
        y += step;
    };
    line(toQt(advice::rung_text(rung.shot, what.of, rung.value)), 17);
    painter.setFont(textFont(11, rung.is_best ? QFont::DemiBold : QFont::Normal));
    painter.setPen(rung.is_best ? theme().link : theme().quiet);
    line(rung.is_best ? QObject::tr("worth most, %1 %").arg(qRound(rung.worth * 100))
                      : QObject::tr("worth %1 %").arg(qRound(rung.worth * 100)),
         15);
    painter.setFont(textFont(11));
    painter.setPen(theme().quiet);
    for (const auto& words : lines_of(rung)) line(words, 15);
}

}  // namespace

LadderView::LadderView(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), kind_(new QComboBox(this)) {
    setObjectName(QStringLiteral("ladder"));
    setAccessibleName(tr("Ladder: the frame at a row of values"));
    setToolTip(
        tr("A click takes the value; the frames are shown equally bright, what that takes in light stands below"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* bar = new QHBoxLayout;
    auto* label = new QLabel(tr("The frame over"), this);
    label->setProperty("quiet", true);
    bar->addWidget(label);
    for (const auto& kind : advice::ladder_kinds()) kind_->addItem(tr(kind.name), QString::fromLatin1(kind.id));
    nameControl(kind_, {"ladderChoice", tr("Ladder over"), tr("What changes from one frame to the next")});
    bar->addWidget(kind_);
    bar->addStretch();
    auto* sheet = captionedButton(
        {"contactSheetButton", tr("Contact sheet\u2026"), tr("Saves the row as a picture that carries the plan")},
        this);
    bar->addWidget(sheet);
    column->addLayout(bar);
    column->addStretch();
    connect(kind_, &QComboBox::currentIndexChanged, this, [this] { refresh(); });
    connect(sheet, &QPushButton::clicked, this, &LadderView::sheetWanted);
}

advice::LadderOf LadderView::of() const {
    return advice::ladder_kinds()[static_cast<std::size_t>(std::max(0, kind_->currentIndex()))].of;
}

QRectF LadderView::rungRect(std::size_t index) const {
    const double width =
        (this->width() - apart * static_cast<double>(rungs_.size() - 1)) / static_cast<double>(rungs_.size());
    return {static_cast<double>(index) * (width + apart), bar_height, width, height() - bar_height};
}

/// Frames that would come out brighter or darker at the plan's own light are shown as if it had been made up for.
double LadderView::brightened(const advice::Rung& rung) const {
    if (of() != advice::LadderOf::aperture && of() != advice::LadderOf::magnification) return 0;
    const auto& now = document_.report()->light.front_total;
    const auto& then = rung.report.light.front_total;
    return now && then ? *now - *then : 0;
}

void LadderView::refresh() {
    if (!document_.shot() || !isVisible()) return;
    const auto& plan = document_.assessment()->plan;
    rungs_ = advice::climb(plan, of(), advice::ladder_values(plan, of()));
    pictures_.resize(rungs_.size());
    update();
    if (rungs_.empty()) return;
    const int wide = std::max(40, static_cast<int>(rungRect(0).width() * devicePixelRatioF()));
    std::vector<double> lighter;
    for (const auto& rung : rungs_) lighter.push_back(brightened(rung));
    const double high = wide / (frameAspect() * devicePixelRatioF());
    const bool close = height() - bar_height - text_height > 2 * high;
    const auto work = [this, shoot = document_.snapshot(), rungs = rungs_, lighter, wide, place = loupe_](bool loupes) {
        return [=, this](const std::function<bool()>& go_on) -> PictureQueue::Show {
            std::vector<Pictures> pictures;
            for (std::size_t i = 0; i < rungs.size(); ++i) {
                if (!go_on()) return {};
                pictures.push_back(picture(shoot->kit, rungs[i], wide, lighter[i], place, loupes));
            }
            return [this, pictures] {
                pictures_ = pictures;
                pictures_.resize(rungs_.size());
                update();
            };
        };
    };
    queue_.render(work(false), close ? work(true) : PictureQueue::Work());
}

LadderView::Pictures LadderView::picture(const gear::Kit& kit, const advice::Rung& rung, int width, double lighter,
                                         imaging::Place place, bool close) {
    Pictures pictures{.frame = thumbnail(kit, rung.shot, rung.report, width, lighter), .loupe = {}};
    if (close)
        pictures.loupe =
            closeUp(kit, rung.shot, rung.report, {.centre = place, .width = width, .height = width * 3 / 4}, lighter);
    return pictures;
}

double LadderView::frameAspect() const {
    const auto& sensor = shoot::sensor_of(document_.kit(), document_.shot()->rig);
    return sensor.width / sensor.height;
}

void LadderView::setLoupe(imaging::Place place) {
    loupe_ = place;
    refresh();
}

void LadderView::paintEvent(QPaintEvent*) {
    if (!document_.shot()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    if (rungs_.empty()) {
        painter.setPen(theme().quiet);
        painter.drawText(rect(), Qt::AlignCenter, tr("This shot has nothing to vary there."));
        return;
    }
    for (std::size_t i = 0; i < rungs_.size(); ++i)
        paintRung(painter, rungRect(i), {rungs_[i], of(), pictures_[i].frame, pictures_[i].loupe, frameAspect()});
    if (hasFocus()) {
        painter.setPen(QPen(theme().link, 1));
        painter.drawRect(QRectF(rect()).adjusted(0.5, bar_height - 3.5, -0.5, -0.5));
    }
}

void LadderView::take(std::size_t index) {
    const auto& rung = rungs_[index];
    document_.editShot({tr("Take %1").arg(toQt(advice::rung_text(*document_.shot(), of(), rung.value)))},
                       [&](shoot::Shot& shot) { shot = advice::at_rung(shot, of(), rung.value); });
}

void LadderView::mouseReleaseEvent(QMouseEvent* event) {
    for (std::size_t i = 0; i < rungs_.size(); ++i)
        if (rungRect(i).contains(event->position())) return take(i);
}

void LadderView::keyPressEvent(QKeyEvent* event) {
    const auto own = std::ranges::find(rungs_, true, &advice::Rung::is_own) - rungs_.begin();
    const auto last = std::ssize(rungs_) - 1;
    if (event->key() == Qt::Key_Left && own > 0) return take(static_cast<std::size_t>(own - 1));
    if (event->key() == Qt::Key_Right && own < last) return take(static_cast<std::size_t>(own + 1));
    QWidget::keyPressEvent(event);
}

void LadderView::resizeEvent(QResizeEvent*) { refresh(); }
void LadderView::showEvent(QShowEvent*) { refresh(); }

void LadderView::makeSheet(const std::function<void(const QImage&)>& done) {
    if (rungs_.empty()) return;
    constexpr int wide = 480, across = 3, margin = 24, head = 44;
    const auto& shot = *document_.shot();
    const double aspect = frameAspect();
    std::vector<double> lighter;
    for (const auto& rung : rungs_) lighter.push_back(brightened(rung));
    sheetQueue_.render([shoot = document_.snapshot(), rungs = rungs_, lighter, name = toQt(shot.name), kind = of(),
                        aspect, done](const auto&) -> PictureQueue::Show {
        std::vector<QImage> images;
        for (std::size_t i = 0; i < rungs.size(); ++i)
            images.push_back(thumbnail(shoot->kit, rungs[i].shot, rungs[i].report, wide, lighter[i]));
        return [=] {
            const int high = static_cast<int>(wide / aspect + text_height),
                      rows = (static_cast<int>(rungs.size()) + across - 1) / across;
            QImage sheet(margin + across * (wide + margin), head + margin + rows * (high + margin),
                         QImage::Format_RGB32);
            sheet.fill(theme().panel);
            QPainter painter(&sheet);
            painter.setFont(textFont(15, QFont::DemiBold));
            painter.setPen(theme().ink);
            painter.drawText(QPointF(margin, 36), name);
            for (std::size_t i = 0; i < rungs.size(); ++i) {
                const auto column = static_cast<int>(i) % across, row = static_cast<int>(i) / across;
                paintRung(painter,
                          QRectF(margin + column * (wide + margin), head + margin + row * (high + margin), wide, high),
                          {rungs[i], kind, images[i], QImage(), aspect});
            }
            painter.end();
            done(sheet);
        };
    });
}

}  // namespace poquito::desk

#include "desk/depth/moc_ladder_view.moc"
