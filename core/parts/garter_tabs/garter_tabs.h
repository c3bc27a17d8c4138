// core/parts/garter_tabs/garter_tabs.h
//
// Tabs for garters: strips folded lengthwise, laid double through a ring, both ends caught in the lower edge.
//
//   cut 2 * width by 2 * length, one for each place
//
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Marks their places on the edge. Fails where they would touch.
std::optional<Problem> addGarterTabs(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim,
                                     const Body& body, const Rules& rules);

}  // namespace armure
