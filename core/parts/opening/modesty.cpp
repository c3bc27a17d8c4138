#include "parts/opening/modesty.h"
#include "parts/opening/rules.h"
#include "rules/prepare_rules.h"

#include <algorithm>

namespace armure {
namespace {

// The longest edge of the opening on the pieces of the shell; a yoke or an insert may have a part of it.
struct OpeningEdge {
  size_t piece = 0;
  std::string edge;
  double length = 0;
};
OpeningEdge openingEdge(const Pattern& pattern, bool front) {
  OpeningEdge longest;
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (e.role == EdgeRole::Opening && pattern.pieces[i].part != Part::Modesty &&
          (pattern.pieces[i].half == Half::Back) != front && e.path.length() > longest.length)
        longest = {i, e.id, e.path.length()};
  return longest;
}

Piece panel(const HalfBlock& half, double length, double x, const Rules& rules) {
  const bool front = half.front;
  const Opening& o = half.opening;
  const double overlap = rules.length(key::kModestyOverlap), allowance = rules.length(key::kAllowanceModesty);
  const double top = (o.topGap + overlap) / 2, hem = (o.hemGap + overlap) / 2, y = o.topY;
  const Vec2 a{x, y}, b{x + top, y}, c{x + hem, y + length}, d{x, y + length};
  Piece p;
  p.id = front ? "modesty-front" : "modesty-back";
  p.name = front ? "Modesty panel front" : "Modesty panel";
  p.layer = "modesty";
  p.part = Part::Modesty;
  p.half = front ? Half::Front : Half::Back;
  p.symmetry = Symmetry::OnFold;
  p.copies = 1;
  p.onFold = "fold";
  p.edges = {{"top", EdgeRole::Top, allowance, Path::line(a, b)},
             {"free", EdgeRole::Opening, allowance, Path::line(b, c)},
             {"hem", EdgeRole::Hem, allowance, Path::line(c, d)},
             {"fold", EdgeRole::Fold, 0, Path::line(d, a)}};
  const double middle = x + 0.3 * std::min(top, hem);
  p.grainTop = {middle, y + 0.15 * length};
  p.grainBottom = {middle, y + 0.85 * length};
  return p;
}

}  // namespace

void addModestyPanels(Pattern& pattern, const Block& block, const Rules& rules) {
  if (rules.option(key::kModestyKind) != ModestyKind::Panel) return;
  for (const HalfBlock* half : {&block.front, &block.back}) {
    if (!half->opening.isLaced()) continue;
    const OpeningEdge edge = openingEdge(pattern, half->front);
    const size_t place = pattern.pieces.size();
    pattern.pieces.push_back(panel(*half, edge.length, pattern.right() + kBesideShell, rules));
    if (edge.length > 0)  // sewn to one side of the opening; the other side is left free
      pattern.attachments.push_back({pattern.pieces[place].id,
                                     pattern.pieces[place].name,
                                     edge.piece,
                                     edge.edge,
                                     0,
                                     edge.length,
                                     {place, "free"}});
  }
}

}  // namespace armure
