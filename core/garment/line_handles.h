// core/garment/line_handles.h
//
// All handles of a garment's lines, part by part.
#pragma once

#include <string_view>
#include <vector>

#include "pattern/handles.h"

namespace armure {

// Those of the stage ("Lines", "Cups" or "Prepare") whose rules count for this order and whose places are on the
// pieces.
std::vector<LineHandle> lineHandles(const Pattern& pattern, const Rules& rules, std::string_view stage);

}  // namespace armure
