// core/sheet/measure.h
//
// What the balance sheet measures with: seams walked, corners and widths taken on the finished pieces again, by code
// that shares nothing with construction and balancing but the arithmetic of Bezier curves. Where one of them were
// wrong, both would not be wrong alike.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// A place on the side of a seam, mm along it from its upper end.
struct SidePlace {
  std::string id;
  double at = 0;
};

// One side of a seam as it is sewn: its edges in order, the notches on it, its length.
struct MeasuredSide {
  Path path;
  double length = 0;               // mm
  std::vector<SidePlace> notches;  // from the upper end down
  const SidePlace* find(std::string_view id) const;
};
MeasuredSide measureSide(const Pattern& pattern, const SeamSide& side);

// Between two neighbouring notches that both sides carry; "top" and "hem" are the ends. Lengths in mm.
struct MeasuredStretch {
  std::string from, to;
  double lengthA = 0, lengthB = 0, plannedEase = 0;
  double mismatch() const { return lengthA - lengthB - plannedEase; }
};
struct MeasuredSeam {
  MeasuredSide a, b;
  std::vector<MeasuredStretch> stretches;  // from the upper end down
  double plannedEase = 0;
  double mismatch() const { return a.length - b.length - plannedEase; }
};
// Planned ease is shared out over the stretches it spans, by their lengths on side a.
MeasuredSeam measureSeam(const Pattern& pattern, const Seam& seam);

// The corner of a piece at one end of a seam.
struct MeasuredCorner {
  const Edge* across = nullptr;  // the edge that runs on across the seam
  Vec2 point;
  double insideRad = 0;  // the angle inside the piece
};
MeasuredCorner measureCorner(const Pattern& pattern, const SeamSide& side, bool atTop);
// How the line that runs on across the closed seam turns there, rad: positive where it points outwards.
double turnBetween(const MeasuredCorner& a, const MeasuredCorner& b);

// Sum of the widths of a level on the pieces of the shell less what darts take there, as often as each is worn, and its
// gaps; mm.
double measureGirth(const Pattern& pattern, const PatternLevel& level);

// Together, mm.
double measureEdges(const Pattern& pattern, const std::vector<PieceEdge>& edges);

}  // namespace armure
