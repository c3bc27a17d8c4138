// core/parts/pleats/pleats.h
//
// Pleats or tucks laid over a piece of the shell: the cloth as it is before pleating, so that pleated it is the piece.
//
//   flat width = the piece's with allowances + count * 2 * depth
//
// Its outline is that of the piece with allowances, unfolded (geometry/unfold.h): at every pleat the edge goes back and
// forth as it lies under. So its own edges have none beyond. Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Adds it, with both lines of each pleat notched. Fails where the garment has no such piece, or the pleats lie over
// each other or over an edge.
std::optional<Problem> addPleats(Pattern& pattern, const TrimChoice& trim, const Rules& rules);

}  // namespace armure
