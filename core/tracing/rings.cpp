#include "tracing/rings.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "tracing/piece_tracer.h"

namespace armure {
namespace {

constexpr double kHere = 2;  // mm: a level ends at a corner

bool isAtDart(const Piece& p, const Anchor& end) {
  return std::ranges::any_of(p.darts, [&](const Dart& d) {
    return std::ranges::any_of(d.legs, [&](const Edge& leg) {
      return leg.id == end.edge ||
             std::min(distance(leg.path.start(), p.point(end)), distance(leg.path.end(), p.point(end))) < kHere;
    });
  });
}

// The edges a level ends on: at a corner both.
std::vector<const Edge*> edgesAt(const Piece& p, const Anchor& end) {
  std::vector<const Edge*> found;
  const Vec2 at = p.point(end);
  for (const Edge& e : p.edges)
    if (e.id == end.edge || std::min(distance(e.path.start(), at), distance(e.path.end(), at)) < kHere)
      found.push_back(&e);
  return found;
}

// Whether beyond an edge the level goes on, on the piece sewn to it.
bool goesOn(const Pattern& pattern, size_t piece, const Edge& edge, const std::string& level) {
  for (const Seam& s : pattern.seams)
    for (const auto& [mine, other] : {std::pair{&s.a, &s.b}, {&s.b, &s.a}})
      if (mine->piece == piece && mine->uses(edge.id))
        for (const Mark& k : pattern.pieces[other->piece].levelMarks())
          if (k.id == level) return true;
  return false;
}

// How far a level ends from the centre its piece lies at, both halves: skin, where a plunge leaves it open. Nothing
// where the piece has no centre.
std::optional<double> offCentre(const Piece& p, Vec2 end) {
  for (const Edge& e : p.edges)
    if (isCentre(e.role) && e.role != EdgeRole::Opening)
      return 2 * std::abs(cross(unit(e.path.end() - e.path.start()), end - e.path.start()));
  return std::nullopt;
}

// Follows a level from piece to piece: it is a ring where its line goes on from the centre front to the centre back.
void closeRing(const Pattern& pattern, PatternLevel& level) {
  bool front = false, back = false;
  double skin = 0;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    for (const Mark& m : p.levelMarks()) {
      if (m.id != level.id) continue;
      front = front || p.half != Half::Back;
      back = back || p.half != Half::Front;
      for (const Anchor* end : {&m.a, &m.b}) {
        if (isAtDart(p, *end)) continue;
        const auto edges = edgesAt(p, *end);
        if (std::ranges::any_of(edges, [&](const Edge* e) { return isCentre(e->role); })) continue;
        if (std::ranges::any_of(edges, [&](const Edge* e) { return goesOn(pattern, i, *e, level.id); })) continue;
        const auto gap = offCentre(p, p.point(*end));
        if (!gap || end != &m.a || p.half != Half::Front) return;
        skin = *gap;
      }
    }
  }
  level.ring = front && back;
  if (level.ring) level.gaps.skin = skin;
}

}  // namespace

void addTracedLevels(Pattern& pattern, double opening) {
  std::map<std::string, std::pair<double, int>> depths;
  for (const Piece& p : pattern.pieces)
    for (const LevelLine& l : p.levelLines()) {
      auto& [sum, count] = depths[l.level];
      sum += (l.a.y + l.b.y) / 2;
      ++count;
    }
  std::vector<std::pair<double, std::string>> order;
  for (const auto& [id, d] : depths) order.emplace_back(d.first / d.second, id);
  std::ranges::sort(order);
  for (const auto& [depth, id] : order) {
    PatternLevel l;
    l.id = id;
    l.name = tracedLevelName(id);
    closeRing(pattern, l);
    if (l.ring) l.gaps.opening = opening;
    l.finishedGirth = pattern.closedGirth(l);
    l.bodyGirth = l.finishedGirth;
    pattern.levels.push_back(std::move(l));
  }
}

}  // namespace armure
