// core/parts/yoke/keyhole.h
//
// Keyholes: a slit in the centre edge of what covers the shoulders, closed above by a button, hook or snap.
#pragma once

#include <optional>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Cuts the keyhole out of the centre edge of a covered half: a slit from below the neck to above the yoke's lower edge,
// widest in the middle, pointed at both ends; behind, what closes above it may lap over by a tab. Fails where there is
// no room for it.
std::optional<Problem> cutKeyhole(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
