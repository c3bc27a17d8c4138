#include "geometry/comb.h"

#include <algorithm>

namespace armure {

std::vector<CombTooth> curvatureComb(const Path& path, double scale, double longest, int perCubic) {
  std::vector<CombTooth> teeth;
  for (const Cubic& c : path.cubics())
    for (int i = 0; i <= perCubic; ++i) {
      const double t = static_cast<double>(i) / perCubic;
      const Vec2 d = i == 0 ? c.startTangent() : i == perCubic ? c.endTangent() : unit(c.derivative(t));
      const double reach = std::clamp(scale * c.curvature(t), -longest, longest);
      // Positive curvature turns clockwise: the centre lies to the right of travel (y down), the comb to the left.
      teeth.push_back({c.at(t), c.at(t) + reach * Vec2{d.y, -d.x}});
    }
  return teeth;
}

}  // namespace armure
