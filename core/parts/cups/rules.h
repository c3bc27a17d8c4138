// core/parts/cups/rules.h
//
// What can be chosen of the cups: how the bust is housed, what lies inside, and the dial about the bust point. Kinds
// as enumerations with their words, typed keys, and rows of the rule table. Lengths in inches, as makers think of
// them.
#pragma once

#include <array>

#include "body/body_form.h"
#include "parts/edges/rules.h"
#include "parts/opening/rules.h"
#include "parts/yoke/rules.h"
#include "rules/line_rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class CupKind { Princess, Two, Three, Cross, Four, Gathered, Moulded, Whole, Upper };
inline constexpr std::array kCups{
    row::of(CupKind::Princess, "princess", "in the seam", "the shaped princess line alone, rounded at the bust point"),
    row::of(CupKind::Two, "two", "cut, two pieces",
            "inner and outer cup, joined by the princess seam, set into a frame"),
    row::of(CupKind::Three, "three", "cut, three pieces", "an upper band in one piece over an inner and an outer cup"),
    row::of(CupKind::Upper, "upper", "cut, upper in one",
            "an upper cup in one piece, cut off across the bust point, over an inner and an outer lower one"),
    row::of(CupKind::Cross, "cross", "cut, cross seam",
            "an upper and a lower cup, joined by a seam across the bust point"),
    row::of(CupKind::Four, "four", "cut, four pieces",
            "both seams: for the fullest bust, every line of it can be fitted"),
    row::of(CupKind::Gathered, "gathered", "gathered",
            "an upper band over one lower piece, slashed, spread and gathered into the band and the frame"),
    row::needing({row::when(key::kCoverKind, {CoverKind::Strapless, CoverKind::OffShoulder})},
                 row::of(CupKind::Whole, "whole", "gathered, in one piece",
                         "the whole cup from the cup line to the upper edge, slashed, spread and gathered; no band")),
    row::of(CupKind::Moulded, "moulded", "over a ready-made cup",
            "cloth on the bias over a moulded cup, what is too much taken up in a dart"),
};

// What lies between both cups at the centre front.
enum class CupCentre { Bridge, Touching };
inline constexpr std::array kCupCentres{
    row::of(CupCentre::Bridge, "bridge", "a bridge", "a strip of the frame runs up between the cups"),
    row::of(CupCentre::Touching, "touching", "the cups touch",
            "sewn to each other at the centre front; the frame begins below them"),
};

// How wide the outer cup is laid on the bust line.
enum class OuterCup { Inner, HalfSpan, Span };
inline constexpr std::array kOuterCups{
    row::of(OuterCup::Inner, "inner", "as the inner cup", "from the bust point out, as far as the bridge is from it"),
    row::of(OuterCup::HalfSpan, "half-span", "half the span", "another half span beyond the bust point"),
    row::of(OuterCup::Span, "span", "the rest of the span", "both together as wide as the bust span"),
};

// What the widths of a cut cup are taken from.
enum class CupSizedBy { Draft, Radii };
inline constexpr std::array kCupSizes{
    row::of(CupSizedBy::Draft, "draft", "the draft", "half the span less the bridge, and by that rule out to the side"),
    row::of(CupSizedBy::Radii, "radii", "the cup radii",
            "as measured over the breast from the bust point, in to the centre and out to the side"),
};

// Where the figures of a ready-made cup come from.
enum class MouldFrom { Size, Own };
inline constexpr std::array kMoulds{
    row::of(MouldFrom::Size, "size", "its size", "from a table of sizes by bust girth"),
    row::of(MouldFrom::Own, "own", "measured on it", "a cup that lies on the table: width, depth and rim as they are"),
};

// Where nothing of the front goes on above the cup with a princess line of its own.
inline constexpr Condition kEndsAboveCup =
    row::when(key::kCoverKind, {CoverKind::Strapless, CoverKind::Straps, CoverKind::OffShoulder});
inline constexpr Condition kYokeAboveCup = row::when(key::kYokeFront, {YokeKind::Cloth, YokeKind::Net});

enum class CupFrame { Seams, OnePiece, Dart };
inline constexpr std::array kFrames{
    row::of(CupFrame::Seams, "seams", "with its panel seams", "the princess seam runs up to the cup line"),
    row::needingOne({kEndsAboveCup, kYokeAboveCup},
                    row::of(CupFrame::OnePiece, "one-piece", "in one piece",
                            "the underbust intake is closed: the princess line takes as much on every level below")),
    row::needing(
        {row::when(key::kHemAt, {HemAt::Below})},
        row::of(CupFrame::Dart, "dart", "in one, with a dart",
                "what the princess line takes in below the cup is a sewn dart; at the hem it takes in nothing")),
};

enum class GatherSpread { Straight, Fanned };
inline constexpr std::array kSpreads{
    row::of(GatherSpread::Straight, "straight", "straight", "strips moved apart: as full above as below"),
    row::of(GatherSpread::Fanned, "fanned", "fanned", "strips turned about their upper ends: full below only"),
};

enum class GatheredInto { Whole, Middle, Centre };
inline constexpr std::array kGathersTo{
    row::of(GatheredInto::Whole, "whole", "the whole edge", "gathered all along the lower cup"),
    row::of(GatheredInto::Middle, "middle", "its middle half", "flat at both ends, full under the bust point"),
    row::of(GatheredInto::Centre, "centre", "towards the centre", "the half beside the bridge"),
};

enum class CupInside { None, Pad, Lining, Both };
inline constexpr std::array kPads{
    row::of(CupInside::None, "none", "none", "the cloth alone"),
    row::of(CupInside::Pad, "pad", "a pad", "the cup from underbust to top edge, edge to edge, no allowance"),
    row::of(CupInside::Lining, "lining", "a cup lining", "the same shape with allowances"),
    row::of(CupInside::Both, "both", "pad and lining", "the pad lies between cloth and lining"),
};

inline constexpr std::array kBreasts{
    row::of(BreastShape::Supported, "supported", "in a bra", "or with cups that carry, as measures are taken"),
    row::of(BreastShape::Unsupported, "unsupported", "without a bra",
            "the breast hangs: fuller below the bust point, flatter above it"),
};

namespace key {
inline constexpr OptionKey<BreastShape> kBreastShape{"breast.shape"};
inline constexpr OptionKey<CupKind> kCupKind{"cup.kind"};
inline constexpr OptionKey<CupCentre> kCupCentre{"cup.centre"};
inline constexpr LengthKey kCupBridge{"cup.bridge"};
inline constexpr LengthKey kCupBridgeWider{"cup.bridge_wider"};
inline constexpr LengthKey kCupRise{"cup.rise"};
inline constexpr OptionKey<CupSizedBy> kCupSized{"cup.sized"};
inline constexpr OptionKey<OuterCup> kCupOuter{"cup.outer"};
inline constexpr LengthKey kCupOuterExtra{"cup.outer_extra"};
inline constexpr LengthKey kCupSide{"cup.side"};
inline constexpr LengthKey kCupBandSide{"cup.band_side"};
inline constexpr LengthKey kCupBandMiddle{"cup.band_middle"};
inline constexpr LengthKey kCupCrossCentre{"cup.cross_centre"};
inline constexpr LengthKey kCupCrossSide{"cup.cross_side"};
inline constexpr LengthKey kCupUpperCentre{"cup.upper_centre"};
inline constexpr LengthKey kCupUpperSide{"cup.upper_side"};
inline constexpr OptionKey<CupFrame> kCupFrame{"cup.frame"};
inline constexpr OptionKey<GatherSpread> kGatherSpread{"gather.spread"};
inline constexpr OptionKey<GatheredInto> kGatherTo{"gather.to"};
inline constexpr LengthKey kGatherStrip{"gather.strip"};
inline constexpr LengthKey kGatherGap{"gather.gap"};
inline constexpr LengthKey kGatherDip{"gather.dip"};
inline constexpr OptionKey<MouldFrom> kMouldFrom{"mould.from"};
inline constexpr LengthKey kMouldWidth{"mould.width"};
inline constexpr LengthKey kMouldDepth{"mould.depth"};
inline constexpr LengthKey kMouldRim{"mould.rim"};
inline constexpr LengthKey kMouldInner{"mould.inner"};
inline constexpr LengthKey kMouldOuter{"mould.outer"};
inline constexpr LengthKey kMouldBelow{"mould.below"};
inline constexpr LengthKey kMouldOffset{"mould.offset"};
inline constexpr LengthKey kMouldDartWide{"mould.dart_wide"};
inline constexpr LengthKey kMouldDartLong{"mould.dart_long"};
inline constexpr LengthKey kMouldTilt{"mould.tilt"};
inline constexpr OptionKey<CupInside> kCupInside{"cup.inside"};
inline constexpr ShareKey kDialSide{"dial.side"};
inline constexpr ShareKey kDialEase{"dial.ease"};
inline constexpr ShareKey kDialCentre{"dial.centre"};
inline constexpr ShareKey kDialTop{"dial.top"};
inline constexpr ShareKey kDialFoot{"dial.foot"};
}  // namespace key

inline constexpr Condition kIsCut =
    row::when(key::kCupKind, {CupKind::Two, CupKind::Three, CupKind::Cross, CupKind::Four, CupKind::Gathered,
                              CupKind::Moulded, CupKind::Whole, CupKind::Upper});
// What the parts of the dial are parts of.
inline constexpr std::string_view kSideBustDart = "side bust dart";
inline constexpr Condition kHasBridge = row::when(key::kCupCentre, {CupCentre::Bridge});

// A part of the dial about the bust point, where the bust is in the seam.
constexpr RuleInfo onDial(RuleInfo rule) {
  return row::onlyWhen({row::when(key::kCupKind, {CupKind::Princess})}, row::partOf(kSideBustDart, rule));
}

inline constexpr std::array kCupRules{
    row::option(key::kCupKind, "Cups", "Cup", "The bust is housed", kCups,
                "in the princess seam, or in pieces of its own"),
    row::onlyWhen({kIsCut}, row::seldom(row::option(key::kCupCentre, "Cups", "Cup", "Between the cups", kCupCentres,
                                                    "what lies at the centre front"))),
    row::andWhen(
        kIsCut,
        row::onlyWhen({kHasBridge}, row::length(key::kCupBridge, "Cups", "Cup", "Bridge, from the centre", 0.375, 0.125,
                                                1.5, "the cup line stays 1/4 to 1/2 in from the centre front"))),
    row::andWhen(kIsCut,
                 row::onlyWhen({kHasBridge}, row::seldom(row::length(
                                                 key::kCupBridgeWider, "Cups", "Cup", "Bridge, wider above by", 0, 0, 2,
                                                 "nothing; 1/4 in, from 1/4 below to 1/2 at the upper edge")))),
    row::andWhen(kIsCut,
                 row::onlyWhen({row::when(key::kCupCentre, {CupCentre::Touching})},
                               row::length(key::kCupRise, "Cups", "Cup", "Frame above the underbust, at the centre", 1,
                                           0.25, 2, "1 in above it, curved down to it under the bust point"))),
    row::onlyWhen({kIsCut}, row::seldom(row::option(key::kCupSized, "Cups", "Cup", "As wide as", kCupSizes,
                                                    "what the cup is sized by, in to the centre and out to the side"))),
    row::andWhen(kIsCut,
                 row::onlyWhen({row::when(key::kCupSized, {CupSizedBy::Draft})},
                               row::seldom(row::option(key::kCupOuter, "Cups", "Cup", "Outer cup, wide", kOuterCups,
                                                       "beside the bust point, before anything is added")))),
    row::andWhen(
        kIsCut,
        row::onlyWhen({row::when(key::kCupSized, {CupSizedBy::Draft})},
                      row::length(key::kCupOuterExtra, "Cups", "Cup", "Outer cup wider by", 0, 0, 0.5, 0, 1.5,
                                  "beside the bust point, as wide as the inner one; 1/2 in more on a full bust"))),
    row::onlyWhen({kIsCut}, row::length(key::kCupSide, "Cups", "Cup", "Ends in from the side", 1.5, 0.75, 4,
                                        "1 1/2 in in from the armhole, on the top edge")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Three, CupKind::Gathered})},
                  row::length(key::kCupBandSide, "Cups", "Upper band", "Deep at the ends", 2, 0.75, 4,
                              "2 in at centre and side")),
    row::onlyWhen(
        {row::when(key::kCupKind, {CupKind::Three, CupKind::Gathered})},
        row::length(key::kCupBandMiddle, "Cups", "Upper band", "Deep in the middle", 2.25, 0.75, 4, "2 to 2 1/2 in")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Cross, CupKind::Four})},
                  row::length(key::kCupCrossCentre, "Cups", "Cross seam", "Above the bust line, at the centre", 0.5,
                              -0.5, 1.5, "1/2 in above it at the centre")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Cross, CupKind::Four})},
                  row::length(key::kCupCrossSide, "Cups", "Cross seam", "Below the bust line, at the side", 0.5, -0.5,
                              1.5, "1/2 in below it at the side")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Upper})},
                  row::length(key::kCupUpperCentre, "Cups", "Cross seam", "Below the bust line, centre", 0.5, -0.5, 1.5,
                              "1/2 in below it at the centre")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Upper})},
                  row::length(key::kCupUpperSide, "Cups", "Cross seam", "Above the bust line, side", 0.5, -0.5, 1.5,
                              "1/2 in above it at the side")),
    row::onlyWhen({kIsCut}, row::option(key::kCupFrame, "Cups", "Frame", "The frame below", kFrames, "under the cup")),
    row::onlyWhen(
        {row::when(key::kCupKind, {CupKind::Gathered, CupKind::Whole})},
        row::option(key::kGatherSpread, "Cups", "Gathers", "Strips", kSpreads, "how the slashed piece is spread")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Gathered, CupKind::Whole})},
                  row::seldom(row::option(key::kGatherTo, "Cups", "Gathers", "Gathered into", kGathersTo,
                                          "the stretch of the cup line"))),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Gathered, CupKind::Whole})},
                  row::length(key::kGatherStrip, "Cups", "Gathers", "Strips, wide", 1, 0.5, 3,
                              "slashed into strips of about 1 in")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Gathered, CupKind::Whole})},
                  row::length(key::kGatherGap, "Cups", "Gathers", "Spread apart by", 1, 1.5, 2, 0.25, 4,
                              "1 to 2 in, 1 1/2 usual; wider is fuller")),
    row::onlyWhen(
        {row::when(key::kCupKind, {CupKind::Gathered, CupKind::Whole})},
        row::seldom(row::length(key::kGatherDip, "Cups", "Gathers", "Dip at the top, towards the centre", 0.25, 0, 1,
                                "the spread piece's top may dip, so that the gathers fall inwards"))),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Moulded})},
                  row::option(key::kMouldFrom, "Cups", "Moulded cup", "Its figures are", kMoulds,
                              "of a size that is bought, or of a cup at hand")),
    row::andWhen(row::when(key::kCupKind, {CupKind::Moulded}),
                 row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                               row::length(key::kMouldWidth, "Cups", "Moulded cup", "Its base, wide", 5, 5.25, 6, 3, 9,
                                           "across the rim, through the middle"))),
    row::andWhen(row::when(key::kCupKind, {CupKind::Moulded}),
                 row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                               row::length(key::kMouldDepth, "Cups", "Moulded cup", "It stands out", 1.25, 1.5, 2, 0.5,
                                           4.5, "from the table to the apex, rim down"))),
    row::andWhen(
        row::when(key::kCupKind, {CupKind::Moulded}),
        row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                      row::measured(row::length(key::kMouldRim, "Cups", "Moulded cup", "Its sewn rim, long", 9, 9, 9, 4,
                                                24, "where it is sewn in, measured along the rim with a tape")))),
    row::andWhen(row::when(key::kCupKind, {CupKind::Moulded}),
                 row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                               row::measured(row::seldom(row::length(
                                   key::kMouldInner, "Cups", "Moulded cup", "Traced, from the apex in", 3, 3, 3, 1.5, 6,
                                   "its outline on paper, apex on the bust point: to the rim towards the centre; else "
                                   "the bridge says where"))))),
    row::andWhen(
        row::when(key::kCupKind, {CupKind::Moulded}),
        row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                      row::measured(row::seldom(row::length(
                          key::kMouldOuter, "Cups", "Moulded cup", "Traced, from the apex out", 3.5, 3.5, 3.5, 1.5, 7,
                          "to the rim towards the side, on the bust line; else the rule of the outer cup"))))),
    row::andWhen(row::when(key::kCupKind, {CupKind::Moulded}),
                 row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Own})},
                               row::measured(row::seldom(row::length(key::kMouldBelow, "Cups", "Moulded cup",
                                                                     "Traced, from the apex down", 3, 3, 3, 1.5, 6,
                                                                     "to the rim below; else the underbust"))))),
    row::andWhen(row::when(key::kCupKind, {CupKind::Moulded}),
                 row::onlyWhen({row::when(key::kMouldFrom, {MouldFrom::Size})},
                               row::length(key::kMouldOffset, "Cups", "Moulded cup", "Chosen above the bust by", 3, 3.5,
                                           4, 0, 6, "sized by bust girth, 3 to 4 in above the client's"))),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Moulded})},
                  row::length(key::kMouldDartWide, "Cups", "Moulded cup", "Dart pinched in it, wide", 1, 0, 1.5,
                              "1 in at its lower edge, to deepen it")),
    row::onlyWhen(
        {row::when(key::kCupKind, {CupKind::Moulded})},
        row::length(key::kMouldDartLong, "Cups", "Moulded cup", "Dart pinched in it, long", 2.5, 1, 4, "2 1/2 in")),
    row::onlyWhen({row::when(key::kCupKind, {CupKind::Moulded})},
                  row::seldom(row::length(key::kMouldTilt, "Cups", "Moulded cup", "Tilted up at the side by", 0.5, 0,
                                          1.5, "so that it covers; measured at its outer end"))),
    row::option(key::kBreastShape, "Cups", "On the body", "Worn", kBreasts,
                "what the cup is held against and tried on: nothing is drafted from it"),
    row::onlyWhen({kFrontIsSeamed}, row::option(key::kCupInside, "Cups", "Inside the cup", "Inside the cup", kPads,
                                                "traced from underbust to top edge")),
    row::andWhen(kFrontTakesIn,
                 onDial(row::share(key::kDialSide, "Cups", "Dart dial", "Left as a dart at the side", 0,
                                   "a part of the side bust dart, from 0 to 1; the rest goes below the bust"))),
    onDial(row::share(key::kDialEase, "Cups", "Dart dial", "Left as ease at the side", 0,
                      "not sewn: the front side is eased onto the back by as much")),
    row::andWhen(row::when(key::kOpeningFront, {OpeningKind::Seam}),
                 onDial(row::share(key::kDialCentre, "Cups", "Dart dial", "Moved to the centre front", 0,
                                   "a dart from a centre front that is sewn closed"))),
    row::andWhen(kFrontTakesIn,
                 onDial(row::share(key::kDialTop, "Cups", "Dart dial", "Laid above the bust", 0,
                                   "the side front is cut with its upper part upright instead of its lower"))),
    row::seldom(
        row::partOf(kSideBustDart,
                    row::share(key::kDialFoot, "Cups", "Dart dial", "Off the foot of the side", 0,
                               "not closed: the front's levels rise to the side in a curve below the bust, as over a "
                               "ready-made cup"))),
};

}  // namespace armure
