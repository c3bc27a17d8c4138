// core/tracing/outlines.h
//
// Recognising pieces in a drawing: closed outlines, drawn in one or edge by edge, and what is drawn inside each.
//
//   for (const TracedOutline& o : outlinesOf(drawing)) ...  // from the left to the right, row by row
//
// An outline round another at the distance of an allowance is its cutting line; the inner one is sewn. Closed lines
// smaller than a matchbox (eyelets, arrow heads, rings round a dart's point) are no pieces. Squares of 100 mm or 4 in
// with nothing inside are for testing the scale.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "geometry/polygon.h"
#include "tracing/line_drawing.h"

namespace armure {

struct TracedOutline {
  Path path;  // closed; clockwise as seen, from a corner on
  // Corners, and the ends of the lines it was drawn in, as arc lengths, ascending from 0; and what the file calls the
  // line from each of them to the next: its id and layer, or nothing.
  std::vector<double> corners;
  std::vector<std::string> ids, layers;
  std::vector<size_t> inside;   // shapes of the drawing that lie in it, or on it
  std::optional<Path> cutting;  // the line to cut round it
  bool isTestSquare = false;

  Polyline polygon() const { return path.flattened(0.05); }
};

std::vector<TracedOutline> outlinesOf(const LineDrawing& drawing);

// The place of an outline next to a point, as arc length; a corner where one is within kAtCorner.
double placeOnOutline(const TracedOutline& outline, Vec2 point);
inline constexpr double kAtCorner = 0.75;  // mm

// A closed path cut at places: from each to the next, from the last on to the first. Nothing where they do not follow
// each other as the path runs.
std::vector<Path> cutAtPlaces(const Path& closed, const std::vector<double>& places);

// The outline a point lies in, by its number; the smallest where several do.
std::optional<size_t> outlineAt(const std::vector<TracedOutline>& outlines, Vec2 point);

}  // namespace armure
