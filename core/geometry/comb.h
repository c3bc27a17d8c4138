// core/geometry/comb.h
//
// The curvature comb of a path: teeth square to it, as long as it is bent there. An even bow has even teeth, a wiggle
// changes sides, a dent shows as a spike.
#pragma once

#include <vector>

#include "geometry/path.h"

namespace armure {

struct CombTooth {
  Vec2 foot;  // on the path
  Vec2 tip;   // on the outer side of the bend
};

// `perCubic` + 1 teeth on each cubic, `scale` mm^2 times the curvature long, at most `longest` mm.
std::vector<CombTooth> curvatureComb(const Path& path, double scale = 1500, double longest = 40, int perCubic = 16);

}  // namespace armure
