// core/parts/inserts/rules.h
//
// What can be chosen of sheer inserts. Kinds as enumerations with their words, typed keys, and rows of the rule table.
// Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "parts/yoke/rules.h"
#include "rules/draft_rules.h"
#include "rules/rule_row.h"

namespace armure {

// A cut cup leaves the centre front to an insert only where the front goes on above it.
inline constexpr Condition kBustInSeam = row::when(key::kCupKind, {CupKind::Princess});
// What leaves the shoulder to an insert.
inline constexpr Condition kShoulderCovered = row::when(key::kCoverKind, {CoverKind::Covered});

enum class InsertKind { None, Centre, Shoulder, Both };
inline constexpr std::array kInserts{
    row::of(InsertKind::None, "none", "none", "cloth throughout"),
    row::needingOne({kBustInSeam, kShoulderCovered},
                    row::of(InsertKind::Centre, "centre", "at the centre front",
                            "a strip beside the centre front, from the upper edge to the hem")),
    row::needing({kShoulderCovered},
                 row::of(InsertKind::Shoulder, "shoulder", "at the shoulder", "the outer part of a covered shoulder")),
    row::needing({kShoulderCovered},
                 row::of(InsertKind::Both, "both", "at both", "at the centre front and at the covered shoulder")),
};

// How far down the strip at the centre front reaches.
enum class InsertEnd { Hem, Point };
inline constexpr std::array kInsertEnds{
    row::of(InsertEnd::Hem, "hem", "to the hem", "a strip from the upper edge to the hem"),
    row::of(InsertEnd::Point, "point", "in a point", "a wedge on the fold, from the upper edge to a point"),
};

// What of the shoulder an insert there takes.
enum class ShoulderInsert { Armhole, Wedge };
inline constexpr std::array kShoulderInserts{
    row::of(ShoulderInsert::Armhole, "armhole", "beside the armhole", "the outer part, front and back"),
    row::needing({kShoulderCovered, row::when(key::kYokeFront, {YokeKind::None}),
                  row::when(key::kPrincessAbove, {LineEnd::Shoulder}), kFrontIsSeamed},
                 row::of(ShoulderInsert::Wedge, "wedge", "a wedge",
                         "in front, across the princess line closed up to the shoulder, narrowing downwards")),
};

namespace key {
inline constexpr OptionKey<InsertKind> kInsertKind{"insert.kind"};
inline constexpr OptionKey<InsertEnd> kInsertEnd{"insert.end"};
inline constexpr LengthKey kInsertPoint{"insert.point"};
inline constexpr LengthKey kInsertTop{"insert.top"};
inline constexpr LengthKey kInsertHem{"insert.hem"};
inline constexpr OptionKey<ShoulderInsert> kInsertShoulderAs{"insert.shoulder_as"};
inline constexpr LengthKey kInsertShoulderLong{"insert.shoulder_long"};
inline constexpr LengthKey kInsertShoulder{"insert.shoulder"};
}  // namespace key

inline constexpr std::array kInsertRules{
    row::option(key::kInsertKind, "Lines", "Inserts", "Sheer inserts", kInserts, "of net, doubled, or of lace"),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both})},
                  row::length(key::kInsertTop, "Lines", "Inserts", "At the centre, wide above", 1.5, 0.5, 3,
                              "from the centre, each half")),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both})},
                  row::seldom(row::option(key::kInsertEnd, "Lines", "Inserts", "At the centre, it ends", kInsertEnds,
                                          "how far down it reaches"))),
    row::andWhen(row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both}),
                 row::onlyWhen({row::when(key::kInsertEnd, {InsertEnd::Point})},
                               row::length(key::kInsertPoint, "Lines", "Inserts", "Point above the underbust", 1, -3, 4,
                                           "1 in above it"))),
    row::andWhen(row::when(key::kInsertEnd, {InsertEnd::Hem}),
                 row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both})},
                               row::length(key::kInsertHem, "Lines", "Inserts", "At the centre, wide below", 1.125,
                                           0.375, 3, "from the centre, each half"))),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Shoulder, InsertKind::Both})},
                  row::seldom(row::option(key::kInsertShoulderAs, "Lines", "Inserts", "At the shoulder",
                                          kShoulderInserts, "what of the shoulder is sheer"))),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Shoulder, InsertKind::Both})},
                  row::length(key::kInsertShoulder, "Lines", "Inserts", "At the shoulder, wide", 1.25, 0.75, 3,
                              "from the shoulder point in, or a wedge's upper edge; needs covered shoulders")),
    row::andWhen(row::when(key::kInsertKind, {InsertKind::Shoulder, InsertKind::Both}),
                 row::onlyWhen({row::when(key::kInsertShoulderAs, {ShoulderInsert::Wedge})},
                               row::length(key::kInsertShoulderLong, "Lines", "Inserts", "Wedge at the shoulder, long",
                                           6, 2.5, 8, "6 in, above the bust point"))),
};

}  // namespace armure
