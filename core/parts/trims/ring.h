// core/parts/trims/ring.h
//
// Rings whose inner edge is sewn to an edge: their radius, and in how many pieces they are cut.
//
//   radius = edge / (2 pi turns)
//
// Slit open, a whole turn is laid so much wider as its allowances need at the inner edge. Common practice, no source;
// circumference of a circle.
#pragma once

#include <optional>

namespace armure {

struct RingAsked {
  double edge = 0, turns = 1;  // mm of edge, and turns over all of it
  bool halves = false;         // two pieces to a turn
  double longest = 0;          // from the inner edge outwards, mm
  double seam = 0, hem = 0;    // allowances, mm
  double clothWidth = 0;       // more pieces are taken where it is too narrow, if that helps
};
struct RingPlan {
  int pieces = 1;
  double radius = 0;  // of the inner edge, mm
  double angle = 0;   // of each piece, rad
};
// Nothing where so many turns of the edge are too small to be sewn.
std::optional<RingPlan> planRing(const RingAsked& asked);

// The smallest radius that can be sewn, mm.
double leastRingRadius(double seam);
// What the cutting lines of a slit, or of two turns, lie apart, mm.
inline constexpr double kRingSpare = 0.5;

}  // namespace armure
