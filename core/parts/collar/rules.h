// core/parts/collar/rules.h
//
// What can be chosen of a collar: a stand, or one that is turned down. Rows of the table of trims (rules/trims.h).
// Lengths in inches. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::collar {

enum class CollarShape { Stand, Turned, High };
inline constexpr std::array kShapes{
    row::of(CollarShape::Stand, "stand", "stand", "stands up; its upper edge is shorter, for the neck narrows"),
    row::of(CollarShape::High, "high", "high, with darts",
            "of lace over the whole neck: straight where it is sewn on, drawn in above by darts"),
    row::of(CollarShape::Turned, "turned", "turned down", "stand and fall in one; its edge is longer than the neck"),
};

inline constexpr OptionKey<CollarShape> kShape{"shape"};
inline constexpr LengthKey kHigh{"high"};
inline constexpr LengthKey kTighter{"tighter"};
inline constexpr NumberKey kDarts{"darts"};
inline constexpr LengthKey kDartLong{"dart"};
inline constexpr LengthKey kWider{"wider"};
inline constexpr LengthKey kOverlap{"overlap"};
inline constexpr LengthKey kSeam{"seam"};

inline constexpr std::array kRows{
    row::option(kShape, "Lines", "Collar", "Shape", kShapes, "how it lies"),
    row::length(kHigh, "Lines", "Collar", "High", 1.5, 0.5, 8,
                "a stand 1 1/4 to 2 in; turned, stand and fall together"),
    row::onlyWhen({row::when(kShape, {CollarShape::Stand, CollarShape::High})},
                  row::length(kTighter, "Lines", "Collar", "Tighter above by", 1, 0, 6,
                              "all round, so that it follows the neck; none: a straight strip")),
    row::onlyWhen({row::when(kShape, {CollarShape::High})},
                  row::number(kDarts, "Lines", "Collar", "Darts", 2, 1, 6, "on either side, evenly")),
    row::onlyWhen({row::when(kShape, {CollarShape::High})},
                  row::length(kDartLong, "Lines", "Collar", "Darts, long", 2, 0.5, 6, "from the upper edge down")),
    row::onlyWhen({row::when(kShape, {CollarShape::Turned})},
                  row::length(kWider, "Lines", "Collar", "Wider at its edge by", 2, 0, 24,
                              "all round, so that it lies over its stand; more lies flatter")),
    row::length(kOverlap, "Lines", "Collar", "Overlap", 0.75, 0, 3, "beyond the opening, on either side"),
    row::length(kSeam, "Lines", "Collar", "Seam allowance", 0.375, 0, 2, "all round"),
};

}  // namespace armure::collar
