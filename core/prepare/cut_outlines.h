// core/prepare/cut_outlines.h
//
// The outline to cut of every piece: the sewn outline plus each edge's own allowance. Over the mouth of a dart it is
// roofed: the cloth of the dart, folded and pressed to one side (a level dart down, an upright one towards the centre),
// ends where the seam does. Common practice, no source.
#pragma once

#include <vector>

#include "pattern/pattern.h"
#include "rules/prepare_rules.h"

namespace armure {

// How a seam's allowance ends beside an edge that is finished (top, hem, armhole) or sewn later (cup line, yoke,
// opening) is the maker's choice (allowance.corners).
std::vector<Polyline> cutOutlines(const Pattern& pattern, Corners corners = Corners::Mitred);

}  // namespace armure
