// core/balance/balanced_whole.h
//
// What balancing did to the left half and to the right one, told of the whole garment (operations/both_sides.h).
#pragma once

#include "balance/balance.h"

namespace armure {

// `whole` is what both patterns came to be together. The larger of every figure; without an end to start from.
Balanced balancedWhole(const Balanced& left, const Balanced& right, Pattern whole);

}  // namespace armure
