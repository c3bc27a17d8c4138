// core/prepare/sheets.h
//
// The pieces of a pattern laid on the sheets they are printed on, so that few are needed: side by side with the engine
// that lays them on cloth (laying/search.h), at every width of whole sheets, and the layout that touches fewest is
// taken. On paper a piece may lie in any of four ways: its grain is drawn on it.
//
//   const Sheets sheets = layOnSheets(design.pattern, design.cutOutlines, {.paper = "a4"});
//   for (const Tile& t : sheets.tiling.tiles) ... print t.area of sheets.layout ...
#pragma once

#include <string>
#include <vector>

#include "prepare/paper.h"
#include "result.h"

namespace armure {

// What is printed of a pattern, and on what.
struct PrintWishes {
  std::string paper = "full";       // id of kPaperTable
  double roll = kRollWidth;         // mm, of a roll
  std::vector<size_t> pieces = {};  // of Pattern::pieces; all where it is empty
  bool operator==(const PrintWishes&) const = default;
};

struct Sheets {
  PaperLayout layout;
  PaperSize paper;  // of one of them; no width: as large as the layout; of a roll as long as is needed
  Tiling tiling;    // one tile for what is not divided
};

// The same for the same pieces, on any machine. Throws std::invalid_argument for a paper that is not known.
Sheets layOnSheets(const Pattern& pattern, const std::vector<Polyline>& cutOutlines, const PrintWishes& wishes);

// The pieces of these ids ("front-1") and of these layers ("shell", "lining"), one cut again for a layer among them;
// an empty list is every one. The Problem names what the pattern lacks, and what it has.
Result<std::vector<size_t>> choosePieces(const Pattern& pattern, const std::vector<std::string>& ids,
                                         const std::vector<std::string>& layers);

}  // namespace armure
