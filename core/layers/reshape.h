// core/layers/reshape.h
//
// What a recipe can do to the pieces it copied from the shell: end them short of an edge, keep only a strip along one,
// join them where their edges lie flat on each other, lay them on the bias. Both pieces at a seam are treated alike, so
// a seam that fitted still fits.
//
//   if (auto problem = endShort(layer.pattern, EdgeRole::Hem, 20)) ...     // a lining 20 mm shorter than the shell
//   if (auto problem = keepStrip(layer.pattern, EdgeRole::Top, 50)) ...    // a facing 50 mm deep
//
// Invariants: the edges beside the line lose, or keep, exactly the amount along themselves; the new line has the shape
// of the old one, its ends moved and what lies between moved in proportion along it, and runs on across the seams that
// the old one did.
#pragma once

#include <optional>
#include <vector>

#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// Ends every piece `amount` mm before its edges of this role. Fails where an edge beside them is not that long.
std::optional<Problem> endShort(Pattern& pattern, EdgeRole role, double amount);

// Keeps of every piece the strip `depth` mm along its edges of this role; pieces without one go, with their seams. The
// inner edge of the strip is raw. A piece beside an opening that is narrower is kept whole.
std::optional<Problem> keepStrip(Pattern& pattern, EdgeRole role, double depth);

// Joins pieces whose edges lie flat on each other, nowhere further than kFlatSeam apart, and lays a straight centre
// seam on the fold. Returns the ids of the pieces that are other than they were.
inline constexpr double kFlatSeam = 1;  // mm: nobody cuts it
std::vector<std::string> joinWhereFlat(Pattern& pattern);

// Turns the grain by half a right angle.
void layOnBias(Piece& piece);

}  // namespace armure
