// core/parts/cups/gathered.h
//
// The gathered cup: both lower pieces of a banded cup laid together at the band, slashed into strips, spread, and drawn
// as one piece whose surplus is gathered into the frame (and, spread straight, into the band).
//
// Laid with their upper ends together the two pieces leave the underbust intake open below the bust point; that gap is
// cloth now. Each slash runs upright. Straight, every strip is moved aside by the gap, so that both edges grow by it;
// fanned, it is turned about the upper end of the slash by 2 asin(gap / 2 length), so that the lower edge alone does:
//   lower edge = cup line + gap of the intake + slashes x gap
//   upper edge = band edge (+ slashes x gap)
// exactly; then both are drawn smooth, and what they are then is what is gathered.
//
// A gathered piece has no width of its own: what lies across a level is as wide as the frame lets it, so the width the
// flat pieces had counts with the openings of the level.
#pragma once

#include <optional>
#include <vector>

#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// One slash: where it meets the upper and the lower edge, as arc lengths along them.
struct Slash {
  double upper = 0, lower = 0;
};

struct SpreadPiece {
  Path upper, lower;  // exact, with straight stretches where cloth came in
};

// Spreads a piece between an upper edge that runs from left to right and a lower one that runs back, so that together
// they close. Slashes from left to right. The left part stays.
SpreadPiece slashAndSpread(const Path& upper, const Path& lower, const std::vector<Slash>& slashes, double gap,
                           bool fanned);

// Makes one gathered piece of "cup-inner" and "cup-outer" below their band. Fails when there is no room for a slash.
std::optional<Problem> gatherCup(Pattern& pattern, const Rules& rules);

}  // namespace armure
