// core/parts/band/rules.h
//
// What can be chosen of a band off the shoulders. Kinds as enumerations with their words, typed keys, and rows of the
// rule table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "parts/edges/rules.h"
#include "rules/rule_row.h"

namespace armure {

namespace key {
inline constexpr LengthKey kOffDepth{"off.depth"};
inline constexpr LengthKey kOffHold{"off.hold"};
}  // namespace key

inline constexpr std::array kBandRules{
    row::onlyWhen(
        {row::when(key::kCoverKind, {CoverKind::OffShoulder})},
        row::length(key::kOffDepth, "Lines", "Shoulders", "Band, deep", 3, 1, 8, "from its upper to its lower edge")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::OffShoulder})},
                  row::length(key::kOffHold, "Lines", "Shoulders", "Band, held in", 1, 0, 4,
                              "shorter than the round-shoulder girth, so that it stays up")),
};

}  // namespace armure
