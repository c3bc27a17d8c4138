// core/prepare/cut_outlines.h
//
// The outline to cut of every piece: the sewn outline plus each edge's own allowance. Over the mouth of a dart it is
// roofed: the cloth of the dart, folded and pressed to one side (a level dart down, an upright one towards the centre),
// ends where the seam does. Common practice, no source.
#pragma once

#include <vector>

#include "pieces/pattern.h"

namespace armure {

// Edges of the exports are flattened to within this many mm; outlines to cut, which are remade with every change, a
// little more coarsely.
inline constexpr double kExportTolerance = 0.005, kOutlineTolerance = 0.02;

std::vector<Polyline> cutOutlines(const Pattern& pattern);

}  // namespace armure
