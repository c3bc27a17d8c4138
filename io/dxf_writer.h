// io/dxf_writer.h
//
// The pattern as DXF, release 12 in ASCII, true size in millimetres, y up: one block a piece, inserted where it lies
// apart from the others. Layers by their numbers as ASTM D6673 (data exchange format for sewn product patterns) has
// them, where it has one: 1 the line to cut, 4 notches, 7 the grain, 8 inner lines, 13 drill holes, 14 the line to sew,
// 15 what is written. Numbers are from memory.
//
// A piece's block says in its texts what the standard asks for: "Piece Name:", "Quantity:", "Material:", "Size:", ...
#pragma once

#include <string>
#include <vector>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

// All pieces where `pieces` is empty.
std::string patternDxf(const Order& order, const Design& design, const std::vector<size_t>& pieces = {});

}  // namespace armure
