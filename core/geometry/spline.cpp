#include "geometry/spline.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace armure {

std::vector<double> monotoneSlopes(const std::vector<Station>& s) {
  const size_t n = s.size();
  if (n < 2) throw std::invalid_argument("monotoneSlopes: fewer than two stations");
  std::vector<double> h(n - 1), secant(n - 1);
  for (size_t i = 0; i + 1 < n; ++i) {
    h[i] = s[i + 1].y - s[i].y;
    if (!(h[i] > 0)) throw std::invalid_argument("monotoneSlopes: stations do not descend");
    secant[i] = (s[i + 1].x - s[i].x) / h[i];
  }
  std::vector<double> slope(n);
  for (size_t i = 0; i < n; ++i) {
    if (s[i].slopeGiven) {
      slope[i] = s[i].slope;
    } else if (i == 0) {
      slope[i] = secant.front();
    } else if (i == n - 1) {
      slope[i] = secant.back();
    } else if (secant[i - 1] * secant[i] > 0) {
      const double w1 = 2 * h[i] + h[i - 1], w2 = h[i] + 2 * h[i - 1];
      slope[i] = (w1 + w2) / (w1 / secant[i - 1] + w2 / secant[i]);
    }
  }
  return slope;
}

std::vector<Station> withRoundedBends(std::vector<Station> s, double radius) {
  const std::vector<double> slope = monotoneSlopes(s);
  const auto reach = [&](size_t here, size_t next) {
    const double h = std::abs(s[next].y - s[here].y), rise = std::abs(s[next].x - s[here].x);
    const double down = s[next].y > s[here].y ? 1 : -1, long2 = 1 + slope[here] * slope[here];
    const double handle = s[next].x - s[here].x - down * h / 3 * slope[next];  // of the far end, from here
    const double aside = std::abs(handle - down * h * 2 / 3 * slope[here]) / std::sqrt(long2);
    const double wanted = std::sqrt(2.0 / 3 * radius * aside / long2);
    const double most = std::min(h, rise / std::max(std::abs(slope[here]), 1e-9)) / 2;
    return std::clamp(wanted, h / 3, std::max(h / 3, most));
  };
  for (size_t i = 0; i < s.size(); ++i) {
    if (i > 0 && s[i].handleAbove == 0) s[i].handleAbove = reach(i, i - 1);
    if (i + 1 < s.size() && s[i].handleBelow == 0) s[i].handleBelow = reach(i, i + 1);
  }
  return s;
}

Path monotonePath(const std::vector<Station>& s) {
  const std::vector<double> slope = monotoneSlopes(s);
  std::vector<Cubic> cubics;
  cubics.reserve(s.size() - 1);
  for (size_t i = 0; i + 1 < s.size(); ++i) {
    const double third = (s[i + 1].y - s[i].y) / 3;
    const double below = s[i].handleBelow > 0 ? s[i].handleBelow : third;
    const double above = s[i + 1].handleAbove > 0 ? s[i + 1].handleAbove : third;
    const Vec2 a{s[i].x, s[i].y}, b{s[i + 1].x, s[i + 1].y};
    cubics.push_back({a, a + below * Vec2{slope[i], 1}, b - above * Vec2{slope[i + 1], 1}, b});
  }
  return Path(std::move(cubics));
}

}  // namespace armure
