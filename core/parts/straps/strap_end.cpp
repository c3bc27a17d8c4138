#include "parts/straps/strap_end.h"

#include <vector>

namespace armure {
namespace {

constexpr double kCircle = 0.5522847498;  // handles of a quarter circle as a cubic

}  // namespace

double strapEndDepth(StrapEnd end, double wide) { return end == StrapEnd::Straight ? 0 : wide / 2; }

Path strapEnd(Vec2 from, Vec2 to, StrapEnd end) {
  if (end == StrapEnd::Straight) return Path::line(from, to);
  const Vec2 half = (to - from) / 2, out{half.y, -half.x}, tip = from + half + out;
  if (end == StrapEnd::Pointed) return Path::polyline({from, tip, to});
  const Vec2 up = kCircle * out, aside = kCircle * half;
  return Path(std::vector<Cubic>{{from, from + up, tip - aside, tip}, {tip, tip + aside, to + up, to}});
}

}  // namespace armure
