// core/alter/shift_table.h
//
// Recalculating a base pattern for a client: the table of shifts as makers keep it. All differences are client -
// pattern, of a half garment, mm, + lets out. Common practice, no source; in this order:
//
//   1. centre      e0 = (span - span') / 2, at the fold, on every level; it changes every girth by 2 e0
//   2. front side  f  = (arc - (arc' + 2 e0)) / 2 at bust and underbust; above the bust as there, below the underbust
//   as
//                  there, to keep the beauty of the side's curve
//   3. back side   b  = (girth - (girth' + 2 e0 + 2 f)) / 2, of every level by itself
//   4. both sides  T  = (girth - (girth' + 2 e0)) / 2 is to be x + y, and x - y what it is on the level above, so that
//                  both edges change by the same shape: x = (T + A - B) / 2, y = (T - A + B) / 2
//   5. lines       where seams of the back or a further one of the front can take it, the side keeps f and one value of
//                  b, that of the first level solved, and the rest of T goes to them (rest_shares.h)
//   6. lengths     cup radii and side length: client - pattern, along that direction
// (the dash is the pattern's). Without front arcs of both, front and back side share alike: f = b.
//
//   const ShiftTable t = shiftTable(measuredOn(clientBody), measuredOn(baseBody), {.from = SolvedFrom::Waist});
//   t.row("waist")->x.mm
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "measure/estimate.h"
#include "message.h"
#include "order/base.h"
#include "working.h"

namespace armure {

// What the table compares, by id of the measure, mm.
struct Measured {
  double mm = 0;
  Source source = Source::Taken;
};
using MeasuredAt = std::map<std::string, Measured, std::less<>>;

// One cell: its number and how it came.
struct ShiftCell {
  double mm = 0;
  bool byHand = false;  // the maker wrote over it
  Working working;
};

struct ShiftRow {
  std::string level;  // id: "waist"
  Message name;
  Measured client, pattern;                            // girths
  std::optional<Measured> clientArc, patternArc = {};  // over the front
  ShiftCell e0, f, b;
  ShiftCell x, y;       // what is used at the front and at the back side
  double rest = 0;      // of T, and goes to further lines
  bool solved = false;  // x and y by the two equations
};

// A length that is changed along its direction: "side_length", "cup_out".
struct LengthRow {
  std::string id;
  Message name;
  Measured client, pattern;
  ShiftCell shift;
};

// A line down the garment that takes part of the rest: how much of each row, both edges together, mm.
struct RestLine {
  Message name;                    // of its uppermost seam
  std::vector<std::string> seams;  // from the top down
  std::vector<double> takes;       // by row
};

struct ShiftTable {
  std::vector<ShiftRow> rows;  // from the top down
  std::vector<RestLine> lines = {};
  std::vector<LengthRow> lengths;
  Message why;  // of the level it is solved from, and of the lines
  bool toLines = false;

  const ShiftRow* row(std::string_view level) const;
  // The working of a cell: "shift.waist.x", "shift.e0"; nullptr where there is none.
  const Working* working(std::string_view key) const;
};

struct ShiftTableOptions {
  SolvedFrom from = SolvedFrom::Waist;
  bool toLines = false;  // whether there are lines that take the rest
  // What the maker wrote over cells, by "e0", "LEVEL.f", "LEVEL.b", "LEVEL.x", "LEVEL.y" or the id of a length.
  std::map<std::string, double, std::less<>> cells = {};
};

// Levels of which both have a girth; lengths both have.
ShiftTable shiftTable(const MeasuredAt& client, const MeasuredAt& pattern, const ShiftTableOptions& options = {});

// What a body measures, estimates marked.
MeasuredAt measuredOn(const Body& body);

// Whether a text names a cell of the table; "waist.x", not "waist.z".
bool isShiftCell(std::string_view cell);

}  // namespace armure
