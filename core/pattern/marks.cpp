#include "pattern/marks.h"

#include <algorithm>
#include <cmath>

#include "geometry/path_distance.h"
#include "geometry/tolerances.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

bool names(const EdgeMap& map, const std::string& edge) {
  return std::any_of(map.begin(), map.end(), [&](const EdgePart& part) { return part.was == edge; });
}

}  // namespace

std::optional<Anchor> carried(const Anchor& anchor, const EdgeMap& map) {
  for (const EdgePart& part : map)
    if (part.was == anchor.edge && anchor.at >= part.from - tolerance::kNothing &&
        anchor.at <= part.to + tolerance::kNothing)
      return Anchor{part.is, part.place(std::clamp(anchor.at, part.from, part.to)), anchor.offset};
  return std::nullopt;
}

std::vector<Mark> carryMarks(Piece& piece, const EdgeMap& map) {
  std::vector<Mark> gone;
  std::erase_if(piece.marks, [&](Mark& m) {
    const Mark before = m;
    for (Anchor* anchor : {&m.a, &m.b}) {
      if (!names(map, anchor->edge)) continue;
      std::optional<Anchor> now = carried(*anchor, map);
      if (!now) {
        gone.push_back(before);
        return true;
      }
      *anchor = std::move(*now);
    }
    return false;
  });
  return gone;
}

Anchor anchorAt(const Piece& piece, Vec2 point) {
  for (const Edge& e : piece.edges)
    if (const auto at = nearOn(e.path, point)) return {e.id, *at, {}};
  const Edge* nearest = nullptr;
  double at = 0, least = HUGE_VAL;
  for (const Edge& e : piece.edges) {
    const double s = nearestPlace(e.path, point), d = distance(e.path.pointAt(s), point);
    if (d < least) least = d, at = s, nearest = &e;
  }
  const Vec2 along = nearest->path.tangentAt(at), off = point - nearest->path.pointAt(at);
  return {nearest->id, at, {dot(off, along), dot(off, {-along.y, along.x})}};
}

Mark levelMark(const Piece& piece, std::string level, Vec2 a, Vec2 b) {
  return {MarkKind::Level, std::move(level), anchorAt(piece, a), anchorAt(piece, b), false};
}

void settleLevel(const Piece& piece, Mark& mark, const LevelLine& was) {
  for (const auto& [anchor, end] : {std::pair{&mark.a, was.a}, {&mark.b, was.b}}) {
    std::optional<Anchor> nearest;
    double least = HUGE_VAL;
    for (size_t i = 0; i < piece.lines(); ++i) {
      const Edge& e = piece.lineAt(i);
      if (e.role == EdgeRole::Mouth) continue;  // it closes up; its dart's legs stay
      if (const auto at = nearOn(e.path, end)) {
        nearest = Anchor{e.id, *at, {}};
        break;
      }
      for (const double s : e.path.crossings(was.a, was.b - was.a))
        if (const double d = distance(e.path.pointAt(s), end); d < least) least = d, nearest = Anchor{e.id, s, {}};
    }
    *anchor = nearest ? *nearest : anchorAt(piece, end);
  }
}

void settleLevels(Piece& piece, const std::vector<LevelLine>& were) {
  size_t i = 0;
  for (Mark& m : piece.levelMarks()) settleLevel(piece, m, were.at(i++));
}

std::vector<SeamNotch> notchesOf(const Pattern& pattern, const Seam& seam) {
  std::vector<SeamNotch> both;
  for (const Mark& a : pattern.pieces.at(seam.a.piece).notches()) {
    if (!seam.a.uses(a.a.edge)) continue;
    for (const Mark& b : pattern.pieces.at(seam.b.piece).notches()) {
      if (b.id != a.id || !seam.b.uses(b.a.edge)) continue;
      both.push_back({a.id, pattern.alongSide(seam.a, a.a), pattern.alongSide(seam.b, b.a)});
      break;
    }
  }
  std::sort(both.begin(), both.end(), [](const SeamNotch& x, const SeamNotch& y) { return x.a < y.a; });
  return both;
}

}  // namespace armure
