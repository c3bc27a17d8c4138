// core/parts/flounce/flounce.h
//
// A flounce: a ring, or parts of one, whose inner edge is as long as the edge it is sewn to.
//
//   inner radius = edge / (2 pi turns)     outer radius = inner radius + length
//   outer edge   = edge + 2 pi turns length
//
// A ring that is slit open is laid a little wider, so that the allowances of the slit find room between its ends: with
// a = the allowance, r (2 pi - 2 asin(a / (r - a))) = edge. One that is too wide for the cloth is cut in more pieces.
// A spiral runs round its own outside without a join, r = r0 + b phi, as far apart as it is long with its allowances;
// its inner edge, from radius r0 to r1, is [r sqrt(r^2 + b^2) + b^2 asinh(r / b)] / (2 b) (arc length of Archimedes'
// spiral). Radii: common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds its pieces behind all others. Fails where the turns leave no room inside the ring, or nothing of its length.
std::optional<Problem> addFlounce(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim,
                                  const Body& body, const Rules& rules);

}  // namespace armure
