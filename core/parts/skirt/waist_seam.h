// core/parts/skirt/waist_seam.h
//
// A seam at the waist that parts bodice and skirt, level or with its point below the waist at the centre front; and the
// end of a garment at the waist or above it, which is the same cut with nothing kept below.
#pragma once

#include <optional>

#include "draft/block.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Parts the panels at the waist: bodice pieces keep their ids, skirt pieces come behind them.
std::optional<Problem> cutWaist(Pattern& pattern, const Block& block, const Rules& rules);

}  // namespace armure
