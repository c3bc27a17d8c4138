#include "render/figure_painter.h"

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr double kCaptionHeight = 22, kPointerReach = 7;  // pixels
constexpr double kBetween = 30;                           // mm between two figures

double distanceTo(QPointF p, const QPolygonF& line) {
  double best = 1e9;
  for (qsizetype i = 0; i + 1 < line.size(); ++i) {
    const QPointF a = line[i], d = line[i + 1] - a;
    const double length = QPointF::dotProduct(d, d);
    const double t = length > 0 ? std::clamp(QPointF::dotProduct(p - a, d) / length, 0.0, 1.0) : 0;
    const QPointF off = p - (a + t * d);
    best = std::min(best, std::hypot(off.x(), off.y()));
  }
  return best;
}

}  // namespace

FigurePainter::FigurePainter(const MeasuredFigure& figure, const MeasuredFigure& ideal, QRectF area)
    : figure_(figure), ideal_(ideal), places_(figure.places()), area_(area) {
  const double top = std::min(figure.top(), ideal.top()), floor = std::max(figure.floor(), ideal.floor());
  const double reach = std::max(figure.reach(), ideal.reach()) + 24;
  double back = 0, front = 0;
  for (const MeasuredFigure* f : {&figure, &ideal})
    for (Vec2 p : f->outline(View::Side).body) {
      back = std::min(back, p.x);
      front = std::max(front, p.x);
    }
  const double wide = 4 * reach + (front - back) + 2 * kBetween;
  scale_ = std::min(area.width() / wide, (area.height() - kCaptionHeight) / (floor - top));
  const double left = area.center().x() - scale_ * wide / 2;
  const double y = area.top() - scale_ * top;
  origins_ = {QPointF(left + scale_ * reach, y), QPointF(left + scale_ * (3 * reach + kBetween), y),
              QPointF(left + scale_ * (4 * reach + 2 * kBetween - back), y)};
}

QPointF FigurePainter::toScreen(View view, Vec2 p) const {
  return origins_[static_cast<size_t>(view)] + scale_ * QPointF(p.x, p.y);
}

// Points closer than a pixel and a half are left out: nobody sees them, and drawing them takes most of a frame.
QPolygonF FigurePainter::toScreen(View view, const Polyline& line) const {
  QPolygonF out;
  out.reserve(static_cast<qsizetype>(line.size()));
  for (Vec2 p : line) {
    const QPointF next = toScreen(view, p);
    if (out.isEmpty() || (next - out.last()).manhattanLength() >= 1.5) out << next;
  }
  if (const QPointF last = toScreen(view, line.back()); out.last() != last) out << last;
  return out;
}

void FigurePainter::draw(QPainter& painter, const Theme& theme, std::string_view lit, std::string_view hovered,
                         const QString& tag) const {
  painter.setRenderHint(QPainter::Antialiasing);
  for (View view : {View::Front, View::Back, View::Side}) drawFigure(painter, theme, view);
  drawPlaces(painter, theme, lit, hovered);
  drawTag(painter, theme, lit, tag);
  painter.setFont(uiFont(TextSize::Small));
  painter.setPen(theme.secondInk);
  const std::pair<View, const char*> captions[] = {{View::Front, "front"}, {View::Back, "back"}, {View::Side, "side"}};
  for (const auto& [view, caption] : captions) {
    const double x = toScreen(view, {0, 0}).x();
    painter.drawText(QRectF(x - 60, area_.bottom() - kCaptionHeight + 4, 120, 18), Qt::AlignCenter, caption);
  }
}

void FigurePainter::drawFigure(QPainter& painter, const Theme& theme, View view) const {
  const FigureOutline &mine = figure_.outline(view), &ideal = ideal_.outline(view);
  const auto filled = [&](const Polyline& outline) {  // the line smooths the edge of the fill
    const QPolygonF polygon = toScreen(view, outline);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.tint);
    painter.drawPolygon(polygon);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme.secondInk, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(polygon);
  };
  for (const Polyline& part : mine.behind) filled(part);
  filled(mine.body);
  for (const Polyline& line : mine.details) painter.drawPolyline(toScreen(view, line));
  painter.setBrush(Qt::NoBrush);
  QPen dashed(theme.secondInk, 1);
  dashed.setDashPattern({4, 3});
  painter.setPen(dashed);
  for (const Polyline& part : trunkOf(ideal.body)) painter.drawPolyline(toScreen(view, part));
}

// The stretches of the ideal figure's outline along its trunk: head and limbs are drawn by proportion and compare
// nothing.
std::vector<Polyline> FigurePainter::trunkOf(const Polyline& outline) const {
  const double from = ideal_.form().top() - 40, to = ideal_.form().bottom() + 60;
  std::vector<Polyline> parts(1);
  for (Vec2 p : outline) {
    if (p.y >= from && p.y <= to) {
      parts.back().push_back(p);
    } else if (!parts.back().empty()) {
      parts.emplace_back();
    }
  }
  std::erase_if(parts, [](const Polyline& part) { return part.size() < 2; });
  return parts;
}

void FigurePainter::drawPlaces(QPainter& painter, const Theme& theme, std::string_view lit,
                               std::string_view hovered) const {
  const auto stroke = [&](const MeasurePlace& place, const QColor& color, double width) {
    painter.setPen(QPen(color, width));
    painter.drawPolyline(toScreen(place.view, place.line));
  };
  QColor faint = theme.working;
  faint.setAlphaF(0.28f);
  for (const MeasurePlace& place : places_)
    if (place.id != lit) stroke(place, place.id == hovered ? theme.working : faint, place.id == hovered ? 2 : 1);
  for (const MeasurePlace& place : places_) {
    if (place.id != lit) continue;
    stroke(place, theme.working, 3);
    painter.setBrush(theme.working);
    painter.setPen(Qt::NoPen);
    for (Vec2 end : {place.line.front(), place.line.back()}) painter.drawEllipse(toScreen(place.view, end), 3, 3);
    painter.setBrush(Qt::NoBrush);
  }
}

void FigurePainter::drawTag(QPainter& painter, const Theme& theme, std::string_view lit, const QString& tag) const {
  const auto at = middleOf(lit);
  if (!at || tag.isEmpty()) return;
  painter.setFont(uiFont(TextSize::Body, true));
  const double width = painter.fontMetrics().horizontalAdvance(tag) + 14;
  QRectF box(at->x() - width / 2, at->y() - 33, width, 22);
  for (const MeasurePlace& place : places_) {
    if (place.id != lit) continue;
    const QRectF extent = toScreen(place.view, place.line).boundingRect();
    if (extent.height() > extent.width()) box.moveTo(extent.right() + 10, at->y() - 11);  // beside an upright line
    break;
  }
  box.moveLeft(std::clamp(box.left(), area_.left() + 2, area_.right() - width - 2));
  painter.setPen(QPen(theme.working, 1));
  painter.setBrush(theme.tape);
  painter.drawRoundedRect(box, 4, 4);
  painter.setPen(theme.ink);
  painter.drawText(box, Qt::AlignCenter, tag);
}

std::string FigurePainter::measureAt(QPointF at) const {
  std::string found;
  double best = kPointerReach;
  for (const MeasurePlace& place : places_) {
    const double d = distanceTo(at, toScreen(place.view, place.line));
    if (d >= best) continue;
    best = d;
    found = place.id;
  }
  return found;
}

std::optional<QPointF> FigurePainter::middleOf(std::string_view id) const {
  for (const MeasurePlace& place : places_) {
    if (place.id != id) continue;
    double half = 0;
    for (size_t i = 0; i + 1 < place.line.size(); ++i) half += distance(place.line[i], place.line[i + 1]) / 2;
    for (size_t i = 0; i + 1 < place.line.size(); ++i) {
      const double step = distance(place.line[i], place.line[i + 1]);
      if (step >= half && step > 0) return toScreen(place.view, lerp(place.line[i], place.line[i + 1], half / step));
      half -= step;
    }
  }
  return std::nullopt;
}

}  // namespace armure
