#include "laying/convolution.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <numeric>
#include <utility>

#include "geometry/clipper_grid.h"

namespace armure {
namespace {

namespace clip = ClipperLib;

// Directions of sides by their place in the order of all of them, round the circle: whole numbers, so that what is
// nearly parallel is judged alike at every corner.
struct Ranks {
  std::vector<int> ofP, ofQ;
  int count = 0;
  // How many steps on, counterclockwise.
  int steps(int from, int to) const { return (to - from + count) % count; }
};

std::vector<double> directions(const Polyline& ring) {
  std::vector<double> all;
  for (size_t i = 0; i < ring.size(); ++i) {
    const Vec2 d = ring[(i + 1) % ring.size()] - ring[i];
    all.push_back(std::atan2(d.y, d.x));
  }
  return all;
}

Ranks ranksOf(const Polyline& p, const Polyline& q) {
  constexpr double kParallel = 1e-9;
  std::vector<double> all = directions(p);
  const std::vector<double> ofQ = directions(q);
  all.insert(all.end(), ofQ.begin(), ofQ.end());
  std::vector<size_t> order(all.size());
  std::iota(order.begin(), order.end(), 0);
  std::ranges::sort(order, {}, [&](size_t i) { return all[i]; });
  std::vector<int> rank(all.size(), 0);
  int last = 0;
  for (size_t k = 1; k < order.size(); ++k) {
    if (all[order[k]] - all[order[k - 1]] > kParallel) ++last;
    rank[order[k]] = last;
  }
  // Those that end the circle may be parallel to those that begin it.
  const bool closes = last > 0 && all[order.front()] + 2 * std::numbers::pi - all[order.back()] <= kParallel;
  for (int& r : rank)
    if (closes && r == last) r = 0;
  const auto middle = rank.begin() + static_cast<std::ptrdiff_t>(p.size());
  return {{rank.begin(), middle}, {middle, rank.end()}, closes ? last : last + 1};
}

// A corner of a ring: the directions in which it is arrived at and left, and whether it is hollow.
struct Corner {
  int arrives = 0, leaves = 0;
  bool hollow = false;
};
std::vector<Corner> corners(const Polyline& ring, const std::vector<int>& ranks) {
  std::vector<Corner> all;
  const size_t n = ring.size();
  for (size_t i = 0; i < n; ++i) {
    const Vec2 before = ring[i] - ring[(i + n - 1) % n], after = ring[(i + 1) % n] - ring[i];
    all.push_back({ranks[(i + n - 1) % n], ranks[i], cross(before, after) < 0});
  }
  return all;
}

// Whether a corner turns through a direction. Where both are the same, the sides of P count as a little further round
// than those of Q: `ofQ` tells whose side it is.
bool turnsThrough(const Corner& corner, int direction, bool ofQ, const Ranks& ranks) {
  if (corner.arrives == corner.leaves) return false;
  const int by = corner.hollow ? ranks.steps(direction, corner.arrives) : ranks.steps(corner.arrives, direction);
  const int turns =
      corner.hollow ? ranks.steps(corner.leaves, corner.arrives) : ranks.steps(corner.arrives, corner.leaves);
  return corner.hollow != ofQ ? by > 0 && by <= turns : by < turns;
}

// A place: a corner of either ring. Sides lead from one to another.
using Place = std::pair<size_t, size_t>;
using Sides = std::multimap<Place, Place>;

Sides sidesOf(const Polyline& p, const Polyline& q) {
  const Ranks ranks = ranksOf(p, q);
  const std::vector<Corner> cornersP = corners(p, ranks.ofP), cornersQ = corners(q, ranks.ofQ);
  Sides sides;
  const auto add = [&](Place from, Place to, bool hollow) {
    hollow ? sides.emplace(to, from) : sides.emplace(from, to);
  };
  for (size_t i = 0; i < p.size(); ++i)
    for (size_t j = 0; j < q.size(); ++j) {
      const Place here{i, j};
      if (turnsThrough(cornersP[i], ranks.ofQ[j], true, ranks)) add(here, {i, (j + 1) % q.size()}, cornersP[i].hollow);
      if (turnsThrough(cornersQ[j], ranks.ofP[i], false, ranks)) add(here, {(i + 1) % p.size(), j}, cornersQ[j].hollow);
    }
  return sides;
}

}  // namespace

std::vector<Polyline> convolution(const Polyline& p, const Polyline& q) {
  Sides sides = sidesOf(p, q);
  std::vector<Polyline> cycles;
  while (!sides.empty()) {
    cycles.emplace_back();
    for (auto side = sides.begin(); side != sides.end();) {
      const Place from = side->first, to = side->second;
      cycles.back().push_back(p[from.first] + q[from.second]);
      sides.erase(side);
      side = sides.find(to);
    }
  }
  return cycles;
}

std::vector<Polyline> minkowskiSum(const Polyline& p, const Polyline& q, double grownBy) {
  clip::Clipper clipper;
  for (const Polyline& cycle : convolution(p, q)) clipper.AddPath(toGrid(cycle), clip::ptSubject, true);
  clip::Paths sum;
  clipper.Execute(clip::ctUnion, sum, clip::pftNonZero, clip::pftNonZero);
  if (grownBy > 0) {
    clip::ClipperOffset offset;
    offset.AddPaths(sum, clip::jtMiter, clip::etClosedPolygon);
    offset.Execute(sum, grownBy * kClipperGrid);
  }
  std::vector<Polyline> rings;
  for (const clip::Path& path : sum) rings.push_back(fromGrid(path));
  return rings;
}

}  // namespace armure
