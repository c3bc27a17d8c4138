#include "laying/convolution.h"

#include <cmath>
#include <map>
#include <numbers>
#include <polyclipping/clipper.hpp>
#include <utility>

namespace armure {
namespace {

namespace clip = ClipperLib;

constexpr double kGrid = 1e5;  // Clipper units per mm
constexpr double kTurn = 2 * std::numbers::pi;

// The angle in [0, 2 pi).
double turnTo(double angle) {
  const double t = std::fmod(angle, kTurn);
  return t < 0 ? t + kTurn : t;
}

// A ring's corners: from which direction it arrives, and how far it turns there, in (-pi, pi].
struct Corner {
  double arrives = 0, turns = 0;
};
std::vector<double> directions(const Polyline& ring) {
  std::vector<double> all;
  for (size_t i = 0; i < ring.size(); ++i) {
    const Vec2 d = ring[(i + 1) % ring.size()] - ring[i];
    all.push_back(std::atan2(d.y, d.x));
  }
  return all;
}
std::vector<Corner> corners(const std::vector<double>& directions) {
  std::vector<Corner> all;
  for (size_t i = 0; i < directions.size(); ++i) {
    const double arrives = directions[(i + directions.size() - 1) % directions.size()];
    const double turns = turnTo(directions[i] - arrives);
    all.push_back({arrives, turns > std::numbers::pi ? turns - kTurn : turns});
  }
  return all;
}

// Whether a corner turns through a direction. Where both are the same, the sides of P count as a little further round
// than those of Q: `ofQ` tells whose side it is.
bool turnsThrough(const Corner& corner, double direction, bool ofQ) {
  const bool out = corner.turns > 0;
  const double by = out ? turnTo(direction - corner.arrives) : turnTo(corner.arrives - direction);
  const double turns = std::abs(corner.turns);
  return out == ofQ ? by > 0 && by <= turns : by < turns;
}

// A place: a corner of either ring. Sides lead from one to another.
using Place = std::pair<size_t, size_t>;
using Sides = std::multimap<Place, Place>;

Sides sidesOf(const Polyline& p, const Polyline& q) {
  const std::vector<double> ofP = directions(p), ofQ = directions(q);
  const std::vector<Corner> cornersP = corners(ofP), cornersQ = corners(ofQ);
  Sides sides;
  const auto add = [&](Place from, Place to, bool hollow) {
    hollow ? sides.emplace(to, from) : sides.emplace(from, to);
  };
  for (size_t i = 0; i < p.size(); ++i)
    for (size_t j = 0; j < q.size(); ++j) {
      const Place here{i, j};
      if (turnsThrough(cornersP[i], ofQ[j], true)) add(here, {i, (j + 1) % q.size()}, cornersP[i].turns < 0);
      if (turnsThrough(cornersQ[j], ofP[i], false)) add(here, {(i + 1) % p.size(), j}, cornersQ[j].turns < 0);
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
  for (const Polyline& cycle : convolution(p, q)) {
    clip::Path path;
    for (const Vec2 v : cycle) path.emplace_back(std::llround(v.x * kGrid), std::llround(v.y * kGrid));
    clipper.AddPath(path, clip::ptSubject, true);
  }
  clip::Paths sum;
  clipper.Execute(clip::ctUnion, sum, clip::pftNonZero, clip::pftNonZero);
  if (grownBy > 0) {
    clip::ClipperOffset offset;
    offset.AddPaths(sum, clip::jtMiter, clip::etClosedPolygon);
    offset.Execute(sum, grownBy * kGrid);
  }
  std::vector<Polyline> rings;
  for (const clip::Path& path : sum) {
    rings.emplace_back();
    for (const clip::IntPoint& v : path)
      rings.back().push_back({static_cast<double>(v.X) / kGrid, static_cast<double>(v.Y) / kGrid});
  }
  return rings;
}

}  // namespace armure
