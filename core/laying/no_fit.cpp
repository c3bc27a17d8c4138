#include "laying/no_fit.h"

#include <algorithm>
#include <cmath>

#include "laying/convolution.h"

namespace armure {
namespace {

// Nearer to the border is on it; mm. More than the grid of the sum leaves.
constexpr double kTouching = 2e-5;

// Of the stretches from `first` on what lies on those behind `second` too.
void intersect(std::vector<Interval>& all, size_t first, size_t second) {
  std::vector<Interval> both;
  for (size_t i = first; i < second; ++i)
    for (size_t j = second; j < all.size(); ++j) {
      const Interval in{std::max(all[i].from, all[j].from), std::min(all[i].to, all[j].to)};
      if (in.to > in.from) both.push_back(in);
    }
  all.resize(first);
  all.insert(all.end(), both.begin(), both.end());
}

}  // namespace

NoFit::NoFit(const Polyline& first, const Polyline& second, double gap) {
  Polyline mirrored;
  for (const Vec2 p : second) mirrored.push_back(-p);
  const auto add = [&](Vec2 from, Vec2 to) {
    if (from != to) sides_.push_back({from, to - from, 1 / dot(to - from, to - from)});
  };
  for (const Polyline& ring : minkowskiSum(first, mirrored, gap)) {
    const Box round = boxRound(ring);
    if (sides_.empty()) box_ = round;
    box_.low = {std::min(box_.low.x, round.low.x), std::min(box_.low.y, round.low.y)};
    box_.high = {std::max(box_.high.x, round.high.x), std::max(box_.high.y, round.high.y)};
    for (size_t i = 0; i < ring.size(); ++i) add(ring[i], ring[(i + 1) % ring.size()]);
  }
}

double NoFit::depth(Vec2 shift) const {
  if (shift.x <= box_.low.x || shift.x >= box_.high.x || shift.y <= box_.low.y || shift.y >= box_.high.y) return 0;
  int winds = 0;
  for (const Side& s : sides_)
    if ((s.from.y > shift.y) != (s.from.y + s.along.y > shift.y) &&
        shift.x < s.from.x + (shift.y - s.from.y) / s.along.y * s.along.x)
      winds += s.along.y > 0 ? 1 : -1;
  if (winds == 0) return 0;
  double nearest = HUGE_VAL;  // squared
  for (const Side& s : sides_) {
    const Vec2 to = shift - s.from;
    const double t = std::clamp(dot(to, s.along) * s.perLength, 0.0, 1.0);
    const Vec2 off = to - t * s.along;
    nearest = std::min(nearest, dot(off, off));
  }
  return nearest > kTouching * kTouching ? std::sqrt(nearest) : 0;
}

// Adds the stretches of a line that are within, counted where the line is when `moved` by a hair. Whether it touches a
// corner.
template <bool X>
bool NoFit::stretches(double other, double moved, std::vector<Interval>& into) const {
  const size_t first = into.size();
  const double at = other + moved;
  bool touches = false;
  for (const Side& s : sides_) {
    const double a = X ? s.from.y : s.from.x, d = X ? s.along.y : s.along.x;
    touches |= std::abs(a - other) <= kTouching;
    if ((a > at) == (a + d > at)) continue;
    const double t = std::clamp((other - a) / d, 0.0, 1.0);
    into.push_back({(X ? s.from.x : s.from.y) + t * (X ? s.along.x : s.along.y), d > 0 ? 1.0 : -1.0});
  }
  // Crossings, and which way round each is: within is what the border winds round.
  std::sort(into.begin() + static_cast<std::ptrdiff_t>(first), into.end(),
            [](const Interval& a, const Interval& b) { return a.from < b.from; });
  size_t kept = first;
  double winds = 0, began = 0;
  for (size_t i = first; i < into.size(); ++i) {
    const auto [here, way] = into[i];
    if (winds == 0) began = here;
    winds += way;
    if (winds == 0 && here - began > kTouching) into[kept++] = {began, here};
  }
  into.resize(kept);
  return touches;
}

template <bool X>
void NoFit::alongAxis(double other, std::vector<Interval>& into) const {
  const double low = X ? box_.low.y : box_.low.x, high = X ? box_.high.y : box_.high.x;
  if (other <= low + kTouching || other >= high - kTouching) return;
  const size_t first = into.size();
  if (!stretches<X>(other, kTouching, into)) return;
  // A corner lies on the line: within is what is within on both sides of it.
  const size_t second = into.size();
  stretches<X>(other, -kTouching, into);
  intersect(into, first, second);
}

void NoFit::along(Axis axis, double other, std::vector<Interval>& into) const {
  axis == Axis::X ? alongAxis<true>(other, into) : alongAxis<false>(other, into);
}

}  // namespace armure
