// core/parts/edging/edging.h
//
// What lies along an edge or in a seam as long as it is: bindings, bias facings and piping as strips cut on the bias,
// in as many lengths as the cloth needs; lace, braid and ribbon as what is bought.
//
//   cut wide    binding 4 * finished      facing finished + 2 seams      piping pi * cord + 2 seams
//   in all      the edge, and at either end something to turn in; joins are in the strips' own allowances
//
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

std::optional<Problem> addEdging(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
