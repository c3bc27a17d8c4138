#include "prepare/paper.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace armure {
namespace {

int tilesAlong(double length, double step) {
  return std::max(1, static_cast<int>(std::ceil((length - kTileOverlap) / step - 1e-9)));
}

constexpr double kNothing = 1e-3;  // mm^2

// "A", ..., "Z", "AA", ...
std::string rowName(int row) {
  std::string name;
  for (int n = row; n >= 0; n = n / 26 - 1) name.insert(name.begin(), static_cast<char>('A' + n % 26));
  return name;
}

}  // namespace

std::span<const PaperSize> paperTable() {
  return std::span(kPaperTable).subspan(1, kPaperTable.size() - 2);  // between the full size and the roll
}

const PaperSize* findPaper(std::string_view id) {
  for (const PaperSize& p : paperTable())
    if (p.id == id) return &p;
  return nullptr;
}

Tiling tile(const PaperLayout& layout, const PaperSize& paper) {
  const double width = paper.width - 2 * kTileMargin, height = paper.height - 2 * kTileMargin;
  const double stepX = width - kTileOverlap, stepY = height - kTileOverlap;
  Tiling tiling{tilesAlong(layout.height, stepY), tilesAlong(layout.width, stepX), {}};
  for (int r = 0; r < tiling.rows; ++r) {
    for (int c = 0; c < tiling.columns; ++c) {
      const Vec2 low{c * stepX, r * stepY};
      const Box area{low, low + Vec2{width, height}};
      // Each strip that two of them print belongs to one by halves.
      const Box own{{c > 0 ? low.x + kTileOverlap / 2 : low.x, r > 0 ? low.y + kTileOverlap / 2 : low.y},
                    {c + 1 < tiling.columns ? area.high.x - kTileOverlap / 2 : area.high.x,
                     r + 1 < tiling.rows ? area.high.y - kTileOverlap / 2 : area.high.y}};
      bool used = false;
      for (size_t i = 0; i < layout.outlines.size() && !used; ++i)
        used = layout.boxes[i].meets(own) && sharedArea(layout.outlines[i], ringOf(own)) > kNothing;
      if (used) tiling.tiles.push_back({r, c, rowName(r) + std::to_string(c + 1), area});
    }
  }
  return tiling;
}

}  // namespace armure
