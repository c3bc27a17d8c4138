// core/garment/trim_makers.h
//
// What makes each kind of trim, in one table, and all trims of an order sewn on to the finished shell.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "measure/estimate.h"
#include "pattern/pattern.h"
#include "result.h"
#include "rules/rules.h"

namespace armure {

// Adds the pieces of every trim that can be made, by name. What cannot is left out, and told by trimProblem(). For one
// half of a body whose sides are not alike they are cut apart at the centre.
void addTrims(Pattern& pattern, const Body& body, const Rules& rules, BodySide side);

// Why a trim cannot be sewn to this garment; nothing where it can.
std::optional<Problem> trimProblem(const Pattern& pattern, const TrimChoice& trim, const Body& body,
                                   const Rules& rules);

}  // namespace armure
