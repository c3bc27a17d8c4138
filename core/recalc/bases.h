// core/recalc/bases.h
//
// Keeping an order's pattern as a base, and making an order from a base for another client.
#pragma once

#include <string>

#include "order/order.h"
#include "result.h"

namespace armure {

// The order's pattern as a base. `made` is what was measured on it as made; where that is empty it measures what it
// was drafted for. A pattern that was itself recalculated is kept with its shifts, and measures the client they were
// for. Fails where the order cannot be drafted.
Result<BasePattern> keptAsBase(const Order& order, const MeasureSet& made, std::string name, std::string date);

// An order of the base's style and choices, recalculated for a client.
Order orderFromBase(const BasePattern& base, const MeasureSet& client);

}  // namespace armure
