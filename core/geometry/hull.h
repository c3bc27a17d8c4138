// core/geometry/hull.h
//
// The convex hull of points: the way a tape lies round a body, taut over every hollow.
#pragma once

#include "geometry/polygon.h"

namespace armure {

// The hull, anticlockwise with y up (clockwise as seen with y down), without points on its sides. A. M. Andrew,
// "Another efficient algorithm for convex hulls in two dimensions", Information Processing Letters 9 (1979). Fewer than
// three different points give those points.
Polyline convexHull(Polyline points);

// The order in which points are sorted: from left to right, then downwards.
bool isLeftOf(Vec2 a, Vec2 b);
// The same for points that stand in that order already.
Polyline convexHullOfSorted(Polyline points);

// Length of the closed ring, mm.
double ringLength(const Polyline& ring);

}  // namespace armure
