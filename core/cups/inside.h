// core/cups/inside.h
//
// What lies inside the cup: pads and linings, traced from the panels as they were cut, from the underbust up to the
// upper edge, along the cup line; whatever the cup itself is made of. They are layers of their own, behind all others.
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
