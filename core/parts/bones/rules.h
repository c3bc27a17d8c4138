// core/parts/bones/rules.h
//
// What can be chosen of the bones, and the table of their kinds. Lengths in inches, as makers think of them. All of it
// is common practice, no source.
#pragma once

#include <array>
#include <string_view>

#include "parts/opening/rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class BonesAre { None, Steel, Plastic };
// A kind of bone as it is bought. Every bone bends through its thickness; `bendsAside` says whether it follows a curved
// channel too. It is bought in lengths that are multiples of `stockStep`, or cut from the metre where that is 0.
struct BoneKind {
  std::string_view id, name;
  BonesAre of = BonesAre::None;
  bool bendsAside = false;
  double stockStep = 0;  // mm
};
// Of each material what does not bend aside comes first: it is stiffer, and taken wherever a channel is straight.
inline constexpr std::array kBoneKinds{
    BoneKind{"flat", "flat steel", BonesAre::Steel, false, inches(0.5)},
    BoneKind{"spiral", "spiral steel", BonesAre::Steel, true, inches(0.5)},
    BoneKind{"plastic", "sewable plastic", BonesAre::Plastic, true, 0},
};

inline constexpr std::array kBonings{
    row::of(BonesAre::Steel, "steel", "steel", "flat where a channel is straight, spiral where it curves"),
    row::of(BonesAre::Plastic, "plastic", "plastic", "sewable, 1/2 in wide as a rule; for light garments"),
    row::of(BonesAre::None, "none", "none", "the cloth alone"),
};

namespace key {
inline constexpr OptionKey<BonesAre> kBonesAre{"bones.are"};
inline constexpr LengthKey kBonesWidth{"bones.width"};
inline constexpr LengthKey kBonesEnd{"bones.end"};
inline constexpr LengthKey kBonesApart{"bones.apart"};
inline constexpr LengthKey kBonesStraight{"bones.straight"};
inline constexpr LengthKey kEyeletsEdge{"eyelets.edge"};
inline constexpr LengthKey kEyeletsApart{"eyelets.apart"};
inline constexpr LengthKey kEyeletsWaist{"eyelets.waist"};
inline constexpr LengthKey kLaceOpened{"lace.opened"};
inline constexpr LengthKey kLaceEnds{"lace.ends"};
}  // namespace key

inline constexpr Condition kLacedBehind = row::when(
    key::kOpeningKind,
    {OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops, OpeningKind::VLoops, OpeningKind::ZipLaced});
inline constexpr Condition kLacedInFront = row::when(
    key::kOpeningFront,
    {OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops, OpeningKind::VLoops, OpeningKind::ZipLaced});
inline constexpr Condition kIsBoned = row::when(key::kBonesAre, {BonesAre::Steel, BonesAre::Plastic});

constexpr RuleInfo whereLaced(RuleInfo rule) { return row::onlyWhen({kLacedBehind, kLacedInFront}, rule); }

inline constexpr std::array kBoneRules{
    row::option(key::kBonesAre, "Prepare", "Bones", "Bones", kBonings,
                "on every panel seam, beside every opening, and between where a panel is wide"),
    row::onlyWhen({kIsBoned}, row::length(key::kBonesWidth, "Prepare", "Bones", "Wide", 0.25, 0.2, 0.6,
                                          "1/4 to 1/2 in; plastic 1/2 in")),
    row::onlyWhen({kIsBoned}, row::length(key::kBonesEnd, "Prepare", "Bones", "Shorter than the channel, at each end",
                                          0.375, 0.125, 1, "1/4 to 1/2 in")),
    row::onlyWhen({kIsBoned}, row::length(key::kBonesApart, "Prepare", "Bones", "Apart, at the most", 3, 1.5, 8,
                                          "3 in; a wider panel has bones between its seams")),
    row::onlyWhen({row::when(key::kBonesAre, {BonesAre::Steel})},
                  row::seldom(row::length(key::kBonesStraight, "Prepare", "Bones", "Straight enough for flat steel",
                                          0.125, 0, 0.5, "how far the channel may stray from straight: 1/8 in"))),
    whereLaced(row::length(key::kEyeletsApart, "Prepare", "Eyelets and loops", "Apart", 1, 0.5, 2, "3/4 to 1 in")),
    whereLaced(row::length(key::kEyeletsWaist, "Prepare", "Eyelets and loops", "Apart, beside the waist", 0.75, 0.5, 2,
                           "closer at the waist, where it pulls most: 3/4 in")),
    whereLaced(
        row::length(key::kEyeletsEdge, "Prepare", "Eyelets and loops", "From the edge", 0.5, 0.25, 1.5,
                    "1/2 in, between two bones; further in beside a wide bone or a zip; loops stand on the edge")),
    whereLaced(row::length(key::kLaceOpened, "Prepare", "Eyelets and loops", "Lace opens to, for getting in", 8, 1, 20,
                           "how far both edges part without unlacing: 8 in")),
    whereLaced(row::seldom(
        row::length(key::kLaceEnds, "Prepare", "Eyelets and loops", "Lace, for bow and loops", 78.75, 20, 160, "2 m"))),
};

}  // namespace armure
