// core/parts/pocket/pocket.h
//
// A pocket in a seam: a bag of two pieces on either side of the body, one sewn to each side of the seam along its
// opening. Its straight edge is as long as the opening; it widens inwards and hangs below. Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds the bag, cut four times. Fails on a line that is no seam, and where the seam is too short.
std::optional<Problem> addPocket(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
