// core/parts/edging/rules.h
//
// What can be chosen of what lies along an edge or in a seam without fullness: a bias binding or facing, piping, a
// bought lace, braid or ribbon. Rows of the table of trims (rules/trims.h). Lengths in inches. Common practice, no
// source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::edging {

enum class EdgingKind { Binding, BiasFacing, Piping, Lace, Braid, Ribbon };
inline constexpr std::array kEdgings{
    row::of(EdgingKind::Binding, "binding", "bias binding", "folded round the edge: cut four times as wide"),
    row::of(EdgingKind::BiasFacing, "facing", "bias facing", "turned to the inside: for a neck, a keyhole"),
    row::of(EdgingKind::Piping, "piping", "piping", "round a cord, caught in the seam"),
    row::of(EdgingKind::Lace, "lace", "lace edging", "bought by length"),
    row::of(EdgingKind::Braid, "braid", "stiffening braid", "horsehair or crinoline, bought by length"),
    row::of(EdgingKind::Ribbon, "ribbon", "ribbon", "a stay or a trim, bought by length"),
};

inline constexpr OptionKey<EdgingKind> kWhat{"what"};
inline constexpr LengthKey kWide{"wide"};
inline constexpr LengthKey kCord{"cord"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kEnds{"ends"};

inline constexpr Condition kOfCloth = row::when(kWhat, {EdgingKind::BiasFacing, EdgingKind::Piping});

inline constexpr std::array kRows{
    row::option(kWhat, "Lines", "Edging", "What", kEdgings, "what lies along it"),
    row::onlyWhen({row::when(kWhat, {EdgingKind::Binding, EdgingKind::BiasFacing, EdgingKind::Lace, EdgingKind::Braid,
                                     EdgingKind::Ribbon})},
                  row::length(kWide, "Lines", "Edging", "Wide", 0.375, 0.125, 6, "finished")),
    row::onlyWhen({row::when(kWhat, {EdgingKind::Piping})},
                  row::length(kCord, "Lines", "Edging", "Cord, thick", 0.125, 0.0625, 0.5, "its diameter")),
    row::onlyWhen({kOfCloth}, row::length(kSeam, "Lines", "Edging", "Seam allowance", 0.375, 0.125, 1,
                                          "where it is sewn; a facing is turned under by as much")),
    row::length(kEnds, "Lines", "Edging", "To turn in", 0.5, 0, 2, "at either end"),
};

}  // namespace armure::edging
