// core/parts/straps/straps.h
//
// Shoulder straps: pieces of their own, as long as the way over the shoulder from the front's upper edge to the back's.
//
//   length = crest of the front edge to the middle of the shoulder + from there to the back edge at the first back line
//            + something to adjust by
// both straight on the block, over-bust intake closed (it lies beside the strap); common practice.
#pragma once

#include "draft/block.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// Adds the strap the rules ask for, to the right of all other pieces; nothing for a strapless edge. A straight strap is
// cut twice as wide as it finishes and folded lengthwise; a shaped one is cut double, wide in front and narrowing.
void addStraps(Pattern& pattern, const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
