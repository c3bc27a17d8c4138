// core/cups/inside.h
//
// What lies inside the cup: pads and linings, traced from the panels as they were cut, from the underbust up to the
// upper edge, along the cup line; whatever the cup itself is made of. They are layers of their own, behind all others;
// which lines of theirs lie on which edges of the shell stands in Pattern::layerLines, and balancing keeps them as
// long. Their cup line is raw: only cut, and caught in the shell's. A pad never runs over the shoulder: where the
// panels do, it ends level with the top edge, at the side 2 in above the chest line (common practice, no source).
#pragma once

#include <optional>

#include "draft/block.h"
#include "pieces/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Adds the pieces the rules ask for, traced from `panels`: the pattern before cups were set in. A pad has no allowance,
// its edges butt. Fails when the cup line does not find its place.
std::optional<Problem> addInside(Pattern& pattern, const Pattern& panels, const Block& block, const Rules& rules);

}  // namespace armure
