// tests/support/outlines.h
//
// Outlines for meshes: polygons with corners along their sides.
#pragma once

#include <algorithm>
#include <cmath>
#include <vector>

#include "geometry/vec.h"

namespace armure::testing {

// Corners along a polygon's sides, about `step` apart.
inline std::vector<Vec2> sampled(const std::vector<Vec2>& corners, double step) {
  std::vector<Vec2> all;
  for (size_t i = 0; i < corners.size(); ++i) {
    const Vec2 a = corners[i], b = corners[(i + 1) % corners.size()];
    const int parts = std::max(1, static_cast<int>(std::round(distance(a, b) / step)));
    for (int k = 0; k < parts; ++k) all.push_back(lerp(a, b, static_cast<double>(k) / parts));
  }
  return all;
}

}  // namespace armure::testing
