// core/parts/inserts/inserts.h
//
// Sheer inserts: a strip beside the centre front or a wedge on its fold, the outer part of a covered shoulder. Each is
// a piece of another cloth divided off along a line (pieces/divide.h); it stays part of the outermost layer, since its
// width belongs to the girths.
#pragma once

#include <optional>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Divides off the inserts the rules ask for. Fails where a piece has no room for one, naming it.
std::optional<Problem> setInserts(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
