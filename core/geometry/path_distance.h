// core/geometry/path_distance.h
//
// How far two paths lie from each other, as one sees it when one is laid on the other: the farthest any point of one is
// from the nearest of the other (the Hausdorff distance of the first to the second, at 25 places).
#pragma once

#include <vector>

#include "geometry/path.h"

namespace armure {

// `count` points (two or more) at equal parts of the length of a path, both ends included; good to 0.005 mm.
std::vector<Vec2> evenPoints(const Path& path, int count);

// The arc length of the place next to a point: good to rounding where the path does not come as near again elsewhere.
double nearestPlace(const Path& path, Vec2 point);

struct Farthest {
  double distance = 0;  // mm
  Vec2 at, by;          // where on the path, and from the other path to there
};

// Of places evenly along `path`, ends included; good to 0.005 mm at each.
Farthest farthestFrom(const Path& path, const Path& other);

}  // namespace armure
