#include "geometry/arc.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace armure {

Vec2 onCircle(Vec2 centre, double radius, double angleRad) {
  return centre + radius * Vec2{std::sin(angleRad), std::cos(angleRad)};
}

Path arc(Vec2 centre, double radius, double from, double to) {
  constexpr double kWidest = 0.5;  // rad, of one cubic
  const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(to - from) / kWidest)));
  const double step = (to - from) / parts, handle = 4.0 / 3 * std::tan(step / 4) * radius;
  const auto along = [](double a) { return Vec2{std::cos(a), -std::sin(a)}; };
  std::vector<Cubic> cubics;
  for (int i = 0; i < parts; ++i) {
    const double a = from + i * step, b = a + step;
    const Vec2 begin = cubics.empty() ? onCircle(centre, radius, a) : cubics.back().p3,
               end = onCircle(centre, radius, b);
    cubics.push_back({begin, onCircle(centre, radius, a) + handle * along(a), end - handle * along(b), end});
  }
  return Path(std::move(cubics));
}

Path curve(const std::function<CurvePoint(double)>& point, double from, double to, double step) {
  const int parts = std::max(1, static_cast<int>(std::ceil(std::abs(to - from) / step)));
  const double by = (to - from) / parts;
  std::vector<Cubic> cubics;
  CurvePoint a = point(from);
  for (int i = 0; i < parts; ++i) {
    const CurvePoint b = point(from + (i + 1) * by);
    cubics.push_back({a.at, a.at + by / 3 * a.derivative, b.at - by / 3 * b.derivative, b.at});
    a = b;
  }
  return Path(std::move(cubics));
}

}  // namespace armure
