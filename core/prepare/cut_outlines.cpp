#include "prepare/cut_outlines.h"

#include <algorithm>
#include <cmath>
#include <iterator>

#include "at_once.h"
#include "geometry/tolerances.h"

namespace armure {
namespace {

// Whether an open dart is pressed towards its second leg.
bool pressedToSecond(const Piece& piece, const Dart& dart) {
  const Vec2 one = dart.legs[0].path.start(), two = dart.legs[1].path.end();
  const Vec2 axis = lerp(one, two, 0.5) - dart.point();
  if (std::abs(axis.x) > std::abs(axis.y)) return two.y > one.y;
  return (piece.half == Half::Back) == (two.x > one.x);
}

// Where the fold of a pressed dart ends: as far from the point as the sewn line of the edge beside the mouth is, met
// half the dart's angle beyond its leg. The fold, mirrored on the leg, lies there when the dart is pressed.
Vec2 peakOf(const Dart& dart, const Edge& beside, bool second) {
  constexpr double kFurthest = 1.5;  // of the leg
  const Vec2 tip = dart.point(), one = dart.legs[0].path.start(), two = dart.legs[1].path.end();
  const Vec2 fold = unit(unit(one - tip) + unit(two - tip)), end = second ? two : one, leg = unit(end - tip);
  const Vec2 pressed = 2 * dot(leg, fold) * leg - fold;
  const double length = distance(tip, end);
  double reach = HUGE_VAL;
  for (const double s : beside.path.crossings(tip, pressed))
    if (const double at = dot(beside.path.pointAt(s) - tip, pressed);
        at > 0 && std::abs(at - length) < std::abs(reach - length))
      reach = at;
  if (reach == HUGE_VAL) {  // the edge is too short: as it runs on
    const Vec2 along = second ? beside.path.startTangent() : beside.path.endTangent();
    const double across = cross(pressed, along);
    reach = std::abs(across) < 1e-6 ? length : cross(end - tip, along) / across;
  }
  return tip + std::clamp(reach, dot(lerp(one, two, 0.5) - tip, fold), kFurthest * length) * fold;
}

// A mouth as it is cut: up to the fold and down again.
Polyline roofed(const Piece& piece, size_t mouth) {
  const Edge& e = piece.edges[mouth];
  for (const Dart& d : piece.darts) {
    if (d.mouth != e.id) continue;
    const bool second = pressedToSecond(piece, d);
    const size_t n = piece.edges.size();
    const Edge& beside = piece.edges[second ? (mouth + 1) % n : (mouth + n - 1) % n];
    return {e.path.start(), peakOf(d, beside, second), e.path.end()};
  }
  return {e.path.start(), e.path.end()};
}

// Whether the allowance of an edge is pressed over when what lies across its end is still to be sewn or finished.
bool isPressedFirst(const Edge& e) { return e.role == EdgeRole::Seam || e.role == EdgeRole::Centre; }
bool comesLater(const Edge& e) {
  switch (e.role) {
    case EdgeRole::Top:
    case EdgeRole::Hem:
    case EdgeRole::Armhole:
    case EdgeRole::Cup:
    case EdgeRole::Yoke:
    case EdgeRole::Opening:
      return true;
    case EdgeRole::Seam:
    case EdgeRole::Fold:
    case EdgeRole::Centre:
    case EdgeRole::Strap:
    case EdgeRole::Raw:
    case EdgeRole::Mouth:
      break;
  }
  return false;
}

AllowanceEnd endOf(Corners corners) {
  switch (corners) {
    case Corners::Mitred:
      break;
    case Corners::Squared:
      return AllowanceEnd::Squared;
    case Corners::Turned:
      return AllowanceEnd::Turned;
  }
  return AllowanceEnd::Mitred;
}

Polyline cutOutlineOf(const Piece& piece, AllowanceEnd end) {
  std::vector<AllowanceEdge> edges;
  edges.reserve(piece.edges.size());
  const size_t n = piece.edges.size();
  for (size_t i = 0; i < n; ++i) {
    const Edge& e = piece.edges[i];
    const bool fold = e.role == EdgeRole::Fold;
    AllowanceEdge a{fold                        ? Polyline{e.path.start(), e.path.end()}
                    : e.role == EdgeRole::Mouth ? roofed(piece, i)
                                                : e.path.flattened(tolerance::kOutlineFlatness),
                    e.allowance, fold};
    if (isPressedFirst(e)) {
      if (comesLater(piece.edges[(i + n - 1) % n])) a.start = end;
      if (comesLater(piece.edges[(i + 1) % n])) a.end = end;
    }
    edges.push_back(std::move(a));
  }
  // Without any allowance one cuts along the edge itself.
  const bool butted =
      std::all_of(piece.edges.begin(), piece.edges.end(), [](const Edge& e) { return e.allowance <= 0; });
  return butted ? piece.outline(tolerance::kFileFlatness) : cutOutline(edges);
}

}  // namespace

std::vector<Polyline> cutOutlines(const Pattern& pattern, Corners corners) {
  const AllowanceEnd end = endOf(corners);
  const auto every = [&](size_t from, size_t to) {
    std::vector<Polyline> some;
    some.reserve(pattern.pieces.size());
    for (size_t i = from; i < to; ++i) some.push_back(cutOutlineOf(pattern.pieces[i], end));
    return some;
  };
  const size_t count = pattern.pieces.size(), half = count / 2;
  auto [all, rest] = atOnce([&] { return every(0, half); }, [&] { return every(half, count); });
  std::ranges::move(rest, std::back_inserter(all));
  return all;
}

}  // namespace armure
