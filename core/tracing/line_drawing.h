// core/tracing/line_drawing.h
//
// What a drawing from elsewhere holds: lines and words, of which nothing is known yet but where they lie. Read from SVG
// or DXF (io/svg_reader.h, io/dxf_reader.h); pieces are recognised in it by outlines.h and named by naming.h.
#pragma once

#include <string>
#include <vector>

#include "geometry/path.h"
#include "message.h"

namespace armure {

// A line as drawn. A closed one ends where it starts. `id` and `layer` are the file's own, and may be empty.
struct DrawnShape {
  Path path;
  bool closed = false;
  std::string id, layer;
};

struct DrawnWord {
  Vec2 at;
  std::string text;
};

// Millimetres as the file says (see `units`), x to the right, y down.
struct LineDrawing {
  std::vector<DrawnShape> shapes;
  std::vector<DrawnWord> words = {};
  Message units = {};              // how its numbers became millimetres: "1 unit is 1 mm, by its width"
  std::vector<Message> left = {};  // what was not read: "2 pictures"
};

// What a drawing can hold at the most; readers refuse more.
inline constexpr size_t kMostCurves = 400'000, kMostWords = 20'000;

// Every length times `factor`: what a drawing measures once a known length in it is what it should be.
LineDrawing scaled(const LineDrawing& drawing, double factor);

// Whether a curve is a straight line, as far as files keep their figures.
bool isStraight(const Cubic& cubic);

// A path of short straight lines, as files have curves, as a smooth one within `tolerance` mm of them; corners of more
// than kCorner and long straight lines stay. Anything that is a curve already stays as it is.
//
// Least squares over the chord lengths with the tangents at both ends held, split where it is worst: P. J. Schneider,
// "An algorithm for automatically fitting digitized curves", Graphics Gems (1990), 612.
Path smoothed(const Path& path, double tolerance);

// Directions that differ by more are a corner of a piece; radians (15 degrees).
inline constexpr double kCorner = 0.26;

}  // namespace armure
