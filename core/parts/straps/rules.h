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

enum class StrapRuns { Over, Crossed, Halter };
inline constexpr std::array kStrapRuns{
    row::of(StrapRuns::Over, "over", "over the shoulder", "to the back edge at the first back line"),
    row::of(StrapRuns::Crossed, "crossed", "crossed behind", "to the same place on the other side"),
    row::of(StrapRuns::Halter, "halter", "behind the neck", "tied or closed there; the back stays bare"),
};

enum class StrapLength { Body, Given };
inline constexpr std::array kStrapLengths{
    row::of(StrapLength::Body, "body", "by the body", "the way it runs, and something to adjust by"),
    row::of(StrapLength::Given, "given", "as set", "12 in is usual"),
};

enum class StrapEnd { Straight, Curved, Pointed };
inline constexpr std::array kStrapEnds{
    row::of(StrapEnd::Straight, "straight", "straight", "caught in the upper edge"),
    row::of(StrapEnd::Curved, "curved", "curved", "laid over the edge and stitched round"),
    row::of(StrapEnd::Pointed, "pointed", "pointed", "laid over the edge and stitched round"),
};

enum class StrapPad { None, Padded };
inline constexpr std::array kStrapPads{
    row::of(StrapPad::None, "none", "no", "plain"),
    row::of(StrapPad::Padded, "padded", "padded", "wadding of its finished width inside"),
};

namespace key {
inline constexpr OptionKey<StrapKind> kStrapKind{"strap.kind"};
inline constexpr LengthKey kStrapWidth{"strap.width"};
inline constexpr LengthKey kStrapFront{"strap.front"};
inline constexpr OptionKey<StrapRuns> kStrapRun{"strap.runs"};
inline constexpr OptionKey<StrapLength> kStrapLong{"strap.long"};
inline constexpr LengthKey kStrapGiven{"strap.given"};
inline constexpr LengthKey kStrapExtra{"strap.extra"};
inline constexpr OptionKey<StrapEnd> kStrapFrontEnd{"strap.end"};
inline constexpr OptionKey<StrapPad> kStrapPadding{"strap.pad"};
}  // namespace key

inline constexpr Condition kHasStraps = row::when(key::kStrapKind, {StrapKind::Straight, StrapKind::Shaped});

inline constexpr std::array kStrapRules{
    row::option(key::kStrapKind, "Lines", "Straps", "Straps", kStraps, "over the shoulder"),
    row::onlyWhen({kHasStraps},
                  row::length(key::kStrapWidth, "Lines", "Straps", "Finished width", 0.5, 0.25, 3, "1/2 to 1 3/4 in")),
    row::onlyWhen(
        {row::when(key::kStrapKind, {StrapKind::Shaped})},
        row::length(key::kStrapFront, "Lines", "Straps", "Wide in front", 1.75, 0.25, 5, "where it leaves the cup")),
    row::onlyWhen({kHasStraps}, row::option(key::kStrapRun, "Lines", "Straps", "Run", kStrapRuns, "where they go")),
    row::onlyWhen({kHasStraps},
                  row::option(key::kStrapLong, "Lines", "Straps", "Length", kStrapLengths, "by what they are cut")),
    row::andWhen(kHasStraps,
                 row::onlyWhen({row::when(key::kStrapLong, {StrapLength::Given})},
                               row::length(key::kStrapGiven, "Lines", "Straps", "Long", 12, 2, 40, "from end to end"))),
    row::andWhen(kHasStraps, row::onlyWhen({row::when(key::kStrapLong, {StrapLength::Body})},
                                           row::length(key::kStrapExtra, "Lines", "Straps", "To adjust by", 1, 0, 4,
                                                       "sewn in behind once it is tried on"))),
    row::onlyWhen({kHasStraps}, row::option(key::kStrapFrontEnd, "Lines", "Straps", "Front end", kStrapEnds,
                                            "how it is cut where it meets the front")),
    row::seldom(row::onlyWhen({kHasStraps}, row::option(key::kStrapPadding, "Lines", "Straps", "Padded", kStrapPads,
                                                        "where they carry much"))),
};

}  // namespace armure
