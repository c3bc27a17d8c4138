// core/parts/edges/rules.h
//
// What can be chosen of the edges: how far up the garment goes, its top edge, back edge and hem. Kinds as enumerations
// with their words, typed keys, and rows of the rule table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "rules/line_rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class CoverKind { Strapless, Straps, Halter, Covered, OffShoulder };
inline constexpr std::array kCovers{
    row::of(CoverKind::Strapless, "strapless", "strapless", "the edge holds by itself, or by straps sewn on"),
    row::of(CoverKind::Straps, "straps", "rising to straps",
            "the upper edge rises in a curve to a strap cut on, over the shoulder to the back"),
    row::of(CoverKind::Halter, "halter", "halter", "rises to a strap round the neck; the back stays bare"),
    row::of(CoverKind::Covered, "covered", "covered shoulders",
            "neck, shoulder and armhole cut on, or set on as yokes"),
    row::of(CoverKind::OffShoulder, "off-shoulder", "off the shoulder",
            "a band round both arms, sewn to the upper edge"),
};

enum class CoverBack { AsInFront, Closed };
inline constexpr std::array kCoverBacks{
    row::of(CoverBack::AsInFront, "as-in-front", "as in front", "the back rises to the straps too"),
    row::of(CoverBack::Closed, "closed", "up to the neck", "the back is cut up to the neck, whatever the front does"),
};

enum class NeckShape { Round, V, Square, Edge };
inline constexpr std::array kNecks{
    row::of(NeckShape::Round, "round", "round", "a quarter of an ellipse"),
    row::of(NeckShape::V, "v", "in a V", "straight from the shoulder to the centre"),
    row::of(NeckShape::Square, "square", "square", "level, then straight up to the shoulder"),
    row::of(NeckShape::Edge, "edge", "along the upper edge",
            "the upper edge stays open as far as over the cup, then it rises to the shoulder"),
};
inline constexpr std::array kBackNecks{kNecks[0], kNecks[1], kNecks[2]};

enum class TopShape { Straight, Sweetheart, PlungeV, PlungeU };
inline constexpr std::array kTops{
    row::of(TopShape::Straight, "straight", "straight", "level across the front, easing down to the side"),
    row::of(TopShape::Sweetheart, "sweetheart", "sweetheart", "dips at the centre front, rises over the cups"),
    row::of(TopShape::PlungeV, "plunge-v", "plunge in a V",
            "open at the centre front to below the underbust, straight"),
    row::of(TopShape::PlungeU, "plunge-u", "plunge in a U",
            "open at the centre front to below the underbust, round at the bottom"),
};

enum class TopFrom { Chest, Bust, Mirrored, Shoulder, Cup };
inline constexpr std::array kTopFroms{
    row::of(TopFrom::Chest, "chest", "by the chest line", "a distance above it"),
    row::of(TopFrom::Bust, "bust", "by the bust point", "a distance above it"),
    row::of(TopFrom::Mirrored, "mirrored", "as the underbust",
            "as far above the bust point as the underbust lies below it"),
    row::of(TopFrom::Shoulder, "shoulder", "by the shoulder line", "a distance below it"),
    row::of(TopFrom::Cup, "cup", "by the cup radius", "as far above the bust point as was measured there"),
};

enum class BackShape { Slope, Straight, Scoop, V };
inline constexpr std::array kBacks{
    row::of(BackShape::Slope, "slope", "slope", "straight down from the side to the centre back"),
    row::of(BackShape::Straight, "straight", "straight", "level with the side"),
    row::of(BackShape::Scoop, "scoop", "scooped", "falls soon behind the side, level at the centre back"),
    row::of(BackShape::V, "v", "in a V", "straight to a point at the centre back"),
};

enum class HemAt { Below, Waist, WaistPoint, Above };
inline constexpr std::array kHemEnds{
    row::of(HemAt::Below, "below", "below the waist", "at the hem, over the hip or above it"),
    row::of(HemAt::Waist, "waist", "at the waist", "level; no hip is needed"),
    row::of(HemAt::WaistPoint, "waist-point", "in a point",
            "at the waist, but in a point below it at the centre front, rising to it at the side; no hip is needed"),
    row::of(HemAt::Above, "above", "above the waist", "cropped between underbust and waist; no hip is needed"),
};

enum class HemShape { Straight, Raised, Dipped };
inline constexpr std::array kHems{
    row::of(HemShape::Straight, "straight", "straight", "level all round"),
    row::of(HemShape::Raised, "raised", "raised at the side", "curved up at the side seam, the same on front and back"),
    row::of(HemShape::Dipped, "dipped", "dipped to a point", "to a point below at the centre front, up at the side"),
};

namespace key {
inline constexpr OptionKey<CoverKind> kCoverKind{"cover.kind"};
inline constexpr LengthKey kCoverDart{"cover.dart"};
inline constexpr OptionKey<CoverBack> kCoverBack{"cover.back"};
inline constexpr LengthKey kCoverNarrow{"cover.narrow"};
inline constexpr OptionKey<NeckShape> kNeckShape{"neck.shape"};
inline constexpr OptionKey<NeckShape> kNeckShapeBack{"neck.shape_back"};
inline constexpr LengthKey kNeckLowered{"neck.lowered"};
inline constexpr LengthKey kNeckOpen{"neck.open"};
inline constexpr LengthKey kCoverStrapWidth{"cover.strap_width"};
inline constexpr LengthKey kCoverStrapFrom{"cover.strap_from"};
inline constexpr LengthKey kHalterWidth{"halter.width"};
inline constexpr LengthKey kHalterWiden{"halter.widen"};
inline constexpr OptionKey<TopShape> kTopShape{"top.shape"};
inline constexpr OptionKey<TopFrom> kTopFrom{"top.from"};
inline constexpr LengthKey kTopAboveChest{"top.above_chest"};
inline constexpr LengthKey kTopAboveBust{"top.above_bust"};
inline constexpr LengthKey kTopBelowShoulder{"top.below_shoulder"};
inline constexpr LengthKey kTopSide{"top.side"};
inline constexpr LengthKey kTopDip{"top.dip"};
inline constexpr LengthKey kTopRise{"top.rise"};
inline constexpr LengthKey kTopPlunge{"top.plunge"};
inline constexpr LengthKey kTopPlungeBeside{"top.plunge_beside"};
inline constexpr OptionKey<BackShape> kBackShape{"back.shape"};
inline constexpr LengthKey kBackSlope{"back.slope"};
inline constexpr OptionKey<HemAt> kHemAt{"hem.at"};
inline constexpr OptionKey<HemShape> kHemShape{"hem.shape"};
inline constexpr LengthKey kHemLength{"hem.length"};
inline constexpr LengthKey kHemRaise{"hem.raise"};
inline constexpr LengthKey kHemDip{"hem.dip"};
inline constexpr LengthKey kHemBack{"hem.back"};
inline constexpr LengthKey kHemAboveWaist{"hem.above_waist"};
}  // namespace key

inline constexpr Condition kIsOverShoulder =
    row::when(key::kCoverKind, {CoverKind::Straps, CoverKind::Halter, CoverKind::Covered});

inline constexpr std::array kCoverRules{
    row::option(key::kCoverKind, "Lines", "Shoulders", "Above the upper edge", kCovers, "how far up the bodice goes"),
    row::andWhen(
        kFrontIsSeamed,
        row::onlyWhen(
            {kIsOverShoulder},
            row::length(
                key::kCoverDart, "Lines", "Shoulders", "Taken in, up to the shoulder", 2, 0, 3,
                "the princess line takes 2 in at the shoulder, less on the way; shoulder and armhole get it back"))),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Straps})},
                  row::option(key::kCoverBack, "Lines", "Shoulders", "The back", kCoverBacks,
                              "how far up the back goes where the front rises to straps")),
    row::onlyWhen(
        {row::when(key::kCoverKind, {CoverKind::Covered})},
        row::seldom(row::length(key::kCoverNarrow, "Lines", "Shoulders", "Shoulder narrowed by", 0, -1.5, 4,
                                "nothing; 1 in without sleeves, more for a strap beside the neck; -1/2 in dropped"))),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered, CoverKind::Halter})},
                  row::option(key::kNeckShape, "Lines", "Shoulders", "Neckline", kNecks,
                              "in front; behind it has its own, or follows the back edge")),
    row::andWhen(row::when(key::kCoverKind, {CoverKind::Covered}),
                 row::onlyWhen({row::when(key::kNeckShape, {NeckShape::Edge})},
                               row::length(key::kNeckOpen, "Lines", "Shoulders", "Open beyond the princess line by",
                                           0.75, 0.5, 3, "3/4 in, so that the rise begins over the cup"))),
    row::andWhen(row::when(key::kBackShape, {BackShape::Slope, BackShape::Straight}),
                 row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Covered}),
                                row::when(key::kCoverBack, {CoverBack::Closed})},
                               row::seldom(row::option(key::kNeckShapeBack, "Lines", "Shoulders", "Neckline behind",
                                                       kBackNecks, "as deep as the neck behind")))),
    row::onlyWhen(
        {row::when(key::kCoverKind, {CoverKind::Straps, CoverKind::Halter})},
        row::seldom(row::length(key::kNeckLowered, "Lines", "Shoulders", "Neck end of the shoulder lowered by", 0, 0, 1,
                                "nothing; 1/2 in tightens an edge that rises to the shoulder"))),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Straps})},
                  row::length(key::kCoverStrapWidth, "Lines", "Shoulders", "Strap, wide at the shoulder", 1.75, 0.75, 4,
                              "1 to 1 3/4 in")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Straps})},
                  row::length(key::kCoverStrapFrom, "Lines", "Shoulders", "Rises from, in from the armhole", 2.5, 1, 5,
                              "2 1/2 in in from the armhole on the upper edge")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Halter})},
                  row::length(key::kHalterWidth, "Lines", "Shoulders", "Halter, wide at the neck", 1, 0.5, 3, "1 in")),
    row::onlyWhen({row::when(key::kCoverKind, {CoverKind::Halter})},
                  row::length(key::kHalterWiden, "Lines", "Shoulders", "Halter, neck widened by", 1, 0, 2, "1 in")),
};

inline constexpr std::array kEdgeRules{
    row::option(key::kTopShape, "Lines", "Top edge", "Shape", kTops, "the upper edge of the front"),
    row::option(key::kTopFrom, "Lines", "Top edge", "Its height", kTopFroms, "what the height is counted from"),
    row::onlyWhen({row::when(key::kTopFrom, {TopFrom::Chest})},
                  row::length(key::kTopAboveChest, "Lines", "Top edge", "Above the chest line", 1, -1, 2.5,
                              "1 to 2 in for a covered bust")),
    row::onlyWhen({row::when(key::kTopFrom, {TopFrom::Bust})},
                  row::length(key::kTopAboveBust, "Lines", "Top edge", "Above the bust point", 3, 1, 6,
                              "3 to 4 in for a covered bust")),
    row::onlyWhen(
        {row::when(key::kTopFrom, {TopFrom::Shoulder})},
        row::length(key::kTopBelowShoulder, "Lines", "Top edge", "Below the shoulder line", 7, 3, 14, "5 to 9 in")),
    row::seldom(row::length(key::kTopSide, "Lines", "Top edge", "At the side, above the chest line", 0, -3, 2.5,
                            "at the chest line the arm moves freely")),
    row::onlyWhen({row::when(key::kTopShape, {TopShape::Sweetheart})},
                  row::length(key::kTopDip, "Lines", "Top edge", "Sweetheart dip", 1.25, 0.25, 3,
                              "how deep below the top edge at the centre front")),
    row::onlyWhen({row::when(key::kTopShape, {TopShape::Sweetheart, TopShape::PlungeV, TopShape::PlungeU})},
                  row::length(key::kTopRise, "Lines", "Top edge", "Rise over the cups", 0.75, 0, 1.5,
                              "1/2 to 1 in over the cups")),
    row::onlyWhen({row::when(key::kTopShape, {TopShape::PlungeV, TopShape::PlungeU})},
                  row::length(key::kTopPlunge, "Lines", "Top edge", "Plunge below the underbust", 0.75, -1, 3,
                              "1/2 to 1 in below the underbust, or to the waist")),
    row::onlyWhen({row::when(key::kTopShape, {TopShape::PlungeV, TopShape::PlungeU})},
                  row::length(key::kTopPlungeBeside, "Lines", "Top edge", "Beside the centre at the bust", 0.75, 0.25,
                              2, "1/2 to 1 in from the centre front on the bust line")),
    row::option(key::kBackShape, "Lines", "Back edge", "Shape", kBacks, "the upper edge of the back"),
    row::onlyWhen({row::when(key::kBackShape, {BackShape::Slope, BackShape::Scoop, BackShape::V})},
                  row::length(key::kBackSlope, "Lines", "Back edge", "Centre back below the chest line", 1, -1, 6,
                              "a slope 1 in; a scoop 1/2 to 3 in; a V deeper")),
};

inline constexpr std::array kHemRules{
    row::option(key::kHemAt, "Lines", "Hem", "It ends", kHemEnds, "how far down the bodice goes"),
    row::onlyWhen({row::when(key::kHemAt, {HemAt::Below})},
                  row::option(key::kHemShape, "Lines", "Hem", "Shape", kHems, "the lower edge")),
    row::onlyWhen(
        {row::when(key::kHemAt, {HemAt::Below})},
        row::length(key::kHemLength, "Lines", "Hem", "Below the waist", 4.5, 2.5, 12, "4 to 5 in on a corset top")),
    row::onlyWhen({row::when(key::kHemShape, {HemShape::Raised, HemShape::Dipped})},
                  row::length(key::kHemRaise, "Lines", "Hem", "Raised at the side by", 1.5, 0, 3, "1 to 3 in")),
    row::onlyWhen({row::when(key::kHemShape, {HemShape::Dipped}), row::when(key::kHemAt, {HemAt::WaistPoint})},
                  row::length(key::kHemDip, "Lines", "Hem", "Point below the hem", 1, 0.25, 6,
                              "1/2 to 2 in at the centre front")),
    row::onlyWhen({row::when(key::kHemAt, {HemAt::Below})},
                  row::seldom(row::length(key::kHemBack, "Lines", "Hem", "Centre back raised by", 0, -4, 3,
                                          "nothing; 1/2 in because the front is longer; less than nothing is a tail"))),
    row::onlyWhen({row::when(key::kHemAt, {HemAt::Above})},
                  row::length(key::kHemAboveWaist, "Lines", "Hem", "Above the waist by", 1.5, 0.5, 5,
                              "1 to 2 in; below the underbust")),
};

}  // namespace armure
