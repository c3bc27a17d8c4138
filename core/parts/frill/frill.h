// core/parts/frill/frill.h
//
// A frill: a strip that is longer than the edge it is sewn to and gathered or pleated to its length.
//
//   gathered          strip = full * edge
//   knife pleats      strip = edge + count * 2 * depth            each lies under by its depth
//   box pleats        strip = edge + count * 4 * depth
//
// It is cut in as many equal lengths as the cloth's width needs. Where pleats go by fullness their depth follows.
// Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds the strip, behind all other pieces. Fails where box pleats would lie over each other.
std::optional<Problem> addFrill(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                const Rules& rules);

}  // namespace armure
