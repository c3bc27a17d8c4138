// core/parts/straps/rules.h
//
// What can be chosen of straps. Kinds as enumerations with their words, typed keys, and rows of the rule table.
// Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure {

enum class StrapKind { None, Straight, Shaped };
inline constexpr std::array kStraps{
    row::of(StrapKind::None, "none", "none", "the edge holds by itself"),
    row::of(StrapKind::Straight, "straight", "straight", "cut twice as wide and folded lengthwise"),
    row::of(StrapKind::Shaped, "shaped", "shaped", "wide in front, narrowing over the shoulder; cut double"),
};

namespace key {
inline constexpr OptionKey<StrapKind> kStrapKind{"strap.kind"};
inline constexpr LengthKey kStrapWidth{"strap.width"};
inline constexpr LengthKey kStrapFront{"strap.front"};
inline constexpr LengthKey kStrapExtra{"strap.extra"};
}  // namespace key

inline constexpr std::array kStrapRules{
    row::option(key::kStrapKind, "Lines", "Straps", "Straps", kStraps, "over the shoulder"),
    row::onlyWhen({row::when(key::kStrapKind, {StrapKind::Straight, StrapKind::Shaped})},
                  row::length(key::kStrapWidth, "Lines", "Straps", "Finished width", 0.5, 0.25, 3, "1/2 to 1 3/4 in")),
    row::onlyWhen(
        {row::when(key::kStrapKind, {StrapKind::Shaped})},
        row::length(key::kStrapFront, "Lines", "Straps", "Wide in front", 1.75, 0.25, 5, "where it leaves the cup")),
    row::onlyWhen({row::when(key::kStrapKind, {StrapKind::Straight, StrapKind::Shaped})},
                  row::length(key::kStrapExtra, "Lines", "Straps", "To adjust by", 1, 0, 4,
                              "sewn in behind once it is tried on")),
};

}  // namespace armure
