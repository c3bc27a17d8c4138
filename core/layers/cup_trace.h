// core/layers/cup_trace.h
//
// What lies inside the cup: pads and linings, traced from the panels as they were cut, from the underbust up to the
// upper edge, along the cup line; whatever the cup itself is made of. Their cup line is raw: only cut, and caught in
// the shell's. A pad never runs over the shoulder: where the panels do, it ends level with the top edge, at the side 2
// in above the chest line (common practice, no source).
#pragma once

#include "layers/recipe.h"

namespace armure {

// Both pieces with the seam between them, not yet fitted. Fails when the cup line does not find its place.
Result<Layer> traceCup(const Pattern& shell, const LayerRecipe& recipe, const LayerSources& sources, const Block& block,
                       const Rules& rules);

}  // namespace armure
