#include "render/sketch_painter.h"

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

bool isGround(SketchStroke stroke) { return stroke == SketchStroke::Outline || stroke == SketchStroke::Sheer; }

void drawView(QPainter& painter, const Sketch& sketch, const QTransform& place, const Theme& theme) {
  const auto polygon = [&](const SketchLine& line) {
    QPolygonF points;
    for (Vec2 p : line.points) points << place.map(QPointF(p.x, p.y));
    return points;
  };
  for (const SketchLine& line : sketch.lines) {
    if (!isGround(line.stroke)) continue;
    QColor ground = theme.tint;
    if (line.stroke == SketchStroke::Sheer) ground.setAlphaF(0.45);
    // With a hair of pen, so that nothing shines through between two pieces.
    painter.setPen(line.stroke == SketchStroke::Sheer ? QPen(Qt::NoPen) : QPen(ground, 0.6));
    painter.setBrush(ground);
    painter.drawPolygon(polygon(line));
  }
  painter.setBrush(Qt::NoBrush);
  for (const SketchLine& line : sketch.lines) {
    if (isGround(line.stroke)) continue;
    const double width = line.stroke == SketchStroke::Edge ? 1.5 : line.stroke == SketchStroke::Seam ? 0.9 : 0.7;
    QPen pen(line.stroke == SketchStroke::Lacing ? theme.secondInk : theme.ink, width);
    pen.setJoinStyle(Qt::RoundJoin);
    pen.setCapStyle(Qt::FlatCap);
    painter.setPen(pen);
    painter.drawPolyline(polygon(line));
  }
}

}  // namespace

void drawSketch(QPainter& painter, const GarmentSketch& sketch, QRectF area, const Theme& theme) {
  constexpr double kBetween = 0.35;  // of a reach
  const SketchExtent e = extentOf(sketch);
  const double wide = (4 + kBetween) * e.reach,
               scale = std::min(area.width() / wide, area.height() / (e.bottom - e.top));
  const QPointF centre = area.center();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  for (const bool front : {true, false}) {
    QTransform place;
    place.translate(centre.x() + (front ? -1 : 1) * scale * e.reach * (1 + kBetween / 2), centre.y());
    place.scale(scale, scale);
    place.translate(0, -(e.top + e.bottom) / 2);
    drawView(painter, front ? sketch.front : sketch.back, place, theme);
  }
  painter.restore();
}

}  // namespace armure
