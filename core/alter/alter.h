// core/alter/alter.h
//
// Altering a pattern: edges are shifted, level by level, smoothly between, both sides of a seam by the same shape. What
// recalculating a base pattern and correcting after a fitting have in common.
//
//   const Result<Altered> altered = alter(shell, order.alterations);
//   const Balanced balanced = balance(altered->pattern, options);  // as always
//
// Every alteration is measured on the pattern as it was made, and all of them are added:
//   p' = p + sum over shifts of a(s) u(s)
// with a the amount, monotone and smooth between the places given (Fritsch and Butland, see geometry/spline.h), u the
// direction of the levels the line crosses, s the arc length on the line. So
//   - their order does not count, and an alteration and its opposite together are none at all;
//   - each level's line stays where it is, and its width changes by exactly what was asked for there;
//   - joints stay smooth, corners closed, marks at their place of the cloth;
//   - edges between two corners that move (top edge, hem, cup line) go with them, in proportion to their length.
// The girth a level is to finish at changes by the amounts asked for, not by what the pieces then measure.
#pragma once

#include <span>
#include <vector>

#include "order/alteration.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// A shift, or a place of one, this pattern has nothing for.
struct IdleShift {
  std::string alteration;  // id
  Message what;            // "there is no seam princess-2", "the side seam does not cross the hip"
  bool operator==(const IdleShift&) const = default;
};

struct Altered {
  Pattern pattern;
  std::vector<IdleShift> idle = {};
};

// Of those that are on, done to both halves of the body: what is for one of them is told apart before
// (alter/one_sided.h). Fails where a fold would bend. Throws nothing for what an order can contain.
Result<Altered> alter(const Pattern& source, std::span<const Alteration> alterations);

// The arc length on a seam's side, from its upper end, of a place of ShiftAt; nothing where it has none.
std::optional<double> placeOnLine(const Pattern& pattern, const SeamSide& side, std::string_view place);

// Whether a side ends above, or below, in a finished edge of the garment: its top edge, armhole or hem; not at a
// shoulder or at another piece.
bool endsFree(const Pattern& pattern, const SeamSide& side, bool atTop);

// A line of a pattern: a side of a seam, or one edge.
struct LineSide {
  SeamSide side;
  bool isA = true;
};
// The sides a shift moves; empty where the pattern has no such line.
std::vector<LineSide> linesOf(const Pattern& pattern, const Shift& shift);

// What all of them let out on every level, in the order of the pattern's, both halves, mm: what finishedGirth becomes
// more.
std::vector<double> letOut(const Pattern& source, std::span<const Alteration> alterations);

}  // namespace armure
