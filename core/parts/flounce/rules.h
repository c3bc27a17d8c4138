// core/parts/flounce/rules.h
//
// What can be chosen of a flounce: a ring, or parts of one, whose inner edge is sewn on without fullness and whose
// outer edge falls in folds. Rows of the table of trims (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::flounce {

enum class RingCut { Rings, Halves, Spiral };
inline constexpr std::array kCut{
    row::of(RingCut::Rings, "rings", "in rings", "as few pieces as there are turns, each slit open"),
    row::of(RingCut::Halves, "halves", "in half rings", "two to a turn: they lie closer on narrow cloth"),
    row::of(RingCut::Spiral, "spiral", "in a spiral", "without joins, where the cloth is too narrow for a ring"),
};

inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kGrows{"grows"};
inline constexpr NumberKey kTurns{"turns"};
inline constexpr OptionKey<RingCut> kCutIn{"cut"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr std::array kRows{
    row::length(kLong, "Lines", "Flounce", "Long", 8, 0.5, 48, "from the edge it is sewn to down to its own"),
    row::length(kGrows, "Lines", "Flounce", "Longer at its end by", 0, -30, 30,
                "where it grows along the edge, from its beginning to its end"),
    row::number(kTurns, "Lines", "Flounce", "Turns", 1, 0.1, 12,
                "1: one ring, its inner radius the edge / 2 pi; more turns fall in more folds"),
    row::option(kCutIn, "Lines", "Flounce", "Cut", kCut, "in how many pieces"),
    row::length(kSeam, "Lines", "Flounce", "Seam allowance", 0.5, 0, 2, "where it is sewn on, and where pieces join"),
    row::length(kHem, "Lines", "Flounce", "Hem allowance", 0.375, 0, 2, "narrow, for a curved edge"),
};

}  // namespace armure::flounce
