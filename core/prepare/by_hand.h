// core/prepare/by_hand.h
//
// The block as a maker draws it on plain paper with ruler, square and curve: how large the paper must be, the level
// lines, what is marked on each of them from the centre, and every line of the block through its marks. Nothing else is
// needed to draw it; a test draws it again from the printed numbers alone and compares.
//
// Marks lie on a line so close that a straight stroke from each to the next stays within kStroke of it; figures are
// rounded to 1/16 in, or to the millimetre.
#pragma once

#include <string>
#include <vector>

#include "draft/block.h"
#include "prepare/document.h"
#include "units/length.h"

namespace armure {

inline constexpr double kHandStroke = 0.35;  // mm

// A line of the block as it is drawn: marks from its upper end, `out` from the centre and `down` from the shoulder
// line.
struct HandMark {
  double out = 0, down = 0;  // mm
};
struct HandLine {
  std::string id;  // "front.princess.centre"
  Message name;    // "Princess line, the edge towards the centre"
  std::vector<HandMark> marks;
};
// Every line of one half, in the order of drawing.
std::vector<HandLine> handLines(const Block& block, bool front);

// How large the paper must be for a half, with a hand's breadth round it.
struct PaperNeeded {
  double wide = 0, high = 0;  // mm
};
PaperNeeded paperNeeded(const std::vector<HandLine>& lines);

// The units the sheet is written in: the maker's, inches in sixteenths, centimetres to the millimetre.
LengthFormat handUnits(LengthFormat units);

Document byHandSheet(const Block& block, std::vector<Message> facts);

}  // namespace armure
