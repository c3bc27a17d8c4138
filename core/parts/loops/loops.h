// core/parts/loops/loops.h
//
// Loops along an edge, evenly: the bias tube they are cut from, and a mark where each is caught.
//
//   tube = count * length of each      cut wide = 2 * finished + 2 seams
//
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Fails where they would touch.
std::optional<Problem> addLoops(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                const Rules& rules);

}  // namespace armure
