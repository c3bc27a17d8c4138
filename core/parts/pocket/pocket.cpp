#include "parts/pocket/pocket.h"

#include <algorithm>
#include <utility>
#include <vector>

#include "draft/levels.h"
#include "parts/pocket/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kCircle = 0.5522847498;  // handles of a quarter circle as a cubic

// Round the bag from the upper end of its opening to the lower one, clockwise.
Path bag(Vec2 a, double opening, double deep, double hangs) {
  const double high = opening + hangs, round = std::min(0.45 * deep, 0.45 * high), shoulder = 0.3 * high;
  const Vec2 out = a + Vec2{deep, shoulder}, low = a + Vec2{deep, high - round}, under = a + Vec2{deep - round, high},
             back = a + Vec2{0.4 * deep, high}, end = a + Vec2{0, opening};
  const double k = (1 - kCircle) * round;
  return Path(std::vector<Cubic>{{a, a + Vec2{0.45 * deep, 0}, out - Vec2{0, 0.6 * shoulder}, out},
                                 Cubic::line(out, low),
                                 {low, low + Vec2{0, round - k}, under + Vec2{round - k, 0}, under},
                                 Cubic::line(under, back),
                                 {back, back - Vec2{0.3 * deep, 0}, end + Vec2{0.05 * deep, 0.4 * hangs}, end}});
}

// Where it is sewn, its own places first, then those of its kind.
TrimStretch openingOf(const TrimStretch& stretch, const TrimChoice& trim) {
  TrimStretch on = stretch;
  if (!trim.fromIsChosen()) {
    const auto waist = std::ranges::find(on.line.marks, level::kWaist, &LineMark::id);
    on.from = (waist == on.line.marks.end() ? 0 : waist->at) + trim.length(pocket::kBelow);
  }
  if (!trim.toIsChosen()) on.to = on.from + trim.length(pocket::kOpening);
  return on;
}

}  // namespace

std::optional<Problem> addPocket(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                 const Rules&) {
  if (!stretch.line.isSeam())
    return Problem{trim.title(), msg("{} is no seam", stretch.line.name), "choose the side seam, or another"};
  const TrimStretch on = openingOf(stretch, trim);
  if (on.to > on.line.length() + 1e-6 || on.half() < 1)
    return Problem{trim.title(), msg("{} is only {} long", on.line.name, Length{on.line.length()}),
                   "let it begin higher, or give it a smaller opening"};
  const double opening = on.half(), deep = trim.length(pocket::kDeep), hangs = trim.length(pocket::kHangs),
               seam = trim.length(pocket::kSeam);
  const Vec2 a = besideAll(pattern);
  Piece p = trimPiece(trim, 1, 1);
  p.edges = {{"bag", EdgeRole::Raw, seam, bag(a, opening, deep, hangs)},
             {"sewn", EdgeRole::Raw, seam, Path::line(a + Vec2{0, opening}, a)}};
  p.symmetry = Symmetry::Pair;
  p.copies = 4;
  p.grainTop = a + Vec2{deep / 2, 0.2 * (opening + hangs)};
  p.grainBottom = a + Vec2{deep / 2, 0.8 * (opening + hangs)};
  const PieceEdge attached{pattern.pieces.size(), "sewn"};
  pattern.pieces.push_back(std::move(p));
  for (const TrimStretch& side : {on, onPartner(on)})
    layAlong(pattern, side, trim, attached, {side.from, side.to}, {opening, 0}, {0, ReachWay::Flat});
  pattern.workings.push_back({"trim." + trim.id(),
                              msg("{}, its opening", trim.title()),
                              {{'+', on.line.name, opening, Source::Computed}},
                              opening,
                              msg("begins {} down {}; the bag {} deep and {} high; common practice", Length{on.from},
                                  on.line.name, Length{deep}, Length{opening + hangs})});
  return std::nullopt;
}

}  // namespace armure
