#include "pattern/places.h"

#include "pattern/outline_parts.h"

namespace armure {
namespace {

bool isUpper(EdgeRole role) { return role == EdgeRole::Top || role == EdgeRole::Yoke; }

}  // namespace

std::optional<Place> Places::end(std::string_view id, EdgeRole role, bool atStart) const {
  for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
    if (pattern_.pieces[i].id != id) continue;
    for (const Edge& e : pattern_.pieces[i].edges)
      if (e.role == role) return Place{i, atStart ? e.path.start() : e.path.end()};
  }
  return std::nullopt;
}

std::optional<Place> Places::on(std::string_view id, std::string_view edge, double part) const {
  for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
    if (pattern_.pieces[i].id != id) continue;
    for (const Edge& e : pattern_.pieces[i].edges)
      if (e.id == edge) return Place{i, part <= 0 ? e.path.start() : e.path.pointAt(part * e.path.length())};
  }
  return std::nullopt;
}

std::optional<Place> Places::onAny(std::span<const std::string_view> ids, std::string_view edge, double part) const {
  for (std::string_view id : ids)
    if (const auto place = on(id, edge, part)) return place;
  return std::nullopt;
}

std::optional<Place> Places::side(bool atTop) const {
  const Seam* seam = atTop ? pattern_.seam("side") : lowerSide();
  if (!seam) return std::nullopt;
  const Path path = pattern_.sidePath(seam->a);
  return Place{seam->a.piece, atTop ? path.start() : path.end()};
}

std::optional<Place> Places::crest() const {
  std::optional<Place> best;
  for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
    const Piece& p = pattern_.pieces[i];
    if (!isCup(p) && !(p.part == Part::Panel && p.half == Half::Front)) continue;
    for (const Edge& e : p.edges)
      if (isUpper(e.role))
        for (const Cubic& c : e.path.cubics())
          for (const Vec2 corner : {c.p0, c.p3})
            if (!best || corner.y < best->at.y) best = Place{i, corner};
  }
  return best;
}

// A dart's mouth or a waist seam may have parted it: the part that reaches lowest.
const Seam* Places::lowerSide() const {
  const Seam* lowest = nullptr;
  for (const Seam& s : pattern_.seams) {
    if (std::max(s.a.piece, s.b.piece) >= pattern_.shellPieces() || !isSideSeam(pattern_, s)) continue;
    if (!lowest || pattern_.sidePath(s.a).end().y > pattern_.sidePath(lowest->a).end().y) lowest = &s;
  }
  return lowest;
}

std::optional<Place> Places::hemCorner() const {
  const Seam* seam = lowerSide();
  if (!seam) return std::nullopt;
  return Place{seam->a.piece, pattern_.sidePath(seam->a).end()};
}

Vec2 Places::awayFromHemCorner() const {
  const Seam* seam = lowerSide();
  if (!seam) return {1, 0};
  const Vec2 down = pattern_.sidePath(seam->a).endTangent();
  return {down.y, -down.x};
}

std::optional<Place> Places::joint(std::string_view id) const {
  for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
    if (pattern_.pieces[i].id != id) continue;
    for (const Edge& e : pattern_.pieces[i].edges)
      if (isUpper(e.role) && e.path.cubics().size() > 1) return Place{i, e.path.cubics().front().p3};
  }
  return std::nullopt;
}

std::optional<Place> Places::notch(std::string_view seamId, std::string_view notchId) const {
  const Seam* seam = pattern_.seam(seamId);
  if (!seam) return std::nullopt;
  const Path path = pattern_.sidePath(seam->a);
  const SeamNotch* notch = seam->notch(notchId);
  return notch ? std::optional(Place{seam->a.piece, path.pointAt(notch->a)}) : std::nullopt;
}

std::optional<Place> Places::seamEnd(std::string_view seamId) const {
  const Seam* seam = pattern_.seam(seamId);
  if (!seam) return std::nullopt;
  return Place{seam->a.piece, pattern_.sidePath(seam->a).end()};
}

}  // namespace armure
