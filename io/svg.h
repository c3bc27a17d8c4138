// io/svg.h
//
// The pattern as SVG at true size: width and height in mm, a viewBox of the same numbers, so that one user unit is 1
// mm. One group per kind of line, each with an id: cut, sewn, fold, levels, notches, grain, labels, test-squares; in it
// one per piece with its name as a title: "front-1" among the cut lines, "sewn.front-1", "labels.front-1", ...
#pragma once

#include <string>
#include <vector>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

// All pieces where `pieces` is empty.
std::string patternSvg(const Order& order, const Design& design, const std::vector<size_t>& pieces = {});

}  // namespace armure
