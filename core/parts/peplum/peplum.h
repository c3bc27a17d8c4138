// core/parts/peplum/peplum.h
//
// A peplum, a tail or a train: a skirt of its own sewn to the hem, in a front and a back piece on either side that meet
// below the side seam. Each is part of a ring laid flat, its inner edge as long as the hem it is sewn to:
//
//   angle = flare / mean length      radius = sewn edge / angle
//
// Its length runs from one end of a piece to the other as 3t^2 - 2t^3, so that hems meet without a corner. Common
// practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds its pieces, on the fold where the hem runs on over a centre. Fails where a piece would be more than a whole
// ring.
std::optional<Problem> addPeplum(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
