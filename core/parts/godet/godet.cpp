#include "parts/godet/godet.h"

#include <algorithm>
#include <numbers>
#include <utility>

#include "geometry/arc.h"
#include "parts/godet/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kMostAngle = 6;  // rad: nearly all round
constexpr double kAtEnd = 0.01;   // mm

}  // namespace

std::optional<Problem> addGodet(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                const Rules&) {
  const double end = stretch.line.length();
  if (!stretch.line.isSeam() || !stretch.line.atHem || stretch.to < end - kAtEnd)
    return Problem{trim.title(), msg("{} does not end at the hem there", stretch.line.name),
                   "choose a seam that runs into the hem, and leave its end away"};
  TrimStretch on = stretch;
  if (!trim.fromIsChosen()) on.from = std::max(0.0, end - trim.length(godet::kHigh));
  const double high = on.half(), wide = trim.length(godet::kWide), angle = wide / high,
               seam = trim.length(godet::kSeam);
  if (angle > kMostAngle)
    return Problem{trim.title(), msg("{} high it cannot be {} wide", Length{high}, Length{wide}),
                   "make it higher, or less wide"};
  const Vec2 top = besideAll(pattern) + Vec2{wide, 0};
  const Path hem = arc(top, high, angle / 2, -angle / 2);  // from the right to the left
  Piece p = trimPiece(trim, 1, 1);
  p.edges = {{"sewn", EdgeRole::Raw, seam, Path::line(top, hem.start())},
             {"hem", EdgeRole::Hem, trim.length(godet::kHem), hem},
             {"sewn-2", EdgeRole::Raw, seam, Path::line(hem.end(), top)}};
  p.symmetry = Symmetry::Pair;
  p.copies = 2;
  p.grainTop = top + Vec2{0, 0.3 * high};
  p.grainBottom = top + Vec2{0, 0.9 * high};
  const size_t place = pattern.pieces.size();
  pattern.pieces.push_back(std::move(p));
  const TrimStretch other = onPartner(on);
  layAlong(pattern, on, trim, {place, "sewn-2"}, {on.from, on.to}, {high, 0}, {0, ReachWay::Flat});
  layAlong(pattern, other, trim, {place, "sewn"}, {other.from, other.to}, {0, high}, {0, ReachWay::Flat});
  pattern.workings.push_back(
      {"trim." + trim.id(),
       msg("{}, high", trim.title()),
       {{'+', on.line.name, high, Source::Computed}},
       high,
       msg("{} wide at its hem, {:.0f} degrees; common practice", Length{wide}, angle * 180 / std::numbers::pi)});
  return std::nullopt;
}

}  // namespace armure
