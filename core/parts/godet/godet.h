// core/parts/godet/godet.h
//
// A godet: a wedge of a circle let into a seam from a place on it down to the hem. Its radius is the length of the
// seam that is left open for it, its hem an arc:
//
//   angle = width at the hem / height
//
// Common practice, no source; length of an arc.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds one for either side of the body. Fails on a line that is no seam down to the hem, or where it would be more than
// a whole circle.
std::optional<Problem> addGodet(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                const Rules& rules);

}  // namespace armure
