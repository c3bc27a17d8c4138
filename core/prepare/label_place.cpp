#include "prepare/label_place.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr std::array kScales{1.0, 0.85, 0.7, 0.55};
constexpr int kAcross = 13, kDown = 21;  // places tried

struct Frame {
  Vec2 low, high;
  bool holds(Vec2 p) const { return p.x > low.x && p.x < high.x && p.y > low.y && p.y < high.y; }
};

// Whether a stretch of a line runs through the frame (Liang and Barsky, ACM Trans. Graphics 3 (1984), clipping).
bool meets(const Frame& f, Vec2 a, Vec2 b) {
  double from = 0, to = 1;
  const Vec2 d = b - a;
  const auto clip = [&](double p, double q) {
    if (std::abs(p) < 1e-12) return q >= 0;
    const double t = q / p;
    if (p < 0) from = std::max(from, t);
    if (p > 0) to = std::min(to, t);
    return from <= to;
  };
  return clip(-d.x, a.x - f.low.x) && clip(d.x, f.high.x - a.x) && clip(-d.y, a.y - f.low.y) &&
         clip(d.y, f.high.y - a.y);
}

size_t crossed(const Frame& frame, const std::vector<Polyline>& lines) {
  return static_cast<size_t>(std::ranges::count_if(lines, [&](const Polyline& line) {
    for (size_t i = 0; i + 1 < line.size(); ++i)
      if (meets(frame, line[i], line[i + 1])) return true;
    return false;
  }));
}

// Whether the frame lies within the outline: its corners do, and no side of the outline runs through it.
bool liesWithin(const Frame& f, const Polyline& outline) {
  if (!contains(outline, f.low) || !contains(outline, f.high)) return false;
  for (size_t i = 0; i < outline.size(); ++i)
    if (meets(f, outline[i], outline[(i + 1) % outline.size()])) return false;
  return true;
}

}  // namespace

namespace {

constexpr double kHeavy = 1e6, kLight = 200;  // what a line crossed costs beside a millimetre from the middle

class Search {
 public:
  Search(const Polyline& outline, const LinesAcross& drawn) : outline_(outline), drawn_(drawn) {
    low_ = high_ = outline.front();
    for (const Vec2 p : outline)
      low_ = {std::min(low_.x, p.x), std::min(low_.y, p.y)}, high_ = {std::max(high_.x, p.x), std::max(high_.y, p.y)};
  }
  Vec2 middle() const { return lerp(low_, high_, 0.5); }
  bool isUpright() const { return high_.y - low_.y > high_.x - low_.x; }

  // The best place of a block, and what it costs; infinite where it fits nowhere.
  std::pair<Vec2, double> best(Vec2 half) const {
    std::pair<Vec2, double> found{middle(), HUGE_VAL};
    for (int i = 1; i < kAcross; ++i)
      for (int j = 1; j < kDown; ++j) {
        const Vec2 at{low_.x + (high_.x - low_.x) * i / kAcross, low_.y + (high_.y - low_.y) * j / kDown};
        const Frame frame{at - half, at + half};
        if (!liesWithin(frame, outline_)) continue;
        const double cost = kHeavy * static_cast<double>(crossed(frame, drawn_.heavy)) +
                            kLight * static_cast<double>(crossed(frame, drawn_.light)) + distance(at, middle());
        if (cost < found.second) found = {at, cost};
      }
    return found;
  }

 private:
  const Polyline& outline_;
  const LinesAcross& drawn_;
  Vec2 low_, high_;
};

}  // namespace

LabelPlace labelPlace(const Polyline& outline, const LinesAcross& drawn, double width, double height) {
  const Search search(outline, drawn);
  std::optional<LabelPlace> inside;  // the largest that lies inside at all
  double cost = HUGE_VAL;
  for (const double scale : kScales)
    for (const bool turned : {false, true}) {
      const auto [at, here] = search.best(0.5 * scale * (turned ? Vec2{height, width} : Vec2{width, height}));
      if (here < kHeavy) return {at, scale, turned};
      if (here < cost) inside = LabelPlace{at, scale, turned}, cost = here;
    }
  return inside.value_or(LabelPlace{search.middle(), kScales.back(), search.isUpright()});
}

}  // namespace armure
