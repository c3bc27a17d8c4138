// core/cutting/uncut_lines.h
//
// Lines of the plan that are not cut: panels the block was cut apart into become one piece again, and what the line
// takes in between them is a dart of it, or, in a skirt without darts, is taken in at the side.
//
//   back.lines = darts    back-1 and back-2, 25 mm apart at the waist, together above and below
//                         -> one back with a dart pointed at both ends
#pragma once

#include <optional>

#include "draft/plan.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// For every section of the plan whose lines are darts or not there: bodice backs, skirts, and frames below a cup. The
// Problem names a line
// that takes something in at both its ends and so cannot lie in one piece.
std::optional<Problem> sewUncutLines(Pattern& pattern, const PanelPlan& plan);

}  // namespace armure
