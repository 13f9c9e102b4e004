#pragma once

#include "advice/advice.hpp"
#include "desk/drawing/bench_layout.hpp"
#include "desk/toolkit/label_placer.hpp"

#include <QLineF>
#include <QPointF>
#include <QRectF>
#include <QString>

#include <vector>

class QPainter;

/// The layers of the bench drawing, from the back to the front. Each draws its part and asks for its lettering, which
/// is drawn last.
namespace poquito::desk {

/// A lamp as drawn, pixels.
struct DrawnLamp {
    QPointF face;   // the middle of its face
    QPointF along;  // of length 1, from the subject to it
    double half = 0;
    double depth = 0;    // of modifier and lamp, away from the subject
    bool scaled = true;  // else it stands at the edge, farther away than drawn

    QLineF front() const { return {face + across() * half, face - across() * half}; }
    QPointF across() const { return {-along.y(), along.x()}; }
    QRectF bounds() const;
};

struct BenchCanvas {
    QPainter& painter;
    const BenchLayout& layout;
    const advice::Assessment& assessment;
    Elevation elevation;
    QRectF bounds;
    std::size_t chosen;  // light
    LabelPlacer& labels;
    std::vector<DrawnLamp> lamps = {};  // one a light, once drawLights is done

    const plan::Plan& plan() const { return assessment.plan; }
    const shoot::Shot& shot() const { return assessment.plan.shot; }
    const plan::Report& report() const { return assessment.report; }

    QRectF lampRoom() const { return bounds.adjusted(30, 52, -30, -bench_sizes::ruler_height - 20); }
    /// Where things of the set may be drawn: without title, dimensions and ruler.
    QRectF room() const { return bounds.adjusted(1, 24, -1, -bench_sizes::ruler_height + 4); }
    QPointF subjectMiddle() const { return layout.place(layout.subject, 0); }
    /// Where something stands that is so far from the subject's middle in the plane of the drawing.
    QPointF placeOf(QPointF inPlane) const { return layout.place(layout.subject - inPlane.x(), inPlane.y()); }
};

// Behind everything.
void drawAxis(BenchCanvas& canvas);
void drawShade(BenchCanvas& canvas);
void drawBackground(BenchCanvas& canvas);
void drawTable(BenchCanvas& canvas);
// Camera, lens and what is mounted between and in front.
void drawGear(BenchCanvas& canvas);
// Light.
/// A light so small that it draws a shadow on what the subject stands on.
bool sunShines(const BenchCanvas& canvas);
void drawAmbient(BenchCanvas& canvas);
void drawFamily(BenchCanvas& canvas);  // of angles, of a polished face
void drawRings(BenchCanvas& canvas);   // distances of the chosen light in stops
void drawLights(BenchCanvas& canvas);
void drawAim(BenchCanvas& canvas);
void letterLights(BenchCanvas& canvas);
// The subject with what is sharp of it.
void drawSubject(BenchCanvas& canvas);
// Below the set.
void drawDimensions(BenchCanvas& canvas);
void drawRuler(BenchCanvas& canvas);

/// The part of a ray from inside a rectangle that lies in it.
QLineF clippedTo(QLineF ray, const QRectF& room);

/// One line in the plain or the heavier hand of the drawing.
LabelLine plainLine(const QString& text, const QColor& colour);
LabelLine heavyLine(const QString& text, const QColor& colour);

}  // namespace poquito::desk
