// core/garment/line_handles.h
//
// The places at which a maker takes hold of a line: on the pieces, each for one rule, with the way along which its
// length grows. The window draws them on the taped figure and turns a drag into a choice.
#pragma once

#include <string>
#include <vector>

#include "pieces/pattern.h"
#include "rules/rules.h"

namespace armure {

struct LineHandle {
  std::string key;        // of the rule: "top.plunge"
  size_t piece = 0;       // index
  Vec2 at;                // in the axes of the piece
  Vec2 axis;              // of length 1, there: one mm along it makes the rule one mm longer
  double mm = 0;          // the rule now
  double sharePerMm = 0;  // of a rule that is a share: how much of it one mm makes; 0 for a length
};

// Those of the stage ("Lines" or "Cups") whose rules count for this order and whose places are on the pieces.
std::vector<LineHandle> lineHandles(const Pattern& pattern, const Rules& rules, std::string_view stage);

}  // namespace armure
