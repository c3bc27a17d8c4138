// io/svg.h
//
// The pattern as SVG at true size: width and height in mm, a viewBox of the same numbers, so that one user unit is 1
// mm. One group per kind of line, each with an id: cut, sewn, fold, levels, notches, grain, labels, test-squares.
#pragma once

#include <string>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

std::string patternSvg(const Order& order, const Design& design);

}  // namespace armure
