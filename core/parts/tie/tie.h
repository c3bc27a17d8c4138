// core/parts/tie/tie.h
//
// Ties and belts: a strip twice as wide as it finishes, folded lengthwise, its free end straight, curved or pointed.
//
//   tie    long as set, one on either side      belt    closed waist + long, once
//
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Caught where its stretch begins. Fails for a belt on a garment without a waist.
std::optional<Problem> addTie(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                              const Rules& rules);

}  // namespace armure
