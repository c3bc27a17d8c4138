// core/parts/cups/cup_line.h
//
// Where the cup ends and the frame begins: the cup line on the two front pieces beside the princess seam, by the
// formulas in cut_cup.h.
#pragma once

#include <vector>

#include "draft/block.h"
#include "measure/estimate.h"
#include "operations/divide.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// The edge at the centre front that both cups are sewn together along, where they touch.
inline constexpr EdgeRole kBetweenCups = EdgeRole::Centre;

struct CupLine {
  std::vector<LineThrough> through;  // the centre front, then the side front; the cup on its left
  std::vector<Working> workings;
};

// Fails when the line leaves a piece where it should not, naming the rule that would bring it back.
Result<CupLine> cupLine(const Pattern& pattern, const Block& block, const Body& body, const Rules& rules);

}  // namespace armure
