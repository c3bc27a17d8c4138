// core/parts/godet/rules.h
//
// What can be chosen of a godet: a wedge let into the lower end of a seam. Rows of the table of trims (rules/trims.h).
// Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::godet {

inline constexpr LengthKey kHigh{"high"};
inline constexpr LengthKey kWide{"wide"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr std::array kRows{
    row::length(kHigh, "Lines", "Godet", "High", 10, 2, 40, "up the seam from the hem; counts until From is chosen"),
    row::length(kWide, "Lines", "Godet", "Wide at the hem", 10, 1, 60, "along its curved edge"),
    row::length(kSeam, "Lines", "Godet", "Seam allowance", 0.5, 0, 2, "at both sides"),
    row::length(kHem, "Lines", "Godet", "Hem allowance", 0.75, 0, 4, "as the hem beside it"),
};

}  // namespace armure::godet
