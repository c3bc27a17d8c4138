// io/pieces_json.h
//
// The pieces for other programs: `armure-pieces` JSON, version 1 (docs/format/pieces.md). Millimetres, y down; edges as
// polylines within 0.005 mm and as exact Bezier curves.
#pragma once

#include <string>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

std::string piecesJson(const Order& order, const Design& design);

}  // namespace armure
