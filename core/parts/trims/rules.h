// core/parts/trims/rules.h
//
// What can be chosen of a strip, whatever it is sewn on as: how its fullness is taken up, how it is cut and lies on the
// cloth, what stiffens it. Frills, ruffles, sleeves that hang and bindings have rows of these. Common practice, no
// source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::strip {

enum class Drawn { Gathered, Knife, Box };
inline constexpr std::array kDrawn{
    row::of(Drawn::Gathered, "gathered", "gathered", "drawn up on a thread"),
    row::of(Drawn::Knife, "knife", "knife pleats", "all laid one way"),
    row::of(Drawn::Box, "box", "box pleats", "two knife pleats turned to each other"),
};

enum class PleatsLie { ToEnd, ToStart };
inline constexpr std::array kPleatsLie{
    row::of(PleatsLie::ToEnd, "to-end", "towards its end", "from where it begins to where it ends"),
    row::of(PleatsLie::ToStart, "to-start", "towards its start", "the other way"),
};

enum class StripCut { Single, Folded };
inline constexpr std::array kCut{
    row::of(StripCut::Single, "single", "single", "its free edge is hemmed"),
    row::of(StripCut::Folded, "folded", "double", "cut twice as deep and folded along its free edge"),
};

enum class Grain { Across, Along, Bias };
inline constexpr std::array kGrain{
    row::of(Grain::Across, "across", "across the cloth", "strips from selvedge to selvedge"),
    row::of(Grain::Along, "along", "along the cloth", "few joins, for little cloth"),
    row::of(Grain::Bias, "bias", "on the bias", "falls softer, needs most cloth"),
};

enum class Stiff { None, Interfaced, Braid, Both };
inline constexpr std::array kStiff{
    row::of(Stiff::None, "none", "no", "soft"),
    row::of(Stiff::Interfaced, "interfaced", "interfaced", "light interfacing over its finished depth"),
    row::of(Stiff::Braid, "braid", "braid in the edge", "horsehair or stiffening braid along the free edge"),
    row::of(Stiff::Both, "both", "interfaced, braided", "interfacing, and braid along the free edge"),
};
constexpr bool isInterfaced(Stiff stiff) { return stiff == Stiff::Interfaced || stiff == Stiff::Both; }
constexpr bool hasBraid(Stiff stiff) { return stiff == Stiff::Braid || stiff == Stiff::Both; }

inline constexpr OptionKey<Drawn> kHow{"how"};
inline constexpr NumberKey kFull{"full"};
inline constexpr LengthKey kDeep{"deep"};
inline constexpr OptionKey<StripCut> kCutAs{"cut"};
inline constexpr LengthKey kPleat{"pleat"};
inline constexpr NumberKey kPleats{"pleats"};
inline constexpr OptionKey<PleatsLie> kLie{"lie"};
inline constexpr OptionKey<Grain> kGrainLies{"grain"};
inline constexpr OptionKey<Stiff> kStiffened{"stiff"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr Condition kIsPleated = row::when(kHow, {Drawn::Knife, Drawn::Box});

// Rows that are alike wherever a strip is pleated; `group` is the kind's own word.
constexpr RuleInfo pleatRow(std::string_view group) {
  return row::onlyWhen({kIsPleated},
                       row::length(kPleat, "Lines", group, "Pleats, deep", 1, 0.125, 6, "what one fold lies under"));
}
constexpr RuleInfo pleatsRow(std::string_view group) {
  return row::onlyWhen({kIsPleated},
                       row::number(kPleats, "Lines", group, "Pleats", 0, 0, 999,
                                   "how many in all; 0: as many as make it so full, each a little deeper or less"));
}
constexpr RuleInfo lieRow(std::string_view group) {
  return row::onlyWhen({row::when(kHow, {Drawn::Knife})},
                       row::option(kLie, "Lines", group, "Pleats lie", kPleatsLie,
                                   "which way: the double notch is where each fold is laid to"));
}
constexpr RuleInfo grainRow(std::string_view group) {
  return row::option(kGrainLies, "Lines", group, "Grain", kGrain, "how its strips lie on the cloth");
}

}  // namespace armure::strip
