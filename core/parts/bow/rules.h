// core/parts/bow/rules.h
//
// What can be chosen of a bow. Rows of the table of trims (rules/trims.h). Lengths in inches. Common practice, no
// source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::bow {

inline constexpr LengthKey kWide{"wide"};
inline constexpr LengthKey kHigh{"high"};
inline constexpr LengthKey kKnot{"knot"};
inline constexpr LengthKey kTails{"tails"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::length(kWide, "Lines", "Bow", "Wide", 6, 1, 30, "finished, from loop to loop"),
    row::length(kHigh, "Lines", "Bow", "High", 3, 0.5, 15, "finished"),
    row::length(kKnot, "Lines", "Bow", "Knot, wide", 1, 0.25, 5, "finished"),
    row::length(kTails, "Lines", "Bow", "Tails", 0, 0, 60, "each, hanging; 0: without"),
    row::length(kSeam, "Lines", "Bow", "Seam allowance", 0.375, 0.125, 1, "all round"),
};

}  // namespace armure::bow
