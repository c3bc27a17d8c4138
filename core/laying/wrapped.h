// core/laying/wrapped.h
//
// An outline with few corners round one with many: what two outlines lying side by side are asked about.
//
//   const Polyline few = wrapped(outline, 0.3);
//
// Simplified as in D. H. Douglas, T. K. Peucker, "Algorithms for the reduction of the number of points required to
// represent a digitized line or its caricature", Cartographica 10 (1973), and moved out by what that cut off.
#pragma once

#include <vector>

#include "geometry/box.h"

namespace armure {

// Contains the outline and reaches at most 2 * `tolerance` beyond its sides, so that what is kept clear of it is clear
// of the outline; one with straight sides stays as it is. `outline` is simple, not closed, either way round; the result
// is clockwise as seen. Throws std::invalid_argument for an outline without area.
Polyline wrapped(const Polyline& outline, double tolerance);

// What of the box lies outside the ring, in pieces without holes; the ring may reach beyond the box.
std::vector<Polyline> outsideOf(const Polyline& ring, const Box& box);

}  // namespace armure
