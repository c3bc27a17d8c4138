// core/parts/opening/rules.h
//
// What can be chosen of the openings and what lies behind them. Kinds as enumerations with their words, typed keys,
// and rows of the rule table. Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure {

enum class OpeningKind { Zip, Lacing, VLacing, Loops, Seam, Fold, Busk, Hooks, VLoops, ZipLaced };
namespace key {
inline constexpr OptionKey<OpeningKind> kOpeningKind{"opening.kind"};
inline constexpr OptionKey<OpeningKind> kOpeningFront{"opening.front"};
}  // namespace key

// One gets in on one side at least.
inline constexpr Condition kOpenInFront =
    row::when(key::kOpeningFront, {OpeningKind::Zip, OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops,
                                   OpeningKind::Busk, OpeningKind::Hooks, OpeningKind::VLoops, OpeningKind::ZipLaced});
inline constexpr Condition kOpenBehind =
    row::when(key::kOpeningKind, {OpeningKind::Zip, OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops,
                                  OpeningKind::VLoops, OpeningKind::ZipLaced});

inline constexpr std::array kBackOpenings{
    row::of(OpeningKind::Zip, "zip", "zip",
            "closed edge to edge; the centre back is taken in at the waist so that the zip does not stand off"),
    row::of(OpeningKind::Lacing, "lacing", "lacing", "a straight gap, part of the finished girth"),
    row::of(OpeningKind::VLacing, "v-lacing", "lacing in a V", "a gap of one width at the top and another at the hem"),
    row::of(OpeningKind::Loops, "loops", "loops", "laced through loops sewn into the edge; a straight gap"),
    row::of(OpeningKind::VLoops, "v-loops", "loops in a V",
            "loops, with a gap of one width at the top and another below"),
    row::of(OpeningKind::ZipLaced, "zip-laced", "zip, lacing over it",
            "the zip closes it edge to edge; lacing over it in the same edges takes the load"),
    row::needing({kOpenInFront},
                 row::of(OpeningKind::Seam, "seam", "sewn closed", "a centre back seam; the opening is in front")),
    row::needing({kOpenInFront}, row::of(OpeningKind::Fold, "fold", "on the fold", "no seam; the opening is in front")),
};

inline constexpr std::array kFrontOpenings{
    row::needing({kOpenBehind}, row::of(OpeningKind::Fold, "fold", "on the fold",
                                        "no seam at the centre front; the opening is behind")),
    row::needing({kOpenBehind}, row::of(OpeningKind::Seam, "seam", "sewn closed",
                                        "a centre front seam, which can take in a little at the waist, or a dart; the "
                                        "opening is behind")),
    row::of(OpeningKind::Busk, "busk", "busk",
            "two stiff straight strips with studs and loops: the edge stays straight"),
    row::of(OpeningKind::Hooks, "hooks", "hook tape", "hooks and eyes on a tape; straight and stiffened"),
    row::of(OpeningKind::Zip, "zip", "zip", "closed edge to edge"),
    row::of(OpeningKind::Lacing, "lacing", "lacing", "a straight gap, part of the finished girth"),
    row::of(OpeningKind::VLacing, "v-lacing", "lacing in a V", "a gap of one width at the top and another at the hem"),
    row::of(OpeningKind::Loops, "loops", "loops", "laced through loops sewn into the edge; a straight gap"),
    row::of(OpeningKind::VLoops, "v-loops", "loops in a V",
            "loops, with a gap of one width at the top and another below"),
    row::of(OpeningKind::ZipLaced, "zip-laced", "zip, lacing over it",
            "the zip closes it edge to edge; lacing over it in the same edges takes the load"),
};

enum class OpeningEnd { ByLength, Hem, Hip, HighHip, Waist };
inline constexpr std::array kOpeningEnds{
    row::of(OpeningEnd::ByLength, "by-length", "by the length",
            "at the hem; over a skirt at the hip, which one gets into it through"),
    row::of(OpeningEnd::Hem, "hem", "at the hem", "open all the way down"),
    row::of(OpeningEnd::Hip, "hip", "at the hip", "the seam below is sewn"),
    row::of(OpeningEnd::HighHip, "high-hip", "at the high hip", "the seam below is sewn"),
    row::of(OpeningEnd::Waist, "waist", "at the waist",
            "the seam below is sewn; for a skirt that is wide enough to step into"),
};

enum class ModestyKind { None, Panel };
inline constexpr std::array kModesty{
    row::of(ModestyKind::None, "none", "none", "where the gap may show"),
    row::of(ModestyKind::Panel, "panel", "a modesty panel", "as wide as the gap and the overlap"),
};

namespace key {
inline constexpr OptionKey<OpeningEnd> kOpeningEnd{"opening.end"};
inline constexpr LengthKey kOpeningStart{"opening.start"};
inline constexpr LengthKey kOpeningGap{"opening.gap"};
inline constexpr LengthKey kOpeningGapTop{"opening.gap_top"};
inline constexpr LengthKey kOpeningGapHem{"opening.gap_hem"};
inline constexpr LengthKey kOpeningFrontTop{"opening.front_top"};
inline constexpr LengthKey kOpeningFrontHem{"opening.front_hem"};
inline constexpr OptionKey<ModestyKind> kModestyKind{"modesty.kind"};
inline constexpr LengthKey kModestyOverlap{"modesty.overlap"};
}  // namespace key

inline constexpr std::array kOpeningRules{
    row::option(key::kOpeningKind, "Lines", "Opening", "At the back", kBackOpenings, "how the bodice is closed behind"),
    row::option(key::kOpeningFront, "Lines", "Opening", "At the front", kFrontOpenings,
                "how the bodice is closed in front"),
    row::onlyWhen({kOpenBehind, kOpenInFront}, row::option(key::kOpeningEnd, "Lines", "Opening", "It ends",
                                                           kOpeningEnds, "below, the seam is sewn")),
    row::onlyWhen({kOpenBehind, kOpenInFront},
                  row::seldom(row::length(key::kOpeningStart, "Lines", "Opening", "It begins below the shoulder line",
                                          0, 0, 24, "nothing: at the upper edge; lower, the seam above it is sewn"))),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::Lacing, OpeningKind::Loops}),
                   row::when(key::kOpeningFront, {OpeningKind::Lacing, OpeningKind::Loops})},
                  row::length(key::kOpeningGap, "Lines", "Opening", "Straight gap, both sides", 2, 0.5, 5,
                              "lacing or loops: 2 in; part of the finished girth")),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::VLacing, OpeningKind::VLoops}),
                   row::when(key::kOpeningFront, {OpeningKind::VLacing, OpeningKind::VLoops})},
                  row::length(key::kOpeningGapTop, "Lines", "Opening", "V gap at the top", 6, 0.5, 10,
                              "lacing or loops in a V, both sides together: 6 in at the top")),
    row::onlyWhen({row::when(key::kOpeningKind, {OpeningKind::VLacing, OpeningKind::VLoops}),
                   row::when(key::kOpeningFront, {OpeningKind::VLacing, OpeningKind::VLoops})},
                  row::length(key::kOpeningGapHem, "Lines", "Opening", "V gap at the hem", 4, 0.5, 10,
                              "lacing or loops in a V, both sides together: 4 in at the hem")),
    row::onlyWhen(
        {row::when(key::kOpeningFront, {OpeningKind::VLacing, OpeningKind::VLoops})},
        row::following(key::kOpeningGapTop,
                       row::length(key::kOpeningFrontTop, "Lines", "Opening", "V gap in front, at the top", 3, 0.5, 10,
                                   "3 in, so that a panel is left beside it; as above, where that was chosen"))),
    row::onlyWhen({row::when(key::kOpeningFront, {OpeningKind::VLacing, OpeningKind::VLoops})},
                  row::following(key::kOpeningGapHem,
                                 row::length(key::kOpeningFrontHem, "Lines", "Opening", "V gap in front, at the hem", 2,
                                             0.5, 10, "2 in; as above, where that was chosen"))),
    row::onlyWhen({row::when(key::kOpeningKind,
                             {OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops, OpeningKind::VLoops}),
                   row::when(key::kOpeningFront,
                             {OpeningKind::Lacing, OpeningKind::VLacing, OpeningKind::Loops, OpeningKind::VLoops})},
                  row::option(key::kModestyKind, "Lines", "Opening", "Behind the lacing", kModesty,
                              "covers what the gap leaves open")),
    row::onlyWhen({row::when(key::kModestyKind, {ModestyKind::Panel})},
                  row::length(key::kModestyOverlap, "Lines", "Opening", "Panel wider than the gap", 2, 0.5, 6, "2 in")),
};

}  // namespace armure
