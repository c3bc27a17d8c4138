#include "geometry/path_distance.h"

#include <algorithm>
#include <cmath>

#include "geometry/polygon.h"

namespace armure {
namespace {

constexpr size_t kStretch = 8;  // segments

// The box round a stretch of segments.
struct StretchBox {
  Vec2 low, high;
  double away(Vec2 p) const {
    return std::hypot(std::max({low.x - p.x, 0.0, p.x - high.x}), std::max({low.y - p.y, 0.0, p.y - high.y}));
  }
};
StretchBox boxOf(const Polyline& line, size_t first) {
  StretchBox box{line[first], line[first]};
  for (size_t i = first; i < line.size() && i <= first + kStretch; ++i) {
    box.low = {std::min(box.low.x, line[i].x), std::min(box.low.y, line[i].y)};
    box.high = {std::max(box.high.x, line[i].x), std::max(box.high.y, line[i].y)};
  }
  return box;
}

}  // namespace

std::vector<Vec2> evenPoints(const Path& path, int count) {
  constexpr double kTolerance = 0.005;  // mm; far below what any drawing or limit needs
  const std::vector<Vec2> line = path.flattened(kTolerance);
  std::vector<double> along(line.size(), 0);
  for (size_t i = 1; i < line.size(); ++i) along[i] = along[i - 1] + distance(line[i - 1], line[i]);
  std::vector<Vec2> points;
  points.reserve(static_cast<size_t>(count));
  size_t side = 1;
  for (int i = 0; i < count; ++i) {
    const double s = along.back() * i / (count - 1);
    while (side + 1 < line.size() && along[side] < s) ++side;
    const double step = along[side] - along[side - 1];
    points.push_back(lerp(line[side - 1], line[side], step > 0 ? (s - along[side - 1]) / step : 0));
  }
  return points;
}

// A sample, then Newton on dot(path(s) - p, tangent(s)) = 0.
double nearestPlace(const Path& path, Vec2 point) {
  const int samples = std::max(48, 12 * static_cast<int>(path.cubics().size()));
  const double length = path.length();
  double best = 0, least = HUGE_VAL;
  for (int i = 0; i <= samples; ++i) {
    const double s = length * i / samples, d = distance(path.pointAt(s), point);
    if (d < least) least = d, best = s;
  }
  for (int i = 0; i < 8; ++i)
    best = std::clamp(best - dot(path.pointAt(best) - point, path.tangentAt(best)), 0.0, length);
  return best;
}

Farthest farthestFrom(const Path& path, const Path& other) {
  constexpr int kSpots = 25;
  constexpr double kFine = 0.005;  // mm
  const Polyline line = other.flattened(kFine);
  std::vector<StretchBox> boxes;  // of stretches of the line: one further off than the nearest foot so far is left out
  for (size_t i = 0; i + 1 < line.size(); i += kStretch) boxes.push_back(boxOf(line, i));
  Farthest most;
  for (const Vec2 p : evenPoints(path, kSpots)) {
    double least = HUGE_VAL;
    Vec2 foot;
    for (size_t i = 0; i + 1 < line.size(); ++i) {
      if (i % kStretch == 0 && boxes[i / kStretch].away(p) >= least) {
        i += kStretch - 1;
        continue;
      }
      const Vec2 d = line[i + 1] - line[i];
      const double t = std::clamp(dot(p - line[i], d) / std::max(dot(d, d), 1e-18), 0.0, 1.0);
      const Vec2 here = line[i] + t * d;
      if (distance(p, here) < least) {
        least = distance(p, here);
        foot = here;
      }
    }
    if (least > most.distance) most = {least, p, p - foot};
  }
  return most;
}

}  // namespace armure
