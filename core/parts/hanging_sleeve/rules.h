// core/parts/hanging_sleeve/rules.h
//
// What can be chosen of a sleeve that hangs stiff from part of the armhole, over the outer arm. Rows of the table of
// trims (rules/trims.h). Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "parts/trims/rules.h"

namespace armure::hanging_sleeve {

enum class HangsTo { Arm, Length };
inline constexpr std::array kHangsTo{
    row::of(HangsTo::Arm, "arm", "over the outer arm", "half the upper arm, as it was measured"),
    row::of(HangsTo::Length, "length", "a length", "as long as is set"),
};

inline constexpr OptionKey<HangsTo> kReach{"reach"};
inline constexpr LengthKey kLong{"long"};
inline constexpr LengthKey kFree{"free"};
inline constexpr LengthKey kTurning{"turning"};
inline constexpr NumberKey kPlies{"plies"};
inline constexpr NumberKey kBones{"bones"};

inline constexpr std::array kRows{
    row::number(strip::kFull, "Lines", "Hanging sleeve", "Full", 2, 1, 4, "so many times the armhole it hangs from"),
    row::option(kReach, "Lines", "Hanging sleeve", "Hangs", kHangsTo, "how far it comes down"),
    row::onlyWhen({row::when(kReach, {HangsTo::Length})},
                  row::length(kLong, "Lines", "Hanging sleeve", "Long", 8, 2, 30, "finished, from the armhole down")),
    row::length(kFree, "Lines", "Hanging sleeve", "Left free", 0.5, 0, 3, "of the armhole, where it ends"),
    row::length(kTurning, "Lines", "Hanging sleeve", "For turning", 3, 0, 6,
                "added to its width: half of it is turned in at either side, for a bone to lie in"),
    row::beginningWith(strip::Drawn::Knife, row::option(strip::kHow, "Lines", "Hanging sleeve", "How", strip::kDrawn,
                                                        "how its fullness is taken up")),
    strip::pleatRow("Hanging sleeve"),
    strip::pleatsRow("Hanging sleeve"),
    strip::lieRow("Hanging sleeve"),
    row::number(kPlies, "Lines", "Hanging sleeve", "Stiffened", 2, 0, 2,
                "how many layers are: both, so that it stands"),
    row::number(kBones, "Lines", "Hanging sleeve", "Bones", 2, 0, 2, "at its edges"),
    row::length(strip::kSeam, "Lines", "Hanging sleeve", "Seam allowance", 0.5, 0, 2, "at the armhole"),
};

}  // namespace armure::hanging_sleeve
