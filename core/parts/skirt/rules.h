// core/parts/skirt/rules.h
//
// What can be chosen of what is below the waist: skirt and waist seam. Kinds as enumerations with their words, typed
// keys, and rows of the rule table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "parts/edges/rules.h"
#include "rules/line_rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class SkirtKind { None, Flare, Straight, Peg, Gored };
inline constexpr std::array kSkirts{
    row::of(SkirtKind::None, "none", "none", "ends at the hem"),
    row::of(SkirtKind::Flare, "flare", "flared hem", "every panel swung out from the waist to the hem"),
    row::of(SkirtKind::Straight, "straight", "straight skirt", "the panels run on from the hip, upright"),
    row::of(SkirtKind::Peg, "peg", "pegged skirt", "runs on from the hip, in at the knee on the side seams"),
    row::of(SkirtKind::Gored, "gored", "flared skirt",
            "every panel swung out from the waist, as in a skirt of six panels"),
};

enum class SkirtEnd { Knee, Floor, Length };
inline constexpr std::array kSkirtEnds{
    row::of(SkirtEnd::Knee, "knee", "the knee", "to the middle of the knee"),
    row::of(SkirtEnd::Floor, "floor", "the floor", "to the floor, in the shoes she will wear"),
    row::of(SkirtEnd::Length, "length", "a length", "as far below the waist as is set"),
};

enum class WaistSeam { None, Level, Pointed };
inline constexpr std::array kWaistSeams{
    row::of(WaistSeam::None, "none", "none", "the panels run through"),
    row::of(WaistSeam::Level, "level", "level", "cut apart and sewn again at the waist"),
    row::of(WaistSeam::Pointed, "pointed", "in a point",
            "below the waist at the centre front, rising to the waist at the side"),
};

inline constexpr std::array kSkirtLines{
    row::of(LinesAre::Seams, "seams", "seams", "the skirt is cut apart along the lines of the bodice"),
    row::of(LinesAre::Darts, "darts", "waist darts",
            "front and backs in one piece each; what the lines take in at the waist runs out at the hip as darts"),
    row::of(LinesAre::None, "none", "not there",
            "front and backs in one piece each; what the lines would take in is taken in at the side"),
};

namespace key {
inline constexpr OptionKey<LinesAre> kSkirtLinesAre{"skirt.lines"};
inline constexpr OptionKey<SkirtKind> kSkirtKind{"skirt.kind"};
inline constexpr OptionKey<SkirtEnd> kSkirtTo{"skirt.to"};
inline constexpr LengthKey kSkirtLength{"skirt.length"};
inline constexpr LengthKey kSkirtSlit{"skirt.slit"};
inline constexpr LengthKey kSkirtFlare{"skirt.flare"};
inline constexpr LengthKey kSkirtGore{"skirt.gore"};
inline constexpr LengthKey kSkirtPeg{"skirt.peg"};
inline constexpr OptionKey<WaistSeam> kWaistSeam{"waist.seam"};
inline constexpr LengthKey kWaistPoint{"waist.point"};
}  // namespace key

inline constexpr std::array kSkirtRules{
    row::onlyWhen(
        {row::when(key::kHemAt, {HemAt::Below})},
        row::option(key::kSkirtKind, "Lines", "Skirt", "Below the waist", kSkirts, "panels that run on below")),
    row::onlyWhen({row::when(key::kSkirtKind, {SkirtKind::Straight, SkirtKind::Peg, SkirtKind::Gored})},
                  row::option(key::kSkirtTo, "Lines", "Skirt", "Reaches to", kSkirtEnds, "by the client's measures")),
    row::onlyWhen({row::when(key::kSkirtTo, {SkirtEnd::Length})},
                  row::length(key::kSkirtLength, "Lines", "Skirt", "Long, from the waist", 24, 12, 60,
                              "17 in to the knee, 24 in over it")),
    row::onlyWhen({row::when(key::kSkirtKind, {SkirtKind::Straight, SkirtKind::Peg})},
                  row::length(key::kSkirtSlit, "Lines", "Skirt", "Slit behind", 0, 0, 16,
                              "3 in, so that one can walk; the centre back is sewn down to it")),
    row::onlyWhen({row::when(key::kSkirtKind, {SkirtKind::Flare})},
                  row::length(key::kSkirtFlare, "Lines", "Skirt", "Each panel edge swung out by", 2.75, 0.25, 6,
                              "2 1/2 to 3 in at the hem")),
    row::onlyWhen({row::when(key::kSkirtKind, {SkirtKind::Gored})},
                  row::length(key::kSkirtGore, "Lines", "Skirt", "Each half panel wider at the floor by", 8, 1, 14,
                              "8 in at floor length, less where it ends higher")),
    row::onlyWhen(
        {row::when(key::kSkirtKind, {SkirtKind::Peg})},
        row::length(key::kSkirtPeg, "Lines", "Skirt", "In at the knee, each side edge", 1.5, 0.25, 3, "1 to 2 in")),
    row::onlyWhen({row::when(key::kHemAt, {HemAt::Below})}, row::option(key::kWaistSeam, "Lines", "Waist", "Waist seam",
                                                                        kWaistSeams, "bodice and skirt cut apart")),
    row::onlyWhen({row::when(key::kWaistSeam, {WaistSeam::Level, WaistSeam::Pointed})},
                  row::option(key::kSkirtLinesAre, "Lines", "Skirt", "Its lines are", kSkirtLines,
                              "what becomes of the lines of the bodice below the waist seam")),
    row::onlyWhen({row::when(key::kWaistSeam, {WaistSeam::Pointed})},
                  row::length(key::kWaistPoint, "Lines", "Waist", "Point below the waist", 1.25, 0.25, 3,
                              "1/2 to 2 in at the centre front")),
};

}  // namespace armure
