// core/balance/fit.h
//
// Small measurements the balance sheet and the taped view share: how well one line lies on another.
#pragma once

#include <vector>

#include "geometry/path_distance.h"
#include "pattern/pattern.h"

namespace armure {

// What the widths fix of a side: a smooth curve through its ends and the points where levels meet it, and nothing else
// of it; its tangents are those of E. Catmull, R. Rom, "A class of local interpolating splines" (1974), over arc
// length. Levels that cut through the side's top or hem have no point on it.
Path throughLevels(const Pattern& pattern, const SeamSide& side);

// The rigid motion (no mirroring) that lays `b` on `a` best: least squares over points at equal parts of their lengths.
// In the plane the best angle has the closed form atan2(sum cross, sum dot) about the centroids (the two-dimensional
// case of W. Kabsch, "A solution for the best rotation to relate two sets of vectors", Acta Cryst. A32 (1976), 922).
Motion bestFit(const Path& a, const Path& b, int samples = 33);

// Largest distance between points at equal parts of the lengths once `b` lies on `a` by bestFit; mm.
double shapeDifference(const Path& a, const Path& b, int samples = 33);

}  // namespace armure
