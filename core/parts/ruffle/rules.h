// core/parts/ruffle/rules.h
//
// What can be chosen of a ruffle off the shoulders: in two halves that cross in front, free over the arms. Rows of the
// table of trims (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "parts/trims/rules.h"

namespace armure::ruffle {

inline constexpr LengthKey kCross{"cross"};
inline constexpr LengthKey kFreeFront{"free_front"};
inline constexpr LengthKey kFreeBack{"free_back"};
inline constexpr LengthKey kClear{"clear"};

inline constexpr std::array kRows{
    row::number(strip::kFull, "Lines", "Ruffle", "Full", 3, 1, 6, "so many times the way round both arms"),
    row::length(strip::kDeep, "Lines", "Ruffle", "Deep", 10, 2, 30, "finished, over chest and arms"),
    row::length(kCross, "Lines", "Ruffle", "Crosses by", 0.5, 0, 6,
                "each half beyond the centre front: both cross in a V, its finished girth is twice that longer"),
    row::length(kFreeFront, "Lines", "Ruffle", "Leaves the edge in front", 1.5, 0, 8,
                "so far before the side it is free, over the arm"),
    row::length(kFreeBack, "Lines", "Ruffle", "Meets it again behind", 1.5, 0, 8, "so far beyond the side"),
    row::length(kClear, "Lines", "Ruffle", "Clear of the opening", 0.25, 0, 2, "so that a zip is not caught"),
    row::beginningWith(strip::Drawn::Knife, row::option(strip::kHow, "Lines", "Ruffle", "How", strip::kDrawn,
                                                        "how its fullness is taken up")),
    strip::pleatRow("Ruffle"),
    strip::pleatsRow("Ruffle"),
    strip::lieRow("Ruffle"),
    row::beginningWith(strip::StripCut::Folded,
                       row::option(strip::kCutAs, "Lines", "Ruffle", "Cut", strip::kCut, "single, or double")),
    row::beginningWith(strip::Stiff::Both, row::option(strip::kStiffened, "Lines", "Ruffle", "Stiffened", strip::kStiff,
                                                       "so that it stands off the arms")),
    strip::grainRow("Ruffle"),
    row::length(strip::kSeam, "Lines", "Ruffle", "Seam allowance", 0.5, 0, 2,
                "where it is sewn on, and where strips join"),
    row::length(strip::kHem, "Lines", "Ruffle", "Hem allowance", 0.5, 0, 4, "at its ends and its free edge"),
};

}  // namespace armure::ruffle
