// core/operations/join.h
//
// Closing a seam for good: two pieces become one, laid edge to edge. So an upper cup band is made after the over-bust
// intake is closed, a frame after the underbust intake is.
#pragma once

#include <string>
#include <vector>

#include "pattern/pattern.h"

namespace armure {

// A level that bends where two pieces were joined, and by how much it is longer than the straight line between its
// ends.
struct BentLevel {
  std::string level;
  double longer = 0;  // mm
};

// What closing a seam cost; mm. Nothing where both edges were the same line.
struct Joined {
  double gap = 0;                    // the most the two edges stood apart, laid on each other by their ends
  double shift = 0;                  // the most a corner was moved so that the outlines meet
  double turnRad = 0;                // the largest corner that was drawn smooth where the outlines meet
  std::vector<BentLevel> bent = {};  // by way of the middle between both edges, as they lie
};

// Lays side b's piece on side a's so that the ends of the seam fall together, and makes them one piece, in the place of
// side a's, with its id. Edges that run on across the seam are drawn smooth there; top edges, hems and necks become one
// edge. A level that crossed both pieces crosses the new one, straight. `pattern` keeps every other seam. Throws
// std::out_of_range when there is no such seam, std::invalid_argument when both its sides are of one piece.
Joined joinPieces(Pattern& pattern, std::string_view seam, const Message& name);

// Makes one seam of two that follow each other on the same two pieces, as they do once pieces have been joined. Where
// they met there is a notch, `notch`.
void uniteSeams(Pattern& pattern, const std::string& notch);

}  // namespace armure
