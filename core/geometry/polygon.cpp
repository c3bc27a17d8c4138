#include "geometry/polygon.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <stdexcept>

#include "geometry/clipper_grid.h"

namespace armure {
namespace {

namespace clip = ClipperLib;

constexpr double kMitreLimit = 2.5;  // allowances

Vec2 leftNormal(Vec2 d) { return {d.y, -d.x}; }  // outside of a clockwise outline, y down

// The parallel of one edge, outside it. Edges are finely flattened curves, so mitring each vertex is exact to second
// order in the step.
void appendParallel(Polyline& ring, const AllowanceEdge& edge) {
  const Polyline& p = edge.points;
  for (size_t i = 0; i < p.size(); ++i) {
    const Vec2 before = i > 0 ? unit(p[i] - p[i - 1]) : unit(p[1] - p[0]);
    const Vec2 after = i + 1 < p.size() ? unit(p[i + 1] - p[i]) : before;
    const Vec2 normal = leftNormal(unit(before + after));
    const double stretch = std::max(0.5, dot(normal, leftNormal(before)));
    ring.push_back(p[i] + edge.allowance / stretch * normal);
  }
}

std::optional<Vec2> lineMeeting(Vec2 p, Vec2 d, Vec2 q, Vec2 e) {
  const double det = cross(d, e);
  if (std::abs(det) < 1e-6) return std::nullopt;
  return p + cross(q - p, e) / det * d;
}

// The tip between the parallels of two edges at an outward corner; nothing where it would reach too far (the corner is
// then cut across) or where the corner points inwards (the parallels cross, and the loop they make is taken out later).
std::optional<Vec2> cornerTip(const AllowanceEdge& a, const AllowanceEdge& b) {
  const Vec2 corner = a.points.back();
  const Vec2 da = unit(corner - a.points[a.points.size() - 2]), db = unit(b.points[1] - b.points[0]);
  if (cross(da, db) <= 1e-9) return std::nullopt;
  const auto tip = lineMeeting(corner + a.allowance * leftNormal(da), da, corner + b.allowance * leftNormal(db), db);
  if (!tip || distance(corner, *tip) > kMitreLimit * std::max(a.allowance, b.allowance)) return std::nullopt;
  return tip;
}

// The end of `sewn`'s allowance beside `other`, whose parallel it is cut along, as two points in the order of travel
// along `sewn`: on its own parallel, and where the other's parallel meets the sewn line run on. `atEnd` of `sewn`, else
// at its start.
std::optional<std::array<Vec2, 2>> endBeside(const AllowanceEdge& sewn, const AllowanceEdge& other, bool atEnd) {
  const Polyline &p = sewn.points, &q = other.points;
  const Vec2 corner = atEnd ? p.back() : p.front();
  const Vec2 along = atEnd ? unit(corner - p[p.size() - 2]) : unit(p[1] - corner);
  const Vec2 across = atEnd ? unit(q[1] - q.front()) : unit(q.back() - q[q.size() - 2]);
  const Vec2 out = leftNormal(along), onOther = corner + other.allowance * leftNormal(across);
  const auto met = lineMeeting(corner, along, onOther, across);
  if (!met) return std::nullopt;
  Vec2 tip = *met + sewn.allowance * out;
  if ((atEnd ? sewn.end : sewn.start) == AllowanceEnd::Turned) {
    const Vec2 mirrored = 2 * dot(across, along) * along - across;
    const auto turned = lineMeeting(corner + sewn.allowance * out, along, *met, mirrored);
    if (!turned) return std::nullopt;
    tip = *turned;
  }
  const double most = kMitreLimit * std::max(sewn.allowance, other.allowance);
  if (distance(corner, tip) > most || distance(corner, *met) > most) return std::nullopt;
  return atEnd ? std::array{tip, *met} : std::array{*met, tip};
}

// What is cut between the parallels of two edges that follow each other.
void appendCorner(Polyline& ring, const AllowanceEdge& a, const AllowanceEdge& b) {
  const bool first = a.end != AllowanceEnd::Mitred && a.allowance > 0;
  const bool second = b.start != AllowanceEnd::Mitred && b.allowance > 0;
  if (first != second && !a.fold && !b.fold)
    if (const auto end = first ? endBeside(a, b, true) : endBeside(b, a, false)) {
      ring.insert(ring.end(), end->begin(), end->end());
      return;
    }
  if (const auto tip = cornerTip(a, b)) ring.push_back(*tip);
}

// Half of a very large square, on the outer side of a fold.
Polyline beyond(const Polyline& fold) {
  constexpr double kFar = 5000;
  const Vec2 d = unit(fold.back() - fold.front());
  const Vec2 a = fold.front() - kFar * d, b = fold.back() + kFar * d;
  return {a, b, b + kFar * leftNormal(d), a + kFar * leftNormal(d)};
}

void addOriented(clip::Clipper& clipper, clip::Path path, clip::PolyType type) {
  if (!clip::Orientation(path)) std::reverse(path.begin(), path.end());
  clipper.AddPath(path, type, true);
}

const clip::Path& largest(const clip::Paths& paths) {
  if (paths.empty()) throw std::invalid_argument("cutOutline: nothing left");
  return *std::max_element(paths.begin(), paths.end(), [](const clip::Path& a, const clip::Path& b) {
    return std::abs(clip::Area(a)) < std::abs(clip::Area(b));
  });
}

// What lies beyond a fold is cut off.
clip::Path withoutFolds(const clip::Path& whole, const std::vector<AllowanceEdge>& edges) {
  if (std::none_of(edges.begin(), edges.end(), [](const AllowanceEdge& e) { return e.fold; })) return whole;
  clip::Clipper cut;
  cut.AddPath(whole, clip::ptSubject, true);
  for (const AllowanceEdge& e : edges)
    if (e.fold) addOriented(cut, toGrid(beyond(e.points)), clip::ptClip);
  clip::Paths kept;
  cut.Execute(clip::ctDifference, kept, clip::pftNonZero, clip::pftNonZero);
  return largest(kept);
}

bool segmentsCross(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
  const auto side = [](Vec2 p, Vec2 q, Vec2 r) {
    const double v = cross(q - p, r - p);
    return std::abs(v) < 1e-9 ? 0 : (v > 0 ? 1 : -1);
  };
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

}  // namespace

double signedArea(const Polyline& ring) {
  double sum = 0;
  for (size_t i = 0; i < ring.size(); ++i) sum += cross(ring[i], ring[(i + 1) % ring.size()]);
  return sum / 2;
}

double sharedArea(const Polyline& a, const Polyline& b) {
  clip::Clipper both;
  addOriented(both, toGrid(a), clip::ptSubject);
  addOriented(both, toGrid(b), clip::ptClip);
  clip::Paths shared;
  both.Execute(clip::ctIntersection, shared, clip::pftNonZero, clip::pftNonZero);
  double sum = 0;
  for (const clip::Path& path : shared) sum += clip::Area(path);
  return std::abs(sum) / (kClipperGrid * kClipperGrid);
}

bool isSimple(const Polyline& ring) {
  const size_t n = ring.size();
  if (n < 3) return false;
  struct Side {
    size_t index;
    double left, right, top, bottom;
  };
  std::vector<Side> sides(n);
  for (size_t i = 0; i < n; ++i) {
    const Vec2 a = ring[i], b = ring[(i + 1) % n];
    sides[i] = {i, std::min(a.x, b.x), std::max(a.x, b.x), std::min(a.y, b.y), std::max(a.y, b.y)};
  }
  std::sort(sides.begin(), sides.end(), [](const Side& a, const Side& b) { return a.left < b.left; });
  for (size_t k = 0; k < n; ++k) {
    for (size_t m = k + 1; m < n && sides[m].left <= sides[k].right; ++m) {
      if (sides[m].top > sides[k].bottom || sides[m].bottom < sides[k].top) continue;
      const size_t i = sides[k].index, j = sides[m].index;
      const size_t gap = i > j ? i - j : j - i;
      if (gap == 1 || gap == n - 1) continue;
      if (segmentsCross(ring[i], ring[(i + 1) % n], ring[j], ring[(j + 1) % n])) return false;
    }
  }
  return true;
}

double distanceToSegment(Vec2 p, Vec2 a, Vec2 b) {
  const Vec2 d = b - a;
  const double n = dot(d, d);
  const double t = n > 0 ? std::clamp(dot(p - a, d) / n, 0.0, 1.0) : 0;
  return distance(p, a + t * d);
}

double distanceToPolyline(Vec2 p, const Polyline& line) {
  double best = HUGE_VAL;
  for (size_t i = 0; i + 1 < line.size(); ++i) best = std::min(best, distanceToSegment(p, line[i], line[i + 1]));
  return best;
}

Polyline cutOutline(const std::vector<AllowanceEdge>& edges) {
  if (edges.empty()) throw std::invalid_argument("cutOutline: no edges");
  Polyline outline;
  for (size_t i = 0; i < edges.size(); ++i) {
    const AllowanceEdge& next = edges[(i + 1) % edges.size()];
    if (edges[i].points.size() < 2) throw std::invalid_argument("cutOutline: edge without length");
    if (distance(edges[i].points.back(), next.points.front()) > 1e-3) throw std::invalid_argument("cutOutline: open");
    outline.insert(outline.end(), edges[i].points.begin(), edges[i].points.end() - 1);
  }
  if (signedArea(outline) <= 0) throw std::invalid_argument("cutOutline: anticlockwise");

  Polyline parallel;
  for (size_t i = 0; i < edges.size(); ++i) {
    appendParallel(parallel, edges[i]);
    appendCorner(parallel, edges[i], edges[(i + 1) % edges.size()]);
  }
  clip::Paths whole;
  clip::SimplifyPolygon(toGrid(parallel), whole, clip::pftPositive);

  clip::Path ring = withoutFolds(largest(whole), edges);
  clip::CleanPolygon(ring, 0.001 * kClipperGrid);

  Polyline result = fromGrid(ring);
  if (signedArea(result) < 0) std::reverse(result.begin(), result.end());
  return result;
}

}  // namespace armure
