#include "parts/loops/loops.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "parts/loops/rules.h"
#include "parts/trims/strip.h"

namespace armure {

std::optional<Problem> addLoops(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                const Rules& rules) {
  const double thick = trim.length(loops::kThick), seam = trim.length(loops::kSeam), each = trim.length(loops::kLong);
  const auto asked = static_cast<int>(std::lround(trim.number(loops::kCount)));
  const int count =
      asked > 0 ? asked : std::max(1, static_cast<int>(stretch.half() / trim.length(loops::kApart) + 1e-9));
  const double apart = stretch.half() / count;
  if (apart < 2 * thick)
    return Problem{trim.title(), msg("{} of them along {} would touch", count, Length{stretch.half()}),
                   "take fewer, or a narrower tube"};
  const int all = 2 * count;  // on either side of the body
  const double tube = all * each, deep = 2 * thick;
  const StripPlan plan = planStrip(
      {.covers = tube, .longest = longestStrip(trimClothWidth(trim, rules), strip::Grain::Bias, deep + 2 * seam, 0)});
  Piece piece = stripPiece(pattern, trim, plan,
                           {.deep = deep, .seam = seam, .caught = true, .ends = 0, .grain = strip::Grain::Bias});
  piece.copies = plan.lengths;
  piece.name = msg("{}, tube", trim.title());
  const PieceEdge attached{pattern.pieces.size(), "sewn"};
  pattern.pieces.push_back(std::move(piece));
  for (int k = 0; k < count; ++k)
    placeOn(pattern, about(stretch, stretch.from + (k + 0.5) * apart, 2 * thick), trim, attached);
  pattern.workings.push_back({"trim." + trim.id(),
                              msg("{}, their tube", trim.title()),
                              {{'+', msg("{} loops of {}", all, Length{each}), tube, Source::Computed}},
                              tube,
                              msg("{} on either side, {} apart; cut on the bias, {} wide; common practice", count,
                                  Length{apart}, Length{deep + 2 * seam})});
  return std::nullopt;
}

}  // namespace armure
