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

namespace key {
inline constexpr OptionKey<YokeKind> kYokeFront{"yoke.front"};
inline constexpr OptionKey<YokeKind> kYokeBack{"yoke.back"};
inline constexpr LengthKey kYokeArmhole{"yoke.armhole"};
inline constexpr LengthKey kYokeFold{"yoke.fold"};
inline constexpr OptionKey<KeyholeKind> kKeyholeKind{"keyhole.kind"};
inline constexpr LengthKey kKeyholeFrom{"keyhole.from"};
inline constexpr LengthKey kKeyholeAbove{"keyhole.above"};
inline constexpr LengthKey kKeyholeWidth{"keyhole.width"};
}  // namespace key

inline constexpr std::array kYokeRules{
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered})},
                  row::option(key::kYokeFront, "Lines", "Yokes", "Front yoke", kYokes,
                              "its lower edge is the upper edge chosen above")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered})},
                  row::option(key::kYokeBack, "Lines", "Yokes", "Back yoke", kYokes,
                              "its lower edge is the back edge chosen below")),
    row::onlyWhen({row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net}),
                   row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net})},
                  row::length(key::kYokeArmhole, "Lines", "Yokes", "Ends at the armhole, above the chest line", 1.5,
                              0.5, 4, "1 1/2 to 3 in above the chest line")),
    row::onlyWhen({row::when(key::kYokeBack, {YokeKind::Cloth, YokeKind::Net})},
                  row::length(key::kYokeFold, "Lines", "Yokes", "Folded out at the back armhole", 0.5, 0, 1,
                              "1/2 in, so that it does not gape")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered}), row::when(key::kCoverBack, {CoverBack::Closed})},
                  row::option(key::kKeyholeKind, "Lines", "Keyhole", "Keyhole", kKeyholes,
                              "a slit that stands open at the centre")),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::length(key::kKeyholeFrom, "Lines", "Keyhole", "Begins below the neck", 0.5, 0.25, 3, "1/2 in")),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::length(key::kKeyholeAbove, "Lines", "Keyhole", "Ends above the yoke's lower edge", 2, 0.25, 6,
                              "2 in; without a yoke above the chest line")),
    row::onlyWhen({row::when(key::kKeyholeKind, {KeyholeKind::Back, KeyholeKind::Front, KeyholeKind::Both})},
                  row::length(key::kKeyholeWidth, "Lines", "Keyhole", "Wide at the middle", 0.5, 0.125, 3,
                              "1/4 to 3/4 in to either side")),
};

}  // namespace armure
