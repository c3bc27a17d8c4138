// core/rules/line_rules.h
//
// What becomes of the panel lines of a section that need not be seams: of the front, of the back, of a skirt with a
// waist seam. The rows that choose it are in draft_rules.h and in the skirt's.
#pragma once

#include <array>

#include "rules/rule_row.h"

namespace armure {

enum class LinesAre { Seams, Darts, None };
inline constexpr std::array kBackLines{
    row::of(LinesAre::Seams, "seams", "seams", "the back is cut apart along its lines"),
    row::of(LinesAre::Darts, "darts", "sewn darts", "the back in one piece, what its lines take in sewn as darts"),
    row::of(LinesAre::None, "none", "not there", "a plain back: only the side takes in"),
};

namespace key {
inline constexpr OptionKey<LinesAre> kFrontLinesAre{"front.lines"};
inline constexpr OptionKey<LinesAre> kBackLinesAre{"back.lines"};
}  // namespace key

inline constexpr Condition kFrontIsSeamed = row::when(key::kFrontLinesAre, {LinesAre::Seams});
inline constexpr Condition kFrontTakesIn = row::when(key::kFrontLinesAre, {LinesAre::Seams, LinesAre::Darts});
inline constexpr Condition kBackTakesIn = row::when(key::kBackLinesAre, {LinesAre::Seams, LinesAre::Darts});

}  // namespace armure
