// core/geometry/polygon.h
//
// Flattened outlines: area, simplicity, and the outline to cut, which runs outside the sewn outline by an allowance
// that may differ from edge to edge. Unions and differences are done by the Clipper library on a grid of 1e-5 mm.
#pragma once

#include <vector>

#include "geometry/vec.h"

namespace armure {

using Polyline = std::vector<Vec2>;

// Shoelace formula, mm^2; positive when the outline runs clockwise as seen (y down). The ring is closed by itself.
double signedArea(const Polyline& ring);

// True when no two sides of the closed ring cross. Neighbouring sides may meet.
bool isSimple(const Polyline& ring);

// What two closed rings share, mm^2, whichever way they run.
double sharedArea(const Polyline& a, const Polyline& b);

// Distance of `p` from the straight line from a to b, and from a polyline, mm.
double distanceToSegment(Vec2 p, Vec2 a, Vec2 b);
double distanceToPolyline(Vec2 p, const Polyline& line);

// One edge of an outline with what is added outside it. `allowance` >= 0. Beyond a fold, which is straight and has
// none, nothing is cut.
// `end` and `start` say how the allowance ends beside the one of the edge that follows, or came before:
//   Mitred   both parallels run on until they meet
//   Squared  cut off square to this edge where the other's parallel meets this edge, run on
//   Turned   along the other's parallel, mirrored on this edge: pressed over, it lies within the other
enum class AllowanceEnd { Mitred, Squared, Turned };
struct AllowanceEdge {
  Polyline points;
  double allowance = 0;
  bool fold = false;
  AllowanceEnd start = AllowanceEnd::Mitred, end = AllowanceEnd::Mitred;
};

// The outline to cut round a clockwise chain of edges. Mitred corners reach up to 2.5 allowances and are cut across
// beyond that; so is one that was to be squared or turned and would reach further; no part lies beyond a fold. Throws
// std::invalid_argument when the edges do not close or run anticlockwise.
Polyline cutOutline(const std::vector<AllowanceEdge>& edges);

}  // namespace armure
