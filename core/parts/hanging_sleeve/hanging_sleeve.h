// core/parts/hanging_sleeve/hanging_sleeve.h
//
// A sleeve that hangs from part of the armhole and stands off the arm: a rectangle, folded at its lower edge so that it
// is double, stiffened, boned at both sides, and pleated to the armhole.
//
//   cut wide = full * (stretch - what is left free at its end) + turning
//   cut long = 2 * finished, on the fold: half the upper arm, or as set
//
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds the pair, its stiffening and its bones. Fails for a line that runs on to the other side of the body, or where
// nothing is left to hang it from.
std::optional<Problem> addHangingSleeve(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim,
                                        const Body& body, const Rules& rules);

}  // namespace armure
