// core/parts/frill/rules.h
//
// What can be chosen of a frill: a strip gathered or pleated to the edge it is sewn to. Rows of the table of trims
// (rules/trims.h). Lengths in inches, as makers think of them. Common practice, no source.
#pragma once

#include <array>

#include "parts/trims/rules.h"

namespace armure::frill {

inline constexpr LengthKey kHead{"head"};

inline constexpr std::array kRows{
    row::option(strip::kHow, "Lines", "Frill", "How", strip::kDrawn, "how its fullness is taken up"),
    row::number(strip::kFull, "Lines", "Frill", "Full", 2.5, 1, 6, "so many times the edge it is sewn to: 2 to 3"),
    row::length(strip::kDeep, "Lines", "Frill", "Deep", 3, 0.5, 48,
                "finished, from the line it is sewn along to its edge"),
    row::length(kHead, "Lines", "Frill", "Heading", 0, 0, 6, "above the line it is sewn along: two free edges"),
    row::option(strip::kCutAs, "Lines", "Frill", "Cut", strip::kCut, "single, or double and folded"),
    strip::pleatRow("Frill"),
    strip::pleatsRow("Frill"),
    strip::lieRow("Frill"),
    strip::grainRow("Frill"),
    row::option(strip::kStiffened, "Lines", "Frill", "Stiffened", strip::kStiff, "so that it stands"),
    row::length(strip::kSeam, "Lines", "Frill", "Seam allowance", 0.5, 0, 2,
                "where it is sewn on, and where strips join"),
    row::length(strip::kHem, "Lines", "Frill", "Hem allowance", 0.5, 0, 4, "at its free edges"),
};

}  // namespace armure::frill
