// core/rules/draft_rules.h
//
// What can be chosen of the block and its lines: the grid, finished girths, panel lines and what they take in, the
// bust. Kinds as enumerations with their words, typed keys, and rows of the rule table. Lengths in inches, as makers
// think of them.
#pragma once

#include <array>

#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/opening/rules.h"
#include "rules/line_rules.h"
#include "rules/rule_row.h"

namespace armure {

enum class ChestSchool { AboveBust, BustSixth, ArmholeHalf, ArmholeSloped };
inline constexpr std::array kChestSchools{
    row::of(ChestSchool::AboveBust, "above-bust", "from the bust point",
            "bust point less a fixed amount: always clear of the bust line; usual without a measured chest line"),
    row::of(ChestSchool::BustSixth, "bust-sixth", "by a sixth of the bust",
            "slope + a sixth of the bust + a fixed amount: the old rule; low on a full bust"),
    row::of(ChestSchool::ArmholeHalf, "armhole-half", "half the armhole", "when the armhole was measured"),
    row::of(ChestSchool::ArmholeSloped, "armhole-sloped", "half armhole, sloped",
            "half the armhole down from the shoulder point; when the armhole was measured"),
};

enum class SideSchool { SideLength, AsInFront };
inline constexpr std::array kSideSchools{
    row::of(
        SideSchool::SideLength, "side-length", "by the side length",
        "chest line of the back and side bust dart from the length of the side: the bust line lies level on the body"),
    row::of(SideSchool::AsInFront, "as-in-front", "as in front",
            "the back's lines down to the bust stand as high as the front's; all of the front's surplus is the dart"),
};

enum class ChestQuarter { UpperBust, Bust };
inline constexpr std::array kChestQuarters{
    row::of(ChestQuarter::UpperBust, "upper-bust", "of the upper bust", "the edge closes to the body above the breast"),
    row::of(
        ChestQuarter::Bust, "bust", "of the bust",
        "a quarter bust on the chest line too: the side runs straight up; usual where the upper bust was not taken"),
};

enum class UntakenUnderbust { Straight, Estimate };
inline constexpr std::array kUntakenUnderbusts{
    row::of(UntakenUnderbust::Straight, "straight", "a straight side",
            "the side runs straight from bust to waist and the underbust is read off: what nobody measured bends "
            "nothing"),
    row::of(UntakenUnderbust::Estimate, "estimate", "as estimated",
            "the side is drawn to the girth estimated from the other measures"),
};

enum class ShareRule { BreastInFront, Equal, FrontPlus, FrontArcs };
inline constexpr std::array kShares{
    row::of(ShareRule::BreastInFront, "breast-in-front", "breast in front",
            "the back keeps a quarter of the upper bust, the bust's surplus belongs to the front; keeps the side seam "
            "at the "
            "side"),
    row::of(ShareRule::Equal, "equal", "equal quarters",
            "a quarter to the front, a quarter to the back, on every level"),
    row::of(ShareRule::FrontPlus, "front-plus", "front a little more",
            "front quarter plus, back quarter minus the same amount: the side seam sits a little back"),
    row::of(ShareRule::FrontArcs, "front-arcs", "measured front arcs",
            "half the measured front arc to the front; where there is no arc, equal quarters"),
};

enum class GarmentKind { Bustier, Shaping, Reducing };
inline constexpr std::array kKinds{
    row::of(GarmentKind::Bustier, "bustier", "bustier", "follows the body, nothing is reduced"),
    row::of(GarmentKind::Shaping, "shaping", "shaping bodice",
            "everyday shaping: a little off the waist, a little spring at the high hip"),
    row::of(GarmentKind::Reducing, "reducing", "reducing corset",
            "several inches off the waist; ribs firm, spring at the hips"),
};

enum class LineCount { One, Two, Three, Four };
inline constexpr std::array kLineCounts{
    row::of(LineCount::One, "1", "one", "six to eight pieces in all"),
    row::of(LineCount::Two, "2", "two", "a corset: the intake of the waist spreads over more seams"),
    row::of(LineCount::Three, "3", "three", "a reducing corset"),
    row::of(LineCount::Four, "4", "four", "a reducing corset for a large drop"),
};

// In front a cup, or what lies inside it, takes room from the lines beyond it.
inline constexpr std::array kFrontLineCounts{
    kLineCounts[0],
    kLineCounts[1],
    row::needing({row::when(key::kCupKind, {CupKind::Princess, CupKind::Two, CupKind::Three, CupKind::Cross,
                                            CupKind::Four, CupKind::Upper})},
                 kLineCounts[2]),
    row::needing({row::when(key::kCupKind, {CupKind::Princess}), row::when(key::kCupInside, {CupInside::None})},
                 kLineCounts[3]),
};

enum class BackSide { Own, Front };
inline constexpr std::array kBackSides{
    row::of(BackSide::Own, "own", "by the girths", "every line takes in by its rule, the side takes the rest"),
    row::of(BackSide::Front, "front", "traced from the front",
            "below the bust the side has the shape of the front's, its dart closed; the back line takes the rest"),
};

enum class LineSpacing { Even, HalfSpan };
inline constexpr std::array kSpacings{
    row::of(LineSpacing::Even, "even", "evenly to the side",
            "what lies between the first line and the side is divided"),
    row::of(LineSpacing::HalfSpan, "half-span", "half a span apart",
            "each line half the bust span further; evenly where that does not fit"),
};

enum class FirstLineBelow { Upright, Tapered };
inline constexpr std::array kFirstLinesBelow{
    row::of(FirstLineBelow::Upright, "upright", "upright", "as far from the centre on every level as at the bust"),
    row::of(FirstLineBelow::Tapered, "tapered", "narrowing",
            "the centre panels narrow with the waist as the others do; for many lines"),
};

enum class DistributionSchool { Thumb, Even, SideWeighted, FlatFront, QuarterMinus, MiddlePiece };
inline constexpr std::array kDistributions{
    row::of(DistributionSchool::Thumb, "thumb", "rule of thumb",
            "every line by its own rule below; the side takes what is left"),
    row::of(DistributionSchool::Even, "even", "evenly", "every line and the side take the same"),
    row::of(DistributionSchool::SideWeighted, "side-weighted", "most at the side",
            "the further from the centre, the more"),
    row::of(DistributionSchool::FlatFront, "flat-front", "flat front",
            "little at the first front line, most at the side"),
    row::of(DistributionSchool::QuarterMinus, "quarter-minus", "off each quarter",
            "every quarter of the waist loses the same, spread over its lines and the side; what the figure itself "
            "asks goes "
            "by "
            "the rules of thumb"),
    row::of(DistributionSchool::MiddlePiece, "middle-piece", "middle piece first",
            "the centre front is drawn first and the side front mirrors its curve; the side follows from the girths"),
};

enum class LineEnd { Top, Armhole, Shoulder };
inline constexpr std::array kLineEnds{
    row::of(LineEnd::Top, "top", "straight up", "the line ends at the top edge, above the bust point"),
    row::of(LineEnd::Armhole, "armhole", "to the armhole", "towards the middle of the armhole"),
    row::of(LineEnd::Shoulder, "shoulder", "to the shoulder", "towards the middle of the shoulder"),
};

// How what the princess line takes in at the upper edge is given.
enum class TopIntake { Edge, ShoulderDart };
inline constexpr std::array kTopIntakes{
    row::of(TopIntake::Edge, "edge", "at the edge", "as much as is taken out of the upper edge"),
    row::of(TopIntake::ShoulderDart, "shoulder-dart", "as a shoulder dart",
            "a dart from the shoulder line to the bust point, closed before the quarters are laid; the edge gets its "
            "part of it"),
};

enum class IntakeShare { Rule, Balance };
inline constexpr std::array kShareRules{
    row::of(IntakeShare::Rule, "rule", "by rule", "the smaller part to the centre front, as set below"),
    row::of(IntakeShare::Balance, "balance", "as balances best",
            "the part that leaves both edges of the line most nearly equal in every stretch"),
};

namespace key {
inline constexpr OptionKey<ChestSchool> kChestSchool{"chest.school"};
inline constexpr OptionKey<SideSchool> kSideSchool{"side.school"};
inline constexpr LengthKey kChestAboveBust{"chest.above_bust"};
inline constexpr LengthKey kChestAddition{"chest.addition"};
inline constexpr LengthKey kShoulderSlopeFront{"shoulder.slope_front"};
inline constexpr LengthKey kShoulderSlopeBack{"shoulder.slope_back"};
inline constexpr LengthKey kNeckWidth{"neck.width"};
inline constexpr LengthKey kNeckDepthFront{"neck.depth_front"};
inline constexpr LengthKey kNeckDepthBack{"neck.depth_back"};
inline constexpr LengthKey kArmholeInsetFront{"armhole.inset_front"};
inline constexpr LengthKey kArmholeInsetBack{"armhole.inset_back"};
inline constexpr OptionKey<ChestQuarter> kChestQuarter{"chest.quarter"};
inline constexpr OptionKey<UntakenUnderbust> kUnderbustUntaken{"underbust.untaken"};
inline constexpr OptionKey<ShareRule> kShareRule{"share.rule"};
inline constexpr LengthKey kShareFrontPlus{"share.front_plus"};
inline constexpr OptionKey<GarmentKind> kGarmentKind{"garment.kind"};
inline constexpr LengthKey kEaseBust{"ease.bust"};
inline constexpr LengthKey kHoldTop{"hold.top"};
inline constexpr LengthKey kReductionUnderbust{"reduction.underbust"};
inline constexpr LengthKey kReductionWaist{"reduction.waist"};
inline constexpr LengthKey kReductionQuarter{"reduction.quarter"};
inline constexpr LengthKey kSpringHighHip{"spring.high_hip"};
inline constexpr LengthKey kSpringHip{"spring.hip"};
inline constexpr OptionKey<LineCount> kLinesFront{"lines.front"};
inline constexpr OptionKey<LineCount> kLinesBack{"lines.back"};
inline constexpr OptionKey<BackSide> kBackSide{"back.side"};
inline constexpr OptionKey<LineSpacing> kLinesSpacing{"lines.spacing"};
inline constexpr OptionKey<FirstLineBelow> kLinesBelow{"lines.below"};
inline constexpr OptionKey<DistributionSchool> kDistributionSchool{"distribution.school"};
inline constexpr OptionKey<LineEnd> kPrincessAbove{"princess.above"};
inline constexpr LengthKey kMiddleTop{"middle.top"};
inline constexpr LengthKey kMiddleUnderbust{"middle.underbust"};
inline constexpr LengthKey kPrincessShoulder{"princess.shoulder"};
inline constexpr LengthKey kPrincessArmhole{"princess.armhole"};
inline constexpr OptionKey<TopIntake> kIntakeTopBy{"intake.top_by"};
inline constexpr LengthKey kIntakeShoulderDart{"intake.shoulder_dart"};
inline constexpr LengthKey kBackIntakeShoulder{"back.intake_shoulder"};
inline constexpr LengthKey kIntakeTop{"intake.top"};
inline constexpr LengthKey kIntakeUnderbust{"intake.underbust"};
inline constexpr LengthKey kIntakeWaist{"intake.waist"};
inline constexpr LengthKey kIntakeHem{"intake.hem"};
inline constexpr OptionKey<IntakeShare> kIntakeShare{"intake.share"};
inline constexpr ShareKey kIntakeCentreShare{"intake.centre_share"};
inline constexpr LengthKey kIntakeFurtherHem{"intake.further_hem"};
inline constexpr LengthKey kIntakeFurther{"intake.further"};
inline constexpr LengthKey kBackIntakeWaist{"back.intake_waist"};
inline constexpr LengthKey kBackStart{"back.start"};
inline constexpr LengthKey kBackEnd{"back.end"};
inline constexpr LengthKey kCentreBackWaist{"centre_back.waist"};
inline constexpr LengthKey kCentreFrontWaist{"centre_front.waist"};
inline constexpr LengthKey kCapPrincess{"cap.princess"};
inline constexpr LengthKey kCapSide{"cap.side"};
inline constexpr LengthKey kCapOther{"cap.other"};
inline constexpr LengthKey kBustRoundingAbove{"bust.rounding_above"};
inline constexpr LengthKey kBustRounding{"bust.rounding"};
inline constexpr LengthKey kDartSide{"dart.side"};
}  // namespace key

inline constexpr std::array kFrontLines{
    row::of(LinesAre::Seams, "seams", "seams", "the front is cut apart along its lines"),
    row::needing({row::when(key::kCupKind, {CupKind::Princess})},
                 row::of(LinesAre::Darts, "darts", "sewn darts",
                         "the front in one piece: darts below the bust, the side bust dart closed into the first of "
                         "them; nothing is taken in above, so it suits what is held at the shoulder")),
    row::needing({row::when(key::kCupKind, {CupKind::Princess})},
                 row::of(LinesAre::None, "none", "not there",
                         "a plain front: the side bust dart is sewn at the side, and only the side takes in; for a "
                         "small bust, or a loose garment")),
};

inline constexpr std::array kDraftRules{
    row::option(key::kChestSchool, "Block", "Grid", "Chest line", kChestSchools,
                "not used when the chest line was measured"),
    row::onlyWhen({row::when(key::kChestSchool, {ChestSchool::AboveBust})},
                  row::length(key::kChestAboveBust, "Block", "Grid", "Chest line above bust", 2, 0.5, 4,
                              "bust point height less this")),
    row::seldom(row::option(key::kSideSchool, "Block", "Grid", "Back and side stand", kSideSchools,
                            "how high the back's chest and bust line stand, and what the side bust dart takes")),
    row::onlyWhen({row::when(key::kChestSchool, {ChestSchool::BustSixth})},
                  row::length(key::kChestAddition, "Block", "Grid", "Chest line addition", 1.5, 0, 3,
                              "shoulder slope + bust / 6 + this")),
    row::length(key::kShoulderSlopeFront, "Block", "Grid", "Shoulder slope, front", 1, 0, 3,
                "1 in on both, or 1 1/2 in front and 1 in back"),
    row::seldom(row::length(key::kShoulderSlopeBack, "Block", "Grid", "Shoulder slope, back", 1, 0, 3, "1 in")),
    row::length(key::kNeckWidth, "Block", "Grid", "Neck, half width", 3.25, 2, 6, "3 to 4 in, the same front and back"),
    row::length(key::kNeckDepthFront, "Block", "Grid", "Neck depth, front", 3.5, 1, 9, "3 to 4 1/2 in"),
    row::seldom(row::length(key::kNeckDepthBack, "Block", "Grid", "Neck depth, back", 1.25, 0.25, 9, "1 to 1 1/2 in")),
    row::length(key::kArmholeInsetFront, "Block", "Grid", "Armhole in, front", 0.5, 0, 2,
                "the middle of the armhole moved in: 1/2 or 3/4 in"),
    row::seldom(row::length(key::kArmholeInsetBack, "Block", "Grid", "Armhole in, back", 0, 0, 2, "nothing or 1/2 in")),
    row::seldom(row::option(key::kChestQuarter, "Block", "Grid", "Quarter on the chest line", kChestQuarters,
                            "how wide the block is above the bust")),
    row::seldom(row::option(key::kUnderbustUntaken, "Block", "Grid", "Underbust, where not taken", kUntakenUnderbusts,
                            "how the side runs past an underbust that was not measured")),
    row::option(key::kShareRule, "Block", "Share", "Front and back share", kShares,
                "how each girth is divided between front and back"),
    row::onlyWhen({row::when(key::kShareRule, {ShareRule::FrontPlus})},
                  row::length(key::kShareFrontPlus, "Block", "Share", "Front plus", 0.5, 0, 2,
                              "for the share \"front a little more\"")),
    row::option(key::kGarmentKind, "Shape", "Girths", "Kind of garment", kKinds,
                "sets the defaults of the girths below"),
    row::length(key::kEaseBust, "Shape", "Girths", "Ease at the bust", 0, -2, 4, "nothing on a boned bodice"),
    row::onlyWhen({row::when(key::kChestQuarter, {ChestQuarter::UpperBust})},
                  row::length(key::kHoldTop, "Shape", "Girths", "Top edge held in", 0.5, 0, 3,
                              "a strapless edge closes to a little less than the upper bust")),
    row::length(key::kReductionUnderbust, "Shape", "Girths", "Underbust reduction", 0, 0, 2,
                "bone does not yield: 0 to 1 in at the most"),
    row::onlyWhen(
        {row::when(key::kDistributionSchool,
                   {DistributionSchool::Thumb, DistributionSchool::Even, DistributionSchool::SideWeighted,
                    DistributionSchool::FlatFront, DistributionSchool::MiddlePiece})},
        row::length(key::kReductionWaist, "Shape", "Girths", "Waist reduction", 0, 0, 8,
                    "natural waist less closed waist: 0 to 2 in for everyday shaping, 2 to 4 in a reducing corset")),
    row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::QuarterMinus})},
                  row::length(key::kReductionQuarter, "Shape", "Girths", "Off each quarter waist", 1, 0, 2,
                              "quarter waist less 1 in: 4 in all told")),
    row::onlyWhen({row::when(key::kHemAt, {HemAt::Below})},
                  row::length(key::kSpringHighHip, "Shape", "Girths", "High-hip spring", 0, -1, 4,
                              "0 to 2 in: what is pressed in at the waist goes somewhere")),
    row::onlyWhen(
        {row::when(key::kHemAt, {HemAt::Below})},
        row::length(key::kSpringHip, "Shape", "Girths", "Hip spring", 0, -1, 4, "0 to 2 in, on a long garment")),
    row::andWhen(kFrontTakesIn, row::option(key::kLinesFront, "Shape", "Panel lines", "Lines in each front half",
                                            kFrontLineCounts, "the first runs through the bust point")),
    row::option(key::kLinesBack, "Shape", "Panel lines", "Lines in each back half", kLineCounts,
                "the first stands at half the bust span"),
    row::option(key::kFrontLinesAre, "Shape", "Panel lines", "Front lines are", kFrontLines,
                "what becomes of the lines of the front, where the bust is not in a cup of its own"),
    row::option(key::kBackLinesAre, "Shape", "Panel lines", "Back lines are", kBackLines,
                "what becomes of the lines of the back"),
    row::onlyWhen({kBackTakesIn},
                  row::seldom(row::option(key::kBackSide, "Shape", "Panel lines", "The back's side runs", kBackSides,
                                          "how the side of the back is found"))),
    row::seldom(row::option(key::kLinesSpacing, "Shape", "Panel lines", "Further lines", kSpacings,
                            "where the lines beyond the first stand")),
    row::seldom(row::option(key::kLinesBelow, "Shape", "Panel lines", "First lines, below the bust", kFirstLinesBelow,
                            "half the span all the way, or in proportion to the level")),
    row::option(key::kDistributionSchool, "Shape", "Panel lines", "What each line takes", kDistributions,
                "how the drop from bust to waist is shared out among the lines and the side"),
    row::option(key::kPrincessAbove, "Shape", "Panel lines", "Princess above the bust", kLineEnds,
                "where the first front line goes on a covered shoulder; a strapless top cuts it off"),
    row::onlyWhen({row::when(key::kPrincessAbove, {LineEnd::Shoulder})},
                  row::measured(row::seldom(row::length(key::kPrincessShoulder, "Shape", "Panel lines",
                                                        "On the shoulder, from its neck end", 2.5, 2.5, 2.5, 0.5, 6,
                                                        "the middle of the shoulder; or where one likes: 3 1/2 in")))),
    row::onlyWhen({row::when(key::kPrincessAbove, {LineEnd::Armhole})},
                  row::measured(row::seldom(row::length(key::kPrincessArmhole, "Shape", "Panel lines",
                                                        "In the armhole, below the shoulder line", 4.5, 4.5, 4.5, 1.5,
                                                        9, "half way down to the chest line; or where one likes")))),
    row::andWhen(kFrontIsSeamed,
                 row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::MiddlePiece})},
                               row::length(key::kMiddleTop, "Shape", "Intakes", "Middle piece less at the top", 0.5,
                                           0.5, 1, 0, 2, "1/2 in less than half the span, 1 in on a full bust"))),
    row::andWhen(
        kFrontTakesIn,
        row::onlyWhen(
            {row::when(key::kDistributionSchool, {DistributionSchool::MiddlePiece})},
            row::length(key::kMiddleUnderbust, "Shape", "Intakes", "Middle piece less below", 1, 1, 1.5, 0, 2.5,
                        "from the underbust straight down: 1 in less than half the span, 1 1/2 in on a full bust"))),
    row::andWhen(
        kFrontIsSeamed,
        row::onlyWhen({row::when(key::kDistributionSchool,
                                 {DistributionSchool::Thumb, DistributionSchool::Even, DistributionSchool::SideWeighted,
                                  DistributionSchool::FlatFront, DistributionSchool::QuarterMinus})},
                      row::seldom(row::option(key::kIntakeTopBy, "Shape", "Intakes", "Princess, above the bust",
                                              kTopIntakes, "how what it takes in at the upper edge is given")))),
    row::andWhen(
        row::when(key::kIntakeTopBy, {TopIntake::Edge}),
        row::onlyWhen({row::when(key::kDistributionSchool,
                                 {DistributionSchool::Thumb, DistributionSchool::Even, DistributionSchool::SideWeighted,
                                  DistributionSchool::FlatFront, DistributionSchool::QuarterMinus})},
                      row::length(key::kIntakeTop, "Shape", "Intakes", "Princess, top edge", 1.25, 1.75, 2.5, 0, 4,
                                  "against gaping: 1 to 2 1/2 in"))),
    row::andWhen(
        row::when(key::kIntakeTopBy, {TopIntake::ShoulderDart}),
        row::onlyWhen({row::when(key::kDistributionSchool,
                                 {DistributionSchool::Thumb, DistributionSchool::Even, DistributionSchool::SideWeighted,
                                  DistributionSchool::FlatFront, DistributionSchool::QuarterMinus})},
                      row::length(key::kIntakeShoulderDart, "Shape", "Intakes", "Shoulder dart, wide", 5, 5.5, 6, 1, 8,
                                  "5 to 6 in at the shoulder line; wider is rounder"))),
    row::andWhen(
        kFrontTakesIn,
        row::onlyWhen(
            {row::when(key::kDistributionSchool, {DistributionSchool::Thumb, DistributionSchool::QuarterMinus})},
            row::measured(row::length(
                key::kIntakeUnderbust, "Shape", "Intakes", "Princess, underbust", 1.25, 1.75, 2.25, 0, 6,
                "what is left when the quarter underbust is laid on the line; or a fixed amount, 1 to 2 1/2 in")))),
    row::andWhen(kFrontTakesIn, row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb,
                                                                                    DistributionSchool::QuarterMinus})},
                                              row::length(key::kIntakeWaist, "Shape", "Intakes", "Princess, waist",
                                                          1.25, 1.5, 2, 0, 4, "1 in, or as at the underbust"))),
    row::andWhen(kFrontTakesIn, row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb,
                                                                                    DistributionSchool::QuarterMinus})},
                                              row::length(key::kIntakeHem, "Shape", "Intakes", "Princess, hem", 0.5, 0,
                                                          3, "1/2 to 2 in, or nothing with spring"))),
    row::andWhen(
        kFrontTakesIn,
        row::onlyWhen({row::when(key::kDistributionSchool,
                                 {DistributionSchool::Thumb, DistributionSchool::Even, DistributionSchool::SideWeighted,
                                  DistributionSchool::FlatFront, DistributionSchool::QuarterMinus})},
                      row::option(key::kIntakeShare, "Shape", "Intakes", "Princess, either side", kShareRules,
                                  "how the intake is divided between centre front and side front"))),
    row::andWhen(kFrontTakesIn,
                 row::onlyWhen({row::when(key::kIntakeShare, {IntakeShare::Rule})},
                               row::share(key::kIntakeCentreShare, "Shape", "Intakes", "Princess, part to the centre",
                                          0.375, "the smaller part to the centre front: 3/4 of 2 in is 0.375"))),
    row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb, DistributionSchool::QuarterMinus,
                                                        DistributionSchool::MiddlePiece})},
                  row::length(key::kIntakeFurther, "Shape", "Intakes", "Each further line, waist", 1, 0, 2.5,
                              "1 in, running out at bust and hem")),
    row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb, DistributionSchool::QuarterMinus,
                                                        DistributionSchool::MiddlePiece})},
                  row::seldom(row::length(key::kIntakeFurtherHem, "Shape", "Intakes", "Each further line, hem", 0, 0,
                                          2.5, "nothing; or 1 in, a wedge that grows towards the hem"))),
    row::andWhen(
        row::when(key::kBackSide, {BackSide::Own}),
        row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb, DistributionSchool::QuarterMinus,
                                                            DistributionSchool::MiddlePiece})},
                      row::length(key::kBackIntakeWaist, "Shape", "Intakes", "Back line, waist", 1, 0, 3,
                                  "1 in, half to each side"))),
    row::andWhen(row::when(key::kBackLinesAre, {LinesAre::Seams}),
                 row::onlyWhen(
                     {row::when(key::kPrincessAbove, {LineEnd::Shoulder})},
                     row::seldom(row::length(key::kBackIntakeShoulder, "Shape", "Intakes", "Back line, shoulder", 0, 0,
                                             1, "nothing; 1/4 in to each side, run out above where the line begins")))),
    row::andWhen(kBackTakesIn,
                 row::seldom(row::length(key::kBackStart, "Shape", "Intakes", "Back line starts below chest", 1, 0, 4,
                                         "1 in below the chest line"))),
    row::andWhen(
        kBackTakesIn,
        row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Thumb, DistributionSchool::QuarterMinus,
                                                            DistributionSchool::MiddlePiece})},
                      row::seldom(row::length(key::kBackEnd, "Shape", "Intakes", "Back line ends above hem", 1.5, 0, 4,
                                              "1 to 2 in above the hem")))),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::Zip, OpeningKind::Seam, OpeningKind::ZipLaced})},
                  row::length(key::kCentreBackWaist, "Shape", "Intakes", "Centre back in at waist", 0, 0, 1.5,
                              "nothing, or 1/2 in in each half where a zip bulges at the waist; a centre so shaped "
                              "stands off above")),
    row::onlyWhen({row::when(key::kOpeningFront, {OpeningKind::Zip, OpeningKind::Seam, OpeningKind::ZipLaced})},
                  row::length(key::kCentreFrontWaist, "Shape", "Intakes", "Centre front in at waist", 0.25, 0, 1,
                              "0 to 1/2 in in each half")),
    row::andWhen(
        kFrontTakesIn,
        row::seldom(row::length(key::kCapPrincess, "Shape", "Intakes", "Most a princess line takes", 2.5, 2.5, 3, 0.5,
                                5, "beyond, the cup seam turns pointed; on a full bust single sides reach 2 in"))),
    row::onlyWhen({row::when(key::kDistributionSchool, {DistributionSchool::Even, DistributionSchool::SideWeighted,
                                                        DistributionSchool::FlatFront})},
                  row::seldom(row::length(key::kCapSide, "Shape", "Intakes", "Most the side takes in each half", 2, 0.5,
                                          5, "for the schools that share out the drop"))),
    row::seldom(row::length(key::kCapOther, "Shape", "Intakes", "Most another line takes", 1.5, 0.5, 4,
                            "beyond, the cloth ripples and the bone twists")),
    row::length(key::kBustRounding, "Block", "Bust", "Bust point rounded over +/-", 0.75, 1, 1, 0.4, 1.25,
                "1/2 to 1 in above and below; more is rounder"),
    row::measured(row::seldom(row::length(key::kBustRoundingAbove, "Block", "Bust", "Rounded above over", 0.75, 1, 1,
                                          0.25, 1.25, "as below, where nothing else is chosen"))),
    row::measured(row::length(key::kDartSide, "Block", "Bust", "Side bust dart", 1, 1.5, 2, 0, 3.5,
                              "front waist length less back waist length; or 1, 1 1/2, 2 in by figure")),
};

}  // namespace armure
