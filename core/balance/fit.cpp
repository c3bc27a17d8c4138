#include "balance/fit.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace armure {
namespace {

Vec2 mean(const std::vector<Vec2>& points) {
  Vec2 sum;
  for (Vec2 p : points) sum = sum + p;
  return sum / static_cast<double>(points.size());
}

Motion fit(const std::vector<Vec2>& a, const std::vector<Vec2>& b) {
  const Vec2 ca = mean(a), cb = mean(b);
  double c = 0, d = 0;
  for (size_t i = 0; i < a.size(); ++i) {
    c += cross(b[i] - cb, a[i] - ca);
    d += dot(b[i] - cb, a[i] - ca);
  }
  return Motion::rotationAbout(cb, std::atan2(c, d)).then(Motion::translation(ca - cb));
}

}  // namespace

Path throughLevels(const Pattern& pattern, const SeamSide& side) {
  constexpr double kOnPath = 1e-2, kApart = 5;  // mm
  const Path path = pattern.sidePath(side);
  std::vector<double> along{0, path.length()};
  for (const LevelLine& mark : pattern.pieces.at(side.piece).levelLines())
    for (const Vec2 end : {mark.a, mark.b})
      for (double s : path.crossings(end, mark.b - mark.a))
        if (distance(path.pointAt(s), end) < kOnPath) along.push_back(s);
  std::sort(along.begin(), along.end());
  along.erase(std::unique(along.begin(), along.end(), [](double a, double b) { return b - a < kApart; }), along.end());
  along.back() = path.length();
  const size_t n = along.size();
  std::vector<Vec2> points, slopes;
  for (double s : along) points.push_back(path.pointAt(s));
  for (size_t i = 0; i < n; ++i) {
    const size_t before = i == 0 ? 0 : i - 1, after = i + 1 == n ? i : i + 1;
    slopes.push_back((points[after] - points[before]) / (along[after] - along[before]));
  }
  std::vector<Cubic> cubics;
  for (size_t i = 0; i + 1 < n; ++i) {
    const double third = (along[i + 1] - along[i]) / 3;
    cubics.push_back({points[i], points[i] + third * slopes[i], points[i + 1] - third * slopes[i + 1], points[i + 1]});
  }
  return Path(std::move(cubics));
}

Motion bestFit(const Path& a, const Path& b, int samples) {
  return fit(evenPoints(a, samples), evenPoints(b, samples));
}

double shapeDifference(const Path& a, const Path& b, int samples) {
  const std::vector<Vec2> pa = evenPoints(a, samples), pb = evenPoints(b, samples);
  const Motion m = fit(pa, pb);
  double worst = 0;
  for (size_t i = 0; i < pa.size(); ++i) worst = std::max(worst, distance(pa[i], m.apply(pb[i])));
  return worst;
}

}  // namespace armure
