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

// A base of pieces read from a drawing (tracing/naming.h), closed to `opening` mm; `made` is what it measures as made,
// and has to hold what every draft needs (bust, waist, ...). Fails where it does not.
Result<BasePattern> baseFromDrawing(Pattern shell, double opening, const MeasureSet& made, std::string name,
                                    std::string date);

// Whether a choice shapes pieces that are drafted, and does nothing to those read from a drawing: lines, cups, intakes;
// not what closes them, nor balancing, layers, bones, paper.
bool isDraftChoice(std::string_view key);
// Of an order whose pieces were read from a drawing: what `next` asks for that `now` did not, and that cannot count.
std::optional<Problem> withoutEffect(const Order& now, const Order& next);

// An order of the base's style and choices, recalculated for a client.
Order orderFromBase(const BasePattern& base, const MeasureSet& client);

}  // namespace armure
