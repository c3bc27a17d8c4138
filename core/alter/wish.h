// core/alter/wish.h
//
// How a maker says a shift: at this line, between these levels, this much. From that to the amounts at every level.
//
//   shiftOf(pattern, {.line = "side", .from = "underbust", .to = "hip", .mm = -6})
//     -> both edges of the side seam 3 mm inwards at waist and high hip, running out at underbust and hip
#pragma once

#include <string>
#include <vector>

#include "order/alteration.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// Across: `mm` is let out (taken in where negative) of the whole seam, both edges together, at every level between; at
// the levels named it runs out, at "top" and "hem", the ends of the line, it does not. Between neighbours it is full
// half way; with one level as both, at that level, running out at its neighbours.
// Along: the line grows by `mm` between the two; what lies below moves down, above "top" up.
struct ShiftWish {
  std::string line;
  ShiftSides sides = ShiftSides::Both;
  ShiftWay way = ShiftWay::Across;
  std::string from, to;
  double mm = 0;
};

// Fails where the pattern has no such line, or the line does not cross a level named, saying which there are.
Result<Shift> shiftOf(const Pattern& pattern, const ShiftWish& wish);

// The places between two of a line's places where such a wish is full: those between; half way where there are none;
// the ends of the line where it is full there too; one place by itself.
std::vector<std::string> fullPlaces(const std::vector<std::string>& places, size_t from, size_t to, bool atUpperEnd,
                                    bool atLowerEnd);

// The levels a line crosses, from the top down, with "top" and "hem" as its ends; of kEveryLine those of the pattern.
std::vector<std::string> placesOn(const Pattern& pattern, const std::string& line);

// All lines that can be shifted: the shell's seams, then edges in no seam that levels end on, PIECE.EDGE.
std::vector<std::string> shiftableLines(const Pattern& pattern);
// Whether side a of a seam lies nearer the centre front than side b; true for other lines.
bool aIsForward(const Pattern& pattern, const std::string& line);
// What such a line is called: "Side seam"; "every line".
Message lineName(const Pattern& pattern, std::string_view line);

}  // namespace armure
