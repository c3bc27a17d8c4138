// core/parts/band/off_shoulder.h
//
// The band of an off-shoulder edge: round both arms at the top, sewn to the upper edge of front and back, free over the
// arms.
//
// Half of it is a stretch of a ring (a cone laid flat), with its upper edge U, its lower edge L and its depth h:
//   U = half the round-shoulder girth - half of what it is held in by
//   L = upper edge of the front + half the upper arm + upper edge of the back
//   angle = (L - U) / h,  inner radius = U / angle
// common practice, no source.
#pragma once

#include <optional>

#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Adds the band, after all other pieces, and sews it on. Fails where the band would have to be wider above than below
// by more than it is deep.
std::optional<Problem> addShoulderBand(Pattern& pattern, const Body& body, const Rules& rules);

}  // namespace armure
