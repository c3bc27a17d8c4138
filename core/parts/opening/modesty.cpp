#include "parts/opening/modesty.h"
#include "parts/opening/rules.h"
#include "rules/prepare_rules.h"

#include <algorithm>

namespace armure {
namespace {

constexpr double kBeside = 60;  // mm to the right of the pieces of the shell

// The edge of the opening on the pieces: where it begins, and how long it is.
double lengthOfOpening(const Pattern& pattern, bool front) {
  double longest = 0;  // a yoke or an insert may have a part of it
  for (const Piece& p : pattern.pieces)
    for (const Edge& e : p.edges)
      if (e.id == "opening" && (p.half == Half::Back) != front) longest = std::max(longest, e.path.length());
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
  double right = pattern.right();
  std::vector<Piece> panels;
  for (const HalfBlock* half : {&block.front, &block.back}) {
    if (!half->opening.isLaced()) continue;
    panels.push_back(panel(*half, lengthOfOpening(pattern, half->front), right + kBeside, rules));
    right = std::max(panels.back().edges[0].path.end().x, panels.back().edges[1].path.end().x);
  }
  for (Piece& p : panels) pattern.pieces.push_back(std::move(p));
}

}  // namespace armure
