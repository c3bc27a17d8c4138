// core/parts/inserts/rules.h
//
// What can be chosen of sheer inserts. Kinds as enumerations with their words, typed keys, and rows of the rule table.
// Lengths in inches, as makers think of them.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure {

enum class InsertKind { None, Centre, Shoulder, Both };
inline constexpr std::array kInserts{
    row::of(InsertKind::None, "none", "none", "cloth throughout"),
    row::of(InsertKind::Centre, "centre", "at the centre front",
            "a strip beside the centre front, from the upper edge to the hem"),
    row::of(InsertKind::Shoulder, "shoulder", "at the shoulder", "the outer part of a covered shoulder"),
    row::of(InsertKind::Both, "both", "at both", "at the centre front and at the shoulder"),
};

namespace key {
inline constexpr OptionKey<InsertKind> kInsertKind{"insert.kind"};
inline constexpr LengthKey kInsertTop{"insert.top"};
inline constexpr LengthKey kInsertHem{"insert.hem"};
inline constexpr LengthKey kInsertShoulder{"insert.shoulder"};
}  // namespace key

inline constexpr std::array kInsertRules{
    row::option(key::kInsertKind, "Lines", "Inserts", "Sheer inserts", kInserts, "of net, doubled, or of lace"),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both})},
                  row::length(key::kInsertTop, "Lines", "Inserts", "At the centre, wide above", 1.5, 0.5, 3,
                              "from the centre, each half")),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Centre, InsertKind::Both})},
                  row::length(key::kInsertHem, "Lines", "Inserts", "At the centre, wide below", 1.125, 0.375, 3,
                              "from the centre, each half")),
    row::onlyWhen({row::when(key::kInsertKind, {InsertKind::Shoulder, InsertKind::Both})},
                  row::length(key::kInsertShoulder, "Lines", "Inserts", "At the shoulder, wide", 1.25, 0.75, 3,
                              "from the shoulder point in; needs covered shoulders")),
};

}  // namespace armure
