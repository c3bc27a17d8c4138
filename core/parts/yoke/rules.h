// core/parts/yoke/rules.h
//
// What can be chosen of yokes and keyholes. Kinds as enumerations with their words, typed keys, and rows of the rule
// table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "parts/edges/rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class YokeKind { None, Cloth, Net };
inline constexpr std::array kYokes{
    row::of(YokeKind::None, "none", "none", "cut in one with the panels"),
    row::of(YokeKind::Cloth, "cloth", "of cloth", "cut apart along the upper edge, its halves joined"),
    row::of(YokeKind::Net, "net", "of net", "sheer, over the skin; it should not carry a heavy sleeve"),
};

enum class KeyholeKind { None, Back, Front, Both };
inline constexpr std::array kKeyholes{
    row::of(KeyholeKind::None, "none", "none", "the centre edge runs through"),
    row::of(KeyholeKind::Back, "back", "at the back", "closed with a button at the neck"),
    row::of(KeyholeKind::Front, "front", "at the front", "open at the centre front"),
    row::of(KeyholeKind::Both, "both", "front and back", "open at the centre front, and behind"),
};

// What the lower edge of a yoke follows.
enum class YokeLine { Edge, Level };
inline constexpr std::array kYokeLines{
    row::of(YokeLine::Edge, "edge", "along the upper edge", "as the edge of a strapless bodice would run"),
    row::of(YokeLine::Level, "level", "level", "at one height from the centre to the armhole"),
};

namespace key {
inline constexpr OptionKey<YokeKind> kYokeFront{"yoke.front"};
inline constexpr OptionKey<YokeKind> kYokeBack{"yoke.back"};
inline constexpr OptionKey<YokeLine> kYokeLineFront{"yoke.line_front"};
inline constexpr OptionKey<YokeLine> kYokeLineBack{"yoke.line_back"};
inline constexpr LengthKey kYokeBelowFront{"yoke.below_front"};
inline constexpr LengthKey kYokeBelowBack{"yoke.below_back"};
inline constexpr LengthKey kYokeArmholeBack{"yoke.armhole_back"};
inline constexpr LengthKey kYokeArmhole{"yoke.armhole"};
inline constexpr LengthKey kYokeFold{"yoke.fold"};
inline constexpr OptionKey<KeyholeKind> kKeyholeKind{"keyhole.kind"};
inline constexpr LengthKey kKeyholeFrom{"keyhole.from"};
inline constexpr LengthKey kKeyholeAbove{"keyhole.above"};
inline constexpr LengthKey kKeyholeWidth{"keyhole.width"};
inline constexpr LengthKey kKeyholeOverlap{"keyhole.overlap"};
}  // namespace key

inline constexpr std::array kYokeRules{
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered})},
                  row::option(key::kYokeFront, "Lines", "Yokes", "Front yoke", kYokes,
                              "its lower edge is the upper edge chosen above")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered})},
                  row::option(key::kYokeBack, "Lines", "Yokes", "Back yoke", kYokes,
                              "its lower edge is the back edge chosen below")),
    row::onlyWhen({row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net})},
                  row::seldom(row::option(key::kYokeLineFront, "Lines", "Yokes", "Front yoke, its seam", kYokeLines,
                                          "how its lower edge runs"))),
    row::andWhen(
        row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net}),
        row::onlyWhen({row::when(key::kYokeLineFront, {YokeLine::Level})},
                      row::length(key::kYokeBelowFront, "Lines", "Yokes", "Front yoke, below the shoulder line", 6, 3.5,
                                  12, "6 in; or as low as the chest line"))),
    row::onlyWhen({row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net})},
                  row::seldom(row::option(key::kYokeLineBack, "Lines", "Yokes", "Back yoke, its seam", kYokeLines,
                                          "how its lower edge runs"))),
    row::andWhen(row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net}),
                 row::onlyWhen({row::when(key::kYokeLineBack, {YokeLine::Level})},
                               row::length(key::kYokeBelowBack, "Lines", "Yokes", "Back yoke, below the shoulder line",
                                           5, 2, 12, "5 in; or as low as the chest line"))),
    row::onlyWhen({row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net}),
                   row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net})},
                  row::length(key::kYokeArmhole, "Lines", "Yokes", "Ends at the armhole, above the chest line", 1.5,
                              0.5, 4, "1 1/2 to 3 in above the chest line")),
    row::andWhen(row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net}),
                 row::onlyWhen({row::when(key::kYokeLineBack, {YokeLine::Edge})},
                               row::measured(row::seldom(row::length(key::kYokeArmholeBack, "Lines", "Yokes",
                                                                     "Behind, above the chest line", 1.5, 0.5, 4,
                                                                     "as in front, where nothing else is chosen"))))),
    row::onlyWhen({row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net})},
                  row::seldom(row::length(key::kYokeFold, "Lines", "Yokes", "Folded out at the back armhole", 0.5, 0, 1,
                                          "1/2 in, so that it does not gape"))),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered}), row::when(key::kCoverBack, {CoverBack::Closed})},
                  row::option(key::kKeyholeKind, "Lines", "Keyhole", "Keyhole", kKeyholes,
                              "a slit that stands open at the centre")),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::seldom(row::length(key::kKeyholeFrom, "Lines", "Keyhole", "Begins below the neck", 0.5, 0.25, 3,
                                          "1/2 in"))),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::seldom(row::length(key::kKeyholeAbove, "Lines", "Keyhole", "Ends above the yoke's lower edge", 2,
                                          0.25, 6, "2 in; without a yoke above the chest line"))),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::length(key::kKeyholeWidth, "Lines", "Keyhole", "Wide at the middle", 0.5, 0.125, 3,
                              "1/4 to 3/4 in to either side")),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Both})},
                  row::seldom(row::length(key::kKeyholeOverlap, "Lines", "Keyhole", "Overlap above it, behind", 0, 0,
                                          1.5, "nothing, with a loop and button; 3/4 in for a press button or hook"))),
};

}  // namespace armure
