// core/parts/frill/rules.h
//
// What can be chosen of a frill: a strip gathered or pleated to the edge it is sewn to. Rows of the table of trims
// (rules/trims.h). Lengths in inches, as makers think of them. Common practice, no source.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure::frill {

enum class Drawn { Gathered, Knife, Box };
inline constexpr std::array kDrawn{
    row::of(Drawn::Gathered, "gathered", "gathered", "drawn up on a thread"),
    row::of(Drawn::Knife, "knife", "knife pleats", "all laid one way"),
    row::of(Drawn::Box, "box", "box pleats", "two knife pleats turned to each other"),
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

enum class Stiff { None, Interfaced, Braid };
inline constexpr std::array kStiff{
    row::of(Stiff::None, "none", "no", "soft"),
    row::of(Stiff::Interfaced, "interfaced", "interfaced", "light interfacing over its finished depth"),
    row::of(Stiff::Braid, "braid", "braid in the edge", "horsehair or stiffening braid along the free edge"),
};

inline constexpr OptionKey<Drawn> kHow{"how"};
inline constexpr NumberKey kFull{"full"};
inline constexpr LengthKey kDeep{"deep"};
inline constexpr LengthKey kHead{"head"};
inline constexpr OptionKey<StripCut> kCutAs{"cut"};
inline constexpr LengthKey kPleat{"pleat"};
inline constexpr NumberKey kPleats{"pleats"};
inline constexpr OptionKey<Grain> kGrainLies{"grain"};
inline constexpr OptionKey<Stiff> kStiffened{"stiff"};
inline constexpr LengthKey kSeam{"seam"};
inline constexpr LengthKey kHem{"hem"};

inline constexpr std::array kRows{
    row::option(kHow, "Lines", "Frill", "How", kDrawn, "how its fullness is taken up"),
    row::number(kFull, "Lines", "Frill", "Full", 2.5, 1, 6, "so many times the edge it is sewn to: 2 to 3"),
    row::length(kDeep, "Lines", "Frill", "Deep", 3, 0.5, 48, "finished, from the line it is sewn along to its edge"),
    row::length(kHead, "Lines", "Frill", "Heading", 0, 0, 6, "above the line it is sewn along: two free edges"),
    row::option(kCutAs, "Lines", "Frill", "Cut", kCut, "single, or double and folded"),
    row::onlyWhen({row::when(kHow, {Drawn::Knife, Drawn::Box})},
                  row::length(kPleat, "Lines", "Frill", "Pleats, deep", 1, 0.125, 6, "what one fold lies under")),
    row::onlyWhen({row::when(kHow, {Drawn::Knife, Drawn::Box})},
                  row::number(kPleats, "Lines", "Frill", "Pleats", 0, 0, 999,
                              "how many in all; 0: as many as make it so full, each a little deeper or less")),
    row::option(kGrainLies, "Lines", "Frill", "Grain", kGrain, "how its strips lie on the cloth"),
    row::option(kStiffened, "Lines", "Frill", "Stiffened", kStiff, "so that it stands"),
    row::length(kSeam, "Lines", "Frill", "Seam allowance", 0.5, 0, 2, "where it is sewn on, and where strips join"),
    row::length(kHem, "Lines", "Frill", "Hem allowance", 0.5, 0, 4, "at its free edges"),
};

}  // namespace armure::frill
