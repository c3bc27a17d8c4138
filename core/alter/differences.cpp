#include "alter/differences.h"

#include <algorithm>
#include <cmath>

#include "alter/recalculation.h"
#include "geometry/path_distance.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

Vec2 middleOf(const Piece& piece) {
  const Polyline points = piece.outline(0.5);
  Vec2 sum;
  for (const Vec2 p : points) sum = sum + p;
  return points.empty() ? sum : sum / static_cast<double>(points.size());
}

const Edge* lineCalled(const Piece& piece, std::string_view id) {
  for (size_t i = 0; i < piece.lines(); ++i)
    if (piece.lineAt(i).id == id) return &piece.lineAt(i);
  return nullptr;
}

// The end of a seam on a piece; nothing where it is in none of its sides.
std::optional<Vec2> endOn(const Pattern& pattern, const Piece& piece, const LaidAt& at) {
  const Seam* seam = at.seam.empty() ? nullptr : pattern.seam(at.seam);
  if (!seam) return std::nullopt;
  for (const SeamSide* side : {&seam->a, &seam->b})
    if (pattern.pieces[side->piece].id == piece.id) {
      const Path path = pattern.sidePath(*side);
      return at.upper ? path.start() : path.end();
    }
  return std::nullopt;
}

}  // namespace

Motion laidOn(const Pattern& first, const Piece& piece, const Pattern& second, const Piece& other, const LaidAt& at) {
  const auto alongGrain = [&](Vec2 here, Vec2 there) {
    const double turn = angleBetween(other.grainBottom - other.grainTop, piece.grainBottom - piece.grainTop);
    return Motion::rotationAbout(there, turn).then(Motion::translation(here - there));
  };
  const auto here = endOn(first, piece, at), there = endOn(second, other, at);
  if (here && there) return alongGrain(*here, *there);
  const auto a = piece.level(at.level), b = other.level(at.level);
  if (a && b && a->width() > 0 && b->width() > 0)
    return Motion::rotationAbout(b->a, angleBetween(b->b - b->a, a->b - a->a)).then(Motion::translation(a->a - b->a));
  return alongGrain(middleOf(piece), middleOf(other));
}

std::vector<EdgeDifference> differences(const Pattern& first, const Pattern& second, const LaidAt& at, double least) {
  std::vector<EdgeDifference> all;
  for (size_t i = 0; i < first.pieces.size(); ++i) {
    const Piece& piece = first.pieces[i];
    const auto other = std::ranges::find(second.pieces, piece.id, &Piece::id);
    if (other == second.pieces.end()) continue;
    const Motion laid = laidOn(first, piece, second, *other, at);
    for (size_t k = 0; k < piece.lines(); ++k) {
      const Edge& edge = piece.lineAt(k);
      const Edge* there = lineCalled(*other, edge.id);
      if (!there || edge.role == EdgeRole::Mouth) continue;
      const Path laidThere = there->path.transformed(laid);
      const Farthest from = farthestFrom(edge.path, laidThere), back = farthestFrom(laidThere, edge.path);
      EdgeDifference d{i, edge.id, from.distance, from.at, -from.by, there->path.length() - edge.path.length()};
      if (back.distance > from.distance) d.largest = back.distance, d.at = back.at - back.by, d.by = back.by;
      if (d.largest > least) all.push_back(std::move(d));
    }
  }
  std::ranges::stable_sort(all, std::greater<>(), &EdgeDifference::largest);
  return all;
}

SideCurves sideCurves(const Pattern& shell, const Alteration& shifts) {
  const Result<Altered> altered = alter(shell, {&shifts, 1});
  if (!altered.ok()) return {};
  const Pattern& p = altered->pattern;
  SideCurves curves;
  const Seam* seam = bodiceSide(p);
  if (!seam) return curves;
  for (const SeamSide* side : {&seam->a, &seam->b}) {
    const Piece& piece = p.pieces[side->piece];
    const auto waist = piece.level(level::kWaist);
    const auto place = placeOnLine(p, *side, level::kWaist);
    if (!waist || !place) return {};
    const Path path = p.sidePath(*side);
    const Vec2 from = path.pointAt(*place), level = unit(waist->b - waist->a);
    const Vec2 out = distance(from, waist->b) < distance(from, waist->a) ? level : -level, down{-level.y, level.x};
    Polyline line;
    for (const Vec2 at : path.flattened(0.1)) line.push_back({dot(at - from, out), dot(at - from, down)});
    (piece.half == Half::Front ? curves.front : curves.back) = std::move(line);
  }
  return curves;
}

ShiftTable eachByItself(ShiftTable table) {
  for (ShiftRow& r : table.rows) {
    r.x = r.f;
    r.y = r.b;
    r.rest = 0;
  }
  table.lines.clear();
  return table;
}

}  // namespace armure
