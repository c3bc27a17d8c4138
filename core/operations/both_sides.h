// core/operations/both_sides.h
//
// The whole garment of a body whose halves are not alike. A pattern stands for both halves as long as they are mirror
// images of each other; where a correction is for one side only, each half is made by itself, as a left half, and both
// are put together here: the pieces of the right half are turned over and lie on the left of the others, as seen from
// the outside.
//
//   Result<Pattern> whole = bothSides(left, right);
//
//   a pair              falls into a left and a right piece, each cut once: "front-2-left", "front-2-right"
//   a piece on a fold   is unfolded, its edges "top-left", "top-right"; its halves have to be as long at the fold
//   a seam              is there twice, with the same ending
//   a level             is the mean of what both halves finish at, and of their gaps
//   a centre seam       joins a left and a right piece now
// Pieces that are alike on both sides, and sewn to none that is not, stay as they are. What was chosen for a piece by
// its id is found by chosenAs (pattern.h).
#pragma once

#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// Whether two halves cut the same cloth, to a hundredth of a millimetre.
bool sameHalves(const Pattern& left, const Pattern& right);

// Both were made by the same steps: the same pieces, edges and seams in the same order. Fails where a piece on the fold
// is not as long there on both sides or has a keyhole there, or a piece drawn whole would have to come apart, naming
// it. Throws std::invalid_argument where they are different garments.
Result<Pattern> bothSides(const Pattern& left, const Pattern& right);

// Where an edge of a half, the left or the right, is in the whole. Not of a fold, which is nowhere.
PieceEdge inWhole(const Pattern& whole, const Piece& ofHalf, std::string_view edge, BodySide side);
// And a seam, by its id.
const std::string& inWhole(const Pattern& whole, const Seam& ofHalf, BodySide side);

}  // namespace armure
