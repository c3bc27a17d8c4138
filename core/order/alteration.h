// core/order/alteration.h
//
// An alteration as the order keeps it: which lines of the pattern are shifted, at which levels, by how much. What it
// does to the pieces is worked out by alter/alter.h.
//
//   // a quarter inch out of the side seam at the waist, running out at underbust and hip
//   Alteration a{.id = "1", .name = "Side taken in at the waist", .date = "2026-11-30"};
//   a.shifts = {{"side", ShiftSides::Both, ShiftWay::Across, {{"underbust", 0}, {"waist", -3.175}, {"hip", 0}}}};
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "body_side.h"

namespace armure {

// Across: along the level where the line crosses one (what a maker lays off on the level line with a ruler); square to
// the line on pieces that no level crosses. Along: down the piece, so that what lies below moves down.
enum class ShiftWay { Across, Along };

// Which side of a seam. Over: the line itself moves, what side a gains side b loses.
enum class ShiftSides { Both, A, B, Over };

// The shift at one place, mm, of each side by itself. Across: + lets out, - takes in. Along: + downwards. Between
// places it is monotone and smooth, above the first and below the last constant.
struct ShiftAt {
  // A level or notch; "top" or "hem", the upper and the lower end of the line; "bust~waist", half way between two.
  std::string place;
  double mm = 0;
  bool operator==(const ShiftAt&) const = default;
};
inline constexpr std::string_view kUpperEnd = "top", kLowerEnd = "hem";

struct Shift {
  std::string line;  // id of a seam (a dart's too); or PIECE.EDGE, of an edge in no seam; or kEveryLine
  ShiftSides sides = ShiftSides::Both;
  ShiftWay way = ShiftWay::Across;
  std::vector<ShiftAt> at = {};
  BodySide half = BodySide::Both;  // of the body that it is done to
  bool operator==(const Shift&) const = default;
};
// All lines that levels end on, and all darts: to lengthen or shorten the whole garment between two levels.
inline constexpr std::string_view kEveryLine = "every-line";

struct Alteration {
  std::string id;    // unique in the order
  std::string name;  // in the maker's words, or as the program proposed it
  std::string date = {};
  std::string why = {};
  bool on = true;
  std::string fitting = {};  // id of the fitting it came of, or empty
  std::vector<Shift> shifts = {};
  bool operator==(const Alteration&) const = default;
};

}  // namespace armure
