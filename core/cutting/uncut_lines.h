// core/cutting/uncut_lines.h
//
// Lines of the plan that are not cut: panels the block was cut apart into become one piece again, and what the line
// takes in between them is a dart of it, or, in a skirt without darts, is taken in at the side.
//
//   back.lines = darts    back-1 and back-2, 25 mm apart at the waist, together above and below
//                         -> one back with a dart pointed at both ends
//   front.lines = darts   front-1 and front-2, together above the bust point
//                         -> one front with a dart open at the waist
#pragma once

#include <optional>

#include "draft/plan.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// For every section of the plan whose lines are darts or not there: bodices, skirts, and frames below a cup. The
// princess dart of a front ends below the bust point by what the bust is rounded over. The Problem names a line that
// takes something in at both its ends and so cannot lie in one piece.
std::optional<Problem> sewUncutLines(Pattern& pattern, const PanelPlan& plan, const Rules& rules);

}  // namespace armure
