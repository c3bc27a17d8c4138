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

// Stretches of the line {x = at} in the cloth, with y growing: inside the first outline and in none of the others.
std::vector<std::pair<double, double>> inside(const std::vector<Polyline>& outlines, double at) {
  std::vector<double> y;
  for (const Polyline& outline : outlines)
    for (size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++) {
      const Vec2 a = outline[j], b = outline[i];
      if ((a.x > at) != (b.x > at)) y.push_back(a.y + (at - a.x) * (b.y - a.y) / (b.x - a.x));
    }
  std::sort(y.begin(), y.end());
  std::vector<std::pair<double, double>> out;
  for (size_t i = 0; i + 1 < y.size(); i += 2) out.emplace_back(y[i], y[i + 1]);
  return out;
}

// The cloth of a piece: its outline, and its darts, which are folded away.
std::vector<Polyline> clothOf(const Piece& piece) {
  std::vector<Polyline> cloth{piece.outline(kFlat)};
  for (const Dart& dart : piece.darts) {
    Polyline legs = dart.legs[0].path.flattened(kFlat);
    const Polyline second = dart.legs[1].path.flattened(kFlat);
    legs.insert(legs.end(), second.begin(), second.end());
    cloth.push_back(std::move(legs));
  }
  return cloth;
}

}  // namespace

void layGrain(Piece& piece) {
  const double lean = angleBetween(piece.grainBottom - piece.grainTop, {0, 1});
  std::vector<Polyline> cloth = clothOf(piece);
  for (Polyline& outline : cloth)
    for (Vec2& p : outline) p = rotated(p, lean);  // the grain upright
  std::vector<Polyline> turned = cloth;
  for (Polyline& outline : turned)
    for (Vec2& p : outline) p = {p.y, p.x};
  double left = HUGE_VAL, right = -HUGE_VAL;
  for (Vec2 p : cloth.front()) left = std::min(left, p.x), right = std::max(right, p.x);
  double best = 0;
  Vec2 top, bottom;
  for (int i = 1; i <= kLines; ++i) {
    const double x = left + (right - left) * i / (kLines + 1);
    for (const auto& [from, to] : inside(cloth, x)) {
      const double middle = (from + to) / 2;
      double room = 0;
      for (const auto& [a, b] : inside(turned, middle))
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
