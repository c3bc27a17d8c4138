// core/parts/ruffle/ruffle.h
//
// A ruffle off the shoulders: pleated strips that go round both arms at the top, a half on either side of the body.
//
//   each half, finished = round-shoulder girth / 2 + what it crosses by in front
//                       = crossing + front edge + free over the arm + back edge
//   cut                 = full * round-shoulder girth / 2, in as many lengths as the cloth needs
//
// It is sewn to the upper edge in front and behind, leaves it before the side, is free over the arm, and ends clear of
// an opening. Where an opening is in front too nothing crosses. Common practice, no source.
#pragma once

#include <optional>

#include "measure/estimate.h"
#include "parts/trims/lines.h"
#include "rules/rules.h"

namespace armure {

// Adds the strips with their interfacing. Fails where the line does not go from front to back past a side seam, or the
// way round the arms leaves nothing for them.
std::optional<Problem> addRuffle(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules);

}  // namespace armure
