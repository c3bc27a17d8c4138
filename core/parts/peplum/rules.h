// core/parts/peplum/rules.h
//
// What can be chosen of a peplum, a tail or a train: a skirt of its own along the hem, longer or shorter in front, at
// the side and behind. Rows of the table of trims (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::peplum {

inline constexpr LengthKey kFront{"front"};
inline constexpr LengthKey kSide{"side"};
inline constexpr LengthKey kBack{"back"};
inline constexpr LengthKey kFlare{"flare"};
inline constexpr NumberKey kPieces{"pieces"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr std::array kRows{
    row::length(kFront, "Lines", "Peplum", "Long in front", 6, 0.5, 60, "at the centre front, or where it begins"),
    row::length(kSide, "Lines", "Peplum", "Long at the side", 6, 0.5, 60, "between both it runs smoothly"),
    row::length(kBack, "Lines", "Peplum", "Long behind", 6, 0.5, 120,
                "at the centre back, or where it ends; longer for a tail, much longer for a train"),
    row::length(kFlare, "Lines", "Peplum", "Wider at its hem by", 4, 0, 80,
                "the front and the back on either side, each"),
    row::number(kPieces, "Lines", "Peplum", "Pieces", 1, 1, 12,
                "in which front and back on either side are cut, each: more where the cloth is narrow"),
    row::length(kSeam, "Lines", "Peplum", "Seam allowance", 0.5, 0, 2, "where it is sewn on, and at its own seams"),
    row::length(kHem, "Lines", "Peplum", "Hem allowance", 0.5, 0, 4, "at its free edges"),
};

}  // namespace armure::peplum
