// core/style/style_line.h
//
// Top edge and hem as lines over the closed figure: at each boundary (centre front, princess, side, back line, centre
// back) how deep the line stands and how it runs. Cutting (pieces/cutting.h) carries them to the pieces.
#pragma once

#include <array>

#include "draft/block.h"

namespace armure {

// The five boundaries from centre front to centre back.
enum Boundary { kCentreFront, kPrincess, kSideSeam, kBackLine, kCentreBack, kBoundaries };

struct StyleLine {
  // Depth below the shoulder line, mm: on the front for the first three, on the back for the last three. The side
  // stands in both, so it has two depths.
  std::array<double, kBoundaries> depth{};
  double sideDepthOnBack = 0;
  // dy/dx as one goes round from centre front to centre back; 0 is level.
  std::array<double, kBoundaries> slope{};
};

// Top edge: straight, or sweetheart (dips at the centre front, crests over the princess line), easing down to the side
// and sloping to the centre back, where it arrives level so that both halves make one line.
StyleLine topEdge(const Block& block, const Rules& rules);

// Hem: straight, or raised at the side, the same on front and back, level at the centres and the side.
StyleLine hemLine(const Block& block, const Rules& rules);

}  // namespace armure
