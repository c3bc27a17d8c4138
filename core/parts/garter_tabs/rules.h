// core/parts/garter_tabs/rules.h
//
// What can be chosen of tabs for garters at the lower edge. Rows of the table of trims (rules/trims.h). Lengths in
// inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::garter_tabs {

inline constexpr NumberKey kCount{"count"};
inline constexpr LengthKey kWide{"wide"};
inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::number(kCount, "Lines", "Garter tabs", "On each side", 2, 1, 6, "two or three, evenly between From and To"),
    row::length(kWide, "Lines", "Garter tabs", "Wide", 0.75, 0.25, 3, "finished; the garter's ring goes through"),
    row::length(kLong, "Lines", "Garter tabs", "Long", 1.5, 0.5, 6, "finished, hanging below the edge"),
    row::length(kSeam, "Lines", "Garter tabs", "Seam allowance", 0.375, 0.125, 1, "all round"),
};

}  // namespace armure::garter_tabs
