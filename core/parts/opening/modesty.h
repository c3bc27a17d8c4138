// core/parts/opening/modesty.h
//
// The modesty panel: what lies behind a lacing gap. As wide as the gap at every height and the overlap besides, as long
// as the edge of the opening; cut on the fold at its middle. It is a layer of its own, under the shell.
#pragma once

#include "pattern/pattern.h"

namespace armure {

// Adds a panel for each laced opening when the rule "modesty.kind" asks for it. The pieces of the shell are there.
void addModestyPanels(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
