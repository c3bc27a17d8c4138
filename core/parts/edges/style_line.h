// core/parts/edges/style_line.h
//
// Top edge and hem as lines over the closed figure: at each boundary (centre front, front lines, side, back lines,
// centre back) how deep the line stands and how it runs. Cutting (pieces/cutting.h) carries them to the pieces.
#pragma once

#include <vector>

#include "draft/block.h"

namespace armure {

// Where the pieces meet, counted from centre front (0) round to centre back: the front lines, the side, the back lines.
struct Boundaries {
  size_t frontLines = 1, backLines = 1;

  explicit Boundaries(const Block& block) : frontLines(block.front.lines.size()), backLines(block.back.lines.size()) {}
  size_t count() const { return frontLines + backLines + 3; }
  size_t side() const { return frontLines + 1; }
  size_t centreBack() const { return count() - 1; }
  bool onBack(size_t boundary) const { return boundary > side(); }
  bool isLine(size_t boundary) const { return boundary != 0 && boundary != side() && boundary != centreBack(); }
  // The place in HalfBlock::lines of a boundary that is a line.
  size_t line(size_t boundary) const { return onBack(boundary) ? centreBack() - 1 - boundary : boundary - 1; }
};

struct StyleLine {
  // Depth below the shoulder line at each boundary, mm: on the front up to the side, on the back from there on. The
  // side stands in both, so it has two depths.
  std::vector<double> depth;
  double sideDepthOnBack = 0;
  // dy/dx as one goes round from centre front to centre back; 0 is level.
  std::vector<double> slope;
  // A plunge: from the centre front up to a point beside it, in the front half's axes, joined smoothly there by the way
  // to the first line. Empty where the line runs from boundary to boundary.
  Path plunge = {};
};

// Whether the front's upper edge is a plunge, and how far from the centre it stands at a depth above its lowest point;
// mm, nothing below it.
bool hasPlunge(const Rules& rules);

// Top edge: straight, sweetheart (dips at the centre front, crests over the princess line) or a plunge in a V or a U
// (from below the underbust up beside the centre front to the crest); easing down to the side. Behind, by "back.shape":
//   straight   level with the side
//   slope      straight down to the centre back, where it arrives level so that both halves make one line
//   scoop      in a quarter of an ellipse, level at the centre back
//   v          straight to a point at the centre back
StyleLine topEdge(const Block& block, const Rules& rules);

// Hem: straight, or raised at the side, the same on front and back, level at the centres and the side; the centre back
// raised or let down by its own.
StyleLine hemLine(const Block& block, const Rules& rules);

// Where the garment ends: the hem, or the waist, level or with its point.
StyleLine endLine(const Block& block, const Rules& rules);

}  // namespace armure
