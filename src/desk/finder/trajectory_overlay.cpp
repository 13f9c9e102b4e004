#include "desk/finder/trajectory_overlay.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "optics/motion.hpp"
#include "plan/assess.hpp"
#include "plan/motion/trajectory.hpp"
#include "text/text.hpp"

#include <QObject>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <vector>

namespace poquito::desk {
namespace {

class TrajectoryPainter {
  public:
    TrajectoryPainter(QPainter& painter, const QRectF& frame, const plan::Plan& plan, const plan::Report& report,
                      const plan::Trajectory& path)
        : painter_(painter),
          frame_(frame),
          plan_(plan),
          report_(report),
          path_(path),
          scale_(frame.width() / *report.optics.field_width) {}

    void paint() {
        const auto times = inside();
        if (times.size() > 1) line(times);
        const double least = path_.lit_after, blur = blurAt(least);
        for (const double t : times) streak(t);
        where();
        painter_.setFont(textFont(11));
        if (frame_.contains(at(least)))
            drawLabel(painter_, at(least) + QPointF(9, -9), Qt::AlignLeft | Qt::AlignVCenter,
                      QObject::tr("%1 px as the light comes").arg(pixels(blur)), theme().ink);
    }

  private:
    QPointF at(double time) const {
        const auto point = path_.point(time);
        return frame_.center() + QPointF(point.x - path_.place.x, path_.place.y - point.y) * scale_;
    }

    double blurAt(double time) const {
        return optics::motion_blur({.magnification = std::max(0.0, plan_.at.magnification),
                                    .speed = path_.point(time).speed(),
                                    .exposure = report_.motion.exposure_time}) /
               optics::pixel_pitch(plan_.sensor);
    }

    static QString pixels(double blur) { return toQt(text::number_text(blur, 2)); }

    /// Equal times about the wanted moment, those at which it is in the frame, about a dozen.
    std::vector<double> inside() const {
        constexpr double marks = 12;
        const double speed = std::max(path_.place.speed(), 1.0), high = *report_.optics.field_height;
        const double by_speed = high / speed, by_falling = std::sqrt(high / 2000);  // mm; 2000: a fifth of g
        const double between = std::min(by_speed, by_falling) / marks;
        std::vector<double> times;
        for (int i = -40; i <= 40; ++i) {
            const double t = path_.wanted_after + between * i;
            if (t >= 0 && frame_.adjusted(-20, -20, 20, 20).contains(at(t))) times.push_back(t);
        }
        return times;
    }

    void twice(const auto& draw, Qt::PenStyle style = Qt::SolidLine) {
        painter_.setPen(QPen(theme().underPicture, 2.4));
        draw();
        painter_.setPen(QPen(theme().overPicture, 1, style));
        draw();
    }

    void line(const std::vector<double>& times) {
        QPolygonF path;
        for (const double t : times) path << at(t);
        twice([&] { painter_.drawPolyline(path); });
    }

    /// As long as it runs while the flash lasts, and where that is less than a dot, a dot; filled where it is more
    /// blurred than wanted.
    void streak(double time) {
        const auto point = path_.point(time);
        const QPointF runs = QPointF(point.across, -point.up) * report_.motion.exposure_time * scale_;
        const bool sharp = blurAt(time) <= plan_.shot.freeze->wanted_blur * (1 + 1e-9);
        if (std::hypot(runs.x(), runs.y()) > 5) {
            painter_.setPen(QPen(sharp ? theme().overPicture : theme().caution, 3, Qt::SolidLine, Qt::RoundCap));
            painter_.drawLine(at(time) - runs / 2, at(time) + runs / 2);
            return;
        }
        painter_.setPen(QPen(theme().underPicture, 1));
        painter_.setBrush(sharp ? theme().overPicture : theme().caution);
        painter_.drawEllipse(at(time), 2.5, 2.5);
        painter_.setBrush(Qt::NoBrush);
    }

    /// Where it is as the light comes, and how its throws scatter about that.
    void where() {
        const QPointF lit = at(path_.lit_after);
        const auto& freeze = *plan_.shot.freeze;
        twice([&] { painter_.drawEllipse(lit, 6, 6); });
        const double aside = shoot::aside_of(plan_.shot);
        const double cloud = freeze.pieces > 1 ? freeze.spread : 0;
        const double wide = 2 * std::hypot(aside, cloud) * scale_;
        const double high = 2 * std::hypot(freeze.act == shoot::Act::thrown ? aside : 0, cloud) * scale_;
        if (wide > 6) twice([&] { painter_.drawEllipse(lit, wide, std::max(high, 1.0)); }, Qt::DotLine);
    }

    QPainter& painter_;
    QRectF frame_;
    const plan::Plan& plan_;
    const plan::Report& report_;
    const plan::Trajectory& path_;
    double scale_;  // pixels a mm
};

/// Where it settles, nineteen of twenty times, about the place that is focused on.
void paintPerch(QPainter& painter, const QRectF& frame, const shoot::Perch& perch, double scale) {
    const double reach = 2 * perch.aside * scale;
    painter.setBrush(Qt::NoBrush);
    for (const auto& pen : {QPen(theme().underPicture, 2.4), QPen(theme().overPicture, 1, Qt::DotLine)}) {
        painter.setPen(pen);
        painter.drawEllipse(frame.center(), reach, reach);
        painter.drawLine(frame.center() - QPointF(8, 0), frame.center() + QPointF(8, 0));
        painter.drawLine(frame.center() - QPointF(0, 8), frame.center() + QPointF(0, 8));
    }
    painter.setFont(textFont(11));
    drawLabel(painter, frame.center() + QPointF(0, std::min(reach, frame.height() / 2 - 14) + 2), Qt::AlignCenter,
              QObject::tr("settles here, 19 of 20"), theme().ink);
}

}  // namespace

void paintTrajectory(QPainter& painter, const QRectF& frame, const plan::Plan& plan, const plan::Report& report) {
    if (!report.optics.field_width) return;
    if (const auto& perch = shoot::tries_of(plan.shot).perch; perch && !plan.shot.freeze)
        return paintPerch(painter, frame, *perch, frame.width() / *report.optics.field_width);
    if (!plan.shot.freeze) return;
    if (const auto path = plan::trajectory_of(*plan.shot.freeze))
        TrajectoryPainter(painter, frame, plan, report, *path).paint();
}

}  // namespace poquito::desk
