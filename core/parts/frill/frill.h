// core/parts/frill/frill.h
//
// A frill: a strip that is longer than the edge it is sewn to and gathered or pleated to its length
// (parts/trims/strip.h says how long it is cut). Single or folded, with a heading or without. Common practice, no
// source.
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
