// render/figure_painter.h
//
// Draws the measured figure from front, back and side, beside the ideal figure of the same bust (dashed), with every
// measure's place on it and the current one lit. And finds the measure under the pointer.
#pragma once

#include <QPainter>
#include <array>
#include <optional>
#include <string>

#include "body/figure_outline.h"
#include "render/theme.h"

namespace armure {

class FigurePainter {
 public:
  // Both figures are laid out in `area`, shoulder line on shoulder line, at one scale.
  FigurePainter(const MeasuredFigure& figure, const MeasuredFigure& ideal, QRectF area);

  // `lit` and `hovered` are ids of measures, or empty. `tag` is written beside the lit one.
  void draw(QPainter& painter, const Theme& theme, std::string_view lit, std::string_view hovered,
            const QString& tag) const;

  // The measure whose place is nearest to a point, within 7 pixels; the current one wins where two lie close.
  std::string measureAt(QPointF at) const;

  // The middle of a measure's place on the screen; nothing for a measure without a place.
  std::optional<QPointF> middleOf(std::string_view id) const;
  double scale() const { return scale_; }

 private:
  QPointF toScreen(View view, Vec2 p) const;
  QPolygonF toScreen(View view, const Polyline& line) const;
  void drawFigure(QPainter& painter, const Theme& theme, View view) const;
  std::vector<Polyline> trunkOf(const Polyline& outline) const;
  void drawPlaces(QPainter& painter, const Theme& theme, std::string_view lit, std::string_view hovered) const;
  void drawTag(QPainter& painter, const Theme& theme, std::string_view lit, const QString& tag) const;

  const MeasuredFigure& figure_;
  const MeasuredFigure& ideal_;
  const std::vector<MeasurePlace>& places_;
  QRectF area_;
  double scale_ = 1;
  std::array<QPointF, 3> origins_;  // of the shoulder line's middle, by View
};

}  // namespace armure
