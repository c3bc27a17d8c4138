// core/parts/pocket/rules.h
//
// What can be chosen of a pocket in a seam. Rows of the table of trims (rules/trims.h). Lengths in inches. Common
// practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::pocket {

inline constexpr LengthKey kBelow{"below"};
inline constexpr LengthKey kOpening{"opening"};
inline constexpr LengthKey kDeep{"deep"};
inline constexpr LengthKey kHangs{"hangs"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::length(kBelow, "Lines", "Pocket", "Begins below the waist", 2, 0, 12,
                "or below the seam's upper end, where the seam has no waist; counts until From is chosen"),
    row::length(kOpening, "Lines", "Pocket", "Opening", 6.5, 3, 12, "for the hand; counts until To is chosen"),
    row::length(kDeep, "Lines", "Pocket", "Deep", 6, 2, 12, "from the seam inwards"),
    row::length(kHangs, "Lines", "Pocket", "Hangs", 5, 0, 14, "below its opening"),
    row::length(kSeam, "Lines", "Pocket", "Seam allowance", 0.5, 0.25, 2, "all round"),
};

}  // namespace armure::pocket
