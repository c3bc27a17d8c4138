#include "geometry/hull.h"

#include <algorithm>

namespace armure {

bool isLeftOf(Vec2 a, Vec2 b) { return a.x != b.x ? a.x < b.x : a.y < b.y; }

Polyline convexHull(Polyline points) {
  std::sort(points.begin(), points.end(), isLeftOf);
  return convexHullOfSorted(std::move(points));
}

Polyline convexHullOfSorted(Polyline points) {
  points.erase(std::unique(points.begin(), points.end()), points.end());
  if (points.size() < 3) return points;
  Polyline hull(2 * points.size());
  size_t n = 0;
  const auto add = [&](Vec2 p, size_t floor) {
    while (n >= floor && cross(hull[n - 1] - hull[n - 2], p - hull[n - 1]) <= 0) --n;
    hull[n++] = p;
  };
  for (Vec2 p : points) add(p, 2);
  const size_t lower = n + 1;
  for (size_t i = points.size() - 1; i-- > 0;) add(points[i], lower);
  hull.resize(n - 1);  // the last point is the first one again
  return hull;
}

double ringLength(const Polyline& ring) {
  double total = 0;
  for (size_t i = 0; i < ring.size(); ++i) total += distance(ring[i], ring[(i + 1) % ring.size()]);
  return total;
}

}  // namespace armure
