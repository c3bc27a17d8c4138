#include "cutting/upper_lengths.h"

#include <cmath>
#include <vector>

#include "operations/crossing.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr int kRounds = 3;                         // turning the line at the seams changes its length, by ever less
constexpr double kKept = 0.05;                     // mm
constexpr double kFlattest = 0.5, kDeepest = 1.6;  // of its hollow: beyond, it would no longer be that armhole

double lengthOf(const UpperOutline& outline, UpperPart part) {
  double sum = 0;
  for (const UpperStretch& s : outline)
    if (s.part == part) sum += s.path.length();
  return sum;
}

// The shoulder's last piece ends `longer` mm further on, and the armhole begins there.
void lengthenShoulder(Piece& piece, double longer) {
  const size_t n = piece.edges.size(), arm = edgePlace(piece, "armhole"), shoulder = edgePlace(piece, "shoulder");
  Path &s = piece.edges[shoulder].path, &a = piece.edges[arm].path;
  if ((shoulder + 1) % n == arm) {
    const Vec2 end = s.end() + longer * s.endTangent();
    s = withEnds(s, s.start(), end);
    a = withEnds(a, end, a.end());
  } else if ((arm + 1) % n == shoulder) {
    const Vec2 end = s.start() - longer * s.startTangent();
    s = withEnds(s, end, s.end());
    a = withEnds(a, a.start(), end);
  }
}

// All of a path's inner points `deep` times as far from its chord.
Path hollowed(const Path& path, double deep) {
  const Vec2 a = path.start(), along = unit(path.end() - a), across{-along.y, along.x};
  const auto moved = [&](Vec2 p) { return p + (deep - 1) * dot(p - a, across) * across; };
  std::vector<Cubic> cubics = path.cubics();
  for (Cubic& c : cubics) c = {moved(c.p0), moved(c.p1), moved(c.p2), moved(c.p3)};
  cubics.front().p0 = a;
  cubics.back().p3 = path.end();
  return Path(std::move(cubics));
}

void keepArmhole(Pattern& pattern, const UpperOutline& outline, Half half) {
  const double wanted = lengthOf(outline, UpperPart::Armhole);
  std::vector<Path*> edges;
  for (Piece& p : pattern.pieces)
    if (p.half == half)
      for (Edge& e : p.edges)
        if (e.role == EdgeRole::Armhole) edges.push_back(&e.path);
  const auto off = [&](double deep) {
    double sum = -wanted;
    for (const Path* path : edges) sum += hollowed(*path, deep).length();
    return sum;
  };
  if (edges.empty() || std::abs(off(1)) < kKept) return;
  double flat = kFlattest, deep = kDeepest, part = 1;
  if (off(flat) > 0) {
    part = flat;
  } else if (off(deep) < 0) {
    part = deep;
  } else {
    for (double now = off(1); std::abs(now) > kKept; now = off(part)) {  // longer the deeper: halving
      (now > 0 ? deep : flat) = part;
      part = (flat + deep) / 2;
    }
  }
  for (Path* path : edges) *path = hollowed(*path, part);
}

}  // namespace

void keepShoulders(Pattern& pattern, const UpperOutline& front, const UpperOutline& back) {
  const double wanted = (lengthOf(front, UpperPart::Shoulder) + lengthOf(back, UpperPart::Shoulder)) / 2;
  for (const Half half : {Half::Front, Half::Back}) {
    double sum = 0;
    Piece* last = nullptr;
    for (Piece& p : pattern.pieces) {
      if (p.half != half || !hasEdge(p, "shoulder")) continue;
      sum += p.edge("shoulder").path.length();
      if (hasEdge(p, "armhole")) last = &p;
    }
    if (last && std::abs(wanted - sum) > kKept) lengthenShoulder(*last, wanted - sum);
  }
}

void keepArmholes(Pattern& pattern, const std::optional<UpperOutline>& front, const std::optional<UpperOutline>& back) {
  for (int round = 0; round < kRounds; ++round) {
    if (front) keepArmhole(pattern, *front, Half::Front);
    if (back) keepArmhole(pattern, *back, Half::Back);
    trueAcrossSeams(pattern);
  }
}

}  // namespace armure
