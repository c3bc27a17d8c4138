// core/prepare/paper.h
//
// Paper: sheet sizes, and how a layout too large for one sheet is divided into tiles that are glued together.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "prepare/arrange.h"
#include "rules/paper_table.h"

namespace armure {

// The papers a layout is tiled on: sheets of a given size. nullptr for the one full-size sheet, for a roll, and for
// what is not known.
std::span<const PaperSize> paperTable();
const PaperSize* findPaper(std::string_view id);

// The squares printed on every pattern, so that the print can be checked with a rule.
inline constexpr double kTestSquareMm = 100;
inline constexpr double kTestSquareInchMm = 4 * 25.4;

// Tiles: every sheet keeps `kTileMargin` free for the printer; neighbours share a strip of `kTileOverlap` for the glue.
inline constexpr double kTileMargin = 10, kTileOverlap = 10;

struct Tile {
  int row = 0, column = 0;
  std::string name;  // "A1": row letter, column number
  Box area;          // the part of the layout printed inside the margins
};

struct Tiling {
  int rows = 0, columns = 0;
  std::vector<Tile> tiles;  // row by row; those without any part of a piece that no neighbour prints are left out
};

Tiling tile(const PaperLayout& layout, const PaperSize& paper);

}  // namespace armure
