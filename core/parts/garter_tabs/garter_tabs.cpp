#include "parts/garter_tabs/garter_tabs.h"

#include <cmath>
#include <utility>

#include "parts/garter_tabs/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {

std::optional<Problem> addGarterTabs(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                     const Rules&) {
  const auto count = static_cast<int>(std::lround(trim.number(garter_tabs::kCount)));
  const double wide = trim.length(garter_tabs::kWide), hangs = trim.length(garter_tabs::kLong),
               seam = trim.length(garter_tabs::kSeam), apart = stretch.half() / count;
  if (apart < wide)
    return Problem{trim.title(), msg("{} of them do not go beside each other on {}", count, Length{stretch.half()}),
                   "take fewer, or narrower ones"};
  const Vec2 a = besideAll(pattern);
  Piece p = trimPiece(trim, 1, 1);
  p.edges = rectangle(a, 2 * wide, 2 * hangs, seam);
  p.symmetry = Symmetry::Pair;
  p.copies = 2 * count;
  grainDown(p, a, 2 * wide, 2 * hangs);
  const PieceEdge attached{pattern.pieces.size(), "sewn"};
  pattern.pieces.push_back(std::move(p));
  for (int k = 0; k < count; ++k) {
    const TrimStretch at = about(stretch, stretch.from + (k + 0.5) * apart, wide);
    layAlong(pattern, at, trim, attached, {at.from, at.to}, {0, 2 * wide}, {hangs, ReachWay::Down});
  }
  pattern.supplies.push_back({"garters", msg("Garter clips, {}", trim.title()), 2 * count, 0, "one for each tab"});
  pattern.workings.push_back(
      {"trim." + trim.id(),
       msg("{}, apart", trim.title()),
       {{'+', msg("{}, divided by {}", stretch.line.name, count), apart, Source::Computed}},
       apart,
       msg("{} on either side; cut {} by {}; common practice", count, Length{2 * wide}, Length{2 * hangs})});
  return std::nullopt;
}

}  // namespace armure
