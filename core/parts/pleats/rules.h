// core/parts/pleats/rules.h
//
// What can be chosen of pleats and tucks laid over a panel or a cup. Rows of the table of trims (rules/trims.h).
// Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::pleats {

enum class Runs { Lengthwise, Crosswise };
inline constexpr std::array kRunning{
    row::of(Runs::Lengthwise, "lengthwise", "lengthwise", "folds run up and down"),
    row::of(Runs::Crosswise, "crosswise", "crosswise", "folds run round the body"),
};

enum class Lies { Back, Forth };
inline constexpr std::array kLying{
    row::of(Lies::Back, "outwards", "to the side, or down", "the folds' edges face the side seam, or the hem"),
    row::of(Lies::Forth, "inwards", "to the centre, or up", "they face the centre, or the upper edge"),
};

inline constexpr NumberKey kCount{"count"};
inline constexpr LengthKey kDeep{"deep"};
inline constexpr OptionKey<Runs> kRuns{"run"};
inline constexpr OptionKey<Lies> kLie{"lie"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::number(kCount, "Lines", "Pleats", "How many", 4, 1, 40, "evenly over the piece"),
    row::length(kDeep, "Lines", "Pleats", "Deep", 0.5, 0.0625, 4, "what each lies under; 1/8 in for tucks"),
    row::option(kRuns, "Lines", "Pleats", "Run", kRunning, "which way the folds go"),
    row::option(kLie, "Lines", "Pleats", "Laid", kLying, "which way they are pressed"),
    row::length(kSeam, "Lines", "Pleats", "Allowance", 0.75, 0, 3, "all round; trimmed once it is pleated and laid on"),
};

}  // namespace armure::pleats
