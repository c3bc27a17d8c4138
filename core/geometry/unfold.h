// core/geometry/unfold.h
//
// Cloth that was pleated and then cut, opened again: the outline it has flat. Each pleat is folded along a straight
// line, lies under by its depth, and comes back:
//
//   flat x      . . . fold | back under | forth again, all that follows . . .
//   folded x    . . . f    | f to f - d | f - d and on
//
// so that the flat outline repeats, mirrored and again, what lies over the pleat. Its area is that of the folded
// outline and twice that of every stretch that lies over a pleat.
#pragma once

#include <vector>

#include "geometry/polygon.h"

namespace armure {

struct FoldedPleat {
  double at = 0, depth = 0;  // x of the fold, mm; it lies under towards smaller x
};

// `ring` is closed by itself; pleats in order of x, each fold at least the depth of the next before it. The result runs
// clockwise; empty where the ring is.
Polyline unfolded(const Polyline& ring, const std::vector<FoldedPleat>& pleats);

}  // namespace armure
