#include "operations/grain.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace armure {
namespace {

constexpr double kFlat = 0.5;   // mm
constexpr double kEnough = 30;  // mm of room to either side: more makes no difference
constexpr double kDrawn = 0.7;  // of the length that lies inside
constexpr int kLines = 19;      // tried across the piece

// Stretches of the line {x = at} inside the outline, with y growing.
std::vector<std::pair<double, double>> inside(const Polyline& outline, double at) {
  std::vector<double> y;
  for (size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++) {
    const Vec2 a = outline[j], b = outline[i];
    if ((a.x > at) != (b.x > at)) y.push_back(a.y + (at - a.x) * (b.y - a.y) / (b.x - a.x));
  }
  std::sort(y.begin(), y.end());
  std::vector<std::pair<double, double>> out;
  for (size_t i = 0; i + 1 < y.size(); i += 2) out.emplace_back(y[i], y[i + 1]);
  return out;
}

}  // namespace

void layGrain(Piece& piece) {
  const double lean = angleBetween(piece.grainBottom - piece.grainTop, {0, 1});
  Polyline outline = piece.outline(kFlat);
  for (Vec2& p : outline) p = rotated(p, lean);  // the grain upright
  double left = HUGE_VAL, right = -HUGE_VAL;
  for (Vec2 p : outline) left = std::min(left, p.x), right = std::max(right, p.x);
  double best = 0;
  Vec2 top, bottom;
  for (int i = 1; i <= kLines; ++i) {
    const double x = left + (right - left) * i / (kLines + 1);
    for (const auto& [from, to] : inside(outline, x)) {
      const double middle = (from + to) / 2;
      double room = 0;
      for (const auto& [a, b] : inside(
               [&] {
                 Polyline turned = outline;
                 for (Vec2& p : turned) p = {p.y, p.x};
                 return turned;
               }(),
               middle))
        if (a <= x && x <= b) room = std::min(x - a, b - x);
      const double worth = (to - from) * std::min(room, kEnough);
      if (worth <= best) continue;
      best = worth;
      const double half = kDrawn * (to - from) / 2;
      top = {x, middle - half};
      bottom = {x, middle + half};
    }
  }
  if (best <= 0) return;
  piece.grainTop = rotated(top, -lean);
  piece.grainBottom = rotated(bottom, -lean);
}

}  // namespace armure
