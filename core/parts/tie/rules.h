// core/parts/tie/rules.h
//
// What can be chosen of ties and belts: folded strips caught at one place. Rows of the table of trims (rules/trims.h).
// Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "parts/straps/rules.h"
#include "rules/rule_row.h"

namespace armure::tie {

enum class TieIs { Tie, Belt };
inline constexpr std::array kTies{
    row::of(TieIs::Tie, "ties", "ties", "one on either side, caught at its place"),
    row::of(TieIs::Belt, "belt", "a belt", "round the closed waist, and on by its length; held in carriers"),
};

inline constexpr OptionKey<TieIs> kWhat{"what"};
inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kWide{"wide"};
inline constexpr OptionKey<StrapEnd> kEnd{"end"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::option(kWhat, "Lines", "Tie", "What", kTies, "what it is"),
    row::length(kLong, "Lines", "Tie", "Long", 24, 2, 90, "of a tie; of a belt, beyond the waist"),
    row::length(kWide, "Lines", "Tie", "Wide", 1, 0.25, 12, "finished, folded lengthwise"),
    row::option(kEnd, "Lines", "Tie", "End", kStrapEnds, "its free end"),
    row::length(kSeam, "Lines", "Tie", "Seam allowance", 0.375, 0.125, 1, "all round"),
};

}  // namespace armure::tie
