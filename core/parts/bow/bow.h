// core/parts/bow/bow.h
//
// A bow: a strip that is folded and joined to a ring and drawn in by a knot, with tails that hang or without.
//
//   ring   2 * wide long, 2 * high deep      knot   2 * high / 3 long, 2 * its width deep
//   tails  both in one strip over the knot, 2 * high / 2 deep
//
// Everything is cut double and folded lengthwise. Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// At the beginning of its stretch: once where that lies on a centre the line runs over, else on either side.
std::optional<Problem> addBow(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                              const Rules& rules);

}  // namespace armure
