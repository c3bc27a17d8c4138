// core/parts/collar/collar.h
//
// A collar along a neckline: a stretch of a cone laid flat, its sewn edge as long as the neckline, its free edge by so
// much shorter (a stand) or longer (one that is turned down). With half the neckline L, half the free edge U and its
// height h
//
//   angle = |L - U| / h     radius of the shorter edge = the shorter of both / angle
//
// A high one is a straight strip, as long as the neckline, that darts draw in above: each takes a part of what it is to
// be tighter by. A collar lies on the fold where the neckline runs on over a centre, and reaches beyond the opening by
// its overlap. It is cut twice, outer and under side. Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds both of its sides. Fails for a neckline without an opening, or an edge with nothing left.
std::optional<Problem> addCollar(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
