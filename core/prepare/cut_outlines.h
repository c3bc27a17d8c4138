// core/prepare/cut_outlines.h
//
// The outline to cut of every piece: the sewn outline plus each edge's own allowance.
#pragma once

#include <vector>

#include "pieces/pattern.h"

namespace armure {

// Edges of the exports and prints are flattened to within this many mm.
inline constexpr double kExportTolerance = 0.005;

std::vector<Polyline> cutOutlines(const Pattern& pattern);

}  // namespace armure
