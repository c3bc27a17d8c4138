// core/cutting/cutting.h
//
// From the block to the pieces: the side bust dart is closed, the half is cut along its panel lines, every seam is
// walked from its underbust notch, the longer side is trimmed at top and hem, and the top edge and hem are redrawn so
// that they cross each seam at the same length from the notch and without a kink.
#pragma once

#include "parts/edges/style_line.h"
#include "pattern/pattern.h"

namespace armure {

// Fails when a style line does not cross an edge it must cross, naming both.
Result<Pattern> cutPieces(const Block& block, const Rules& rules);

}  // namespace armure
