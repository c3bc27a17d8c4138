#include "parts/yoke/keyhole.h"

#include <algorithm>
#include <cmath>

#include "parts/edges/rules.h"
#include "parts/yoke/rules.h"
#include "pattern/marks.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

// What closes above a keyhole laps over by a tab as wide as that.
void lapOver(Path& edge, Vec2 outwards, double wide) {
  if (wide <= 0) return;
  const Vec2 a = edge.start(), b = edge.end(), by = wide * outwards;
  edge = Path::line(a, a + by) + Path::line(a + by, b + by) + Path::line(b + by, b);
}

std::optional<Problem> cutKeyhole(Pattern& pattern, const Block& block, const Rules& rules, bool front) {
  const Half half = front ? Half::Front : Half::Back;
  const auto yoke = std::find_if(pattern.pieces.begin(), pattern.pieces.end(),
                                 [&](const Piece& p) { return p.part == Part::Yoke && p.half == half; });
  const bool onYoke = yoke != pattern.pieces.end();
  Piece& piece = onYoke ? *yoke : pattern.pieces[pattern.panel(half, 1).value()];
  size_t centre = 0;
  while (centre < piece.edges.size() && !isCentre(piece.edges[centre].role)) ++centre;
  if (centre == piece.edges.size())
    return Problem{"Keyhole", msg("the {} does not reach the centre", piece.name),
                   "choose a neckline that closes at the centre (neck.shape), or no keyhole there (keyhole.kind)"};
  const Edge edge = piece.edges[centre];
  const bool down = edge.path.end().y > edge.path.start().y;  // clockwise: the back's centre runs down, the front's up
  const double length = edge.path.length();
  const double chest = front ? block.levels.at(level::kChest).front : block.levels.at(level::kChest).back;
  const double lower = onYoke ? length : std::abs(chest - (down ? edge.path.start() : edge.path.end()).y);
  const double from = rules.length(key::kKeyholeFrom), to = lower - rules.length(key::kKeyholeAbove);
  constexpr double kShortest = 15;  // mm
  if (to - from < kShortest)
    return Problem{"Keyhole", msg("there are only {:.0f} mm for it at the centre", std::max(0.0, to - from)),
                   "let it begin higher or end lower, or make the neck less deep"};
  // Along the edge as it runs, upper end first where it runs down.
  const double a = down ? from : length - to, b = down ? to : length - from;
  const Path before = edge.path.sub(0, a), after = edge.path.sub(b, length);
  const Vec2 p = before.end(), q = after.start(), along = unit(q - p), into{-along.y, along.x};
  constexpr double kOfWidth = 0.4;  // faced; wider, the slit would be cut shut
  const double allowance = std::min(rules.length(key::kAllowanceTop), kOfWidth * rules.length(key::kKeyholeWidth));
  const double reach = distance(p, q) / 3, wide = rules.length(key::kKeyholeWidth) * 4 / 3;
  const Path slit(Cubic{p, p + reach * along + wide * into, q - reach * along + wide * into, q});
  Edge lowerPart = edge, hole{"keyhole", EdgeRole::Top, allowance, slit}, upperPart = edge;
  lowerPart.path = before;
  upperPart.path = after;
  if (edge.allowance > 0) lowerPart.allowance = upperPart.allowance = hole.allowance;  // faced, closed with a button
  if (!front) lapOver(down ? lowerPart.path : upperPart.path, -into, rules.length(key::kKeyholeOverlap));
  upperPart.id += "-2";
  if (!piece.onFold.empty()) piece.onFold = down ? upperPart.id : lowerPart.id;
  const auto at = piece.edges.begin() + static_cast<std::ptrdiff_t>(centre);
  *at = lowerPart;
  piece.edges.insert(at + 1, {hole, upperPart});
  carryMarks(piece, {{edge.id, 0, a, lowerPart.id}, {edge.id, b, length, upperPart.id}});
  pattern.workings.push_back({front ? "keyhole.front" : "keyhole.back",
                              front ? "Keyhole in front, long" : "Keyhole behind, long",
                              {{'+', "from below the neck", to, Source::Computed}, rules.term(key::kKeyholeFrom, '-')},
                              to - from,
                              "a slit in the centre edge, widest in the middle; common practice"});
  return std::nullopt;
}

}  // namespace

std::optional<Problem> cutKeyhole(Pattern& pattern, const Block& block, const Rules& rules) {
  const auto kind = rules.option(key::kKeyholeKind);
  const bool covered = rules.option(key::kCoverKind) == CoverKind::Covered;
  const bool closedBehind =
      rules.option(key::kCoverKind) == CoverKind::Straps && rules.option(key::kCoverBack) == CoverBack::Closed;
  if (!covered && !closedBehind) return std::nullopt;
  if (covered && (kind == KeyholeKind::Front || kind == KeyholeKind::Both))
    if (auto problem = cutKeyhole(pattern, block, rules, true)) return problem;
  if (kind == KeyholeKind::Back || kind == KeyholeKind::Both) return cutKeyhole(pattern, block, rules, false);
  return std::nullopt;
}

}  // namespace armure
