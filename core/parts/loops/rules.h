// core/parts/loops/rules.h
//
// What can be chosen of loops along an edge: of a narrow tube, for a lace or for buttons. Rows of the table of trims
// (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::loops {

inline constexpr LengthKey kApart{"apart"};
inline constexpr NumberKey kCount{"count"};
inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kThick{"thick"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::number(kCount, "Lines", "Loops", "How many", 0, 0, 99, "along the edge; 0: by how far they are apart"),
    row::length(kApart, "Lines", "Loops", "Apart", 0.75, 0.25, 6,
                "from middle to middle, where their number is not set"),
    row::length(kLong, "Lines", "Loops", "Tube for each", 2, 0.5, 8, "with what is caught in the seam"),
    row::length(kThick, "Lines", "Loops", "Tube, wide", 0.25, 0.0625, 1, "finished, turned"),
    row::length(kSeam, "Lines", "Loops", "Seam allowance", 0.25, 0.0625, 0.5, "of the tube"),
};

}  // namespace armure::loops
